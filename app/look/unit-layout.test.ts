import { describe, expect, test } from "@jest/globals";
import { bookOf, UNITS } from "../../demo/units";
import { caseOutline, layoutOf } from "./unit-layout";

describe.each(UNITS)("the drawing of %s", (id) => {
  const { stations } = bookOf(id);

  test.each([true, false])("keeps every station inside, shafts below each other (tall: %s)", (tall) => {
    const layout = layoutOf(stations, tall);
    const ends = layout.lines.map((line) => [
      layout.middle(line) - layout.half(line),
      layout.middle(line) + layout.half(line),
    ]);
    ends.forEach(([top = 0, bottom = 0], i) => {
      expect(top).toBeGreaterThanOrEqual(ends[i - 1]?.[1] ?? 0);
      expect(bottom).toBeLessThanOrEqual(layout.height);
    });
    for (const { from, to } of stations) {
      expect(layout.x(from)).toBeGreaterThanOrEqual(layout.left);
      expect(layout.x(to)).toBeLessThanOrEqual(layout.right);
    }
  });

  test("no two names of a row run into each other", () => {
    const { raised, x } = layoutOf(stations, true);
    for (const a of stations)
      for (const b of stations) {
        if (a === b || (a.line ?? 0) !== (b.line ?? 0) || raised.has(a.id) !== raised.has(b.id)) continue;
        const [ca, cb] = [a, b].map(({ from, to }) => x((from + to) / 2));
        expect(Math.abs((ca ?? 0) - (cb ?? 0))).toBeGreaterThan((a.name.length + b.name.length) * 4);
      }
  });

  test("the case is drawn from left to right and back, about its shaft", () => {
    const layout = layoutOf(stations, true);
    for (const line of layout.lines) {
      const points = [...caseOutline(stations, line, layout).matchAll(/([\d.]+) ([\d.]+)/g)].map(
        (m) => [Number(m[1]), Number(m[2])] as const,
      );
      const half = points.length / 2;
      const xs = points.slice(0, half).map(([px]) => px);
      expect(xs).toEqual([...xs].sort((a, b) => a - b));
      points.slice(0, half).forEach(([px, py], i) => {
        const mirrored = points[points.length - 1 - i] ?? [0, 0];
        expect(mirrored[0]).toBe(px);
        expect(mirrored[1] + py).toBeCloseTo(2 * layout.middle(line), 6);
      });
    }
  });

  test("low down only the shafts that are wanted are drawn, the input's always", () => {
    expect(layoutOf(stations, false, new Set()).lines).toEqual([0]);
    expect(layoutOf(stations, true).lines).toEqual([...new Set(stations.map(({ line = 0 }) => line))].sort());
  });
});
