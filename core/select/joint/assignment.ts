import { nothing, plus, type Cost } from "./cost";

/** One who takes a piece of one lot, or none. */
export interface Taker {
  /** Lots it could take from, each once. */
  lots: readonly number[];
  /** What that costs, in the same order. */
  costs: readonly Cost[];
  /** Without any of them. */
  without: Cost;
}
export interface Assignment {
  cost: number[];
  /** The place in each taker's lots; −1 without. */
  taken: Int32Array;
  /** What one more piece of each lot would save: nothing of what is left over. */
  prices: number[][];
}

/**
 * The cheapest assignment of takers to lots that hold so many each, or to none. Shortest augmenting paths, one taker after another, over costs reduced
 * by the prices of the lots (R. Jonker, A. Volgenant 1987), with capacities.
 *
 * @param counts how many pieces each lot holds.
 * @param size of a cost.
 */
export function assign(takers: readonly Taker[], counts: readonly number[], size: number): Assignment {
  const state = new Search(takers, counts, size);
  for (let i = 0; i < takers.length; i++) state.add(i);
  let cost: number[] = nothing(size);
  for (const [i, taker] of takers.entries())
    cost = plus(cost, taker.costs[state.taken[i] ?? -1] ?? taker.without);
  return { cost, taken: state.taken, prices: counts.map((_, lot) => state.price(lot)) };
}

class Search {
  readonly taken: Int32Array;
  /** Who has taken from each lot. */
  private readonly holders: number[][];
  private readonly prices: Float64Array;
  private readonly distance: Float64Array;
  /** Who reaches a lot first, and whether its distance is final; of this round only. */
  private readonly from: Int32Array;
  private readonly final: Uint8Array;
  private readonly heap: Heap;
  private readonly best: Float64Array;
  private readonly base: Float64Array;

  constructor(
    private readonly takers: readonly Taker[],
    private readonly counts: readonly number[],
    private readonly size: number,
  ) {
    this.taken = new Int32Array(takers.length).fill(-1);
    this.holders = counts.map(() => []);
    this.prices = new Float64Array(counts.length * size);
    this.distance = new Float64Array(counts.length * size);
    this.from = new Int32Array(counts.length).fill(-1);
    this.final = new Uint8Array(counts.length);
    this.heap = new Heap(this.distance, size);
    this.best = new Float64Array(size);
    this.base = new Float64Array(size);
  }

  price = (lot: number): number[] => [...this.prices.subarray(lot * this.size, (lot + 1) * this.size)];

  add(taker: number): void {
    const { size, heap, best, base, distance, from, final } = this;
    const touched: number[] = [];
    // Whoever would go without: the path's end unless a piece is left somewhere nearer.
    let leaves = -1;
    let end = -1;
    base.fill(0);
    const reach = (who: number): void => {
      const { lots, costs, without } = this.takers[who] as Taker;
      if (leaves < 0 || this.lessThan(base, without, best)) {
        leaves = who;
        for (let k = 0; k < size; k++) best[k] = (base[k] ?? 0) + (without[k] ?? 0);
      }
      for (let i = 0; i < lots.length; i++) {
        const lot = lots[i] as number;
        if (final[lot] || this.counts[lot] === 0) continue;
        const cost = costs[i] as Cost;
        const known = from[lot] !== -1;
        const at = lot * size;
        let sooner = !known;
        for (let k = 0; k < size && known; k++) {
          const by =
            (base[k] as number) +
            (cost[k] as number) +
            (this.prices[at + k] as number) -
            (distance[at + k] as number);
          if (by !== 0) {
            sooner = by < 0;
            break;
          }
        }
        if (!sooner) continue;
        for (let k = 0; k < size; k++)
          distance[at + k] = (base[k] as number) + (cost[k] as number) + (this.prices[at + k] as number);
        if (!known) touched.push(lot);
        from[lot] = who;
        heap.put(lot);
      }
    };
    reach(taker);
    for (;;) {
      const lot = heap.take();
      if (lot < 0 || !this.nearer(lot, best)) break;
      const holders = this.holders[lot] as number[];
      if (holders.length < (this.counts[lot] as number)) {
        end = lot;
        break;
      }
      final[lot] = 1;
      for (const holder of holders) {
        const { costs } = this.takers[holder] as Taker;
        const cost = costs[this.taken[holder] as number] as Cost;
        for (let k = 0; k < size; k++)
          base[k] =
            (distance[lot * size + k] as number) -
            (cost[k] as number) -
            (this.prices[lot * size + k] as number);
        reach(holder);
      }
    }
    // What lies nearer than the end is worth the difference more than it was.
    for (const lot of touched) {
      if (final[lot] && lot !== end)
        for (let k = 0; k < size; k++) {
          const at = lot * size + k;
          const till = end >= 0 ? (distance[end * size + k] as number) : (best[k] as number);
          this.prices[at] = (this.prices[at] as number) + till - (distance[at] as number);
        }
    }
    this.change(taker, end, leaves);
    for (const lot of touched) {
      from[lot] = -1;
      final[lot] = 0;
    }
    heap.clear();
  }

  /** Along the path everybody takes from the lot that reached them, and leaves the one they had. */
  private change(taker: number, end: number, leaves: number): void {
    let lot = end;
    if (end < 0) {
      if (leaves === taker) return;
      lot = this.leave(leaves);
      this.taken[leaves] = -1;
    }
    for (;;) {
      const who = this.from[lot] as number;
      const left = who === taker ? -1 : this.leave(who);
      this.taken[who] = (this.takers[who] as Taker).lots.indexOf(lot);
      (this.holders[lot] as number[]).push(who);
      if (who === taker) return;
      lot = left;
    }
  }

  private leave(who: number): number {
    const lot = (this.takers[who] as Taker).lots[this.taken[who] as number] as number;
    const holders = this.holders[lot] as number[];
    holders.splice(holders.indexOf(who), 1);
    return lot;
  }

  private lessThan(base: Float64Array, more: Cost, than: Float64Array): boolean {
    for (let k = 0; k < this.size; k++) {
      const by = (base[k] as number) + (more[k] as number) - (than[k] as number);
      if (by !== 0) return by < 0;
    }
    return false;
  }

  private nearer(lot: number, than: Float64Array): boolean {
    for (let k = 0; k < this.size; k++) {
      const by = (this.distance[lot * this.size + k] as number) - (than[k] as number);
      if (by !== 0) return by < 0;
    }
    return false;
  }
}

/** Lots by distance, nearest first; of two as near, the one that stands first. A lot that came nearer is moved up. */
class Heap {
  private readonly lots: number[] = [];
  private readonly places = new Map<number, number>();
  constructor(
    private readonly distance: Float64Array,
    private readonly size: number,
  ) {}

  clear(): void {
    this.lots.length = 0;
    this.places.clear();
  }
  put(lot: number): void {
    const at = this.places.get(lot) ?? this.lots.push(lot) - 1;
    this.places.set(lot, at);
    this.up(at);
  }
  take(): number {
    const first = this.lots[0];
    if (first === undefined) return -1;
    const last = this.lots.pop() as number;
    this.places.delete(first);
    if (last !== first) {
      this.lots[0] = last;
      this.places.set(last, 0);
      this.down(0);
    }
    return first;
  }
  private before(a: number, b: number): boolean {
    for (let k = 0; k < this.size; k++) {
      const by = (this.distance[a * this.size + k] as number) - (this.distance[b * this.size + k] as number);
      if (by !== 0) return by < 0;
    }
    return a < b;
  }
  private up(at: number): void {
    while (at > 0) {
      const parent = (at - 1) >> 1;
      if (!this.before(this.lots[at] as number, this.lots[parent] as number)) return;
      this.swap(at, parent);
      at = parent;
    }
  }
  private down(at: number): void {
    for (;;) {
      let least = at;
      for (const child of [2 * at + 1, 2 * at + 2])
        if (child < this.lots.length && this.before(this.lots[child] as number, this.lots[least] as number))
          least = child;
      if (least === at) return;
      this.swap(at, least);
      at = least;
    }
  }
  private swap(a: number, b: number): void {
    const [x, y] = [this.lots[a] as number, this.lots[b] as number];
    this.lots[a] = y;
    this.lots[b] = x;
    this.places.set(y, a);
    this.places.set(x, b);
  }
}
