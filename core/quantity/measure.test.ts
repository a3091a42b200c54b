import { describe, expect, it, test } from "@jest/globals";
import fc from "fast-check";
import {
  baseOf,
  compareMeasures,
  limitsText,
  measureOf,
  measureText,
  parseMeasure,
  QUANTITIES,
  toDecimal,
  toNumber,
  unitFor,
  unitsOf,
  type Quantity,
} from "./index";

describe("measures", () => {
  test.each<[string, Quantity, string, string]>([
    ["42 N·m", "torque", "N·m", "42 N·m"],
    ["42 Nm", "torque", "N·m", "42 N·m"],
    ["31 lbf·ft", "torque", "N·m", "≈42.0 N·m"],
    ["31 lb-ft", "torque", "lbf·ft", "31 lbf·ft"],
    ["75 lbf·in", "torque", "lbf·ft", "6.25 lbf·ft"],
    ["12 lbf·ft", "torque", "lbf·in", "144 lbf·in"],
    ["0.5 N·m", "torque", "N·cm", "50 N·cm"],
    ["4 bar", "pressure", "kPa", "400 kPa"],
    ["60 psi", "pressure", "bar", "≈4.1 bar"],
    ["40 °C", "temperature", "°F", "104 °F"],
    ["175 °F", "temperature", "°C", "≈79 °C"],
    ["-40 °F", "temperature", "°C", "−40 °C"],
    ["1.2 kΩ", "resistance", "Ω", "1200 Ω"],
    ["5,2 ohm", "resistance", "Ω", "5.2 Ω"],
    ["17.1 in²", "area", "cm²", "≈110.3 cm²"],
    ["90 °", "angle", "°", "90°"],
    ["1 qt", "volume", "l", "≈0.95 l"],
    ["1.5 min", "time", "s", "90 s"],
  ])("%s as %s in %s is %s", (text, quantity, unit, shown) => {
    expect(measureText(measureOf(text, quantity), unit)).toBe(shown);
  });

  test.each<[string, Quantity]>([
    ["42", "torque"],
    ["42 bar", "torque"],
    ["bar", "pressure"],
    ["1.2.3 bar", "pressure"],
    ["", "resistance"],
    ["5 mm", "angle"],
  ])("“%s” is no %s and says what to write", (text, quantity) => {
    const read = parseMeasure(text, quantity);
    expect(read.ok).toBe(false);
    expect(read.ok ? "" : read.remedy).toContain("write it as");
    expect(() => measureOf(text, quantity)).toThrow(RangeError);
  });

  it("takes a bare number in the field's unit", () => {
    expect(parseMeasure("42", "torque", "lbf·ft")).toMatchObject({ ok: true, measure: { unit: "lbf·ft" } });
  });

  it("there and back through every pair of units is the same, exactly", () => {
    fc.assert(
      fc.property(fc.constantFrom(...QUANTITIES), fc.integer({ min: 1, max: 99_999 }), (quantity, n) => {
        const units = unitsOf(quantity);
        for (const unit of units) {
          const value = baseOf({ quantity, unit, figure: (n / 100).toFixed(2) });
          const factor = toNumber(baseOf({ quantity, unit, figure: "1" }));
          const zero = toNumber(baseOf({ quantity, unit, figure: "0" }));
          expect(toNumber(value)).toBeCloseTo(
            (n / 100) * (factor - zero) + zero,
            6 - Math.log10(Math.max(factor, 1)),
          );
        }
        expect(measureText({ quantity, unit: units[0] ?? "", figure: "5" })).toMatch(/^5/);
      }),
      { seed: 3 },
    );
  });

  it("compares across units without rounding", () => {
    expect(compareMeasures(measureOf("12 lbf·ft", "torque"), measureOf("144 lbf·in", "torque"))).toBe(0);
    expect(
      compareMeasures(measureOf("1 psi", "pressure"), measureOf("6.894 kPa", "pressure")),
    ).toBeGreaterThan(0);
  });

  it("speaks the unit of the person: the source's own where it belongs there", () => {
    expect(unitFor(measureOf("42 N·m", "torque"), "mm")).toBe("N·m");
    expect(unitFor(measureOf("42 N·m", "torque"), "in")).toBe("lbf·ft");
    expect(unitFor(measureOf("9 N·m", "torque"), "in")).toBe("lbf·in");
    expect(unitFor(measureOf("100 lbf·in", "torque"), "in")).toBe("lbf·in");
    expect(unitFor(measureOf("5 Ω", "resistance"), "in")).toBe("Ω");
  });

  it("writes limits with the unit once", () => {
    const [low, high] = [measureOf("5.0 Ω", "resistance"), measureOf("5.8 Ω", "resistance")];
    expect(limitsText(low, high)).toBe("5.0 to 5.8 Ω");
    expect(limitsText(undefined, high)).toBe("at most 5.8 Ω");
    expect(limitsText(low, undefined)).toBe("at least 5.0 Ω");
  });

  it("rounds halves away from zero and says when it did", () => {
    expect(toDecimal({ n: -5n, d: 2n }, 0)).toEqual({ figure: "−3", exact: false });
    expect(toDecimal({ n: 1n, d: 8n }, 3)).toEqual({ figure: "0.125", exact: true });
  });
});

test.each([
  ["1,200 rpm", "speed", "can be 1.200 or 1200"],
  ["1 constructor", "torque", "no unit of torque"],
  ["1 valueOf", "pressure", "no unit of pressure"],
] as const)("%s is asked about, not guessed", (text, quantity, words) => {
  const parsed = parseMeasure(text, quantity);
  expect(parsed.ok ? "" : parsed.problem).toContain(words);
});

test("a sign is any dash", () => {
  for (const text of ["-5 °C", "−5 °C", "– 5 °C"])
    expect(parseMeasure(text, "temperature")).toMatchObject({ ok: true, measure: { figure: "-5" } });
});

test.each([
  ["0.02 bar", "psi", "≈0.3 psi"],
  ["0.001 bar", "psi", "≈0.01 psi"],
  ["3 bar", "psi", "≈44 psi"],
] as const)("%s in %s is %s: what is there is not rounded to nothing", (text, unit, shown) => {
  expect(measureText(measureOf(text, "pressure"), unit)).toBe(shown);
});
