import { expect, test } from "@jest/globals";
import type { Measurement } from "../book";
import { isBeyondStop } from "./index";

const LINE: Measurement = {
  id: "line",
  name: "Line pressure",
  kind: "pressure",
  min: "4.2 bar",
  max: "5.2 bar",
  stop: { below: "2.5 bar" },
};
const WARM: Measurement = {
  id: "warm",
  name: "Fluid",
  kind: "temperature",
  max: "100 °C",
  stop: { above: "130 °C" },
};
const read = (text: string, standing: "outside" | "inside" | "said" = "outside") =>
  ({ standing, text, cannot: null, readings: [], assessment: null }) as unknown as Parameters<
    typeof isBeyondStop
  >[1]["built"];
const figure = (measurement: Measurement, text: string, standing?: "outside" | "inside" | "said"): boolean =>
  isBeyondStop(measurement, { built: read(text, standing), items: [] });

test.each<[string, Measurement, string, boolean]>([
  ["below where it is stopped", LINE, "2.4 bar", true],
  ["at it", LINE, "2.5 bar", false],
  ["outside, and above it", LINE, "4.0 bar", false],
  ["in another unit", LINE, "36 psi", true],
  ["just above, in another unit", LINE, "36.3 psi", false],
  ["above where it is stopped", WARM, "131 °C", true],
  ["in Fahrenheit", WARM, "265 °F", false],
  ["no limit", { ...LINE, stop: undefined }, "0 bar", false],
])("%s", (_name, measurement, text, beyond) => expect(figure(measurement, text)).toBe(beyond));

test("what is no figure stops nothing; of several things one is enough", () => {
  expect(figure(LINE, "felt only", "said")).toBe(false);
  const items = ["4.4 bar", "2.0 bar"].map((text, i) => ({
    item: { name: `${i}` },
    found: read("", "said"),
    built: read(text, i === 0 ? "inside" : "outside"),
  }));
  expect(isBeyondStop(LINE, { built: read("2.0 bar, 1"), items })).toBe(true);
});
