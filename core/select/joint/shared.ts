import { assign, type Taker } from "./assignment";
import { compare, less, nothing, plus, type Cost } from "./cost";
import { Joined } from "./joined";

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
 * @param onPart told of each set of groups that was solved apart, and what it costs.
 * @returns null where nothing costs less, or where there is not enough for all.
 */
export function share(
  groups: readonly (readonly Way[])[],
  counts: readonly number[],
  size: number,
  effort: Effort,
  below: Cost | null = null,
  onPart: (groups: readonly number[], cost: Cost) => void = () => {},
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
    onPart(part, one.cost);
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
    const wanted = new Int32Array(counts.length);
    for (const ways of now) {
      const most = new Map<number, number>();
      for (const { lots } of ways)
        for (let i = 0; i < lots.length; i++) {
          const lot = lots[i] as number;
          // They stand in order: equal ones beside each other.
          let times = 1;
          while (lots[i + 1] === lot) {
            times++;
            i++;
          }
          if ((most.get(lot) ?? 0) < times) most.set(lot, times);
        }
      for (const [lot, times] of most) wanted[lot] = (wanted[lot] as number) + times;
    }
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

function fits(lots: readonly number[], counts: readonly number[]): boolean {
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
  const owner = new Map<number, number>();
  const joined = new Joined(groups.length);
  for (const [i, ways] of groups.entries())
    for (const { lots } of ways)
      for (const lot of lots) {
        const other = owner.get(lot);
        if (other === undefined) owner.set(lot, i);
        else joined.join(i, other);
      }
  const parts = new Map<number, number[]>();
  for (const i of groups.keys()) {
    const first = joined.of(i);
    const part = parts.get(first);
    if (part) part.push(i);
    else parts.set(first, [i]);
  }
  return [...parts.values()];
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
    return below && !less(way.cost, below) ? null : { cost: way.cost, bound: way.cost, ways: [way] };
  }
  if (groups.every((ways) => ways.every(({ lots }) => lots.length < 2))) {
    const found = assigned(groups, counts, size);
    return found && (!below || less(found.cost, below)) ? { ...found, bound: found.cost } : null;
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
/** Rounds of raising prices: the bound gets no better by many more. */
const ROUNDS = 40;

function branch(
  groups: readonly (readonly Way[])[],
  counts: readonly number[],
  size: number,
  effort: Effort,
  below: Cost | null,
): Found | null {
  const first = priced(groups, counts, size);
  if (below && !less(first.bound, below)) return null;
  let best: Found | null = null;
  let upper = below;
  const take = (ways: Way[]): void => {
    const cost = ways.reduce((sum, way) => plus(sum, way.cost), nothing(size));
    if (upper && !less(cost, upper)) return;
    upper = cost;
    best = { cost, bound: first.bound, ways };
  };
  const quick = greedy(groups, counts, size, first.reduced);
  if (quick) take(quick);
  if (upper && !less(first.bound, upper)) return best;
  // It costs as much as looking at every way some times over: seldom worth it where much is decided already.
  const isWorth = upper !== null && groups.length >= MANY && effort.left > 0;
  const again = isWorth && upper ? repriced(groups, counts, size, first, upper) : first;
  if (isWorth) effort.left -= REPRICED * groups.reduce((sum, ways) => sum + ways.length, 0);
  const { bound, picks, reduced } = less(first.bound, again.bound) ? again : first;
  if (again !== first) {
    const other = greedy(groups, counts, size, again.reduced);
    if (other) take(other);
    if (best) best = { ...(best as Found), bound };
    if (upper && !less(bound, upper)) return best;
  }
  // How much dearer each way is than its group's cheapest, with all others at theirs.
  const gaps = reduced.map((costs, i) => {
    const least = costs[picks[i] ?? 0] ?? nothing(size);
    return costs.map((cost) => plus(cost, least, -1));
  });
  const before = groups.reduce((sum, ways) => sum + ways.length, 0);
  const sorted = gaps.flat().sort(compare);
  // Whatever costs less than the bound and so much more takes only ways that are dearer by less: few at first, and as many more as it takes. What those few come to
  // is often the best already, and makes what is left to look at small.
  for (let some = before < SMALL * groups.length ? before : Math.ceil(groups.length * FEW); ; some *= MORE) {
    if (effort.left <= 0 && upper) {
      effort.stopped = true;
      return best;
    }
    effort.left -= before;
    const step = sorted[groups.length + some];
    const aim = step ? plus(bound, step) : null;
    const isLast = !aim || (upper !== null && !less(aim, upper));
    const most = isLast ? upper && plus(upper, bound, -1) : step;
    const worth = groups.map((ways, i) =>
      ways.filter(({ lots }, k) => !most || less(gaps[i]?.[k] ?? [], most) || (!isLast && lots.length === 0)),
    );
    if (worth.some((ways) => ways.length === 0)) {
      if (isLast) return settled(best, effort);
      continue;
    }
    const after = worth.reduce((sum, ways) => sum + ways.length, 0);
    const found =
      after > SHRUNK * before
        ? eachWay(worth, branchedOn(groups, picks, counts), counts, size, effort, upper)
        : share(worth, counts, size, effort, upper);
    if (found) {
      best = { ...found, bound };
      upper = found.cost;
    }
    if (effort.stopped || isLast || (found && aim && less(found.cost, aim))) return settled(best, effort);
  }
}

/** Every way of one group in turn, with the best of all others; the cheapest of them. */
function eachWay(
  groups: readonly (readonly Way[])[],
  at: number,
  counts: readonly number[],
  size: number,
  effort: Effort,
  below: Cost | null,
): Found | null {
  let best: Found | null = null;
  let upper = below;
  const others = groups.filter((_, i) => i !== at);
  for (const way of [...(groups[at] ?? [])].sort((a, b) => compare(a.cost, b.cost))) {
    if (effort.left <= 0 && upper) {
      effort.stopped = true;
      break;
    }
    effort.left -= others.length;
    const left = [...counts];
    for (const lot of way.lots) left[lot] = (left[lot] ?? 0) - 1;
    const rest = share(others, left, size, effort, upper ? plus(upper, way.cost, -1) : null);
    if (!rest) continue;
    upper = plus(rest.cost, way.cost);
    best = {
      cost: upper,
      bound: upper,
      ways: [...rest.ways.slice(0, at), way, ...rest.ways.slice(at)],
    };
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

/** The group to decide on next: one that takes several pieces and is in another's way, of those the one with the fewest ways. */
function branchedOn(
  groups: readonly (readonly Way[])[],
  picks: readonly number[],
  counts: readonly number[],
): number {
  const short = new Set(
    over(
      picks.map((pick, i) => groups[i]?.[pick] as Way),
      counts,
    ),
  );
  let [at, least] = [-1, Infinity];
  for (const [i, ways] of groups.entries()) {
    if (!ways.some(({ lots }) => lots.length > 1)) continue;
    const isInTheWay = groups[i]?.[picks[i] ?? 0]?.lots.some((lot) => short.has(lot)) ?? false;
    const rank = ways.length + (isInTheWay ? 0 : 1e9);
    if (rank < least) [at, least] = [i, rank];
  }
  return at;
}

/** Lots that give more than they hold. */
function over(ways: readonly Way[], counts: readonly number[]): number[] {
  const taken = new Map<number, number>();
  for (const { lots } of ways) for (const lot of lots) taken.set(lot, (taken.get(lot) ?? 0) + 1);
  return [...taken].flatMap(([lot, times]) => (times > (counts[lot] ?? 0) ? [lot] : []));
}

/**
 * A bound on what sharing costs: with a price on each piece of a lot, everybody takes what is cheapest for them, and the lots are paid for what they hold. Any
 * prices give a bound; those are raised, lot by lot, that are asked for too often, as far as that makes it better.
 */
function priced(
  groups: readonly (readonly Way[])[],
  counts: readonly number[],
  size: number,
  from: ReadonlyMap<number, Cost> | null = null,
): Priced {
  const prices = new Map<number, Cost>(from ?? []);
  const single = groups.filter((ways) => ways.every(({ lots }) => lots.length < 2));
  if (single.length > 1 && !from)
    for (const [lot, price] of assigned(single, counts, size)?.prices ?? []) prices.set(lot, price);
  const none = nothing(size);
  const costWith = (way: Way): Cost => {
    let cost = way.cost;
    for (const lot of way.lots) {
      const price = prices.get(lot);
      if (price) cost = plus(cost, price);
    }
    return cost;
  };
  const reduced: Cost[][] = groups.map((ways) => ways.map(costWith));
  const pick = (costs: readonly Cost[]): number => {
    let best = 0;
    for (let i = 1; i < costs.length; i++) if (less(costs[i] ?? none, costs[best] ?? none)) best = i;
    return best;
  };
  const picks = reduced.map(pick);
  const by = new Map<number, number[]>();
  for (const [i, ways] of groups.entries())
    for (const lot of new Set(ways.flatMap(({ lots }) => lots))) by.set(lot, [...(by.get(lot) ?? []), i]);
  for (let round = 0; round < ROUNDS; round++) {
    const short = over(
      picks.map((at, i) => groups[i]?.[at] as Way),
      counts,
    );
    let raised = false;
    for (const lot of short) {
      // Who takes it now, and what it would cost each to do with one less.
      const takers: { times: number; regret: Cost }[] = [];
      let taken = 0;
      for (const i of by.get(lot) ?? []) {
        const ways = groups[i] ?? [];
        const now = ways[picks[i] ?? 0] as Way;
        const times = timesOf(now, lot);
        if (times === 0) continue;
        taken += times;
        let other: Cost | null = null;
        for (const [k, way] of ways.entries()) {
          const cost = reduced[i]?.[k] ?? none;
          if (timesOf(way, lot) < times && (!other || less(cost, other))) other = cost;
        }
        const regret = other ? plus(other, reduced[i]?.[picks[i] ?? 0] ?? none, -1) : null;
        if (regret) takers.push({ times, regret });
      }
      let excess = taken - (counts[lot] ?? 0);
      if (excess <= 0) continue;
      takers.sort((a, b) => compare(a.regret, b.regret));
      // Raised until so many have turned away that the lot is enough. Whoever takes several pieces turns away at a part of the difference: taken whole, the
      // price would be too high to be a gain, so it is the least of them.
      let by1: Cost | null = null;
      for (const { times, regret } of takers) {
        by1 = times === 1 ? regret : (by1 ?? none);
        excess -= times;
        if (excess <= 0 || times > 1) break;
      }
      if (!by1 || compare(by1, none) <= 0) continue;
      prices.set(lot, plus(prices.get(lot) ?? none, by1));
      raised = true;
      for (const i of by.get(lot) ?? []) {
        for (const [k, way] of (groups[i] ?? []).entries()) {
          const times = timesOf(way, lot);
          if (times > 0 && reduced[i]) reduced[i][k] = plus(reduced[i]?.[k] ?? none, by1, times);
        }
        picks[i] = pick(reduced[i] ?? []);
      }
    }
    if (!raised) break;
  }
  let bound: Cost = none;
  for (const [i, costs] of reduced.entries()) bound = plus(bound, costs[picks[i] ?? 0] ?? none);
  for (const [lot, price] of prices) bound = plus(bound, price, -(counts[lot] ?? 0));
  return { bound, picks, reduced, prices };
}

interface Priced {
  bound: Cost;
  picks: number[];
  reduced: Cost[][];
  prices: ReadonlyMap<number, Cost>;
}

/** From so many groups on it pays to look for better prices before anything is tried. */
const MANY = 24;
const STEPS = 120;
/** What it costs of the effort, for each way. */
const REPRICED = 8;
/** After so many steps without a gain they are made half as long. */
const PATIENCE = 12;

/**
 * Better prices for many groups at once: raised where too much is asked for and lowered where too little is, all together and by less and less
 * (subgradients; M. Held, P. Wolfe, H. P. Crowder 1974), in the weightiest part of the cost. The others follow lot by lot.
 */
function repriced(
  groups: readonly (readonly Way[])[],
  counts: readonly number[],
  size: number,
  { prices: before }: Priced,
  upper: Cost,
): Priced {
  const places = new Map<number, number>();
  for (const ways of groups)
    for (const { lots } of ways) for (const lot of lots) if (!places.has(lot)) places.set(lot, places.size);
  const asked = [...places.keys()];
  const all = groups.map((ways) =>
    ways.map(({ cost, lots }) => ({ cost: cost[0] ?? 0, at: lots.map((lot) => places.get(lot) ?? 0) })),
  );
  const prices = Float64Array.from(asked, (lot) => before.get(lot)?.[0] ?? 0);
  let best = Float64Array.from(prices);
  let [highest, factor, idle] = [-Infinity, 1.5, 0];
  const short = new Float64Array(asked.length);
  for (let step = 0; step < STEPS; step++) {
    for (const [at, lot] of asked.entries()) short[at] = -(counts[lot] ?? 0);
    let value = 0;
    for (const ways of all) {
      let [least, taken]: [number, readonly number[]] = [Infinity, []];
      for (const { cost, at } of ways) {
        let sum = cost;
        for (const lot of at) sum += prices[lot] ?? 0;
        if (sum < least) [least, taken] = [sum, at];
      }
      value += least;
      for (const lot of taken) short[lot] = (short[lot] ?? 0) + 1;
    }
    let square = 0;
    for (const [at, lot] of asked.entries()) {
      value -= (prices[at] ?? 0) * (counts[lot] ?? 0);
      // What is not wanted and costs nothing stays so.
      if ((short[at] ?? 0) < 0 && (prices[at] ?? 0) <= 0) short[at] = 0;
      square += (short[at] ?? 0) ** 2;
    }
    if (value > highest) [highest, best, idle] = [value, Float64Array.from(prices), 0];
    else if (++idle >= PATIENCE) {
      [factor, idle] = [factor / 2, 0];
      prices.set(best);
      continue;
    }
    const gap = (upper[0] ?? 0) - value;
    if (square === 0 || gap <= 0) break;
    for (const at of asked.keys())
      prices[at] = Math.max(0, (prices[at] ?? 0) + (factor * gap * (short[at] ?? 0)) / square);
  }
  const from = asked.map((lot, at): [number, Cost] => {
    const price = nothing(size);
    price[0] = Math.round(best[at] ?? 0);
    return [lot, price];
  });
  return priced(groups, counts, size, new Map(from));
}

const timesOf = ({ lots }: Way, lot: number): number => {
  let times = 0;
  for (const one of lots) if (one === lot) times++;
  return times;
};
