import { describe, expect, it } from "@jest/globals";
import type { Station } from "~core/book";
import { LAYERS, outlinesOf, SHAPES, type Layer } from "./station-shape";
import { layoutOf } from "./unit-layout";

/** Every corner of an outline, walked along as a pen would. */
function corners(outline: string): [x: number, y: number][] {
  let [x, y] = [NaN, NaN];
  return [...outline.matchAll(/([A-Za-z])([^A-Za-z]*)/g)].map(([, letter = "", numbers = ""]) => {
    const [a = NaN, b = NaN, c = NaN, d = NaN] = numbers.split(" ").filter(Boolean).map(Number);
    if (letter === "M" || letter === "L") [x, y] = [a, b];
    else if (letter === "Q") [x, y] = [c, d];
    else if (letter === "H") x = a;
    else if (letter === "V") y = a;
    else if (letter !== "z") throw new Error(`no pen knows ${letter}`);
    return [x, y];
  });
}

const kinds = Object.keys(SHAPES) as Station["kind"][];
const station = (kind: Station["kind"]): Station => ({
  id: kind,
  kind,
  name: kind,
  from: 20,
  to: 40,
  reach: 50,
});
const layout = layoutOf([station("drum")], true);

describe.each(kinds)("a %s", (kind) => {
  const outlines = Object.entries(outlinesOf(station(kind), layout));

  it("lies within its station, the same on both sides of its shaft", () => {
    const [left, right] = [layout.x(20), layout.x(40)];
    const [middle, reach] = [layout.middle(0), layout.half(0) / 2];
    expect(outlines).not.toHaveLength(0);
    for (const [, outline] of outlines) {
      const all = corners(outline);
      const [above, below] = [all.slice(0, all.length / 2), all.slice(all.length / 2)];
      expect(above.length).toBeGreaterThan(3);
      above.forEach(([x, y], i) => {
        const [otherX = NaN, otherY = NaN] = below[i] ?? [];
        expect(x).toBe(otherX);
        expect(y + otherY).toBeCloseTo(2 * middle, 0);
        expect(x).toBeGreaterThanOrEqual(left - 0.1);
        expect(x).toBeLessThanOrEqual(right + 0.1);
        expect(y).toBeLessThanOrEqual(middle);
        expect(y).toBeGreaterThanOrEqual(middle - reach - 0.1);
      });
    }
  });

  it("is drawn in layers there are, and again for another size", () => {
    for (const [layer] of outlines) expect(Object.keys(LAYERS)).toContain(layer);
    const low = outlinesOf(station(kind), layoutOf([station("drum")], false));
    expect(low).not.toEqual(Object.fromEntries(outlines));
  });
});

it.each(["drum", "brake", "clutch"] as const)(
  "a %s holds eight plates, steels and frictions by turns",
  (kind) => {
    const lefts = (layer: Layer): number[] => {
      const begun = [...(outlinesOf(station(kind), layout)[layer] ?? "").matchAll(/M([\d.]+)/g)];
      return begun.map(([, x]) => Number(x)).slice(0, begun.length / 2);
    };
    const [steels, frictions] = [lefts("steelPlates"), lefts("frictionPlates")];
    expect([steels.length, frictions.length]).toEqual([4, 4]);
    const byTurns = steels.flatMap((x, i) => [x, frictions[i] ?? NaN]);
    expect(byTurns).toEqual([...byTurns].sort((a, b) => a - b));
  },
);
