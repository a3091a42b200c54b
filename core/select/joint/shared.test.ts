import { describe, expect, it } from "@jest/globals";
import { dice, times } from "../../testing/choices";
import { assign, type Taker } from "./assignment";
import { inParts } from "./linear";
import { share } from "./shared";

describe("who takes from which lot", () => {
  /** Every way to take, tried. */
  function tried(takers: readonly Taker[], counts: readonly number[]): number {
    const left = [...counts];
    const go = (i: number): number => {
      const taker = takers[i];
      if (!taker) return 0;
      let best = (taker.without[0] ?? 0) + go(i + 1);
      for (const [k, lot] of taker.lots.entries()) {
        if ((left[lot] ?? 0) < 1) continue;
        left[lot] = (left[lot] ?? 0) - 1;
        best = Math.min(best, (taker.costs[k]?.[0] ?? 0) + go(i + 1));
        left[lot] = (left[lot] ?? 0) + 1;
      }
      return best;
    };
    return go(0);
  }

  it("is the cheapest there is; prices prove it", () => {
    for (const seed of times(300, (i) => i)) {
      const roll = dice(seed);
      const counts = times(1 + roll(5), () => roll(3));
      const takers = times(1 + roll(6), (): Taker => {
        const lots = counts.flatMap((n, i) => (n > 0 && roll(3) > 0 ? [i] : []));
        return { lots, costs: lots.map(() => [roll(12)]), without: [4 + roll(12)] };
      });
      const { cost, taken, prices } = assign(takers, counts, 1);
      expect({ seed, cost }).toEqual({ seed, cost: [tried(takers, counts)] });
      const used = counts.map(
        (_, lot) => takers.filter(({ lots }, i) => lots[taken[i] ?? -1] === lot).length,
      );
      expect(used.every((n, lot) => n <= (counts[lot] ?? 0))).toBe(true);
      // With a price on each piece everybody has what is cheapest for them, and what is left over costs nothing.
      const dual = takers.reduce(
        (sum, { lots, costs, without }) =>
          sum +
          Math.min(without[0] ?? 0, ...lots.map((lot, k) => (costs[k]?.[0] ?? 0) + (prices[lot]?.[0] ?? 0))),
        -counts.reduce((sum, n, lot) => sum + n * (prices[lot]?.[0] ?? 0), 0),
      );
      expect(dual).toBe(cost[0]);
    }
  });
});

/** Every way of every group, tried: what the cheapest comes to. */
function whole(
  groups: readonly (readonly { cost: readonly number[]; lots: readonly number[] }[])[],
  counts: readonly number[],
): number {
  const [ways, ...others] = groups;
  if (!ways) return 0;
  return Math.min(
    ...ways.map(({ cost, lots }) => {
      const left = counts.map((n, lot) => n - lots.filter((one) => one === lot).length);
      return left.some((n) => n < 0) ? Infinity : (cost[0] ?? 0) + whole(others, left);
    }),
  );
}

describe("what is shared out among those that take several pieces", () => {
  it("is the cheapest there is, by trying everything: few of them among many that take one", () => {
    for (const seed of times(400, (i) => i)) {
      const roll = dice(seed);
      const counts = times(2 + roll(3), () => 1 + roll(2));
      const groups = times(3 + roll(3), () => [
        { option: 0, cost: [20 + roll(30)], lots: [] },
        ...times(2 + roll(4), (k) => ({
          option: k + 1,
          cost: [roll(seed % 2 ? 4 : 40)],
          lots: times(roll(4) === 0 ? 2 : 1, () => roll(counts.length)).sort((a, b) => a - b),
        })),
      ]);
      const effort = { left: 100_000, stopped: false };
      const found = share(groups, counts, 1, effort);
      const best = whole(groups, counts);
      expect({ seed, cost: found?.cost, bound: found?.bound }).toEqual({ seed, cost: [best], bound: [best] });
      expect(share(groups, counts, 1, effort, [best])).toBeNull();
      expect(share(groups, counts, 1, effort, [best + 1])?.cost).toEqual([best]);
    }
  });
});

describe("groups filled by parts of their ways", () => {
  /** What everybody has who takes what is cheapest at these prices, less what the lots are worth. */
  const bound = (
    groups: readonly (readonly { cost: readonly number[]; lots: readonly number[] }[])[],
    counts: readonly number[],
    prices: ReadonlyMap<number, readonly number[]>,
  ): number => {
    const price = (lot: number): number => prices.get(lot)?.[0] ?? 0;
    const least = groups.map((ways) =>
      Math.min(
        ...ways.map(({ cost, lots }) => (cost[0] ?? 0) + lots.reduce((sum, lot) => sum + price(lot), 0)),
      ),
    );
    return least.reduce((a, b) => a + b, 0) - counts.reduce((sum, n, lot) => sum + n * price(lot), 0);
  };

  it("costs what its prices say, and never more than in whole pieces", () => {
    for (const seed of times(200, (i) => i)) {
      const roll = dice(seed);
      const counts = times(1 + roll(4), () => 1 + roll(2));
      const groups = times(1 + roll(5), () => [
        { cost: [4_000 + 100 * roll(120)], lots: [] },
        ...times(roll(5), () => ({
          cost: [100 * roll(60)],
          lots: times(1 + roll(2), () => roll(counts.length)).sort((a, b) => a - b),
        })),
      ]);
      const { prices, shares } = inParts(groups, counts, 1);
      for (const own of shares) expect(own.reduce((a, b) => a + b, 0)).toBeCloseTo(1);
      const used = counts.map((_, lot) =>
        groups.reduce(
          (sum, ways, i) =>
            sum +
            ways.reduce(
              (some, { lots }, k) => some + (shares[i]?.[k] ?? 0) * lots.filter((l) => l === lot).length,
              0,
            ),
          0,
        ),
      );
      expect(used.every((n, lot) => n <= (counts[lot] ?? 0) + 1e-6)).toBe(true);
      const cost = groups.reduce(
        (sum, ways, i) =>
          sum + ways.reduce((some, way, k) => some + (shares[i]?.[k] ?? 0) * (way.cost[0] ?? 0), 0),
        0,
      );
      // Prices are rounded to whole numbers: a piece’s worth each at most.
      const rounded = counts.reduce((a, b) => a + b, 0) + 2 * groups.length;
      expect(Math.abs(bound(groups, counts, prices) - cost)).toBeLessThanOrEqual(rounded);
      expect(bound(groups, counts, prices)).toBeLessThanOrEqual(whole(groups, counts) + 1e-6);
    }
  });
});
