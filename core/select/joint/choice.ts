import { less, Scale } from "./cost";
import { marketsOf } from "./groups";
import { AT, byName, optionsOf, type Group, type Option, type TermValues, type Values } from "./options";
import { TERMS, type Term } from "./question";
import { leastInOrder } from "./program";
import { fits, share, type Effort } from "./shared";

/** From so many groups on, it is tried first whether each can have its best in what comes before readiness. */
const MANY = 50;

/** One way through, for each group. */
interface Round {
  options: Option[];
  values: TermValues;
  stopped: boolean;
  /** Of the terms it was asked for. */
  bound: number[];
}

/** What was chosen for some groups: a way for each, what they come to, and unless it is proved to be the best, what nothing can be better than. */
export interface Chosen {
  options: Option[];
  values: Values;
  bound: number[] | null;
}

/** The best ways for groups together: lexicographically smallest in the terms. */
export class Choice {
  private readonly markets: number[];
  private readonly effort: Effort;
  private readonly known = new Map<readonly Term[], Map<string, Option[]>>();
  /** How many results of each group may be outside, in the last round. */
  private most: number[] = [];
  /** Terms in which every group has the best it could have by itself: ways that are worse in them are not looked at again. */
  private held: readonly Term[] = [];

  /**
   * @param counts what each lot holds.
   * @param allowed how many ways it looks at.
   */
  constructor(
    private readonly groups: readonly Group[],
    private readonly counts: readonly number[],
    private readonly terms: readonly Term[],
    private readonly allowed: number,
  ) {
    this.markets = marketsOf(groups);
    this.effort = { left: allowed, stopped: false };
  }

  plan(): Chosen {
    const { terms } = this;
    const at = terms.indexOf("ready");
    const isMany = this.groups.length >= MANY;
    const soonest = at >= 0 && isMany ? this.inOrder(at) : null;
    if (soonest) return soonest;
    const first = this.round(terms);
    const isSettled = !first.stopped && (at < 0 || first.values[AT.ready] === 0);
    if (isSettled) return this.told(first, null);
    const inOrder = at >= 0 && !isMany ? this.inOrder(at) : null;
    if (inOrder) return inOrder;
    const begun = first.stopped ? this.better(this.oneByOne(), first) : first;
    const sure = this.bound(begun, at);
    const own = this.told(begun, sure);
    const all = this.programmed(this.waysByDay(), 0);
    if (!all?.bound) return all ?? own;
    const bound = less(all.bound, sure) ? sure : all.bound;
    return { ...(this.isBefore(own.values, all.values) ? own : all), bound };
  }

  private isBefore(one: Values, other: Values): boolean {
    const term = this.terms.find((name) => one[name] !== other[name]);
    return term !== undefined && one[term] < other[term];
  }

  /**
   * Readiness and all after it by linear programs, one term after the other, where every group can have its best in what comes before.
   *
   * @returns null where not every group can, or where that was too much.
   */
  private inOrder(at: number): Chosen | null {
    const { most } = this;
    const found = this.programmed(this.bestByDay(this.terms.slice(0, at)), at);
    if (!found) this.most = most;
    return found;
  }

  /**
   * The best of these ways, by linear programs from a term on.
   *
   * @returns null where some group has none, or where that was too much.
   */
  private programmed(ways: readonly Option[][], from: number): Chosen | null {
    const { terms, effort } = this;
    const after = terms.slice(from);
    effort.left = this.allowed;
    effort.stopped = false;
    const least = leastInOrder(
      ways.map((options, i) => ({
        job: this.groups[i]?.job ?? "",
        ways: options.map(({ lots, values }) => ({
          lots,
          days: values[AT.ready] ?? 0,
          values: after.map((term) => values[AT[term]] ?? 0),
        })),
      })),
      this.counts,
      after.length,
      after.indexOf("ready"),
      effort,
    );
    effort.left = this.allowed;
    effort.stopped = false;
    if (!least) return null;
    const round = roundOf(least.ways.map((way, i) => ways[i]?.[way] as Option));
    const before = terms.slice(0, from).map((term) => round.values[AT[term]] ?? 0);
    return this.told(round, least.bound && [...before, ...least.bound]);
  }

  /** All ways of each group, for each day the one that is best for what it takes. */
  private waysByDay(): Option[][] {
    const others = this.terms.filter((term) => term !== "ready");
    return this.groups.map((_, i) => this.options(i, this.most[i] ?? 0, others, true));
  }

  /** Of each group the ways that are best for it in the terms before readiness, for each day the one that is best in the others for what it takes. */
  private bestByDay(before: readonly Term[]): Option[][] {
    const others = this.terms.filter((term) => term !== "ready");
    const compared = by(before);
    this.most = this.leastOutside(others);
    return this.groups.map(({ chains }, i) => {
      for (;;) {
        const most = this.most[i] ?? 0;
        const all = this.options(i, most, others, true).filter(({ lots }) => fits(lots, this.counts));
        const best = all.reduce((a, b) => (compared(b.values, a.values) < 0 ? b : a)).values;
        // With more outside there may be a better one still.
        if ((best[AT.outside] ?? 0) <= most || most >= chains.length)
          return all.filter(({ values }) => compared(values, best) === 0);
        this.most[i] = most + 1;
      }
    });
  }

  /** How many results of each group may be outside to begin with: none, where that comes first. */
  private leastOutside(terms: readonly Term[]): number[] {
    return this.groups.map(({ chains }) => (terms[0] === "outside" ? 0 : chains.length));
  }

  /** The ways of a group with as few results outside as can be, one more where everything left open would be the only one. */
  private fewestOutside(i: number, terms: readonly Term[]): Option[] {
    const { chains } = this.groups[i] as Group;
    for (;;) {
      const most = this.most[i] ?? 0;
      const options = this.options(i, most, terms);
      // Where everything left open is the only way, others with as much outside may be better.
      if (options.length > 1 || most >= chains.length) return options;
      if (options[0]?.values[AT.outside] !== chains.length) return options;
      this.most[i] = most + 1;
    }
  }

  /**
   * What is too much at once, one term after the other: where all groups can have their best in a term, what is worse in it is left out. Nothing is lost by that, and
   * what is found when the search stops is at least not worse in those terms.
   */
  private oneByOne(): Round {
    const { terms, effort } = this;
    effort.left = this.allowed;
    for (let n = 1; n < terms.length && terms[n - 1] !== "ready"; n++) {
      const some = terms.slice(0, n);
      const round = this.round(some);
      if (round.stopped || !this.isEachBest(round, some)) break;
      this.held = some;
      this.known.clear();
    }
    effort.left = this.allowed;
    return this.round(terms);
  }

  /** Whether every group has the best it could have by itself. */
  private isEachBest({ values }: Round, terms: readonly Term[]): boolean {
    const compared = by(terms);
    const best = this.groups.map(
      (_, i) =>
        this.options(i, this.most[i] ?? 0, terms).reduce((a, b) => (compared(b.values, a.values) < 0 ? b : a))
          .values,
    );
    return terms.every((term) => best.reduce((sum, of) => sum + (of[AT[term]] ?? 0), 0) === values[AT[term]]);
  }

  private better(a: Round, b: Round): Round {
    for (const term of this.terms) {
      const [one, other] = [this.valueOf(a, term), this.valueOf(b, term)];
      if (one !== other) return one < other ? a : b;
    }
    return a;
  }
  /** Of readiness what it comes to for the jobs. */
  private valueOf(round: Round, term: Term): number {
    if (term !== "ready") return round.values[AT[term]] ?? 0;
    return [...this.daysOf(round).values()].reduce((a, b) => a + b, 0);
  }

  /** What nothing can be better than in the terms before readiness; of the others nothing is known, as groups' days are not their jobs'. */
  private bound({ values, stopped, bound }: Round, at: number): number[] {
    return this.terms.map((term, i) => {
      if (at >= 0 && i >= at) return 0;
      return stopped ? (bound[i] ?? 0) : (values[AT[term]] ?? 0);
    });
  }

  /** The latest day of each job. */
  private daysOf({ options }: Pick<Round, "options">): Map<string, number> {
    const latest = new Map<string, number>();
    for (const [i, { values }] of options.entries()) {
      const job = this.groups[i]?.job ?? "";
      latest.set(job, Math.max(latest.get(job) ?? 0, values[AT.ready] ?? 0));
    }
    return latest;
  }

  /** The cheapest in some terms, days of groups added up. */
  private round(terms: readonly Term[]): Round {
    const most = this.leastOutside(terms);
    this.most = most;
    for (;;) {
      const all = this.groups.map((_, i) => this.fewestOutside(i, terms));
      const round = this.shared(all, terms);
      // With more outside somewhere there might be a better one, unless that is more than all are together.
      const least = all.map((options) =>
        options.reduce((a, { values }) => Math.min(a, values[AT.outside] ?? 0), Infinity),
      );
      const excess = new Map<number, number>();
      for (const [i, option] of round.options.entries()) {
        const market = this.markets[i] ?? 0;
        excess.set(market, (excess.get(market) ?? 0) + (option.values[AT.outside] ?? 0) - (least[i] ?? 0));
      }
      let isMore = false;
      for (const [i, { chains }] of this.groups.entries()) {
        const now = most[i] ?? 0;
        const spare = now + 1 - (least[i] ?? 0);
        if (now < chains.length && (excess.get(this.markets[i] ?? 0) ?? 0) >= spare) {
          most[i] = now + 1;
          isMore = true;
        }
      }
      if (!isMore) return round;
    }
  }

  private options(group: number, most: number, terms: readonly Term[], eachDay = false): Option[] {
    const ofTerms = this.known.get(terms) ?? new Map<string, Option[]>();
    this.known.set(terms, ofTerms);
    const key = `${group} ${most} ${eachDay}`;
    const known = ofTerms.get(key);
    if (known) return known;
    const made = optionsOf(this.groups[group] as Group, {
      counts: this.counts,
      most,
      latest: Infinity,
      terms,
      eachDay,
    });
    const { held } = this;
    const compared = by(held);
    const best = made.reduce((a, b) => (compared(b.values, a.values) < 0 ? b : a)).values;
    // What takes nothing from the shelf stays: there must be a way for everybody.
    const isKept = ({ values, lots }: Option): boolean => lots.length === 0 || compared(values, best) === 0;
    const kept = held.length > 0 ? made.filter(isKept) : made;
    ofTerms.set(key, kept);
    return kept;
  }

  private shared(all: readonly Option[][], terms: readonly Term[]): Round {
    const most = new Float64Array(TERMS.length);
    for (const options of all)
      for (const term of terms) {
        const at = AT[term];
        let highest = 0;
        for (const { values } of options) highest = Math.max(highest, values[at] ?? 0);
        most[at] = (most[at] ?? 0) + highest;
      }
    const scale = new Scale(terms, most);
    const ways = all.map((options) =>
      options.map(({ values, lots }, option) => ({ option, cost: scale.costOf(values), lots })),
    );
    const before = this.effort.stopped;
    this.effort.stopped = false;
    const found = share(ways, this.counts, scale.size, this.effort);
    if (!found) throw new RangeError("some seat has no way that takes nothing from the shelf");
    const { stopped } = this.effort;
    this.effort.stopped ||= before;
    const options = found.ways.map(({ option }, i) => all[i]?.[option] as Option);
    return { ...roundOf(options), stopped, bound: scale.read(found.bound) };
  }

  private told({ options, values }: Round, bound: number[] | null): Chosen {
    const ready = [...this.daysOf({ options }).values()].reduce((a, b) => a + b, 0);
    return { options, values: { ...byName(values), ready }, bound };
  }
}

/** A way for each group, and what they come to. */
function roundOf(options: Option[]): Round {
  const values = new Float64Array(TERMS.length);
  for (const option of options)
    for (let at = 0; at < values.length; at++) values[at] = (values[at] ?? 0) + (option.values[at] ?? 0);
  return { options, values, stopped: false, bound: [] };
}

/** Values compared term by term. */
function by(terms: readonly Term[]): (a: TermValues, b: TermValues) => number {
  const places = terms.map((term) => AT[term]);
  return (a, b) => {
    for (const at of places) if (a[at] !== b[at]) return (a[at] ?? 0) - (b[at] ?? 0);
    return 0;
  };
}
