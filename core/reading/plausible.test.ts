import { describe, expect, it, test } from "@jest/globals";
import fc from "fast-check";
import { parseLength, type LengthUnit } from "../quantity";
import { parseReading } from "./index";

describe("a length read on a bench", () => {
  test.each<[string, LengthUnit, number, LengthUnit]>([
    ["28", "in", 711_200, "thou"],
    [" 070 ", "in", 1_778_000, "thou"],
    ["115", "in", 2_921_000, "thou"],
    // A single digit, a point, a unit or millimetres say what they mean.
    ["2", "in", 50_800_000, "in"],
    [".070", "in", 1_778_000, "in"],
    ["28 in", "in", 711_200_000, "in"],
    ["28", "mm", 28_000_000, "mm"],
  ])("%s in %s is %i nm", (text, unit, length, read) => {
    expect(parseReading(text, unit)).toMatchObject({ ok: true, length, unit: read });
  });

  it("is as parseLength says but for whole inches of two or three digits", () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.double({ min: 0, max: 1_200, noNaN: true }).map((n) => n.toFixed(3)),
          fc.nat(1_200).map(String),
        ),
        fc.constantFrom<LengthUnit>("mm", "in", "thou"),
        fc.constantFrom("", " mm", " in", " thou"),
        (figure, unit, suffix) => {
          const [whole, own] = [parseReading(figure + suffix, unit), parseLength(figure + suffix, unit)];
          const thou =
            unit === "in" && suffix === "" && figure.length > 1 && figure.length < 4 && !figure.includes(".");
          expect(whole).toEqual(
            thou
              ? parseLength(`${figure} thou`, unit).ok && {
                  ...own,
                  length: Number(figure) * 25_400,
                  unit: "thou",
                }
              : own,
          );
        },
      ),
      { seed: 41 },
    );
  });
});
