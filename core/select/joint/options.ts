import { studentCdf } from "../../reading";
import { TERMS, type JointChain, type Offer, type Term } from "./question";

/** Seats that must be looked at together, with every chain and relation among them. Seats and lots by their places in the question. */
export interface Group {
  seats: GroupSeat[];
  chains: GroupChain[];
  relations: { below: number; above: number; by: number }[];
  job: string;
  /** Places of the seats in the order they get their pieces, and beside each the chains whose result is known then. */
  order: readonly { at: number; closing: readonly number[] }[];
}
/** Its offers are the table's, and after them what is in now. */
export interface GroupSeat {
  seat: number;
  table: OfferTable;
  fitted: Offer | null;
  fittedLot: number;
  /** Places that may not be picked. */
  barred: ReadonlySet<number>;
}
export interface GroupChain {
  chain: JointChain;
  /** Places in the group's seats, and the sign of each. */
  at: readonly number[];
  sign: readonly number[];
  /** Figures that were worked out already, by result. */
  known: Map<number, Judged>;
}
interface Judged {
  variance: number;
  chance: number;
  target: number;
}

/** Offers as columns, shared by all seats of a series: what the search reads most. */
export interface OfferTable {
  offers: readonly Offer[];
  adds: Float64Array;
  variance: Float64Array;
  /** −1 where there is no end of it. */
  lot: Int32Array;
  days: Float64Array;
}
export function tableOf(offers: readonly Offer[], lotOf: (offer: Offer) => number): OfferTable {
  const size = offers.length;
  const [adds, variance, days] = [new Float64Array(size), new Float64Array(size), new Float64Array(size)];
  const lot = new Int32Array(size);
  for (let i = 0; i < size; i++) {
    const offer = offers[i] as Offer;
    adds[i] = offer.adds;
    variance[i] = offer.variance;
    days[i] = offer.days ?? 0;
    lot[i] = lotOf(offer);
  }
  return { offers, adds, variance, lot, days };
}
/** The offer at a place; what is in now stands after the others. */
export const offerAt = ({ table: { offers }, fitted }: GroupSeat, pick: number): Offer | null =>
  offers[pick] ?? (pick === offers.length ? fitted : null);

/** One piece for each seat of a group. */
export interface Option {
  /** Places in each seat's offers (`offerAt`); −1 where the seat is left open. */
  picks: readonly number[];
  /** Lots it takes from, each as often as it takes, in order. */
  lots: readonly number[];
  values: TermValues;
}
/** A plan's terms by name. */
export type Values = Record<Term, number>;
/** As the search keeps them: each at its place in `TERMS`. */
export type TermValues = Float64Array;
export const AT = Object.fromEntries(TERMS.map((term, i) => [term, i])) as Readonly<Record<Term, number>>;
export const byName = (values: TermValues): Values =>
  Object.fromEntries(TERMS.map((term, i) => [term, values[i] ?? 0])) as Values;

/** So unlikely to be inside is what nobody knows to be: e^−18.4. */
const LEAST_CHANCE = 1e-8;
/** Nobody knows a chance better than to a percent: less is no difference. */
const PER_NAT = 1e2;
/** What a result that is not known counts as. */
export const HOPELESS = Math.round(-Math.log(LEAST_CHANCE) * PER_NAT);
export const FARTHEST = 10_000;

/**
 * −ln of the chance of being inside, in hundredths: it adds up over figures as the chance itself does not, and as a whole number equal is equal.
 *
 * @param variance nm².
 * @param scatter Σ u⁴/dof: degrees of freedom after Welch–Satterthwaite (JCGM 100:2008 G.4).
 */
export function unlikeliness(
  mean: number,
  variance: number,
  scatter: number,
  { min, max }: { min: number; max: number },
): number {
  const isInside = mean >= min && mean <= max;
  if (variance === 0) return isInside ? 0 : HOPELESS;
  const u = Math.sqrt(variance);
  // Where no limit is nearer than this, the rest of a normal distribution is below the least that counts.
  if (scatter === 0 && isInside && Math.min(mean - min, max - mean) > 6 * u) return 0;
  const dof = scatter === 0 ? Infinity : (variance * variance) / scatter;
  const chance = studentCdf((max - mean) / u, dof) - studentCdf((min - mean) / u, dof);
  return Math.round(-Math.log(Math.max(LEAST_CHANCE, Math.min(1, chance))) * PER_NAT);
}

/** How far from where it should lie, in thousandths of its range. */
export function farness(
  mean: number,
  { min, max, target }: Pick<JointChain, "min" | "max" | "target">,
): number {
  const off = target === undefined ? Math.max(0, min - mean, mean - max) : Math.abs(mean - target);
  return Math.min(FARTHEST, Math.round((1000 * off) / Math.max(1, max - min)));
}

/** What a chain comes to with these pieces; null where one of its seats is left open. */
export function resultOf(
  { chain, at: links, sign }: GroupChain,
  seats: readonly GroupSeat[],
  picks: readonly number[],
): { mean: number; variance: number } | null {
  let mean: number = chain.rest;
  let variance = chain.variance;
  for (const [i, at] of links.entries()) {
    const seat = seats[at];
    const offer = seat && offerAt(seat, picks[at] ?? -1);
    if (!offer) return null;
    mean += (sign[i] ?? 1) * offer.adds;
    if (offer !== seat.fitted) variance += offer.variance + (seat.fitted?.variance ?? 0);
  }
  return { mean, variance };
}

function judged(one: GroupChain, mean: number, variance: number): Judged {
  const known = one.known.get(mean);
  if (known?.variance === variance) return known;
  const made = {
    variance,
    chance: unlikeliness(mean, variance, one.chain.scatter ?? 0, one.chain),
    target: farness(mean, one.chain),
  };
  one.known.set(mean, made);
  return made;
}

/** Pieces of a seat that are tried, as columns: their places among its offers, what they add, and how unsure that is where they are new. */
interface Tried {
  picks: readonly number[];
  adds: Float64Array;
  variance: Float64Array;
  /** The lot each is taken from; −1 where there is no end of it. */
  lots: Int32Array;
}
interface Kept {
  values: TermValues;
  picks: Int32Array;
  lots: number[];
}

/** What is asked of the ways to fill a group. */
export interface Wanted {
  /** What each lot holds. */
  counts: readonly number[];
  /** How many results may be outside; ways with more are not looked at. */
  most: number;
  /** Days a piece may take to come. */
  latest: number;
  /** The order in which ways are compared. */
  terms: readonly Term[];
  /** Whether of ways that take the same the best is wanted for each day they are there, and not of all days together. */
  eachDay?: boolean;
}

/**
 * The ways to fill a group that could be needed: of those that take the same from the shelf the best, and none that is no better than one that takes
 * nothing from it.
 *
 * @returns in an order that does not depend on the terms; a way that leaves everything open is the last where no other takes nothing.
 */
export function optionsOf(group: Group, wanted: Wanted): Option[] {
  return new Ways(group, wanted).all();
}

class Ways {
  /** Places among those that are tried; −1 where a seat is left open. */
  private readonly picks: Int32Array;
  private readonly tried: Tried[];
  /** Not a number where the result is not known. */
  private readonly means: Float64Array;
  /** What the pieces so far come to, step by step, and the lot that each was taken from. */
  private readonly sums: TermValues[];
  private readonly taken: Int32Array;
  private readonly terms: readonly number[];
  /** The best that take nothing: one, or for each day the best that is there by then; the soonest first. */
  private free: Kept[] = [];
  private readonly best = new Map<number | string, Kept>();
  private readonly lots: Int32Array;
  /** Whether only what takes nothing is looked at. */
  private isFree = false;

  constructor(
    private readonly group: Group,
    private readonly wanted: Wanted,
  ) {
    const { seats, chains } = group;
    this.picks = new Int32Array(seats.length).fill(-1);
    this.means = new Float64Array(chains.length);
    this.sums = [...seats, 0].map(() => new Float64Array(TERMS.length));
    this.taken = new Int32Array(seats.length);
    this.lots = new Int32Array(seats.length);
    this.terms = wanted.terms.map((term) => AT[term]);
    this.tried = seats.map((seat, at) => this.triedAt(seat, at));
  }

  /** The pieces of a seat that are worth a look: there in time, on the shelf, and not outside by themselves where nothing may be; the thinnest first. */
  private triedAt({ table, fitted, fittedLot, barred }: GroupSeat, at: number): Tried {
    const { latest, counts, most } = this.wanted;
    let [low, high] = [-Infinity, Infinity];
    if (most === 0)
      for (const one of this.group.chains)
        if (one.at.length === 1 && one.at[0] === at) [low, high] = this.window(one, at, 0, low, high);
    const { adds, variance, lot, days } = table;
    const picks: number[] = [];
    let [isSorted, last] = [true, -Infinity];
    for (let pick = 0; pick < adds.length; pick++) {
      const add = adds[pick] as number;
      if (add < low || add > high || (days[pick] as number) > latest) continue;
      const from = lot[pick] as number;
      if (from >= 0 && ((counts[from] as number) < 1 || from === fittedLot)) continue;
      if (barred.has(pick)) continue;
      if (add < last) isSorted = false;
      last = add;
      picks.push(pick);
    }
    const own = adds.length;
    const isOwn = fitted && fitted.adds >= low && fitted.adds <= high && !barred.has(own);
    const addOf = (pick: number): number => (pick === own ? (fitted?.adds ?? 0) : (adds[pick] as number));
    if (isOwn) picks.push(own);
    if (isOwn || !isSorted) picks.sort((a, b) => addOf(a) - addOf(b) || a - b);
    const size = picks.length;
    const columns = {
      picks,
      adds: new Float64Array(size),
      variance: new Float64Array(size),
      lots: new Int32Array(size),
    };
    const out = fitted?.variance ?? 0;
    for (let i = 0; i < size; i++) {
      const pick = picks[i] as number;
      columns.adds[i] = addOf(pick);
      columns.lots[i] = pick === own ? fittedLot : (lot[pick] as number);
      columns.variance[i] = pick === own ? 0 : (variance[pick] as number) + out;
    }
    return columns;
  }

  /** Between what a seat must add for a chain to be inside, when the others of it add so much. */
  private window(
    { chain, at, sign }: GroupChain,
    seat: number,
    others: number,
    low: number,
    high: number,
  ): [low: number, high: number] {
    const [from, to] = [chain.min - chain.rest - others, chain.max - chain.rest - others];
    return (sign[at.indexOf(seat)] ?? 1) > 0
      ? [Math.max(low, from), Math.min(high, to)]
      : [Math.max(low, -to), Math.min(high, -from)];
  }

  all(): Option[] {
    const { seats } = this.group;
    // What takes nothing first: whatever is no better is left early then.
    this.isFree = true;
    this.place(0);
    this.isFree = false;
    this.place(0);
    const found: Option[] = [];
    const told = ({ picks, values, lots }: Kept): Option => ({
      picks: Array.from(picks, (i, at) => (i < 0 ? -1 : (this.tried[at]?.picks[i] ?? -1))),
      lots,
      values,
    });
    for (const one of this.best.values()) if (!this.isNeedless(one.values)) found.push(told(one));
    const open = { picks: new Int32Array(seats.length).fill(-1), values: this.openValues(), lots: [] };
    found.push(...(this.free.length > 0 ? this.free : [open]).map(told));
    return found;
  }

  private openValues(): Float64Array {
    const { seats, chains, relations } = this.group;
    const values = new Float64Array(TERMS.length);
    values[AT.outside] = chains.length;
    values[AT.order] = relations.length;
    values[AT.chance] = chains.length * HOPELESS;
    values[AT.target] = chains.length * FARTHEST;
    values[AT.changed] = seats.length;
    return values;
  }

  /**
   * Puts every piece that is tried in the seat of a step, then goes on to the next.
   */
  private place(step: number): void {
    const next = this.group.order[step];
    if (next === undefined) return this.keep(step);
    const { at, closing } = next;
    const { picks, adds, lots } = this.tried[at] as Tried;
    const [before, sums] = [this.sums[step] as TermValues, this.sums[step + 1] as TermValues];
    const outside = before[AT.outside] as number;
    let [first, high] = [-1, Infinity];
    if (outside === this.wanted.most && closing.length > 0) {
      // Nothing more may be outside: only what brings all of them inside, and not left open.
      let low = -Infinity;
      for (let k = 0; k < closing.length; k++) {
        const one = this.group.chains[closing[k] as number] as GroupChain;
        const others = this.othersAdd(one, at);
        if (Number.isNaN(others)) return;
        [low, high] = this.window(one, at, others, low, high);
      }
      first = firstFrom(adds, low);
    }
    for (let i = first; i < picks.length; i++) {
      if (i >= 0 && (adds[i] as number) > high) break;
      if (this.isFree && i >= 0 && (lots[i] as number) >= 0) continue;
      this.picks[at] = i;
      // Set by hand: they are few, and this is done more often than all else.
      for (let term = 0; term < TERMS.length; term++) sums[term] = before[term] as number;
      let more = outside;
      for (let k = 0; k < closing.length; k++) if (this.close(closing[k] as number, sums)) more++;
      if (more > this.wanted.most) continue;
      sums[AT.outside] = more;
      this.spend(at, i, step, sums);
      // Already no better than what takes nothing from the shelf: more of it is no better either.
      if (this.isNeedless(sums)) continue;
      this.place(step + 1);
    }
    this.picks[at] = -1;
  }

  /** Adds what a piece costs, and notes the lot it is taken from. */
  private spend(at: number, i: number, step: number, sums: TermValues): void {
    const { table, fitted, fittedLot } = this.group.seats[at] as GroupSeat;
    const pick = i < 0 ? -1 : ((this.tried[at] as Tried).picks[i] as number);
    const isFitted = pick === table.offers.length;
    if (!isFitted) sums[AT.changed] = (sums[AT.changed] as number) + 1;
    const offer = isFitted ? fitted : table.offers[pick];
    this.taken[step] = -1;
    if (!offer) return;
    if (offer.money) sums[AT.money] = (sums[AT.money] as number) + offer.money;
    if (offer.scarce) sums[AT.scarce] = (sums[AT.scarce] as number) + offer.scarce;
    if (offer.days && offer.days > (sums[AT.ready] as number)) sums[AT.ready] = offer.days;
    this.taken[step] = isFitted ? fittedLot : (table.lot[pick] as number);
  }

  /** What all seats of a chain but one add, with their signs; not a number where one is left open. */
  private othersAdd({ at, sign }: GroupChain, but: number): number {
    let sum = 0;
    for (let k = 0; k < at.length; k++) {
      const seat = at[k] as number;
      if (seat === but) continue;
      const i = this.picks[seat] as number;
      if (i < 0) return NaN;
      sum += (sign[k] as number) * ((this.tried[seat] as Tried).adds[i] as number);
    }
    return sum;
  }

  /** Works out a chain and adds what is to be said of it; returns whether it is outside. */
  private close(index: number, sums: TermValues): boolean {
    const one = this.group.chains[index] as GroupChain;
    const { chain, at, sign } = one;
    let mean: number = chain.rest;
    let variance = chain.variance;
    for (let k = 0; k < at.length; k++) {
      const seat = at[k] as number;
      const i = this.picks[seat] as number;
      if (i < 0) {
        this.means[index] = NaN;
        sums[AT.chance] = (sums[AT.chance] as number) + HOPELESS;
        sums[AT.target] = (sums[AT.target] as number) + FARTHEST;
        return true;
      }
      const tried = this.tried[seat] as Tried;
      mean += (sign[k] as number) * (tried.adds[i] as number);
      variance += tried.variance[i] as number;
    }
    this.means[index] = mean;
    const isOutside = mean < chain.min || mean > chain.max;
    if (isOutside && (sums[AT.outside] as number) >= this.wanted.most) return true;
    const { chance, target } = judged(one, mean, variance);
    sums[AT.chance] = (sums[AT.chance] as number) + chance;
    sums[AT.target] = (sums[AT.target] as number) + target;
    return isOutside;
  }

  /** A piece is in every seat: keeps it where it could be needed. */
  private keep(step: number): void {
    const { relations } = this.group;
    const { lots, picks } = this;
    const now = this.sums[step] as TermValues;
    let order = 0;
    for (let i = 0; i < relations.length; i++) {
      const { below, above, by } = relations[i] as Group["relations"][number];
      // Not a number where one of them is not known: that is no order either.
      if (!((this.means[below] as number) + by <= (this.means[above] as number))) order++;
    }
    now[AT.order] = order;
    if (this.isNeedless(now)) return;
    const many = this.takenLots(step);
    if (many === 0) {
      const isAfter = ({ values }: Kept): boolean => this.isSooner(values, now) || this.isLess(values, now);
      this.free = this.free.filter(isAfter);
      this.free.push({ values: now.slice(), picks: picks.slice(), lots: [] });
      return;
    }
    const day = this.wanted.eachDay ? (now[AT.ready] as number) : 0;
    const key = keyOf(lots, many, this.wanted.counts.length, day);
    const known = this.best.get(key);
    if (!known)
      this.best.set(key, {
        values: now.slice(),
        picks: picks.slice(),
        lots: Array.from(lots.subarray(0, many)),
      });
    else if (this.isLess(now, known.values)) {
      known.values.set(now);
      known.picks.set(picks);
    }
  }

  /** Notes the lots that are taken from, in order; returns how many. */
  private takenLots(step: number): number {
    const { lots, taken } = this;
    let many = 0;
    for (let i = 0; i < step; i++) {
      const lot = taken[i] as number;
      if (lot < 0) continue;
      let at = many++;
      for (; at > 0 && (lots[at - 1] as number) > lot; at--) lots[at] = lots[at - 1] as number;
      lots[at] = lot;
    }
    return many;
  }

  /** Whether something that takes nothing from the shelf is no worse, and there no later where that is asked. */
  private isNeedless(values: TermValues): boolean {
    for (const free of this.free)
      if (!this.isSooner(values, free.values) && !this.isLess(values, free.values)) return true;
    return false;
  }
  private isSooner(a: TermValues, b: TermValues): boolean {
    return this.wanted.eachDay === true && (a[AT.ready] as number) < (b[AT.ready] as number);
  }

  private isLess(a: Float64Array, b: Float64Array): boolean {
    for (let i = 0; i < this.terms.length; i++) {
      const term = this.terms[i] as number;
      const by = (a[term] as number) - (b[term] as number);
      if (by !== 0) return by < 0;
    }
    return false;
  }
}

/** Days that have room in a key beside the lots. */
const DAYS = 1_024;

/** One number for the lots that are taken, and the day, as long as it is exact. */
function keyOf(lots: Int32Array, many: number, of: number, day: number): number | string {
  let key = 0;
  for (let i = 0; i < many; i++) {
    key = key * (of + 1) + (lots[i] as number) + 1;
    if (key > 2 ** 42 || day >= DAYS) return `${day} ${lots.subarray(0, many).join(" ")}`;
  }
  return key * DAYS + day;
}

/** The first place from which on a rising column is no smaller. */
function firstFrom(column: Float64Array, least: number): number {
  let [from, to] = [0, column.length];
  while (from < to) {
    const middle = (from + to) >> 1;
    if ((column[middle] as number) < least) from = middle + 1;
    else to = middle;
  }
  return from;
}

/** The order in which seats get their pieces: first those whose chains are known soonest, so that what comes out outside is left early. */
export function orderOf(seats: number, chains: readonly { at: readonly number[] }[]): Group["order"] {
  if (seats === 1) return [{ at: 0, closing: [...chains.keys()] }];
  const open = new Set(Array.from({ length: seats }, (_, at) => at));
  const order: { at: number; closing: number[] }[] = [];
  while (open.size > 0) {
    let [best, least] = [-1, Infinity];
    for (const at of open) {
      const missing = chains
        .filter((chain) => chain.at.includes(at))
        .map((chain) => chain.at.filter((one) => open.has(one)).length);
      const rank = Math.min(...missing, seats + 1);
      if (rank < least) [best, least] = [at, rank];
    }
    open.delete(best);
    const closing = chains.flatMap(({ at }, i) =>
      at.includes(best) && !at.some((one) => open.has(one)) ? [i] : [],
    );
    order.push({ at: best, closing });
  }
  return order;
}
