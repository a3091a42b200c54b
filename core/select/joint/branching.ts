import type { Effort } from "./shared";
import { leastOf, type Simplex } from "./simplex";

/** What a branch that is looked at takes of the effort, as a part of the columns there are. */
const BRANCH = 1 / 120;

/** What can be settled by itself: groups that are open, the rows they meet in, and what of those others leave. */
export interface Part {
  groups: number[];
  rows: number[];
  counts: number[];
}

/** Branch and bound over the groups of a part: the one that is least decided has what most of it is filled with, or has not. */
export class Branching {
  private found: number[] | null = null;
  /** Only what costs less is wanted. */
  private upper: number;

  /** @param improved solves the linear program as it stands; false where it was given up. */
  constructor(
    private readonly lp: Simplex,
    private readonly part: Part,
    private readonly improved: () => boolean,
    private readonly effort: Effort,
    private readonly isJob: (group: number) => boolean,
  ) {
    this.upper = lp.dearest(part.groups) + 1;
  }

  /** The best whole columns of its groups, in their order; null where there are none. */
  best(): number[] | null {
    this.look();
    return this.effort.stopped ? null : this.found;
  }

  private look(): void {
    const { lp, part } = this;
    const bound = lp.bound(part.groups, part.rows, part.counts);
    if (leastOf(bound) >= this.upper) return;
    this.effort.left -= BRANCH * lp.costs.length;
    const group = this.leastDecided();
    if (group < 0) {
      this.take();
      return;
    }
    // What may not be in still is, and there is nothing to decide: fractions are no longer to be trusted.
    if (!lp.toDecide(group)) {
      this.effort.stopped = true;
      return;
    }
    lp.barDearer(part.groups, bound, this.upper - 1);
    const decision = lp.toDecide(group);
    if (!decision) {
      // It is decided with that.
      if (this.improved()) this.look();
      return;
    }
    const { column, others } = decision;
    const before = lp.keep();
    for (const other of others) lp.bar(other);
    if (!this.improved()) return;
    this.look();
    if (this.effort.stopped) return;
    lp.back(before);
    lp.bar(column);
    if (!this.improved()) return;
    this.look();
    lp.back(before);
  }

  /** Jobs first: with how long they wait much else is decided. */
  private leastDecided(): number {
    const { lp, part } = this;
    const job = lp.leastDecided(part.groups.filter(this.isJob));
    return job < 0 ? lp.leastDecided(part.groups) : job;
  }

  /** Notes what stands now, once it is counted in whole numbers that no row gives too much. */
  private take(): void {
    const { lp, part } = this;
    const columns = part.groups.map((group) => lp.most(group).column);
    const taken = new Map<number, number>();
    for (const column of columns)
      for (const [row, takes] of lp.takesOf(column)) taken.set(row, (taken.get(row) ?? 0) + takes);
    const isEnough = part.rows.every((row) => {
      const left = (part.counts[row] as number) - (taken.get(row) ?? 0);
      return lp.usedUp[row] === 1 ? left === 0 : left >= 0;
    });
    // Only where fractions were no longer to be trusted.
    if (!isEnough || columns.some((column) => lp.barred[column] === 1)) {
      this.effort.stopped = true;
      return;
    }
    const cost = columns.reduce((sum, column) => sum + (lp.costs[column] as number), 0);
    if (cost >= this.upper) return;
    this.upper = cost;
    this.found = columns;
  }
}
