import { describe, expect, it, test } from "@jest/globals";
import { coverageFactor, studentCdf } from "./index";

/** The slow oracle: Simpson's rule on the unnormalised density, normalised by integrating all of it. */
function byIntegration(t: number, dof: number): number {
  // x = tan(a) makes the whole line finite.
  const density = (a: number): number => (1 + Math.tan(a) ** 2 / dof) ** (-(dof + 1) / 2) / Math.cos(a) ** 2;
  const simpson = (from: number, to: number): number => {
    const n = 20_000;
    const h = (to - from) / n;
    let sum = 0;
    for (let i = 0; i <= n; i++) sum += (i === 0 || i === n ? 1 : i % 2 ? 4 : 2) * density(from + i * h);
    return (sum * h) / 3;
  };
  const edge = Math.PI / 2 - 1e-6;
  const half = simpson(0, edge);
  const upTo = simpson(0, Math.atan(Math.abs(t)));
  return 0.5 + (Math.sign(t) * upTo) / (2 * half);
}

describe("Student's t", () => {
  // JCGM 100:2008, table G.2, column 95 %.
  test.each([
    [1, 12.71],
    [2, 4.3],
    [3, 3.18],
    [4, 2.78],
    [5, 2.57],
    [10, 2.23],
    [20, 2.09],
    [50, 2.01],
    [100, 1.984],
    [Infinity, 1.96],
  ])("k for %d degrees of freedom is %d", (dof, k) => {
    expect(coverageFactor(dof)).toBeCloseTo(k, 2);
  });

  it("agrees with integration of the density, fractions of a degree too", () => {
    for (const dof of [1, 1.5, 2, 3.12, 7, 30, 150]) {
      for (const t of [-4, -1, -0.1, 0, 0.3, 1, 2.5, 6])
        expect(studentCdf(t, dof)).toBeCloseTo(byIntegration(t, dof), 5);
    }
  });

  it("is one half at nothing, rises, and is symmetric", () => {
    for (const dof of [1, 2.5, 9, 1000, Infinity]) {
      expect(studentCdf(0, dof)).toBe(0.5);
      expect(studentCdf(1.3, dof) + studentCdf(-1.3, dof)).toBeCloseTo(1, 12);
      expect(studentCdf(1.4, dof)).toBeGreaterThan(studentCdf(1.3, dof));
    }
  });

  it("refuses no degrees of freedom", () => {
    expect(() => studentCdf(1, 0)).toThrow(RangeError);
  });
});
