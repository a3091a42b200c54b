import { assign, type Taker } from "./assignment";
import { compare, less, nothing, plus, type Cost } from "./cost";
import { Joined } from "./joined";
import { inParts } from "./linear";

/** One way to fill a group: what it costs, and what it takes from lots that are short. */
export interface Way {
  /** Whose it is, for whoever asked. */
  option: number;
  cost: Cost;
  /** Lots, each as often as it takes from it. */
  lots: readonly number[];
}
/** What a search came to: a way for each group, and no answer can cost less than `bound`. */
export interface Found {
  cost: Cost;
  bound: Cost;
  ways: Way[];
}

/** How many ways the search may look at before it stops, in all its parts together, and whether that was too few. */
export interface Effort {
  left: number;
  stopped: boolean;
}

/**
 * One way for each group so that no lot gives more than it holds, for the least cost. What shares no lot that could run short is solved apart; where everybody
 * takes one piece at most it is an assignment; the rest is branch and bound, with prices of the lots for a bound.
 *
 * @param groups the ways of each.
 * @param below only what costs less is wanted.
 * @returns null where nothing costs less, or where there is not enough for all.
 */
export function share(
  groups: readonly (readonly Way[])[],
  counts: readonly number[],
  size: number,
  effort: Effort,
  below: Cost | null = null,
): Found | null {
  const reduced = reduce(groups, counts);
  if (reduced.some((ways) => ways.length === 0)) return null;
  const found: (Way | undefined)[] = [];
  let [cost, bound] = [nothing(size), nothing(size)];
  const parts = partsOf(reduced);
  const least = parts.map((part) => {
    let sum = nothing(size);
    for (const group of part) sum = plus(sum, cheapest(reduced[group] ?? []).cost);
    return sum;
  });
  let rest = least.reduce((sum, one) => plus(sum, one), nothing(size));
  if (below && !less(rest, below)) return null;
  for (const [i, part] of parts.entries()) {
    rest = plus(rest, least[i] ?? [], -1);
    const cutoff = below ? plus(plus(below, cost, -1), rest, -1) : null;
    const one = shareOne(
      part.map((group) => reduced[group] ?? []),
      counts,
      size,
      effort,
      cutoff,
    );
    if (!one) return null;
    cost = plus(cost, one.cost);
    bound = plus(bound, one.bound);
    for (const [k, group] of part.entries()) found[group] = one.ways[k];
  }
  return { cost, bound, ways: found as Way[] };
}

const cheapest = (ways: readonly Way[]): Way =>
  ways.reduce((best, one) => (less(one.cost, best.cost) ? one : best));

/** Without ways that nobody needs, and lots that nobody has to wait for. */
function reduce(groups: readonly (readonly Way[])[], counts: readonly number[]): Way[][] {
  let now = groups.map((ways) => ways.filter(({ lots }) => fits(lots, counts)));
  for (;;) {
    now = now.map(undominated);
    const wanted = wantedOf(now, counts.length);
    const isShort = (lot: number): boolean => (wanted[lot] as number) > (counts[lot] as number);
    let changed = false;
    now = now.map((ways) =>
      ways.map((way) => {
        if (way.lots.every(isShort)) return way;
        changed = true;
        return { ...way, lots: way.lots.filter(isShort) };
      }),
    );
    if (!changed) return now;
  }
}

/** How much all groups together could want of each lot. Lots of a way stand in order: equal ones beside each other. */
export function wantedOf(groups: readonly (readonly Pick<Way, "lots">[])[], many: number): Int32Array {
  const wanted = new Int32Array(many);
  for (const ways of groups) {
    const most = new Map<number, number>();
    for (const { lots } of ways)
      for (let i = 0; i < lots.length; i++) {
        const lot = lots[i] as number;
        let times = 1;
        while (lots[i + 1] === lot) {
          times++;
          i++;
        }
        if ((most.get(lot) ?? 0) < times) most.set(lot, times);
      }
    for (const [lot, times] of most) wanted[lot] = (wanted[lot] as number) + times;
  }
  return wanted;
}

/** Whether one way takes no more than there is. */
export function fits(lots: readonly number[], counts: readonly number[]): boolean {
  for (let i = 0; i < lots.length;) {
    const lot = lots[i] as number;
    let times = 0;
    while (lots[i] === lot) {
      times++;
      i++;
    }
    if (times > (counts[lot] as number)) return false;
  }
  return true;
}

/** The cheapest way for each set of lots, and none that costs as much as one that takes from no lot. */
function undominated(ways: readonly Way[]): Way[] {
  let free: Way | null = null;
  for (const way of ways) if (way.lots.length === 0 && (!free || less(way.cost, free.cost))) free = way;
  const best = new Map<string | number, Way>();
  for (const way of ways) {
    if (way.lots.length === 0 || (free && !less(way.cost, free.cost))) continue;
    const key = way.lots.length === 1 ? (way.lots[0] as number) : way.lots.join(" ");
    const known = best.get(key);
    if (!known || less(way.cost, known.cost)) best.set(key, way);
  }
  return free ? [free, ...best.values()] : [...best.values()];
}

/** Groups that can be in each other's way, by their places. */
function partsOf(groups: readonly (readonly Way[])[]): number[][] {
  const joined = new Joined(groups.length);
  for (const [i, ways] of groups.entries())
    for (const { lots } of ways) for (const lot of lots) joined.meet(lot, i);
  return joined.sets();
}

function shareOne(
  groups: readonly (readonly Way[])[],
  counts: readonly number[],
  size: number,
  effort: Effort,
  below: Cost | null,
): Found | null {
  const [alone] = groups;
  if (alone && groups.length === 1) {
    const way = cheapest(alone);
    if (!below || less(way.cost, below)) return { cost: way.cost, bound: way.cost, ways: [way] };
    return null;
  }
  if (groups.every((ways) => ways.every(({ lots }) => lots.length < 2))) {
    const found = assigned(groups, counts, size);
    if (found && (!below || less(found.cost, below))) return { ...found, bound: found.cost };
    return null;
  }
  return branch(groups, counts, size, effort, below);
}

/** Dearer than anything: what a group that must have a piece would pay for none. */
const NEVER = 2 ** 50;

/** Where everybody takes one piece at most; null where there are not enough for those that must have one. */
function assigned(
  groups: readonly (readonly Way[])[],
  counts: readonly number[],
  size: number,
): { cost: Cost; ways: Way[]; prices: Map<number, Cost> } | null {
  const never = nothing(size).map((_, i) => (i === 0 ? NEVER : 0));
  // Lots by their place among those that are asked for here.
  const places = new Map<number, number>();
  const takers = groups.map((ways): Taker & { ways: Way[]; free: Way | undefined } => {
    const some = ways.filter(({ lots }) => lots.length > 0);
    const lots = some.map(({ lots: [lot = 0] }) => {
      const at = places.get(lot) ?? places.size;
      places.set(lot, at);
      return at;
    });
    const free = ways.find((way) => way.lots.length === 0);
    return { lots, costs: some.map(({ cost }) => cost), without: free?.cost ?? never, ways: some, free };
  });
  const asked = [...places.keys()];
  const { cost, taken, prices } = assign(
    takers,
    asked.map((lot) => counts[lot] ?? 0),
    size,
  );
  const ways = takers.map((taker, i) => taker.ways[taken[i] ?? -1] ?? taker.free);
  if (!ways.every((way): way is Way => way !== undefined)) return null;
  return {
    cost,
    ways,
    prices: new Map(asked.map((lot, i) => [lot, prices[i] ?? nothing(size)])),
  };
}

/** Ways that are looked at first beyond one for each group, as a part of the groups; and how many times more when those are not enough. */
const FEW = 0.3;
/** With fewer ways for each group all of them are looked at at once. */
const SMALL = 3;
const MORE = 2;
/** So much smaller, it is looked at anew: what nobody wants any more is common again, and parts come apart. */
const SHRUNK = 0.8;

function branch(
  groups: readonly (readonly Way[])[],
  counts: readonly number[],
  size: number,
  effort: Effort,
  below: Cost | null,
): Found | null {
  const ways = groups.reduce((sum, { length }) => sum + length, 0);
  effort.left -= LINEAR * ways;
  const linear = inParts(groups, counts, size);
  const { bound, picks, reduced } = priced(groups, counts, size, linear.prices);
  if (below && !less(bound, below)) return null;
  let best: Found | null = null;
  let upper = below;
  const take = (all: Way[]): void => {
    const cost = all.reduce((sum, way) => plus(sum, way.cost), nothing(size));
    if (upper && !less(cost, upper)) return;
    upper = cost;
    best = { cost, bound, ways: all };
  };
  const whole = groups.map((some, i) => some.find((_, k) => (linear.shares[i]?.[k] ?? 0) > WHOLE));
  if (whole.every((way): way is Way => way !== undefined) && over(whole, counts).length === 0) take(whole);
  if (upper && !less(bound, upper)) return best;
  const quick = greedy(groups, counts, size, reduced);
  if (quick) take(quick);
  if (upper && !less(bound, upper)) return best;
  const shares = new Map<Way, number>();
  for (const [i, some] of groups.entries())
    for (const [k, way] of some.entries()) shares.set(way, linear.shares[i]?.[k] ?? 0);
  const sharesOf = (way: Way): number => shares.get(way) ?? 0;
  // How much dearer each way is than its group's cheapest, with all others at theirs; the least first, and of those what is in for most.
  const ordered = groups.map((some, i) => {
    const costs = reduced[i] ?? [];
    const least = costs[picks[i] ?? 0] ?? nothing(size);
    return some
      .map((way, k) => ({ way, gap: plus(costs[k] ?? [], least, -1), share: sharesOf(way) }))
      .sort((a, b) => compare(a.gap, b.gap) || b.share - a.share);
  });
  const sorted = ordered.flatMap((some) => some.map(({ gap }) => gap)).sort(compare);
  // Whatever costs less than the bound and so much more takes only ways that are dearer by less: few at first, and as many more as it takes. What those few come to
  // is often the best already, and makes what is left to look at small.
  for (let some = ways < SMALL * groups.length ? ways : Math.ceil(groups.length * FEW); ; some *= MORE) {
    if (effort.left <= 0 && upper) {
      effort.stopped = true;
      return best;
    }
    effort.left -= ways;
    const step = sorted[groups.length + some];
    const aim = step ? plus(bound, step) : null;
    const isLast = !aim || (upper !== null && !less(aim, upper));
    const most = isLast ? upper && plus(upper, bound, -1) : step;
    const worth = ordered.map((all) =>
      all.flatMap(({ way, gap }) =>
        !most || less(gap, most) || (!isLast && way.lots.length === 0) ? [way] : [],
      ),
    );
    if (worth.some(({ length }) => length === 0)) {
      if (isLast) return settled(best, effort);
      continue;
    }
    const after = worth.reduce((sum, { length }) => sum + length, 0);
    const found =
      after > SHRUNK * ways
        ? eachLot(worth, sharesOf, counts, size, effort, upper)
        : share(worth, counts, size, effort, upper);
    if (found) {
      best = { ...found, bound };
      upper = found.cost;
    }
    if (effort.stopped || isLast || (found && aim && less(found.cost, aim))) return settled(best, effort);
  }
}

/** The lot that most ways of several pieces take from is decided first: with those decided, what is left is often an assignment. */
function eachLot(
  groups: readonly (readonly Way[])[],
  sharesOf: (way: Way) => number,
  counts: readonly number[],
  size: number,
  effort: Effort,
  below: Cost | null,
): Found | null {
  const { at, classes } = splitAt(groups, sharesOf);
  // Whoever could take several pieces has no such way left.
  if (at < 0) return share(groups, counts, size, effort, below);
  let best: Found | null = null;
  let upper = below;
  for (const { lot, ways } of classes) {
    if (effort.left <= 0 && upper) {
      effort.stopped = true;
      break;
    }
    const left = [...counts];
    if (lot >= 0) left[lot] = (left[lot] ?? 0) - 1;
    const whole = new Map(
      ways.map((way) => {
        const lots = [...way.lots];
        if (lot >= 0) lots.splice(lots.indexOf(lot), 1);
        return [{ ...way, lots }, way];
      }),
    );
    const others = groups.with(
      at,
      [...whole.keys()].map((one, option) => ({ ...one, option })),
    );
    const found = share(others, left, size, effort, upper);
    if (!found) continue;
    upper = found.cost;
    const own = ways[found.ways[at]?.option ?? -1] as Way;
    best = { ...found, ways: found.ways.with(at, own) };
  }
  return best;
}

interface Class {
  lot: number;
  ways: Way[];
  share: number;
}

/** The group that is least decided when filled in parts, and its ways by the lot of theirs that most others take from; what is in for most first. */
function splitAt(
  groups: readonly (readonly Way[])[],
  sharesOf: (way: Way) => number,
): { at: number; classes: Class[] } {
  const wanted = new Map<number, number>();
  for (const { lots } of groups.flat())
    if (lots.length > 1) for (const lot of lots) wanted.set(lot, (wanted.get(lot) ?? 0) + 1);
  let best: { at: number; classes: Class[]; rank: number } = { at: -1, classes: [], rank: Infinity };
  for (const [at, ways] of groups.entries()) {
    if (!ways.some(({ lots }) => lots.length > 1)) continue;
    const classes = new Map<number, Class>();
    for (const way of ways) {
      const lot = way.lots.reduce((a, b) => ((wanted.get(b) ?? 0) > (wanted.get(a) ?? -1) ? b : a), -1);
      const one = classes.get(lot) ?? { lot, ways: [], share: 0 };
      one.ways.push(way);
      one.share += sharesOf(way);
      classes.set(lot, one);
    }
    const all = [...classes.values()].sort((a, b) => b.share - a.share);
    const rank = (all[0]?.share ?? 0) + all.length / 1_000;
    if (rank < best.rank) best = { at, classes: all, rank };
  }
  return best;
}

const settled = (found: Found | null, { stopped }: Effort): Found | null =>
  found && !stopped ? { ...found, bound: found.cost } : found;

/** Something that can be had by everybody: each at what looks cheapest, whoever would lose most first, and the others shared out exactly. */
function greedy(
  groups: readonly (readonly Way[])[],
  counts: readonly number[],
  size: number,
  reduced: readonly (readonly Cost[])[],
): Way[] | null {
  const left = [...counts];
  const chosen: Way[] = [];
  const several = groups.flatMap((ways, i) => (ways.some(({ lots }) => lots.length > 1) ? [i] : []));
  const loss = new Map(
    several.map((i) => {
      const [first, second] = [...(reduced[i] ?? [])].sort(compare);
      return [i, plus(second ?? first ?? [], first ?? [], -1)];
    }),
  );
  several.sort((a, b) => compare(loss.get(b) ?? [], loss.get(a) ?? []) || a - b);
  for (const i of several) {
    let best = -1;
    const costs = reduced[i] ?? [];
    for (const [k, way] of (groups[i] ?? []).entries())
      if (fits(way.lots, left) && (best < 0 || less(costs[k] ?? [], costs[best] ?? []))) best = k;
    const way = groups[i]?.[best];
    if (!way) return null;
    chosen[i] = way;
    for (const lot of way.lots) left[lot] = (left[lot] ?? 0) - 1;
  }
  const single = groups.flatMap((_, i) => (chosen[i] ? [] : [i]));
  const rest = assigned(
    single.map((i) => (groups[i] ?? []).filter(({ lots }) => fits(lots, left))),
    left,
    size,
  );
  if (!rest) return null;
  for (const [k, i] of single.entries()) chosen[i] = rest.ways[k] as Way;
  return chosen;
}

/** Lots that give more than they hold. */
function over(ways: readonly Way[], counts: readonly number[]): number[] {
  const taken = new Map<number, number>();
  for (const { lots } of ways) for (const lot of lots) taken.set(lot, (taken.get(lot) ?? 0) + 1);
  return [...taken].flatMap(([lot, times]) => (times > (counts[lot] ?? 0) ? [lot] : []));
}

/**
 * A bound on what sharing costs: with a price on each piece of a lot, everybody takes what is cheapest for them, and the lots are paid for what they hold. Any
 * prices give a bound.
 */
function priced(
  groups: readonly (readonly Way[])[],
  counts: readonly number[],
  size: number,
  prices: ReadonlyMap<number, Cost>,
): Priced {
  let bound: Cost = nothing(size);
  const picks: number[] = [];
  const reduced = groups.map((ways) => {
    const costs = ways.map(({ cost, lots }) => {
      let all = cost;
      for (const lot of lots) {
        const price = prices.get(lot);
        if (price) all = plus(all, price);
      }
      return all;
    });
    let best = 0;
    for (let i = 1; i < costs.length; i++) if (less(costs[i] ?? [], costs[best] ?? [])) best = i;
    picks.push(best);
    bound = plus(bound, costs[best] ?? nothing(size));
    return costs;
  });
  for (const [lot, price] of prices) bound = plus(bound, price, -(counts[lot] ?? 0));
  return { bound, picks, reduced };
}

interface Priced {
  bound: Cost;
  picks: number[];
  reduced: Cost[][];
}

/** What filling in parts costs of the effort, for each way. */
const LINEAR = 1;
/** More of a way than this is all of it. */
const WHOLE = 1 - 1e-6;
