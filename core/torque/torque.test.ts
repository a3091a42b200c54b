import { describe, expect, it, test } from "@jest/globals";
import fc from "fast-check";
import { lengthOf, measureOf, nm } from "../quantity";
import {
  pullVerdict,
  roundsOf,
  sessionOf,
  tighteningOrder,
  torqueReached,
  wrenchSetting,
  type Place,
} from "./index";

const ring = (n: number): Place[] =>
  Array.from({ length: n }, (_, i) => [
    50 + 40 * Math.sin((2 * Math.PI * i) / n),
    50 - 40 * Math.cos((2 * Math.PI * i) / n),
  ]);
const pan = (nx: number, ny: number): Place[] =>
  Array.from({ length: nx }, (_, i) => i)
    .flatMap((i) =>
      Array.from({ length: ny }, (_, j): Place => [(90 * i) / (nx - 1) + 5, (90 * j) / (ny - 1) + 5]),
    )
    .filter(([x, y]) => x === 5 || y === 5 || x === 95 || y === 95);

describe("the order of tightening", () => {
  it("is each place once, for any places and pattern", () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.tuple(fc.integer({ min: 0, max: 100 }), fc.integer({ min: 0, max: 100 })), {
          maxLength: 30,
          selector: String,
        }),
        fc.constantFrom("star", "crosswise", "spiral", "in line", "any order"),
        (places, pattern) => {
          const order = tighteningOrder(places, pattern);
          expect([...order].sort((a, b) => a - b)).toEqual(places.map((_, i) => i));
        },
      ),
      { seed: 5 },
    );
  });

  test.each([4, 5, 6, 7, 8, 9, 10, 12])(
    "a star on %i never goes to a neighbour while others are left",
    (n) => {
      const order = tighteningOrder(ring(n), "star");
      const gap = (a: number, b: number): number => Math.min((a - b + n) % n, (b - a + n) % n);
      for (let i = 1; i < n - 2; i++) expect(gap(order[i] ?? 0, order[i - 1] ?? 0)).toBeGreaterThan(1);
      expect(gap(order[1] ?? 0, order[0] ?? 0)).toBe(Math.floor(n / 2));
    },
  );

  test.each([
    [4, 3],
    [6, 4],
    [7, 5],
  ])("crosswise on a pan of %i by %i goes over the middle each second time, and outwards", (nx, ny) => {
    const places = pan(nx, ny);
    const order = tighteningOrder(places, "crosswise").map((i): Place => places[i] ?? [0, 0]);
    for (let i = 1; i < order.length; i += 2) {
      const [[x, y], [u, v]] = [order[i - 1] ?? [0, 0], order[i] ?? [0, 0]];
      expect([Math.round(x + u), Math.round(y + v)]).toEqual([100, 100]);
    }
    const far = ([x, y]: Place): number => Math.hypot(x - 50, y - 50);
    const firsts = order.filter((_, i) => i % 2 === 0).map(far);
    expect(firsts).toEqual([...firsts].sort((a, b) => a - b));
  });

  it("a spiral begins in the middle and never falls back by more than a turn", () => {
    const places = Array.from({ length: 25 }, (_, i): Place => [
      10 + 20 * (i % 5),
      10 + 20 * Math.floor(i / 5),
    ]);
    const order = tighteningOrder(places, "spiral").map((i): Place => places[i] ?? [0, 0]);
    expect(order[0]).toEqual([50, 50]);
    const far = order.map(([x, y]) => Math.hypot(x - 50, y - 50));
    far.forEach((radius, i) => expect(Math.max(...far.slice(0, i + 1)) - radius).toBeLessThan(30));
  });

  it("a spiral begins at the innermost place, and where the places stand in the list decides nothing", () => {
    const places = fc.uniqueArray(
      fc.tuple(fc.integer({ min: 0, max: 100 }), fc.integer({ min: 0, max: 100 })),
      {
        minLength: 3,
        maxLength: 20,
        selector: String,
      },
    );
    fc.assert(
      fc.property(places, fc.constantFrom("star", "crosswise", "spiral"), (list, pattern) => {
        const at = (all: readonly Place[]): Place[] =>
          tighteningOrder(all, pattern).map((i) => all[i] ?? [0, 0]);
        const order = at(list);
        expect(at([...list].reverse())).toEqual(order);
        const [cx, cy] = [0, 1].map((k) => list.reduce((sum, one) => sum + (one[k] ?? 0), 0) / list.length);
        const far = ([x, y]: Place): number => Math.hypot(x - (cx ?? 0), y - (cy ?? 0));
        if (pattern === "spiral" && order[0])
          expect(far(order[0])).toBeLessThanOrEqual(Math.min(...list.map(far)) + 1e-6);
      }),
      { seed: 9, numRuns: 400 },
    );
  });

  it("in line and any order keep the list", () => {
    expect(tighteningOrder(ring(5), "in line")).toEqual([0, 1, 2, 3, 4]);
  });
});

describe("a wrench with an extension in line", () => {
  it("reads T·L/(L+E)", () => {
    const set = (torque: string, length: string, extension: string) =>
      wrenchSetting(measureOf(torque, "torque"), lengthOf(length), lengthOf(extension));
    expect(set("48 N·m", "400 mm", "80 mm")).toMatchObject({ figure: "40.0", unit: "N·m" });
    expect(set("48 N·m", "400 mm", "0 mm")).toMatchObject({ figure: "48.0" });
    expect(set("25 lbf·ft", "12 in", "3 in")).toMatchObject({ figure: "20.0", unit: "lbf·ft" });
  });
  it("refuses what is no wrench", () => {
    expect(() => wrenchSetting(measureOf("1 N·m", "torque"), nm(0), nm(1))).toThrow(RangeError);
    expect(() => wrenchSetting(measureOf("1 N·m", "torque"), nm(1), nm(-1))).toThrow(RangeError);
  });

  it("is what reaches the fastener, there and back", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 50, max: 2000 }),
        fc.integer({ min: 100, max: 900 }),
        fc.integer({ min: 0, max: 400 }),
        (tenths, length, extension) => {
          const torque = measureOf(`${(tenths / 10).toFixed(1)} N·m`, "torque");
          const [arm, more] = [nm(length * 1_000_000), nm(extension * 1_000_000)];
          const back = torqueReached(wrenchSetting(torque, arm, more), arm, more);
          // Both were rounded to a tenth; the way back makes the first one larger by as much as the arm.
          const off = Math.abs(Number(back.figure) - tenths / 10);
          expect(off).toBeLessThanOrEqual(0.05 * (1 + extension / length) + 0.0501);
        },
      ),
    );
    expect(() => torqueReached(measureOf("1 N·m", "torque"), nm(0), nm(1))).toThrow(RangeError);
    expect(() => torqueReached(measureOf("1 N·m", "torque"), nm(1), nm(-1))).toThrow(RangeError);
  });
});

describe("what a wrench read", () => {
  test.each([
    ["23 N·m", "22.0 N·m", "short"],
    ["23 N·m", "22.08 N·m", "in"],
    ["23 N·m", "25.3 N·m", "in"],
    ["23 N·m", "25.4 N·m", "over"],
    ["20 lbf·ft", "27.1 N·m", "in"],
    ["20 lbf·ft", "25.9 N·m", "short"],
  ])("of %s wanted, %s is %s", (wanted, read, is) => {
    expect(pullVerdict(measureOf(wanted, "torque"), measureOf(read, "torque"))).toBe(is);
  });
});

describe("the rounds over a face", () => {
  it("are parts of the torque, all of it, the angle or a lap, and again after the wait", () => {
    const ids = (of: Parameters<typeof roundsOf>[0]): string[] => roundsOf(of).map(({ id }) => id);
    expect(ids({ places: 16, parts: 1, angle: false, again: true })).toEqual([
      "part-1",
      "full",
      "lap",
      "again",
    ]);
    expect(ids({ places: 8, parts: 0, angle: true, again: false })).toEqual(["full", "angle"]);
    expect(ids({ places: 1, parts: 0, angle: false, again: false })).toEqual(["full"]);
  });

  it("are through only when every place was, in whatever order they were touched", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9 }),
        fc.integer({ min: 0, max: 2 }),
        fc.boolean(),
        fc.boolean(),
        fc.array(fc.tuple(fc.nat(), fc.nat()), { maxLength: 80 }),
        (places, parts, angle, again, touches) => {
          const rounds = roundsOf({ places, parts, angle, again });
          const order = tighteningOrder(ring(places), "star");
          const done = new Set<string>();
          const all = rounds.flatMap(({ id }) => order.map((place) => `${id} ${place}`));
          for (const [r, p] of touches) {
            done.add(`${rounds[r % rounds.length]?.id} ${p % places}`);
            const { round, next, left } = sessionOf(rounds, order, (id, place) => done.has(`${id} ${place}`));
            expect(round === null).toBe(all.every((one) => done.has(one)));
            // What is next is missing, of the first round that has anything missing.
            if (round) {
              expect(all.find((one) => !done.has(one))).toBe(`${round.id} ${next}`);
              expect(left.get(round.id)?.[0]).toBe(next);
            }
          }
        },
      ),
    );
  });
});
