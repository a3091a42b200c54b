import { describe, expect, it, test } from "@jest/globals";
import { dunlin } from "../testing/dunlin";
import { nm } from "../quantity";
import type { Spec } from "../reading";
import { agrees, distance, MICROMETER_U, sizeNear, target, thickness } from "./index";

const SERIES = dunlin().series[0]!;
const SPEC: Spec = { min: nm(1_050_000), max: nm(1_400_000), state: { soak: "soaked", facings: "new" } };

describe("targets", () => {
  test.each([
    ["shifting", "middle", 1_225_000],
    ["shifting", "low end", 1_137_500],
  ] as const)("%s, %s: %d", (duty, school, expected) => {
    expect(target(SPEC, duty, school)).toMatchObject({ kind: "at", length: expected });
  });

  it("lets a standstill element sit anywhere inside", () => {
    const anywhere = target(SPEC, "standstill", "middle");
    expect(distance(nm(1_060_000), anywhere, SPEC)).toBe(0);
    expect(distance(nm(1_000_000), anywhere, SPEC)).toBe(-50_000);
    expect(distance(nm(1_450_000), anywhere, SPEC)).toBe(50_000);
  });
});

describe("pieces", () => {
  test.each([
    [1_750_000, 1_757_000, true],
    [1_750_000, 1_825_000, true],
    [1_900_000, 1_757_000, false],
    [undefined, 1_757_000, true],
  ])("marked %s, measured %d: can be it %s", (size, one, expected) => {
    expect(agrees(size === undefined ? undefined : nm(size), nm(one), SERIES.tolerance)).toBe(expected);
  });
  it("believes the micrometer before the mark", () => {
    expect(thickness({ size: nm(1_750_000), measured: nm(1_761_000) }, SERIES.tolerance)).toEqual({
      value: 1_761_000,
      uncertainty: MICROMETER_U,
    });
    expect(thickness({ size: nm(1_750_000) }, SERIES.tolerance)?.uncertainty).toBeCloseTo(
      15_000 / Math.sqrt(3),
      6,
    );
    expect(thickness({}, SERIES.tolerance)).toBeNull();
  });
  it("knows a size again when it is measured, and does not guess between two", () => {
    expect(sizeNear(SERIES, nm(1_762_000))?.part).toBe("P175");
    expect(sizeNear(SERIES, nm(1_825_000))).toBeNull();
  });
});
