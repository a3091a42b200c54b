import { AT, type TermValues } from "./options";
import type { Term } from "./question";

/** Lexicographic cost as a few exact integers: compared from the first on, added one by one. */
export type Cost = readonly number[];

/** Whole numbers are exact far beyond this: room for sums, differences and what must never be. */
const EXACT = 2 ** 47;

/**
 * How terms are packed into as few exact integers as hold them: within one, a term weighs more than all that follow it can come to. With that, the
 * cheapest sum is the lexicographically first one, and sums do not depend on the order they are made in.
 */
export class Scale {
  /** How many integers a cost has. */
  readonly size: number;
  private readonly weights: { at: number; part: number; weight: number }[] = [];

  /** @param most of each term, over all that is chosen. */
  constructor(terms: readonly Term[], most: TermValues) {
    let part = 0;
    let weight = 1;
    for (const term of [...terms].reverse()) {
      const range = (most[AT[term]] ?? 0) + 1;
      if (weight > 1 && weight * range > EXACT) {
        part++;
        weight = 1;
      }
      this.weights.push({ at: AT[term], part, weight });
      weight *= range;
    }
    this.size = part + 1;
    for (const one of this.weights) one.part = part - one.part;
  }

  /** The terms of a cost, in their order; of a bound the first that differs from a plan's says what could be better. */
  read(cost: Cost): number[] {
    const left = [...cost];
    return [...this.weights].reverse().map(({ part, weight }) => {
      const value = Math.floor((left[part] ?? 0) / weight);
      left[part] = (left[part] ?? 0) - value * weight;
      return value;
    });
  }

  costOf(values: TermValues): number[] {
    const cost = new Array<number>(this.size).fill(0);
    for (const { at, part, weight } of this.weights)
      cost[part] = (cost[part] ?? 0) + weight * (values[at] ?? 0);
    return cost;
  }
}

export const compare = (a: Cost, b: Cost): number => {
  for (let i = 0; i < a.length; i++) {
    const difference = (a[i] ?? 0) - (b[i] ?? 0);
    if (difference !== 0) return difference;
  }
  return 0;
};
export const less = (a: Cost, b: Cost): boolean => compare(a, b) < 0;
export const plus = (a: Cost, b: Cost, times = 1): number[] => a.map((one, i) => one + times * (b[i] ?? 0));
export const nothing = (size: number): number[] => new Array<number>(size).fill(0);
