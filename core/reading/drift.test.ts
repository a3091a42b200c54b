import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { drift } from "./index";

const run = (...values: number[]) =>
  drift(
    values.map((value) => value * 1_000),
    10_000,
  );

test.each([
  ["nothing", [], "none"],
  ["three rising are chance", [1100, 1150, 1200], "none"],
  ["four rising by several steps", [1100, 1140, 1190, 1220], "creeping"],
  ["four rising within the gauge's step", [1100, 1110, 1110, 1120], "none"],
  ["scatter", [1220, 1200, 1230, 1210, 1220], "none"],
  ["falling is not settling", [1220, 1190, 1160, 1130], "none"],
  ["a single low beginning is a stray", [1100, 1220, 1230, 1220], "none"],
] as const)("%s", (_name, values, kind) => {
  expect(run(...values).kind).toBe(kind);
});

test("sets aside the rising beginning and keeps what stands", () => {
  expect(run(1100, 1150, 1220, 1230, 1220, 1210)).toEqual({ kind: "settled", from: 2 });
});

test("a gauge step that repeats a reading within the rise does not hide it", () => {
  expect(run(1340, 1370, 1370, 1390, 1400, 1390, 1390)).toEqual({ kind: "settled", from: 3 });
});

test("never sets aside so many that fewer than three stand", () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 0, max: 2_000_000 }), { maxLength: 14 }), (values) => {
      const found = drift(values, 10_000);
      if (found.kind === "settled") expect(values.length - found.from).toBeGreaterThanOrEqual(3);
    }),
    { seed: 7, numRuns: 3_000 },
  );
});
