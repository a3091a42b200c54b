import { expect, test } from "@jest/globals";
import { measureText } from "~core/quantity";
import { readTorque } from "./torque-line";

test.each<[line: string, unit: string, torque: string | null]>([
  ["12.4", "N·m", "12.4 N·m"],
  ["TQ 0042 12,4 Nm", "lbf·ft", "12.4 N·m"],
  ["9.1 ft-lb", "N·m", "9.1 lbf·ft"],
  ["50 in.lbs", "N·m", "50 lbf·in"],
  ["P3: 118 N.cm OK", "N·m", "118 N·cm"],
  ["0.0 Nm", "N·m", null],
  ["12 bar", "N·m", null],
  ["ready", "N·m", null],
  ["", "N·m", null],
])("a wrench that writes “%s” where %s is wanted", (line, unit, torque) => {
  const read = readTorque(line, unit);
  expect(read && measureText(read)).toBe(torque);
});
