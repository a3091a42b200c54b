import { describe, expect, it, test } from "@jest/globals";
import fc from "fast-check";
import {
  exactLength,
  lengthOf,
  lengthText,
  NM_PER,
  nm,
  parseLength,
  roundedText,
  showLength,
  signedText,
  type LengthUnit,
} from "./index";

const SEED = { seed: 20_261_123, numRuns: 2_000 };
const UNITS: LengthUnit[] = ["mm", "in", "thou", "µm"];

describe("parseLength", () => {
  test.each([
    [".043", "in", 1_092_200],
    ["43 thou", "mm", 1_092_200],
    ["1.09", "mm", 1_090_000],
    ["1.09mm", "in", 1_090_000],
    ["1,09", "mm", 1_090_000],
    ['0.043"', "mm", 1_092_200],
    [".5 IN", "mm", 12_700_000],
    ["12", "thou", 304_800],
    ["1090", "µm", 1_090_000],
    ["1090 um", "mm", 1_090_000],
    ["-0.06 mm", "mm", -60_000],
    ["−0.06", "mm", -60_000],
    ["+0.03 mm", "mm", 30_000],
    ["  2.  ", "mm", 2_000_000],
    ["0", "mm", 0],
    ["-0", "mm", 0],
    ["3/64", "in", 1_190_625],
    ["3/64 in", "mm", 1_190_625],
    ['1 3/64"', "mm", 26_590_625],
    ["1-3/64 in", "mm", 26_590_625],
    ["-1/2 in", "mm", -12_700_000],
    ["43 thousandths", "mm", 1_092_200],
    ["0.043″", "mm", 1_092_200],
    ["0.043”", "mm", 1_092_200],
    ["0.043’’", "mm", 1_092_200],
    ["0.043''", "mm", 1_092_200],
    ["–0.06", "mm", -60_000],
    ["- 0.06", "mm", -60_000],
    ["0,043 in", "mm", 1_092_200],
    ["1234,567 µm", "mm", 1_234_567],
    ["1,09", "mm", 1_090_000],
    ["1,0900", "mm", 1_090_000],
  ] as const)("%s in a field of %s is %d nm", (text, unit, expected) => {
    const parsed = parseLength(text, unit);
    expect(parsed.ok && parsed.length).toBe(expected);
  });

  test.each([
    ["", "nothing was typed"],
    ["abc", "no digits"],
    [".", "no digits"],
    ["mm", "no digits"],
    ["1.2.3", "not a length"],
    ["1.09 furlong", "is not a unit"],
    ["1 2", "not a length"],
    ["1e3", "not a length"],
    ["0.0000001", "more decimals"],
    ["99999999 mm", "ten metres"],
    ["NaN", "has no digits"],
    ["1,234 µm", "can be 1.234 or 1234"],
    ["1,000 thou", "can be 1.000 or 1000"],
    ["1,090", "can be 1.090 or 1090"],
    ["-12,500 mm", "can be 12.500 or 12500"],
    ["3/64 mm", "only inches are written as fractions"],
    ["3/64", "only inches are written as fractions"],
    ["3/60 in", "no rule is divided into 60"],
    ["1/0 in", "no rule is divided into 0"],
    ["1 constructor", "not a unit"],
    ["1 toString", "not a unit"],
    ["1 __proto__", "not a"],
    ["0.40/0.45", "not a length"],
  ])("%p is refused with a remedy", (text, words) => {
    const parsed = parseLength(text, "mm");
    expect(parsed.ok).toBe(false);
    if (parsed.ok) return;
    expect(parsed.problem).toContain(words);
    expect(parsed.remedy).not.toBe("");
  });

  it("never throws", () => {
    fc.assert(
      fc.property(fc.string(), fc.constantFrom(...UNITS), (text, unit) => {
        expect(typeof parseLength(text, unit).ok).toBe("boolean");
      }),
      SEED,
    );
  });
});

/** Without the zeros that say nothing. */
const trimmed = (figure: string): string => (figure.includes(".") ? figure.replace(/\.?0+$/, "") : figure);

describe("showing", () => {
  it("gives back the digits that were typed in the unit they were typed in", () => {
    const decimals = { mm: 4, in: 5, thou: 2, µm: 1 } as const;
    fc.assert(
      fc.property(fc.nat(99), fc.nat(99_999), fc.constantFrom(...UNITS), (whole, part, unit) => {
        const digits = String(part).padStart(5, "0").slice(0, decimals[unit]);
        const typed = `${whole}.${digits}`;
        const parsed = parseLength(typed, unit);
        if (!parsed.ok) throw new Error(parsed.problem);
        const shown = showLength(parsed.length, unit);
        expect(shown.exact).toBe(true);
        expect(trimmed(shown.figure)).toBe(trimmed(typed));
      }),
      SEED,
    );
  });

  it("rounds as rational arithmetic does", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -30_000_000, max: 30_000_000 }),
        fc.constantFrom(...UNITS),
        fc.nat(4),
        (value, unit, decimals) => {
          // The oracle: value·10^d / per, halves away from zero, in whole numbers only.
          const scaled = BigInt(Math.abs(value)) * 10n ** BigInt(decimals) * 2n;
          const per = BigInt(NM_PER[unit]) * 2n;
          let quotient = scaled / per;
          if ((scaled % per) * 2n >= per) quotient += 1n;
          const figure = roundedText(nm(value), unit, decimals).split(" ")[0] ?? "";
          const least = { mm: 2, in: 3, thou: 0, µm: 0 }[unit];
          if (decimals < least) return;
          expect(BigInt(figure.replace(".", "").replace("−", ""))).toBe(quotient);
        },
      ),
      SEED,
    );
  });

  test.each([
    [1_092_200, "mm", "1.0922 mm"],
    [1_092_200, "in", "0.043 in"],
    [1_090_000, "in", "≈0.0429 in"],
    [-60_000, "mm", "−0.06 mm"],
    [0, "mm", "0.00 mm"],
    [1_092_200, "thou", "43 thou"],
  ] as const)("%d nm in %s is %s", (value, unit, text) => {
    expect(lengthText(nm(value), unit)).toBe(text);
  });

  it("signs differences and never shows minus nothing", () => {
    expect(signedText(nm(30_000), "mm")).toBe("+0.030 mm");
    expect(signedText(nm(-30_000), "mm")).toBe("−0.030 mm");
    expect(signedText(nm(-3), "mm")).toBe("0.000 mm");
  });
});

describe("lengthOf and nm", () => {
  it("wants the unit", () => {
    expect(() => lengthOf("1.8")).toThrow('"1.8" has no unit; write "1.8 mm"');
    expect(lengthOf("1.80 mm")).toBe(1_800_000);
  });
  it("refuses what is no whole number of nanometres", () => {
    expect(() => nm(0.5)).toThrow(RangeError);
    expect(() => nm(Number.NaN)).toThrow(RangeError);
    expect(() => nm(1e11)).toThrow(RangeError);
  });
});

it("writes any length exactly, in the unit in view where that can, and never rounded", () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 400_000_000 }), fc.constantFrom("mm", "in"), (length, unit) => {
      const { figure, unit: written } = exactLength(nm(length), unit);
      expect(lengthOf(`${figure} ${written}`)).toBe(length);
      if (showLength(nm(length), unit).exact) expect(written).toBe(unit);
    }),
  );
});
