import { describe, expect, it } from "@jest/globals";
import { dice, times } from "../../testing/choices";
import { samples } from "../../testing/samples";
import type { Fillable } from "./columns";
import { leastInOrder } from "./program";

const READY = 1;

interface Tried {
  groups: Fillable[];
  counts: number[];
}

/** Some groups of a few jobs that reach for the same few lots, some pieces of which come later. */
function made(seed: number, many: number): Tried {
  const roll = dice(seed);
  const counts = times(2 + roll(4), () => roll(3));
  const jobs = 1 + roll(3);
  const groups = times(2 + roll(many), (): Fillable => ({
    job: `job ${roll(jobs)}`,
    ways: times(1 + roll(5), () => ({
      lots: times(roll(4), () => roll(counts.length)).sort((a, b) => a - b),
      days: roll(2) * roll(4),
      values: [roll(3), 0, roll(20), roll(100)],
    })),
  }));
  return { groups, counts };
}

/** What ways come to: each term added up, but readiness is the latest day of each job. */
function comesTo(groups: readonly Fillable[], ways: readonly number[], ready: number): number[] {
  const days = new Map<string, number>();
  const values = [0, 0, 0, 0];
  for (const [i, { job, ways: all }] of groups.entries()) {
    const way = all[ways[i] ?? -1];
    if (!way) throw new RangeError("no such way");
    days.set(job, Math.max(days.get(job) ?? 0, way.days));
    for (const [term, value] of way.values.entries()) values[term] = (values[term] ?? 0) + value;
  }
  if (ready >= 0) values[ready] = [...days.values()].reduce((a, b) => a + b, 0);
  return values;
}

const isEnough = ({ groups, counts }: Tried, ways: readonly number[]): boolean => {
  const left = [...counts];
  for (const [i, { ways: all }] of groups.entries())
    for (const lot of all[ways[i] ?? -1]?.lots ?? []) left[lot] = (left[lot] ?? 0) - 1;
  return left.every((n) => n >= 0);
};

const isBefore = (one: readonly number[], other: readonly number[]): boolean => {
  const at = one.findIndex((value, i) => value !== other[i]);
  return at >= 0 && (one[at] ?? 0) < (other[at] ?? 0);
};

/** Every way of every group, tried. */
function best(tried: Tried, ready: number): number[] | null {
  let least: number[] | null = null;
  const go = (ways: readonly number[]): void => {
    const group = tried.groups[ways.length];
    if (group) {
      for (const way of group.ways.keys()) go([...ways, way]);
      return;
    }
    if (!isEnough(tried, ways)) return;
    const values = comesTo(tried.groups, ways, ready);
    if (!least || isBefore(values, least)) least = values;
  };
  go([]);
  return least;
}

const effort = () => ({ left: 1e7, stopped: false });

describe("the least in one term after the other", () => {
  it.each([READY, 0, -1])("is what trying everything finds, readiness being term %i", (ready) => {
    for (const seed of times(samples(800), (i) => i)) {
      const tried = made(seed, 4);
      const own = effort();
      const least = leastInOrder(tried.groups, tried.counts, 4, ready, own);
      expect({ seed, stopped: own.stopped, bound: least?.bound ?? null }).toEqual({
        seed,
        stopped: false,
        bound: null,
      });
      if (least) expect(isEnough(tried, least.ways)).toBe(true);
      const values = least && comesTo(tried.groups, least.ways, ready);
      expect({ seed, values }).toEqual({ seed, values: best(tried, ready) });
    }
  });

  it("is what trying everything finds where a row that has no say in a part had a price", () => {
    const tried = made(9_924, 4);
    const least = leastInOrder(tried.groups, tried.counts, 4, 0, effort());
    expect(least && comesTo(tried.groups, least.ways, 0)).toEqual(best(tried, 0));
  });

  it("is not told as the best where values are beyond what it can weigh, unless it is", () => {
    for (const seed of times(samples(150), (i) => i)) {
      const { groups, counts } = made(seed, 4);
      const dear: Tried = {
        counts,
        groups: groups.map(({ job, ways }) => ({
          job,
          ways: ways.map((way) => ({ ...way, values: way.values.map((value) => value * 100_000) })),
        })),
      };
      const least = leastInOrder(dear.groups, counts, 4, READY, effort());
      if (least && !least.bound)
        expect({ seed, values: comesTo(dear.groups, least.ways, READY) }).toEqual({
          seed,
          values: best(dear, READY),
        });
    }
  });

  it("says what cannot be beaten where the effort was not enough, and no less than it found", () => {
    let unproved = 0;
    for (const seed of times(samples(150), (i) => i)) {
      const tried = made(seed, 4);
      const real = best(tried, READY);
      for (const left of [4, 6, 8, 10, 13, 16, 20, 26, 32, 40]) {
        const own = { left, stopped: false };
        const least = leastInOrder(tried.groups, tried.counts, 4, READY, own);
        if (!own.stopped) expect(least && comesTo(tried.groups, least.ways, READY)).toEqual(real);
        if (!least?.bound) continue;
        unproved++;
        expect(isEnough(tried, least.ways)).toBe(true);
        expect({ seed, left, isBound: !isBefore(real ?? [], least.bound) }).toEqual({
          seed,
          left,
          isBound: true,
        });
      }
    }
    expect(unproved).toBeGreaterThan(0);
  });
});
