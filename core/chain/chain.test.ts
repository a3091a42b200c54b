import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { nm } from "../quantity";
import { estimate } from "../reading";
import { evaluate, predict, type Link } from "./index";

const link = fc.record({
  name: fc.constant("x"),
  sign: fc.constantFrom(1 as const, -1 as const),
  value: fc.integer({ min: 0, max: 50_000_000 }).map(nm),
  uncertainty: fc.nat(30_000),
});

test("a chain is the signed sum, its variance the sum of variances", () => {
  fc.assert(
    fc.property(fc.array(link, { minLength: 1, maxLength: 12 }), (links) => {
      const result = evaluate(links);
      let sum = 0n;
      for (const { sign, value } of links) sum += BigInt(sign) * BigInt(value);
      expect(BigInt(result.value)).toBe(sum);
      const u = Math.hypot(...links.map((one) => one.uncertainty));
      expect(result.uncertainty).toBeGreaterThanOrEqual(u - 1e-6);
      expect(result.uncertainty).toBeLessThan(u + 1);
    }),
    { seed: 13, numRuns: 500 },
  );
});

test("a swap gives what the whole chain would with the other part, whatever the unknown links are", () => {
  const size = fc.integer({ min: 1_000_000, max: 4_000_000 }).map(nm);
  fc.assert(
    fc.property(fc.array(link, { maxLength: 6 }), size, size, (unknown, out, into) => {
      const ring = (value: typeof out): Link => ({ name: "ring", sign: -1, value, uncertainty: 0 });
      const before = evaluate([...unknown, ring(out)]).value;
      const after = evaluate([...unknown, ring(into)]).value;
      const measured = estimate(
        [before, before, before].map((value) => ({
          reading: { kind: "single", value },
          resolution: nm(10_000),
          corrections: [],
        })),
      );
      const result = predict(measured, [
        { sign: -1, removed: { value: out, uncertainty: 0 }, fitted: { value: into, uncertainty: 0 } },
      ]);
      expect(result.mean).toBe(after);
      expect(result.doubledSum).toBe(after * 6);
    }),
    { seed: 17, numRuns: 500 },
  );
});

test("only the swapped parts' uncertainties are added", () => {
  const measured = estimate(
    [1_200_000, 1_210_000, 1_220_000].map((value) => ({
      reading: { kind: "single", value: nm(value) },
      resolution: nm(10_000),
      corrections: [],
    })),
  );
  const part = (value: number, uncertainty: number) => ({ value: nm(value), uncertainty });
  const swapped = predict(measured, [
    { sign: -1, removed: part(1_750_000, 6_000), fitted: part(1_900_000, 8_000) },
  ]);
  expect(swapped.u).toBeCloseTo(Math.hypot(measured.u, 6_000, 8_000), 6);
  expect(predict(measured, [])).toBe(measured);
});
