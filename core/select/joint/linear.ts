import { less, nothing, type Cost } from "./cost";

/** Groups filled by parts of their ways: what one more piece of a lot would save then, and how much of each way is in. */
export interface Linear {
  prices: Map<number, Cost>;
  shares: number[][];
}
interface LinearWay {
  cost: Cost;
  lots: readonly number[];
}

/** A cost's integers in digits that are exact in all that is done with them here. */
const DIGIT = 2 ** 24;
/** Less than this is nothing: of a cost's digit, and of a share. */
const NO_COST = 1e-5;
const NO_SHARE = 1e-8;
/** Steps for each row before it is left as it stands: any prices are prices. */
const PATIENCE = 20;

/**
 * The cheapest sharing where groups may be filled by parts of several ways: the simplex method (G. B. Dantzig 1951) on a table of all ways, with a row of
 * costs for each of their digits, compared in order. What it gives is not relied on: prices are rounded, and whoever uses them counts again in whole numbers.
 *
 * @param counts how many pieces each lot holds.
 * @param size of a cost.
 */
export function inParts(
  groups: readonly (readonly LinearWay[])[],
  counts: readonly number[],
  size: number,
): Linear {
  const table = new Table(groups, counts, size);
  table.solve();
  return { prices: table.prices(), shares: table.shares() };
}

class Table {
  private readonly lots: number[];
  /** Rows of groups, then of lots, then of costs: nobody left without, then the digits. */
  private readonly rows: Float64Array[];
  private readonly costs: Float64Array[];
  /** What stands in each row of groups and lots: a column, or −1 for a group that has nothing yet. */
  private readonly basis: Int32Array;
  /** The first column of each group; after the last of them lots' leftovers, and what each row comes to. */
  private readonly first: number[] = [];
  private readonly leftover: number;
  private readonly total: number;

  constructor(
    private readonly groups: readonly (readonly LinearWay[])[],
    counts: readonly number[],
    private readonly size: number,
  ) {
    const places = new Map<number, number>();
    let columns = 0;
    for (const ways of groups) {
      this.first.push(columns);
      columns += ways.length;
      for (const { lots } of ways)
        for (const lot of lots) if (!places.has(lot)) places.set(lot, groups.length + places.size);
    }
    this.lots = [...places.keys()];
    this.leftover = columns;
    this.total = columns + this.lots.length;
    const row = (): Float64Array => new Float64Array(this.total + 1);
    this.rows = Array.from({ length: groups.length + this.lots.length }, row);
    this.costs = Array.from({ length: 1 + 2 * size }, row);
    this.basis = new Int32Array(this.rows.length).fill(-1);
    for (const [k, lot] of this.lots.entries()) {
      const at = groups.length + k;
      (this.rows[at] as Float64Array)[this.leftover + k] = 1;
      (this.rows[at] as Float64Array)[this.total] = counts[lot] ?? 0;
      this.basis[at] = this.leftover + k;
    }
    for (const [i, ways] of groups.entries()) this.begin(i, ways, places);
  }

  /** A group begins with a way that takes nothing; where it has none, with nothing, which is dearer than all else. */
  private begin(group: number, ways: readonly LinearWay[], places: ReadonlyMap<number, number>): void {
    const from = this.first[group] as number;
    const own = this.rows[group] as Float64Array;
    const free = ways.findIndex(({ lots }) => lots.length === 0);
    own[this.total] = 1;
    this.basis[group] = free < 0 ? -1 : from + free;
    const begun = ways[free]?.cost ?? nothing(this.size);
    for (const [k, { cost, lots }] of ways.entries()) {
      own[from + k] = 1;
      for (const lot of lots) {
        const row = this.rows[places.get(lot) ?? 0] as Float64Array;
        row[from + k] = (row[from + k] as number) + 1;
      }
      if (free < 0) (this.costs[0] as Float64Array)[from + k] = -1;
      for (let part = 0; part < this.size; part++) {
        const [all, less] = [cost[part] ?? 0, begun[part] ?? 0];
        const high = Math.floor(all / DIGIT) - Math.floor(less / DIGIT);
        (this.costs[1 + 2 * part] as Float64Array)[from + k] = high;
        (this.costs[2 + 2 * part] as Float64Array)[from + k] = (all % DIGIT) - (less % DIGIT);
      }
    }
  }

  solve(): void {
    for (let left = PATIENCE * this.rows.length; left > 0; left--) {
      const enters = this.cheapest();
      if (enters < 0) return;
      const row = this.leaving(enters);
      if (row < 0) return;
      this.swap(row, enters);
    }
  }

  /** The column that saves most, or −1 where none saves anything. */
  private cheapest(): number {
    let best = -1;
    const none = this.costs.length;
    for (let column = 0; column < this.total; column++)
      for (let k = 0; k < none; k++) {
        const costs = this.costs[k] as Float64Array;
        const by = (costs[column] as number) - (best < 0 ? 0 : (costs[best] as number));
        if (by > NO_COST) break;
        if (by < -NO_COST) {
          best = column;
          break;
        }
      }
    return best;
  }

  private leaving(column: number): number {
    let [row, least] = [-1, Infinity];
    for (let i = 0; i < this.rows.length; i++) {
      const values = this.rows[i] as Float64Array;
      const share = values[column] as number;
      if (share <= NO_SHARE) continue;
      const ratio = (values[this.total] as number) / share;
      const isLess = ratio < least - NO_SHARE;
      // Of rows that are empty at once the same one goes first every time: nothing goes round in a circle for long.
      if (isLess || (ratio <= least + NO_SHARE && (this.basis[i] as number) < (this.basis[row] as number))) {
        row = i;
        least = Math.min(least, ratio);
      }
    }
    return row;
  }

  private swap(row: number, column: number): void {
    const own = this.rows[row] as Float64Array;
    const by = own[column] as number;
    const filled: number[] = [];
    for (let k = 0; k <= this.total; k++) {
      const value = own[k] as number;
      if (Math.abs(value) <= NO_SHARE) own[k] = 0;
      else {
        own[k] = value / by;
        filled.push(k);
      }
    }
    const without = (values: Float64Array): void => {
      const times = values[column] as number;
      if (values === own || times === 0) return;
      for (const k of filled) values[k] = (values[k] as number) - times * (own[k] as number);
      values[column] = 0;
    };
    this.rows.forEach(without);
    this.costs.forEach(without);
    this.basis[row] = column;
  }

  prices(): Map<number, Cost> {
    const prices = new Map<number, Cost>();
    const none = nothing(this.size);
    for (const [k, lot] of this.lots.entries()) {
      const at = (digit: number): number => (this.costs[digit] as Float64Array)[this.leftover + k] as number;
      const price = none.map((_, part) => Math.round(at(1 + 2 * part) * DIGIT + at(2 + 2 * part)));
      if (less(none, price)) prices.set(lot, price);
    }
    return prices;
  }

  shares(): number[][] {
    const shares = new Float64Array(this.total);
    for (const [i, column] of this.basis.entries())
      if (column >= 0) shares[column] = (this.rows[i] as Float64Array)[this.total] as number;
    return this.groups.map((ways, i) => ways.map((_, k) => shares[(this.first[i] as number) + k] as number));
  }
}
