import { parseMeasure, type Measure } from "~core/quantity";

/** Units as instruments write them. */
const UNITS: readonly [RegExp, string][] = [
  [/^n[·.*]?cm$/i, "N·cm"],
  [/^n[·.*]?m$/i, "N·m"],
  [/^(lbf?s?[·.-]?ft|ft[·.-]?lbf?s?)$/i, "lbf·ft"],
  [/^(lbf?s?[·.-]?in|in[·.-]?lbf?s?)$/i, "lbf·in"],
];

/**
 * A torque from a line of a wrench: the last figure in it with the unit after it, or a bare figure in the unit the place is tightened in.
 *
 * @returns null where the line holds no torque above nothing.
 */
export function readTorque(line: string, unit: string): Measure<"torque"> | null {
  const found = [...line.matchAll(/(\d*[.,]?\d+)\s*([a-z][a-z·.*-]*)?/gi)].at(-1);
  if (!found) return null;
  const [, figure = "", own = ""] = found;
  const known = own === "" ? unit : UNITS.find(([like]) => like.test(own))?.[1];
  if (known === undefined) return null;
  const parsed = parseMeasure(`${figure} ${known}`, "torque");
  return parsed.ok && Number(parsed.measure.figure) > 0 ? parsed.measure : null;
}
