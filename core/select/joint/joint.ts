import { nm, type Nm } from "../../quantity";
import { Scale } from "./cost";
import { Joined } from "./joined";
import {
  AT,
  byName,
  offerAt,
  optionsOf,
  orderOf,
  resultOf,
  tableOf,
  type Group,
  type GroupSeat,
  type OfferTable,
  type Option,
  type TermValues,
  type Values,
} from "./options";
import { TERMS, type JointQuestion, type Offer, type Seat, type Term } from "./question";
import { fewestDays, type Waiting } from "./ready";
import { share, type Effort } from "./shared";

/** What is fitted in one seat by a plan. */
export interface SeatPlan {
  seat: string;
  /** Null where the seat is left open: nothing that can be had is better than nothing. */
  offer: Offer | null;
  kept: boolean;
}
/** What a figure comes to by a plan. */
export interface ChainPlan {
  chain: string;
  /** Null where one of its seats is left open. */
  mean: Nm | null;
  variance: number;
  isOutside: boolean;
}
/** A piece for every seat, and how good that is. */
export interface JointPlan {
  seats: SeatPlan[];
  chains: ChainPlan[];
  /** Relations that do not hold, by their place in the question. */
  broken: number[];
  values: Values;
  /** Whether nothing is better: else nothing can be better than `bound`, term by term in the question's order. */
  proven: boolean;
  bound: number[];
}

/** Ways the search looks at before it stops: a unit takes some hundreds, and at this it has taken a second or two. */
const EFFORT = 500_000;
/** Sets of days that are tried before the soonest is taken for what it is. */
const DAYS_TRIED = 100;

/**
 * The best piece for every seat at once: lexicographically smallest in the question's terms, and proved so.
 *
 * Seats that share a figure or a relation are looked at together, way by way (`options`); what they take from the shelf is shared out exactly (`shared`);
 * how soon all is ready is the latest day of each job, found by trying days as limits.
 *
 * @throws RangeError for a name that is nothing's, or one that is two things'.
 */
export function chooseJointly(question: JointQuestion): JointPlan {
  return new Choice(question).plan();
}

/** One way through, for each group. */
interface Round {
  options: Option[];
  values: TermValues;
  stopped: boolean;
  /** Of the terms it was asked for. */
  bound: number[];
}

class Choice {
  private readonly terms: readonly Term[];
  private readonly groups: Group[];
  private readonly markets: number[];
  private readonly counts: number[];
  private readonly allowed: number;
  private readonly effort: Effort;
  private readonly known = new Map<readonly Term[], Map<string, Option[]>>();
  /** How many results of each group may be outside, in the last round. */
  private most: number[] = [];
  /** Terms in which every group has the best it could have by itself: ways that are worse in them are not looked at again. */
  private held: readonly Term[] = [];

  constructor(private readonly question: JointQuestion) {
    this.terms = question.terms ?? TERMS;
    this.groups = groupsOf(question);
    this.counts = question.lots.map(({ count }) => count);
    this.markets = marketsOf(this.groups);
    this.allowed = question.effort ?? EFFORT;
    this.effort = { left: this.allowed, stopped: false };
  }

  plan(): JointPlan {
    const { terms } = this;
    const at = terms.indexOf("ready");
    const first = this.round(terms, new Map());
    const begun = first.stopped ? this.better(this.oneByOne(), first) : first;
    if (at < 0 || begun.values[AT.ready] === 0)
      return this.told(begun, begun.stopped ? this.bound(begun, at) : null);
    const { round, proven } = this.soonest(begun, at);
    if (proven && !begun.stopped && !round.stopped) return this.told(round, null);
    return this.told(this.better(round, begun), this.bound(begun, at));
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
  private soonest(begun: Round, at: number): { round: Round; proven: boolean } {
    const before = this.terms.slice(0, at);
    const others = this.terms.filter((term) => term !== "ready");
    const latest = this.daysOf(begun);
    const apart = this.apart(begun, before);
    if (!apart) return this.soonestTried(begun, before, others, latest);
    const { days, proven } = fewestDays(apart, this.counts, latest, this.effort);
    return { round: this.round(others, days, true), proven };
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
  private soonestTried(
    begun: Round,
    before: readonly Term[],
    others: readonly Term[],
    latest: ReadonlyMap<string, number>,
  ): { round: Round; proven: boolean } {
    let tried = 0;
    const sum = (limits: ReadonlyMap<string, number>): number =>
      [...limits.values()].reduce((a, b) => a + b, 0);
    const keyOf = (limits: ReadonlyMap<string, number>): string => [...limits.values()].join(" ");
    const open = [new Map([...latest].map(([job]) => [job, 0]))];
    const seen = new Set<string>();
    while (open.length > 0) {
      open.sort((a, b) => sum(a) - sum(b));
      const limits = open.shift() as Map<string, number>;
      if (sum(limits) >= sum(latest)) break;
      if (tried++ >= DAYS_TRIED) return { round: this.round(others, latest, true), proven: false };
      const round = this.round(others, limits, true);
      if (before.every((term) => round.values[AT[term]] === begun.values[AT[term]]))
        return { round, proven: true };
      for (const [job, days] of limits) {
        // A job may well wait longer than in the plan that is known: another then waits less.
        const next = this.daysIn(job).find((day) => day > days);
        if (next === undefined) continue;
        const more = new Map(limits).set(job, next);
        if (sum(more) >= sum(latest)) continue;
        if (!seen.has(keyOf(more))) open.push(more);
        seen.add(keyOf(more));
      }
    }
    return { round: this.round(others, latest, true), proven: true };
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

  private told(round: Round, bound: number[] | null): JointPlan {
    const { question, groups } = this;
    const seats: SeatPlan[] = question.seats.map(({ id }) => ({ seat: id, offer: null, kept: false }));
    const chains = new Map<string, ChainPlan>();
    for (const [i, { picks }] of round.options.entries()) {
      const group = groups[i] as Group;
      for (const [at, one] of group.seats.entries()) {
        const offer = offerAt(one, picks[at] ?? -1);
        const seat = question.seats[one.seat]?.id ?? "";
        seats[one.seat] = { seat, offer, kept: offer !== null && offer === one.fitted };
      }
      for (const one of group.chains) {
        const result = resultOf(one, group.seats, picks);
        const { id, min, max } = one.chain;
        chains.set(id, {
          chain: id,
          mean: result && nm(result.mean),
          variance: result?.variance ?? 0,
          isOutside: !result || result.mean < min || result.mean > max,
        });
      }
    }
    const mean = (id: string): number | null => chains.get(id)?.mean ?? null;
    const broken = (question.relations ?? []).flatMap(({ below, above, by }, i) => {
      const [low, high] = [mean(below), mean(above)];
      return low === null || high === null || low + by > high ? [i] : [];
    });
    const values = byName(round.values);
    values.ready = [...this.daysOf(round).values()].reduce((a, b) => a + b, 0);
    return {
      seats,
      chains: question.chains.flatMap(({ id }) => chains.get(id) ?? []),
      broken,
      values,
      proven: bound === null,
      bound: bound ?? this.terms.map((term) => values[term]),
    };
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

/** Places by name, each name once. */
function placesOf(what: string, all: readonly { id: string }[]): Map<string, number> {
  const places = new Map<string, number>();
  for (const [i, { id }] of all.entries()) {
    if (places.has(id)) throw new RangeError(`two ${what} are called ${id}`);
    places.set(id, i);
  }
  return places;
}
function placeOf(places: ReadonlyMap<string, number>, what: string, id: string): number {
  const place = places.get(id);
  if (place === undefined) throw new RangeError(`no ${what} is called ${id}`);
  return place;
}

/** Seats in groups, each with its chains and relations. */
export function groupsOf({ seats, chains, relations = [], lots }: JointQuestion): Group[] {
  const seatAt = placesOf("seats", seats);
  const chainAt = placesOf("chains", chains);
  const lotAt = placesOf("lots", lots);
  const joined = new Joined(seats.length);
  const first: number[] = chains.map(({ id, seats: links }) => {
    const [one, ...more] = links.map(({ seat }) => placeOf(seatAt, "seat", seat));
    if (one === undefined) throw new RangeError(`${id} has no seat`);
    for (const other of more) joined.join(one, other);
    return one;
  });
  const ends = relations.map(({ below, above, by }) => {
    const [low, high] = [placeOf(chainAt, "chain", below), placeOf(chainAt, "chain", above)];
    joined.join(first[low] ?? 0, first[high] ?? 0);
    return { low, high, by };
  });
  const groups = new Map<number, Group & { places: Map<number, number>; chainPlaces: Map<number, number> }>();
  const cache = new Map<readonly Offer[], OfferTable>();
  for (const [i, seat] of seats.entries()) {
    const top = joined.of(i);
    const group = groups.get(top) ?? {
      seats: [],
      chains: [],
      relations: [],
      job: seat.job ?? "",
      order: [],
      places: new Map<number, number>(),
      chainPlaces: new Map<number, number>(),
    };
    groups.set(top, group);
    if (group.job !== (seat.job ?? ""))
      throw new RangeError(`${seat.id} shares a figure with another job’s seat`);
    group.places.set(i, group.seats.length);
    group.seats.push(groupSeat(seat, i, lotAt, cache));
  }
  for (const [i, chain] of chains.entries()) {
    const group = groups.get(joined.of(first[i] ?? 0));
    if (!group) continue;
    const at = chain.seats.map(({ seat }) => group.places.get(seatAt.get(seat) ?? -1) ?? 0);
    if (new Set(at).size < at.length) throw new RangeError(`${chain.id} has a seat twice`);
    group.chainPlaces.set(i, group.chains.length);
    group.chains.push({ chain, at, sign: chain.seats.map(({ sign }) => sign), known: new Map() });
  }
  for (const { low, high, by } of ends) {
    const group = groups.get(joined.of(first[low] ?? 0));
    group?.relations.push({
      below: group.chainPlaces.get(low) ?? 0,
      above: group.chainPlaces.get(high) ?? 0,
      by,
    });
  }
  for (const group of groups.values()) group.order = orderOf(group.seats.length, group.chains);
  return [...groups.values()];
}

function groupSeat(
  seat: Seat,
  at: number,
  lotAt: ReadonlyMap<string, number>,
  cache: Map<readonly Offer[], OfferTable>,
): GroupSeat {
  const lotOf = ({ lot }: Offer): number => (lot === undefined ? -1 : placeOf(lotAt, "lot", lot));
  const { fitted = null, offers } = seat;
  const table = cache.get(offers) ?? tableOf(offers, lotOf);
  cache.set(offers, table);
  const barred = barredIn(seat);
  // What is in is not offered a second time as what another seat could have.
  return { seat: at, table, fitted, fittedLot: fitted ? lotOf(fitted) : -1, barred };
}

const NONE: ReadonlySet<number> = new Set();

/** Places among a seat's offers, and after them what is in, that may not be picked. */
function barredIn({ id: seat, fitted, offers, pinned, barred = [] }: Seat): ReadonlySet<number> {
  if (pinned === undefined && barred.length === 0) return NONE;
  const all = [...offers.map(({ id }) => id), ...(fitted ? [fitted.id] : [])];
  for (const name of pinned === undefined ? barred : [...barred, pinned])
    if (!all.includes(name)) throw new RangeError(`nothing that ${seat} is offered is called ${name}`);
  const isBarred = (id: string): boolean => barred.includes(id) || (pinned !== undefined && id !== pinned);
  return new Set(all.flatMap((id, place) => (isBarred(id) ? [place] : [])));
}

/** Which groups could ever want the same piece: each with the place of the first of them. */
function marketsOf(groups: readonly Group[]): number[] {
  const joined = new Joined(groups.length);
  const owner = new Map<number, number>();
  const seen = new Map<OfferTable, number>();
  const reach = (lot: number, by: number): void => {
    if (lot < 0) return;
    const other = owner.get(lot);
    if (other === undefined) owner.set(lot, by);
    else joined.join(by, other);
  };
  for (const [i, { seats }] of groups.entries())
    for (const { table, fittedLot } of seats) {
      reach(fittedLot, i);
      const other = seen.get(table);
      if (other !== undefined) joined.join(i, other);
      else for (const lot of table.lot) reach(lot, i);
      seen.set(table, i);
    }
  return groups.map((_, i) => joined.of(i));
}
