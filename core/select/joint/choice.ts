import { Scale } from "./cost";
import { marketsOf } from "./groups";
import { AT, byName, optionsOf, type Group, type Option, type TermValues, type Values } from "./options";
import { TERMS, type Term } from "./question";
import { fewestDays, type Fewest, type Rest, type Waiting } from "./ready";
import { share, type Effort } from "./shared";

/** From so many groups on, what comes before readiness is looked at first. */
const MANY = 100;
/** Sets of days that are tried before the soonest is taken for what it is. */
const DAYS_TRIED = 400;

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
    const soonest = at >= 0 && this.groups.length >= MANY ? this.eachSoonest(at) : null;
    if (soonest) return this.toldOf(soonest, at);
    const first = this.round(terms, new Map());
    const begun = first.stopped ? this.better(this.oneByOne(), first) : first;
    if (at < 0 || begun.values[AT.ready] === 0)
      return this.told(begun, begun.stopped ? this.bound(begun, at) : null);
    const found = this.soonest(begun, at);
    if (!begun.stopped) return this.toldOf(found, at);
    return this.told(this.better(found.plan, begun), this.bound(begun, at));
  }

  /** What is told where all before readiness is the best there is. */
  private toldOf({ plan, isFewest, isBest, bound }: Fewest<Round>, at: number): Chosen {
    if (isBest && !plan.stopped) return this.told(plan, null);
    const days = this.valueOf(plan, "ready");
    const isBound = isFewest && !bound.stopped;
    return this.told(
      plan,
      this.terms.map((term, i) => {
        if (i < at) return plan.values[AT[term]] ?? 0;
        if (i === at) return isFewest ? days : 0;
        return isBound ? (bound.values[AT[term]] ?? 0) : 0;
      }),
    );
  }

  /**
   * Where there are many groups, what comes before readiness first and by itself: most often every group can have its best there, and what is worse is left out. All
   * terms at once would add up the days of groups, of which a job has many.
   *
   * @returns null where groups are in each other's way in those terms already.
   */
  private eachSoonest(at: number): Fewest<Round> | null {
    const first = this.round(this.terms.slice(0, at), new Map());
    return first.stopped ? null : this.apartSoonest(first, at);
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
      const round = this.round(some, new Map());
      if (round.stopped || !this.isEachBest(round, some)) break;
      this.held = some;
      this.known.clear();
    }
    effort.left = this.allowed;
    return this.round(terms, new Map());
  }

  /** Whether every group has the best it could have by itself. */
  private isEachBest({ values }: Round, terms: readonly Term[]): boolean {
    const compared = by(terms);
    const best = this.groups.map(
      (_, i) =>
        this.options(i, this.most[i] ?? 0, Infinity, terms).reduce((a, b) =>
          compared(b.values, a.values) < 0 ? b : a,
        ).values,
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

  /**
   * The fewest days until all jobs are ready, added up, that cost nothing of the terms before.
   *
   * @param begun the plan with the days of all groups added up: its jobs' days are enough, perhaps more than enough.
   * @param at where readiness stands among the terms.
   */
  private soonest(begun: Round, at: number): Fewest<Round> {
    return this.apartSoonest(begun, at) ?? this.soonestTried(begun, at);
  }

  /** Where every group can have its best in the terms before: what is worse is left out. Else null. */
  private apartSoonest(begun: Round, at: number): Fewest<Round> | null {
    const before = this.terms.slice(0, at);
    const apart = this.apart(begun, before);
    if (!apart) return null;
    this.held = before;
    this.known.clear();
    const found = fewestDays(apart, this.counts, this.effort);
    if (!found) return null;
    // What is left of the effort is not enough where days took all of it.
    this.effort.left = this.allowed;
    const best = found.withRest(this.rest(at));
    return by(before)(best.plan.values, begun.values) > 0 ? null : best;
  }

  /** What is decided once days are: all else. */
  private rest(at: number): Rest<Round> {
    const others = this.terms.filter((term) => term !== "ready");
    const before = this.terms.slice(0, at);
    const compared = by(others);
    return {
      with: (days) => {
        const round = this.round(others, days, true);
        if (!round.stopped) return round;
        // Nothing of what comes first is given up for it.
        const { left } = this.effort;
        this.effort.left = this.allowed;
        const sure = this.round(before, days, true);
        this.effort.left = left;
        return by(before)(sure.values, round.values) < 0 ? { ...sure, stopped: true } : round;
      },
      compare: (a, b) => compared(a.values, b.values),
    };
  }

  /** The ways of each group that are best for it in the terms before readiness; null where not all can have one of them, be it in time or not. */
  private apart({ values }: Round, before: readonly Term[]): Waiting[] | null {
    const terms: readonly Term[] = [...before, "ready"];
    const compared = by(before);
    const all = this.groups.map((_, i) => this.options(i, this.most[i] ?? 0, Infinity, terms));
    const best = all.map(
      (options) => options.reduce((a, b) => (compared(b.values, a.values) < 0 ? b : a)).values,
    );
    const isApart = before.every(
      (term) => best.reduce((sum, of) => sum + (of[AT[term]] ?? 0), 0) === values[AT[term]],
    );
    if (!isApart) return null;
    return all.map((options, i) => ({
      job: this.groups[i]?.job ?? "",
      ways: options.flatMap(({ lots, values: of }) =>
        compared(of, best[i] as TermValues) === 0 ? [{ lots, days: of[AT.ready] ?? 0 }] : [],
      ),
    }));
  }

  /** The same where groups are in each other's way already in the terms before: days are tried as limits, from the fewest upwards. */
  private soonestTried(begun: Round, at: number): Fewest<Round> {
    const before = by(this.terms.slice(0, at));
    const rest = this.rest(at);
    const latest = this.daysOf(begun);
    const sum = (limits: ReadonlyMap<string, number>): number =>
      [...limits.values()].reduce((a, b) => a + b, 0);
    const keyOf = (limits: ReadonlyMap<string, number>): string => [...limits.values()].join(" ");
    const open = [new Map([...latest].map(([job]) => [job, 0]))];
    const seen = new Set<string>();
    let [tried, fewest] = [0, sum(latest)];
    let plan = rest.with(latest);
    while (open.length > 0) {
      open.sort((a, b) => sum(a) - sum(b));
      const limits = open.shift() as Map<string, number>;
      // With as many days as the best: others may have them, and do better with them.
      if (sum(limits) > fewest) break;
      if (tried++ >= DAYS_TRIED) return { plan, isFewest: false, isBest: false, bound: plan };
      const round = rest.with(limits);
      if (before(round.values, begun.values) === 0) {
        if (sum(limits) < fewest || rest.compare(round, plan) < 0) plan = round;
        fewest = sum(limits);
        continue;
      }
      for (const [job, days] of limits) {
        // A job may well wait longer than in the plan that is known: another then waits less.
        const next = this.daysIn(job).find((day) => day > days);
        if (next === undefined) continue;
        const more = new Map(limits).set(job, next);
        if (sum(more) > fewest) continue;
        if (!seen.has(keyOf(more))) open.push(more);
        seen.add(keyOf(more));
      }
    }
    return { plan, isFewest: true, isBest: true, bound: plan };
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
  /** The days on which something for a job could come, from the soonest on. */
  private daysIn(job: string): number[] {
    const days = new Set<number>();
    for (const group of this.groups)
      if (group.job === job) for (const { table } of group.seats) for (const one of table.days) days.add(one);
    return [...days].sort((a, b) => a - b);
  }

  /**
   * The cheapest in some terms, with each job ready by its day.
   *
   * @param isAsGood whether only what is as good in the terms before readiness as the round before is wanted: no more results are outside then.
   */
  private round(terms: readonly Term[], latest: ReadonlyMap<string, number>, isAsGood = false): Round {
    const isByOutside = terms[0] === "outside";
    const most = isAsGood ? this.most : this.groups.map(({ chains }) => (isByOutside ? 0 : chains.length));
    this.most = most;
    for (;;) {
      const all = this.groups.map((group, i) => {
        const day = latest.get(group.job) ?? Infinity;
        for (;;) {
          const options = this.options(i, most[i] ?? 0, day, terms);
          // Where everything left open is the only way, others with as much outside may be better.
          if (isAsGood || options.length > 1 || (most[i] ?? 0) >= group.chains.length) return options;
          if (options[0]?.values[AT.outside] !== group.chains.length) return options;
          most[i] = (most[i] ?? 0) + 1;
        }
      });
      const round = this.shared(all, terms);
      if (isAsGood) return round;
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

  private options(group: number, most: number, latest: number, terms: readonly Term[]): Option[] {
    const ofTerms = this.known.get(terms) ?? new Map<string, Option[]>();
    this.known.set(terms, ofTerms);
    const key = `${group} ${most} ${latest}`;
    const known = ofTerms.get(key);
    if (known) return known;
    const made = optionsOf(this.groups[group] as Group, { counts: this.counts, most, latest, terms });
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
    const values = new Float64Array(TERMS.length);
    for (const option of options)
      for (let at = 0; at < values.length; at++) values[at] = (values[at] ?? 0) + (option.values[at] ?? 0);
    return { options, values, stopped, bound: scale.read(found.bound) };
  }

  private told({ options, values }: Round, bound: number[] | null): Chosen {
    const ready = [...this.daysOf({ options }).values()].reduce((a, b) => a + b, 0);
    return { options, values: { ...byName(values), ready }, bound };
  }
}

/** Values compared term by term. */
function by(terms: readonly Term[]): (a: TermValues, b: TermValues) => number {
  const places = terms.map((term) => AT[term]);
  return (a, b) => {
    for (const at of places) if (a[at] !== b[at]) return (a[at] ?? 0) - (b[at] ?? 0);
    return 0;
  };
}
