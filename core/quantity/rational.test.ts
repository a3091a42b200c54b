import { describe, expect, it, test } from "@jest/globals";
import fc from "fast-check";
import {
  add,
  compare,
  divide,
  isZero,
  multiply,
  negate,
  parseDecimal,
  rational,
  subtract,
  toDecimal,
  toNumber,
  ZERO,
} from "./index";

const some = fc
  .tuple(fc.integer({ min: -100_000, max: 100_000 }), fc.integer({ min: 1, max: 100_000 }))
  .map(([n, d]) => rational(n, d));
const seed = { seed: 17 };

describe("exact fractions", () => {
  it("are kept in lowest terms with the sign on top", () => {
    expect(rational(6, -4)).toEqual({ n: -3n, d: 2n });
    expect(rational(0, -7)).toEqual({ n: 0n, d: 1n });
    expect(() => rational(1, 0)).toThrow(RangeError);
    expect(() => divide(rational(1), ZERO)).toThrow(RangeError);
  });

  it("keep the laws of arithmetic, which floating point does not", () => {
    fc.assert(
      fc.property(some, some, some, (a, b, c) => {
        expect(add(a, b)).toEqual(add(b, a));
        expect(add(add(a, b), c)).toEqual(add(a, add(b, c)));
        expect(multiply(a, add(b, c))).toEqual(add(multiply(a, b), multiply(a, c)));
        expect(subtract(a, a)).toEqual(ZERO);
        expect(add(a, negate(a))).toEqual(ZERO);
        if (!isZero(b)) expect(multiply(divide(a, b), b)).toEqual(a);
      }),
      seed,
    );
  });

  it("compare as their values do", () => {
    fc.assert(
      fc.property(some, some, (a, b) => {
        const [x, y] = [toNumber(a), toNumber(b)];
        if (Math.abs(x - y) > 1e-9) expect(Math.sign(compare(a, b))).toBe(Math.sign(x - y));
        else expect(Math.abs(toNumber(subtract(a, b)))).toBeLessThan(1e-9);
      }),
      seed,
    );
  });

  it("a decimal typed and shown with its own places is the same", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -9_999_999, max: 9_999_999 }),
        fc.integer({ min: 1, max: 6 }),
        (n, places) => {
          const text = (n / 10 ** places).toFixed(places);
          const read = parseDecimal(text);
          expect(read && toDecimal(read, places)).toEqual({
            figure: text.replace("-", "−").replace(/^−(0\.0+)$/, "$1"),
            exact: true,
          });
        },
      ),
      seed,
    );
  });

  test.each(["", ".", "-", "1.2.3", "1e3", "0x10", "one", "1 2"])("“%s” is no decimal", (text) => {
    expect(parseDecimal(text)).toBeNull();
  });
});
