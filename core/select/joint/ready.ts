import { share, type Effort, type Way } from "./shared";

/** A group that may have any of these ways, each of them as good as can be in what comes before readiness. */
export interface Waiting {
  job: string;
  ways: readonly { lots: readonly number[]; days: number }[];
}

/**
 * The days each job is given, fewest in all, so that every group has one of its ways in time and no lot gives more than it holds.
 *
 * Branch and bound over the days a job may be given. With a price on each piece of a lot every job weighs its days against what its groups would have to pay to be in time:
 * all jobs' best together, less what the lots are worth, is a bound (Lagrange multipliers; M. L. Fisher 1981). Prices are found by steps towards what is asked
 * for too often (subgradients; M. Held, P. Wolfe, H. P. Crowder 1974), and what days each job chose on the way, the late ones counting most, say which way to go first.
 *
 * @returns null where no days are enough.
 */
export function fewestDays(
  groups: readonly Waiting[],
  counts: readonly number[],
  effort: Effort,
): { withRest: <Plan>(rest: Rest<Plan>) => Fewest<Plan> } | null {
  const jobs = [...new Set(groups.map(({ job }) => job))];
  const search = new Search(groups, counts, jobs, effort);
  const days = search.fewest();
  const isFewest = !effort.stopped;
  return days && { withRest: (rest) => withRest(search, jobs, days, isFewest, rest) };
}

/** Several sets of days may be the fewest: the one is taken with which the rest is best, as far as the effort goes. */
function withRest<Plan>(
  search: Search,
  jobs: readonly string[],
  days: readonly number[],
  isFewest: boolean,
  rest: Rest<Plan>,
): Fewest<Plan> {
  const planWith = (of: readonly number[]): Plan =>
    rest.with(new Map(jobs.map((job, i) => [job, of[i] ?? 0])));
  let plan = planWith(days);
  let bound: Plan | null = null;
  const isAll = search.each(sum(days), {
    visit: (others) => {
      const other = planWith(others);
      if (rest.compare(other, plan) < 0) plan = other;
    },
    // With the most days for everybody it is no worse than with any of them.
    isWorth: (most) => {
      const relaxed = planWith(most);
      bound ??= relaxed;
      return rest.compare(relaxed, plan) < 0;
    },
  });
  const isBest = isFewest && isAll;
  return { plan, isFewest, isBest, bound: isBest ? plan : (bound ?? plan) };
}

/** What is decided once days are. */
export interface Rest<Plan> {
  with: (days: ReadonlyMap<string, number>) => Plan;
  compare: (a: Plan, b: Plan) => number;
}
/** The best there is with the fewest days: whether they are proved to be, and the rest too; else it can be no better than `bound`. */
export interface Fewest<Plan> {
  plan: Plan;
  isFewest: boolean;
  isBest: boolean;
  bound: Plan;
}

const sum = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0);

/** The days each job may be given: at least, and at most. */
interface Span {
  least: readonly number[];
  most: readonly number[];
}
/** Steps towards better prices, at the beginning and after each decision; and how often without a gain before they are made half as long. */
const STEPS = 400;
const MORE_STEPS = 60;
const PATIENCE = 40;
/** How much of the last step's way the next one goes on. */
const SMOOTH = 0.7;
/** How much better than the best bound prices are hoped to become with a step: so much, or as much as it takes to be rid of what is looked at. */
const AHEAD = 4;
const NEAR = 0.2;
const SHORT = 0.7;
/** How much what jobs chose counts with each step after it. */
const FORGET = 0.97;
/** How many ways are weighed for what one costs that is looked at. */
const WEIGHED = 20;
/** Days are whole: a bound this little above a day is the next one’s. */
const NEARLY = 1e-6;
/** A group without a way costs so much: prices are whole numbers, and of two that want one piece each may lack a half. */
const UNMET = 5_040;

interface Visitor {
  visit: (days: readonly number[]) => void;
  isWorth: (most: readonly number[]) => boolean;
}

class Search {
  /** The job of each group, and the first of its ways: the soonest. */
  private readonly groups: number[] = [];
  private readonly from: number[] = [0];
  /** The days of each way, and the first of the lots it takes from: places among those that anybody asks for. */
  private readonly days: Int32Array;
  private readonly lotsFrom: Int32Array;
  private readonly lots: Int32Array;
  private readonly counts: number[] = [];
  private readonly price: Float64Array;
  /** The days that could matter to each job, from the fewest on. */
  private readonly levels: number[][];
  private readonly weight: number;
  private best: number[] = [];
  private upper = 0;

  constructor(
    waiting: readonly Waiting[],
    counts: readonly number[],
    jobs: readonly string[],
    private readonly effort: Effort,
  ) {
    const place = new Map(jobs.map((job, i) => [job, i]));
    const lotPlace = new Map<number, number>();
    const days: number[] = [];
    const lotsFrom = [0];
    const lots: number[] = [];
    this.levels = jobs.map(() => []);
    for (const { job, ways } of waiting) {
      const at = place.get(job) ?? 0;
      const own = this.levels[at] as number[];
      for (const way of soonest(ways)) {
        if (!own.includes(way.days)) own.push(way.days);
        days.push(way.days);
        for (const lot of way.lots) {
          const known = lotPlace.get(lot) ?? this.counts.push(counts[lot] ?? 0) - 1;
          lotPlace.set(lot, known);
          lots.push(known);
        }
        lotsFrom.push(lots.length);
      }
      this.groups.push(at);
      this.from.push(days.length);
    }
    for (const own of this.levels) own.sort((a, b) => a - b);
    this.days = Int32Array.from(days);
    this.lotsFrom = Int32Array.from(lotsFrom);
    this.lots = Int32Array.from(lots);
    this.price = new Float64Array(days.length);
    this.weight = days.length / WEIGHED;
  }

  /** The fewest days; null where none are enough. */
  fewest(): readonly number[] | null {
    const least = this.alone();
    if (!this.stuckAt(least)) return least;
    const most = this.levels.map((own) => own.at(-1) ?? 0);
    if (this.stuckAt(most)) return null;
    this.best = most;
    this.upper = sum(most);
    this.look({ least, most }, new Float64Array(this.counts.length), STEPS);
    return this.best;
  }

  /** What each job needs if all is there for it alone. */
  private alone(): number[] {
    const least = this.levels.map(() => 0);
    for (const [group, job] of this.groups.entries())
      least[job] = Math.max(least[job] ?? 0, this.days[this.from[group] ?? 0] ?? 0);
    return least;
  }

  /**
   * Goes through all days that are enough and come to so many together, which are the fewest; not where nothing is worth it that has at most so many.
   *
   * @returns whether it came to the end.
   */
  each(all: number, { visit, isWorth }: Visitor): boolean {
    const go = (least: readonly number[], most: readonly number[]): boolean => {
      if (this.effort.left <= 0) return false;
      const spare = all - sum(least);
      const within = least.map((day, job) => Math.min(most[job] ?? 0, day + spare));
      const short = this.stuckAt(least);
      if (!short) {
        visit(least);
        return true;
      }
      if (spare === 0) return true;
      const isMore = isWorth(within);
      // Then it is not known what they come to.
      if (this.effort.left <= 0) return false;
      if (!isMore) return true;
      let fixed = most;
      for (const job of short) {
        const later = this.raised(least, job, least[job] ?? 0);
        const isLater = (later[job] ?? 0) > (least[job] ?? 0) && (later[job] ?? 0) <= (within[job] ?? 0);
        if (isLater && !go(later, fixed)) return false;
        // From here on it does not wait longer.
        fixed = fixed.with(job, least[job] ?? 0);
      }
      return true;
    };
    return go(
      this.alone(),
      this.levels.map((own) => own.at(-1) ?? 0),
    );
  }

  private look({ least, most }: Span, prices: Float64Array, steps: number): void {
    if (sum(least) >= this.upper) return;
    if (this.effort.left <= 0) {
      this.effort.stopped = true;
      return;
    }
    const short = this.stuckAt(least)?.filter((job) => (least[job] ?? 0) < (most[job] ?? 0));
    if (!short) {
      this.best = [...least];
      this.upper = sum(least);
      return;
    }
    const [only] = short;
    if (only === undefined) return;
    const later = (job: number, than: number): void =>
      this.look({ least: this.raised(least, job, than), most }, Float64Array.from(prices), MORE_STEPS);
    if (short.length === 1) {
      later(only, least[only] ?? 0);
      return;
    }
    const { bound, average } = this.priced({ least, most }, prices, steps);
    if (Math.ceil(bound - NEARLY) >= this.upper) return;
    const rounded = this.levels.map((own, job) => nearest(own, average[job] ?? 0));
    const stuck = sum(rounded) < this.upper ? this.stuckAt(rounded) : short;
    if (!stuck) {
      this.best = rounded;
      this.upper = sum(rounded);
      if (Math.ceil(bound - NEARLY) >= this.upper) return;
    }
    // Of the jobs that are in each other's way with the days that look best, or else with the fewest, the one that looks likeliest to wait longer.
    const days = stuck && stuck !== short ? rounded : least;
    let [at, farthest] = [-1, -Infinity];
    for (const job of stuck ?? short) {
      const far = (average[job] ?? 0) - (days[job] ?? 0);
      if ((days[job] ?? 0) < (most[job] ?? 0) && far > farthest) [at, farthest] = [job, far];
    }
    if (at < 0) return;
    const split = days[at] ?? 0;
    later(at, split);
    this.look({ least, most: most.with(at, split) }, Float64Array.from(prices), MORE_STEPS);
  }

  /** The days with one job given more than so many. */
  private raised(days: readonly number[], job: number, above: number): number[] {
    return days.with(job, this.levels[job]?.find((day) => day > above) ?? above);
  }

  /** Jobs of which one has to wait longer; null where every group has a way in time. */
  private stuckAt(days: readonly number[]): number[] | null {
    const all = this.groups.map((job, group) => {
      const ways: Way[] = [{ option: -1, cost: [UNMET], lots: [] }];
      for (let way = this.from[group] ?? 0; way < (this.from[group + 1] ?? 0); way++)
        if ((this.days[way] ?? 0) <= (days[job] ?? 0))
          ways.push({
            option: way,
            cost: [0],
            lots: [...this.lots.subarray(this.lotsFrom[way], this.lotsFrom[way + 1])],
          });
      return ways;
    });
    let stuck: readonly number[] = [];
    const found = share(all, this.counts, 1, this.effort, [1], (groups) => (stuck = groups));
    return found ? null : [...new Set(stuck.map((group) => this.groups[group] ?? 0))];
  }

  /** A bound on all days together, with prices made better in place; and what days jobs chose on average on the way there. */
  private priced(span: Span, prices: Float64Array, steps: number): { bound: number; average: number[] } {
    const best = Float64Array.from(prices);
    let [bound, factor, idle] = [-Infinity, 1, 0];
    const asked = new Float64Array(prices.length);
    const way = new Float64Array(prices.length);
    const average = span.least.map(() => 0);
    let weight = 0;
    for (let step = 0; step < steps; step++) {
      this.effort.left -= this.weight;
      const { value, days } = this.weighed(span, prices, asked);
      if (value > bound + NEARLY) {
        bound = value;
        best.set(prices);
        idle = 0;
        if (Math.ceil(bound - NEARLY) >= this.upper) break;
      } else if (++idle >= PATIENCE) {
        factor /= 2;
        idle = 0;
        prices.set(best);
      }
      // What was chosen late counts most.
      weight = FORGET * weight + 1;
      for (const [job, day] of days.entries())
        average[job] = (average[job] as number) + (day - (average[job] as number)) / weight;
      const ahead = Math.min(AHEAD, Math.max(NEAR, this.upper - SHORT - bound));
      let square = 0;
      for (let lot = 0; lot < prices.length; lot++) {
        const short = SMOOTH * (way[lot] as number) + (asked[lot] as number) - (this.counts[lot] as number);
        way[lot] = short < 0 && (prices[lot] as number) <= 0 ? 0 : short;
        square += (way[lot] as number) ** 2;
      }
      if (square === 0) break;
      const far = (factor * (bound + ahead - value)) / square;
      for (let lot = 0; lot < prices.length; lot++)
        prices[lot] = Math.max(0, (prices[lot] as number) + far * (way[lot] as number));
    }
    prices.set(best);
    return { bound, average };
  }

  /** What each job would choose at these prices, and what is asked for then. */
  private weighed(
    { least, most }: Span,
    prices: Float64Array,
    asked: Float64Array,
  ): { value: number; days: number[] } {
    const { groups, levels, from, days: dayOf, lotsFrom, lots, price } = this;
    for (let way = 0; way < dayOf.length; way++) {
      let all = 0;
      const end = lotsFrom[way + 1] as number;
      for (let k = lotsFrom[way] as number; k < end; k++) all += prices[lots[k] as number] as number;
      price[way] = all;
    }
    const costs = levels.map((own, job) =>
      own.map((day) => (day < (least[job] as number) || day > (most[job] as number) ? Infinity : day)),
    );
    for (let group = 0; group < groups.length; group++) {
      const job = groups[group] as number;
      const own = levels[job] as number[];
      const cost = costs[job] as number[];
      const end = from[group + 1] as number;
      let [way, cheapest] = [from[group] as number, Infinity];
      for (let k = 0; k < own.length; k++) {
        for (; way < end && (dayOf[way] as number) <= (own[k] as number); way++)
          if ((price[way] as number) < cheapest) cheapest = price[way] as number;
        cost[k] = (cost[k] as number) + cheapest;
      }
    }
    let value = 0;
    const days = costs.map((cost, job) => {
      let at = 0;
      for (let k = 1; k < cost.length; k++) if ((cost[k] as number) < (cost[at] as number)) at = k;
      value += cost[at] as number;
      return levels[job]?.[at] ?? 0;
    });
    asked.fill(0);
    for (let group = 0; group < groups.length; group++) {
      const day = days[groups[group] as number] as number;
      const end = from[group + 1] as number;
      let taken = -1;
      for (let way = from[group] as number; way < end && (dayOf[way] as number) <= day; way++)
        if (taken < 0 || (price[way] as number) < (price[taken] as number)) taken = way;
      const till = lotsFrom[taken + 1] as number;
      for (let k = lotsFrom[taken] as number; k < till; k++) {
        const lot = lots[k] as number;
        asked[lot] = (asked[lot] as number) + 1;
      }
    }
    for (let lot = 0; lot < asked.length; lot++)
      value -= (prices[lot] as number) * (this.counts[lot] as number);
    return { value, days };
  }
}

function nearest(levels: readonly number[], to: number): number {
  let best = levels[0] ?? 0;
  for (const day of levels) if (Math.abs(day - to) < Math.abs(best - to)) best = day;
  return best;
}

/** Ways in the order they come; none that is there no sooner than one that takes nothing, and of those that take the same the soonest. */
function soonest(ways: Waiting["ways"]): Waiting["ways"][number][] {
  const known = new Set<string>();
  const kept: Waiting["ways"][number][] = [];
  for (const way of [...ways].sort((a, b) => a.days - b.days || a.lots.length - b.lots.length)) {
    const key = way.lots.join(" ");
    if (known.has("") || known.has(key)) continue;
    known.add(key);
    kept.push(way);
  }
  return kept;
}
