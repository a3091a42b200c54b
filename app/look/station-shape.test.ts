import { expect, it } from "@jest/globals";
import { SHAPES } from "./station-shape";

/** Every corner of an outline, walked along as a pen would. */
function corners(outline: string): [x: number, y: number][] {
  let [x, y] = [0, 0];
  return [...outline.matchAll(/([MLHVQhvz])([^MLHVQhvz]*)/g)].map(([, letter = "", numbers = ""]) => {
    const [a = NaN, b = NaN, c = NaN, d = NaN] = numbers.split(" ").filter(Boolean).map(Number);
    if (letter === "M" || letter === "L") [x, y] = [a, b];
    if (letter === "Q") [x, y] = [c, d];
    if (letter === "H") x = a;
    if (letter === "h") x += a;
    if (letter === "V") y = a;
    if (letter === "v") y += a;
    return [x, y];
  });
}

it.each(Object.entries(SHAPES))(
  "a %s lies within its station, the same on both sides of its shaft",
  (_, pieces) => {
    expect(pieces).not.toHaveLength(0);
    for (const { half } of pieces) {
      const [above, below] = [corners(half(100, -60, -1)), corners(half(100, 60, 1))];
      expect(above.length).toBeGreaterThan(3);
      expect(above).toEqual(below.map(([x, y]) => [x, y === 0 ? 0 : -y]));
      for (const [x, y] of below) {
        expect(x).toBeGreaterThanOrEqual(0);
        expect(x).toBeLessThanOrEqual(100.1);
        expect(y).toBeGreaterThanOrEqual(-0.1);
        expect(y).toBeLessThanOrEqual(62.1);
      }
    }
  },
);

it.each(["drum", "brake", "clutch"] as const)(
  "a %s holds eight plates, steels and frictions by turns",
  (kind) => {
    const of = (fill: string): number[] => {
      const half = SHAPES[kind].find((piece) => piece.fill === fill)?.half;
      return [...(half?.(100, 60, 1) ?? "").matchAll(/M([\d.]+)/g)].map(([, x]) => Number(x));
    };
    const [steels, frictions] = [of("fill-steel"), of("fill-friction")];
    expect(steels).toHaveLength(4);
    const byTurns = steels.flatMap((x, i) => [x, frictions[i] ?? NaN]);
    expect(byTurns).toEqual([...byTurns].sort((a, b) => a - b));
  },
);
