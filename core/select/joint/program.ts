import { beginSooner } from "./begin";
import { Branching, type Part } from "./branching";
import { Columns, NOTHING, type Fillable, type Filling } from "./columns";
import { less, nothing, plus } from "./cost";
import { Joined } from "./joined";
import { wantedOf, type Effort } from "./shared";
import { leastOf, Simplex, type Bound, type Kept } from "./simplex";

/** What an exchange of columns takes of the effort, as a part of the columns there are. */
const EXCHANGE = 1 / 400;

/** A way for each group by its place, what they come to term by term, and unless it is proved to be the best, what nothing can be better than. */
export interface Least {
  ways: number[];
  values: readonly number[];
  bound: number[] | null;
}

/**
 * The ways that are least in the first term, of those the ones least in the second, and so on; no lot gives more than it holds. One of the terms may be readiness, the latest
 * day of each job added up; a way’s own value in it is not asked.
 *
 * Term by term the linear program is solved, in which groups may be filled by parts (`Simplex`), a job waiting by as large a part as any of its groups does. It gives a bound; the next whole
 * number is taken for the least there is, and what would cost more than that by itself is left out for all terms that follow (reduced costs, as in G. B. Dantzig, D. R. Fulkerson,
 * S. M. Johnson 1954). What is left after the last one comes apart into small pieces, each settled by branch and bound. Only where nothing whole is found is the term before looked at
 * more closely: jobs are given their days one by one, and what the term really comes to is found the same way.
 *
 * @param ready which of the terms is readiness; −1 where none is.
 * @returns null where there is no way, or where none was found with the effort, which is stopped then.
 */
export function leastInOrder(
  groups: readonly Fillable[],
  counts: readonly number[],
  terms: number,
  ready: number,
  effort: Effort,
): Least | null {
  const all: Least = { ways: [], values: nothing(terms), bound: null };
  for (const part of apart(groups, counts, ready >= 0)) {
    const own = { left: (effort.left * part.length) / groups.length, stopped: false };
    const some = part.map((group) => groups[group] as Fillable);
    const columns = new Columns(some, counts, terms, ready);
    if (ready >= 0) beginSooner(columns);
    const least = new Program(columns, own).solved();
    effort.stopped ||= own.stopped;
    if (!least) return null;
    for (const [k, group] of part.entries()) all.ways[group] = least.ways[k] as number;
    const { values, bound } = all;
    all.values = plus(values, least.values);
    if (bound || least.bound) all.bound = plus(bound ?? values, least.bound ?? least.values);
  }
  return all;
}

/** Groups that have to do with each other, by their places: they are of one job that is ready together, or want a lot that could run out. */
function apart(groups: readonly Fillable[], counts: readonly number[], byJobs: boolean): number[][] {
  const joined = new Joined(groups.length);
  const wanted = wantedOf(
    groups.map(({ ways }) => ways),
    counts.length,
  );
  for (const [group, { job, ways }] of groups.entries()) {
    if (byJobs) joined.meet(job, group);
    for (const { lots } of ways)
      for (const lot of lots) if ((wanted[lot] as number) > (counts[lot] as number)) joined.meet(lot, group);
  }
  return joined.sets();
}

/** What is left of the program after some decisions, solved. */
interface Knot {
  bound: Bound;
  kept: Kept;
}

class Program {
  private readonly columns: readonly Filling[];
  /** What each row holds; after those of the columns one for each term, which holds it to what it comes to. */
  private readonly counts: number[];
  private readonly all: readonly number[];
  private readonly lp: Simplex;
  private spent = 0;
  /** The best so far, and what each term is held to while those after it are looked at. */
  private best: { columns: readonly number[]; values: readonly number[] } | null = null;
  private readonly heldAt: number[] = [];
  /** What each term came to at least when it was first looked at, all before it being as little: nothing is better than that. */
  private readonly first: number[];
  private reached = 0;

  constructor(
    private readonly of: Columns,
    private readonly effort: Effort,
  ) {
    const { all, counts, start, terms } = of;
    this.columns = all;
    this.first = nothing(terms);
    this.all = [...start.keys()];
    this.counts = [...counts, ...this.first];
    this.lp = new Simplex(all, [...counts, ...this.first.map(() => Infinity)], start);
    for (const [j, { way }] of all.entries()) if (way === NOTHING) this.lp.bar(j);
  }

  solved(): Least | null {
    this.note(this.of.start);
    this.from(0);
    if (!this.best) return null;
    const ways: number[] = [];
    for (const column of this.best.columns) {
      const { group, way } = this.columns[column] as Filling;
      if (way >= 0) ways[group] = way;
    }
    return { ways, values: this.best.values, bound: this.effort.stopped ? this.first : null };
  }

  private costIn(column: number, term: number): number {
    return this.columns[column]?.values[term] ?? 0;
  }

  /** Looks for anything better than the best, from a term on, with all before it held. */
  private from(term: number): void {
    this.lp.cost((column) => this.costIn(column, term));
    if (term === 0) for (const column of this.of.needless) this.lp.barred[column] = 1;
    const isSolved = this.improved();
    if (term === 0) for (const column of this.of.needless) this.lp.barred[column] = 0;
    const root = isSolved ? this.knot() : null;
    if (!root || this.isBehind(term, leastOf(root.bound))) return;
    if (this.reached === term) this.first[this.reached++] = leastOf(root.bound);
    // As little as the bound says is tried at once: most often that can be.
    this.goOn(term, root.bound, leastOf(root.bound));
    // The last term is settled with that; and so is one where nothing that comes to more is wanted.
    if (this.effort.stopped || term === this.of.terms - 1 || this.isBehind(term, leastOf(root.bound) + 1))
      return;
    this.lp.back(root.kept);
    const real = this.note(this.whole())?.[term];
    if (real !== undefined) this.byJobs(term, root, real);
  }

  /** The linear program as it stands; null where nothing whole can be in it. */
  private knot(): Knot | null {
    const { lp } = this;
    const bound = lp.bound(this.all, [...this.counts.keys()], this.counts);
    return bound.value > lp.dearest(this.all) ? null : { bound, kept: lp.keep() };
  }

  /** Nobody has it so cheap in whole ways as it looked. What it really comes to is known: jobs are given their days or not, one by one, until a bound says so too. */
  private byJobs(term: number, root: Knot, real: number): void {
    const { lp, effort } = this;
    const jobs = this.all.slice(this.of.jobs);
    const open = [root];
    const add = (): void => {
      const knot = this.improved() ? this.knot() : null;
      if (knot) open.push(knot);
    };
    while (open.length > 0 && !effort.stopped) {
      const next = open.reduce((a, b, i) => (b.bound.value <= (open[a]?.bound.value ?? 0) ? i : a), 0);
      const [{ bound, kept }] = open.splice(next, 1) as [Knot];
      if (leastOf(bound) > real) continue;
      lp.back(kept);
      const byParts = lp.leastDecided(jobs);
      const job = byParts < 0 ? jobs.find((one) => lp.openOf(one).length > 1) : byParts;
      const decision = job === undefined ? null : lp.toDecide(job);
      if (leastOf(bound) === real || !decision) {
        this.goOn(term, bound, real);
        continue;
      }
      const { column, others } = decision;
      for (const other of others) lp.bar(other);
      add();
      lp.back(kept);
      lp.bar(column);
      add();
    }
  }

  /** Whether what is held, and so much in this term, is worse than the best. */
  private isBehind(term: number, value: number): boolean {
    const values = this.best?.values;
    if (!values) return false;
    const at = this.heldAt.findIndex((held, i) => i < term && held !== values[i]);
    return at >= 0 ? (this.heldAt[at] as number) > (values[at] as number) : value > (values[term] as number);
  }

  /** Goes on with so much in this term. */
  private goOn(term: number, bound: Bound, most: number): void {
    if (term === this.of.terms - 1) {
      this.note(this.whole());
      return;
    }
    this.heldAt[term] = most;
    this.hold(term, bound, most);
    this.from(term + 1);
  }

  /** Keeps whole columns where nothing better was found before; returns what they come to. */
  private note(columns: readonly number[] | null): readonly number[] | null {
    if (!columns || columns.some((column) => this.columns[column]?.way === NOTHING)) return null;
    const values = Array.from({ length: this.of.terms }, (_, term) =>
      columns.reduce((sum, column) => sum + this.costIn(column, term), 0),
    );
    if (!this.best || less(values, this.best.values)) this.best = { columns, values };
    return values;
  }

  /** Leaves out what costs more than is to be spent in a term, and where that is not enough, counts what is spent. */
  private hold(term: number, { value, prices }: Bound, most: number): void {
    const { lp, counts } = this;
    let more = value + lp.barDearer(this.all, { value, prices }, most);
    for (const [row, count] of counts.entries()) {
      const price = -(prices[row] as number);
      if (value + price > most) lp.usedUp[row] = 1;
      // What a job gives a row is one.
      else if (price > 0) more += price * Math.max(count, 1);
    }
    if (more < most + 1) return;
    counts[this.of.counts.length + term] = most;
    lp.limit(this.of.counts.length + term, (column) => this.costIn(column, term), most);
  }

  /** Solves the linear program as it stands; false where it was given up. */
  private improved(): boolean {
    const { lp, effort } = this;
    const isSolved = lp.solve();
    effort.left -= (1 + EXCHANGE * this.columns.length) * (lp.exchanges - this.spent);
    this.spent = lp.exchanges;
    if (!isSolved || effort.left <= 0) effort.stopped = true;
    return !effort.stopped;
  }

  /** The best whole columns for the costs as they are, part by part; null where there are none. */
  private whole(): number[] | null {
    const { lp } = this;
    const chosen: number[] = [];
    const parts = this.parts();
    const inParts = new Set(parts.flatMap(({ groups }) => groups));
    for (const group of this.all) if (!inParts.has(group)) chosen[group] = this.cheapestOf(group);
    for (const part of parts) {
      lp.only(part.groups);
      const found = new Branching(
        lp,
        part,
        () => this.improved(),
        this.effort,
        (group) => group >= this.of.jobs,
      ).best();
      if (!found) break;
      for (const [k, group] of part.groups.entries()) {
        chosen[group] = found[k] as number;
        for (const column of this.lp.openOf(group)) if (column !== found[k]) lp.bar(column);
      }
      if (!this.improved()) break;
    }
    lp.only(this.all);
    return this.all.every((group) => chosen[group] !== undefined) && !this.effort.stopped ? chosen : null;
  }

  private cheapestOf(group: number): number {
    return this.lp
      .openOf(group)
      .reduce((a, b) => ((this.lp.costs[b] as number) < (this.lp.costs[a] as number) ? b : a));
  }

  /** Open groups that meet in rows of which there may not be enough, or of which nothing may be left. */
  private parts(): Part[] {
    const { counts, lp } = this;
    const open = this.all.map((group) => this.lp.openOf(group));
    const most = new Float64Array(counts.length);
    const left = [...counts];
    for (const own of open) {
      for (const [row, takes] of mostOf(own.map((j) => lp.takesOf(j))))
        most[row] = (most[row] as number) + takes;
      if (own.length === 1)
        for (const [row, takes] of lp.takesOf(own[0] as number)) left[row] = (left[row] as number) - takes;
    }
    const matters = (row: number): boolean =>
      lp.usedUp[row] === 1 || (lp.isLimited(row) && (most[row] as number) > (counts[row] as number));
    const joined = new Joined(open.length);
    const rows = open.map((own) =>
      own.length < 2 ? [] : [...new Set(own.flatMap((j) => [...lp.takesOf(j).keys()]))].filter(matters),
    );
    for (const [group, own] of rows.entries()) for (const row of own) joined.meet(row, group);
    return joined.sets().flatMap((groups) => {
      const own = new Set(groups.flatMap((group) => rows[group] ?? []));
      return own.size > 0 ? [{ groups, rows: [...own], counts: left }] : [];
    });
  }
}

/** The most that any of these takes of each row; what does not name a row takes none of it. */
function mostOf(all: readonly ReadonlyMap<number, number>[]): Map<number, number> {
  const [most, named] = [new Map<number, number>(), new Map<number, number>()];
  for (const one of all)
    for (const [key, value] of one) {
      most.set(key, Math.max(most.get(key) ?? value, value));
      named.set(key, (named.get(key) ?? 0) + 1);
    }
  for (const [key, value] of most) if ((named.get(key) ?? 0) < all.length) most.set(key, Math.max(0, value));
  return most;
}
