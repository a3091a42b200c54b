import { describe, expect, it, test } from "@jest/globals";
import type { GearSet } from "../book";
import { toNumber } from "../quantity";
import { bookOf, UNITS } from "../../demo/units";
import { behave, loadsOf, type Train } from "./index";

/** Torques on the members of a set for one unknown, from the drawing: forces at the teeth times radii. */
function torquesOf(set: GearSet, low: number): [string, number][] {
  switch (set.kind) {
    case "simple":
      return [
        [set.sun[0], set.sun[1]],
        [set.ring[0], set.ring[1]],
        [set.carrier, -(set.sun[1] + set.ring[1])],
      ];
    case "double-pinion":
      return [
        [set.sun[0], -set.sun[1]],
        [set.ring[0], set.ring[1]],
        [set.carrier, set.sun[1] - set.ring[1]],
      ];
    case "gear pair":
      return [
        [set.driver[0], set.driver[1]],
        [set.driven[0], (set.idlers ?? 0) % 2 === 0 ? set.driven[1] : -set.driven[1]],
      ];
    case "pulley pair":
      return [
        [set.primary, 1],
        [set.secondary, -low],
      ];
  }
}

/** The slow, obvious way: every member that turns is in balance; unknown are the force in each set, in each element, and the load at the output. */
function statics(unit: Train, carrying: readonly string[]): { output: number; shares: Map<string, number> } {
  const names = [...unit.gearSets.map(({ id }) => `set ${id}`), ...carrying, "output"];
  const rows = unit.members
    .filter((member) => member !== unit.train.held)
    .map((member) => {
      const row = names.map(() => 0);
      unit.gearSets.forEach((set, i) => {
        for (const [at, torque] of torquesOf(set, set.kind === "pulley pair" ? set.low : 1))
          if (at === member) row[i] = (row[i] ?? 0) + torque;
      });
      carrying.forEach((id, i) => {
        const [a, b] = unit.elements.find((one) => one.id === id)?.joins ?? [];
        const at = unit.gearSets.length + i;
        if (a === member) row[at] = (row[at] ?? 0) + 1;
        if (b === member) row[at] = (row[at] ?? 0) - 1;
      });
      if (member === unit.train.output) row[names.length - 1] = -1;
      return [...row, member === unit.train.input ? -1 : 0];
    });
  // Gauss and Jordan, the largest pivot first.
  const solved = new Map<number, number[]>();
  let left = rows;
  names.forEach((_, column) => {
    const pivot = [...left].sort((a, b) => Math.abs(b[column] ?? 0) - Math.abs(a[column] ?? 0))[0];
    if (!pivot || Math.abs(pivot[column] ?? 0) < 1e-9) return;
    const unit = pivot.map((value) => value / (pivot[column] ?? 1));
    const clear = (row: number[]): number[] =>
      row.map((value, i) => value - (row[column] ?? 0) * (unit[i] ?? 0));
    left = left.filter((row) => row !== pivot).map(clear);
    for (const [at, row] of solved) solved.set(at, clear(row));
    solved.set(column, unit);
  });
  for (const row of left) for (const value of row) expect(Math.abs(value)).toBeLessThan(1e-6);
  const valueOf = (column: number): number => solved.get(column)?.at(-1) ?? Number.NaN;
  return {
    output: valueOf(names.length - 1),
    shares: new Map(carrying.map((id, i) => [id, valueOf(unit.gearSets.length + i)])),
  };
}

const RANGES = UNITS.flatMap((id) => bookOf(id).ranges.map((range) => [id, range] as const));

test.each(RANGES)("%s: what each element carries is what balances every member", (id, { applied }) => {
  const unit = bookOf(id);
  const found = loadsOf(unit, applied);
  if (!found) throw new Error("no gear");
  const slow = statics(
    unit,
    found.loads.map(({ element }) => element),
  );
  expect(toNumber(found.output)).toBeCloseTo(slow.output, 9);
  for (const { element, share, beside } of found.loads) {
    expect(beside).toEqual([]);
    expect(toNumber(share)).toBeCloseTo(slow.shares.get(element) ?? Number.NaN, 9);
  }
  // Power in is power out: nothing that is locked or stands takes any.
  const { speeds } = behave(unit, applied);
  const output = speeds[unit.train.output];
  expect(output && toNumber(output) * toNumber(found.output)).toBeCloseTo(1, 12);
});

describe("by hand", () => {
  const dunlin = bookOf("marram-dunlin");
  const of = (applied: string[], element: string): number =>
    toNumber(
      loadsOf(dunlin, applied)?.loads.find((one) => one.element === element)?.share ?? { n: 9n, d: 1n },
    );

  it("a clutch behind the front set carries what the front set makes of it: (32 + 76) / 76", () => {
    expect(of(["d1", "h1"], "d1")).toBeCloseTo(-(32 + 76) / 76, 12);
  });

  it("a brake holds what is left: all torques on a set add up to nothing", () => {
    // First: the case takes the output’s 4.1652 less what came in, and the front sun 32/76 of it already.
    expect(of(["d1", "f1"], "f1")).toBeCloseTo(4.165_154_264_972_777 - 1 - 32 / 76, 9);
  });

  it("two that hold the same: either may carry all of it", () => {
    const both = loadsOf(dunlin, ["d3", "h2"]);
    expect(both?.loads.map(({ beside }) => beside)).toEqual([[], []]);
    const twice = { ...dunlin, elements: [...dunlin.elements, { ...dunlin.elements[4]!, id: "h3" }] };
    const found = loadsOf(twice, ["d3", "h2", "h3"]);
    const h2 = both?.loads.find(({ element }) => element === "h2")?.share;
    expect(found?.loads.filter(({ element }) => element.startsWith("h"))).toEqual([
      { element: "h2", share: h2, beside: ["h3"] },
      { element: "h3", share: h2, beside: ["h2"] },
    ]);
  });

  it("nothing carries where nothing is driven, and what runs along carries nothing", () => {
    expect(loadsOf(dunlin, ["d1", "h1", "h2"])).toBeNull();
    expect(loadsOf(dunlin, ["h1"])).toBeNull();
    expect(of(["d1", "h1", "lc"], "lc")).toBe(0);
  });
});
