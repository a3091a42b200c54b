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
  ["a rise whose last three still rise", [1000, 1090, 1160, 1200, 1240], "creeping"],
  ["an even rise", [1000, 1040, 1080, 1120, 1160, 1200, 1240, 1280, 1320], "creeping"],
  [
    "an even rise of a gauge step each",
    [1000, 1010, 1020, 1030, 1040, 1050, 1060, 1070, 1080, 1090, 1100],
    "creeping",
  ],
  ["a rise after which only two stand", [1100, 1150, 1190, 1230, 1220], "creeping"],
  ["a rise that turns out to have been scatter", [1100, 1150, 1190, 1230, 1120], "none"],
  ["a slowing rise that still rises", [1000, 1090, 1160, 1180, 1190], "creeping"],
] as const)("%s", (_name, values, kind) => {
  expect(run(...values).kind).toBe(kind);
});

test("sets aside the rising beginning and keeps what stands", () => {
  expect(run(1100, 1150, 1220, 1230, 1220, 1210)).toEqual({ kind: "settled", from: 2 });
});

test("a gauge step that repeats a reading within the rise does not hide it", () => {
  expect(run(1340, 1370, 1370, 1390, 1400, 1390, 1390)).toEqual({ kind: "settled", from: 3 });
});

test("keeps no part of the rise", () => {
  expect(run(1000, 1090, 1160, 1240, 1240, 1250, 1240)).toEqual({ kind: "settled", from: 3 });
});

test("what it keeps does not rise, whatever came before", () => {
  /** A pack that settles by a share of what is left each time, read with a gauge of 10 µm that scatters. */
  const settling = fc.record({
    lag: fc.integer({ min: 40, max: 400 }),
    share: fc.integer({ min: 5, max: 80 }),
    scatter: fc.array(fc.integer({ min: -15, max: 15 }), { minLength: 5, maxLength: 14 }),
  });
  fc.assert(
    fc.property(settling, ({ lag, share, scatter }) => {
      const values = scatter.map(
        (off, i) => Math.round((1_300 - lag * (1 - share / 100) ** i + off) / 10) * 10,
      );
      const found = run(...values);
      if (found.kind !== "settled") return;
      const kept = values.slice(found.from);
      const rises = kept.every((value, i) => i === 0 || value >= (kept[i - 1] ?? 0));
      if (rises) expect((kept.at(-1) ?? 0) - (kept[0] ?? 0)).toBeLessThanOrEqual(30);
      kept.slice(0, -1).forEach((value, i) => {
        expect(Math.min(...kept.slice(i + 1)) - value).toBeLessThanOrEqual(30);
      });
    }),
    { seed: 11, numRuns: 5_000 },
  );
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
