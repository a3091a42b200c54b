import { chanceOf } from "../chance";
import { describe, expect, it, test } from "@jest/globals";
import { BLADES, reading } from "./tools";

const chance = (seed = 1): (() => number) => chanceOf(seed);

describe("the simulated gauges", () => {
  test.each([
    ["micrometer", 1_000, 20_000],
    ["bore gauge", 1_000, 20_000],
    ["depth gauge", 10_000, 80_000],
    ["dial", 10_000, 60_000],
  ])("a %s reads in steps of %d nm, near the figure, and scatters", (gauge, step, near) => {
    const random = chance(7);
    const values = Array.from({ length: 30 }, () => {
      const read = reading(gauge, "bore 1", 44_062_000, random);
      return "value" in read ? read.value : NaN;
    });
    for (const value of values) {
      expect(Math.abs(value % step)).toBe(0);
      expect(Math.abs(value - 44_062_000)).toBeLessThan(near);
    }
    expect(new Set(values).size).toBeGreaterThan(1);
  });

  it("knows one part from another", () => {
    const of = (what: string): unknown => reading("feeler", what, 900_000, chance());
    expect(of("pinion 1")).toEqual(of("pinion 1"));
    const all = Array.from({ length: 30 }, (_, i) => JSON.stringify(of(`pinion ${i}`)));
    expect(new Set(all).size).toBeGreaterThan(1);
  });

  it("has blades on either side of a gap, and says when it has none", () => {
    for (let gap = 30_000; gap < 950_000; gap += 7_000) {
      const read = reading("feeler", "x", gap, chance());
      if (!("passes" in read)) throw new Error("blades give no single value");
      expect(read.passes).not.toBeNull();
      expect(BLADES.indexOf(read.refuses ?? 0)).toBe(BLADES.indexOf(read.passes ?? 0) + 1);
    }
    expect(reading("feeler", "x", 5_000, chance())).toMatchObject({ passes: null, refuses: 20_000 });
    expect(reading("feeler", "x", 3_000_000, chance())).toMatchObject({ passes: 1_000_000, refuses: null });
  });
});
