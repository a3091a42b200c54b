import { share, type Effort } from "./shared";

/** A group that may have any of these ways, each of them as good as can be in what comes before readiness. */
export interface Waiting {
  job: string;
  ways: readonly { lots: readonly number[]; days: number }[];
}
/** One of these jobs has to wait at least so long. */
type Clause = readonly (readonly [job: string, days: number])[];

/** Looks at the sets of days before it takes the best it knows. */
const LOOKS = 5_000;

/**
 * The days each job is given, fewest in all, so that every group has one of its ways in time and no lot gives more than it holds.
 *
 * Days are raised from what each job needs alone. Where they are not enough, groups are found that cannot all have a way: one of their jobs must wait longer,
 * whatever the others do. The smallest days that heed all such findings are tried next, until nothing is found any more (J. N. Hooker 2000, logic-based Benders).
 *
 * @param enough days that are known to be enough.
 */
export function fewestDays(
  groups: readonly Waiting[],
  counts: readonly number[],
  enough: ReadonlyMap<string, number>,
  effort: Effort,
): { days: ReadonlyMap<string, number>; proven: boolean } {
  const least = new Map([...enough.keys()].map((job) => [job, 0]));
  for (const { job, ways } of groups) {
    const alone = Math.min(...ways.map(({ days }) => days));
    least.set(job, Math.max(least.get(job) ?? 0, alone));
  }
  const clauses: Clause[] = [];
  const most = sum(enough);
  for (;;) {
    const found = heeded(clauses, least, most);
    if (!found.days) return { days: enough, proven: found.proven };
    const { days } = found;
    const more = findings(groups, counts, days, effort);
    if (more.length === 0) return { days, proven: found.proven };
    if (effort.stopped || effort.left <= 0) return { days: enough, proven: false };
    clauses.push(...more);
  }
}

const sum = (days: ReadonlyMap<string, number>): number => [...days.values()].reduce((a, b) => a + b, 0);

/** What keeps these days from being enough: for every set of groups that get in each other's way, who of them could wait. */
function findings(
  groups: readonly Waiting[],
  counts: readonly number[],
  days: ReadonlyMap<string, number>,
  effort: Effort,
): Clause[] {
  const UNMET = 1;
  const all = groups.map(({ job, ways }) => [
    ...ways.flatMap((way, option) =>
      way.days <= (days.get(job) ?? 0) ? [{ option, cost: [0], lots: way.lots }] : [],
    ),
    { option: -1, cost: [UNMET], lots: [] },
  ]);
  const clauses: Clause[] = [];
  const found = share(all, counts, 1, effort, null, (part, cost) => {
    if ((cost[0] ?? 0) === 0) return;
    const later = new Map<string, number>();
    for (const i of part) {
      const { job, ways } = groups[i] as Waiting;
      for (const way of ways)
        if (way.days > (days.get(job) ?? 0)) later.set(job, Math.min(later.get(job) ?? Infinity, way.days));
    }
    clauses.push([...later]);
  });
  return found ? clauses : [];
}

/** The fewest days that heed every clause; null where none are fewer than `most`. */
function heeded(
  clauses: readonly Clause[],
  least: ReadonlyMap<string, number>,
  most: number,
): { days: ReadonlyMap<string, number> | null; proven: boolean } {
  let best: ReadonlyMap<string, number> | null = null;
  let below = most;
  let looks = LOOKS;
  const look = (days: ReadonlyMap<string, number>): void => {
    if (looks-- <= 0) return;
    const open = clauses.filter((clause) => !clause.some(([job, day]) => (days.get(job) ?? 0) >= day));
    if (sum(days) + apart(open, days) >= below) return;
    const [first] = [...open].sort((a, b) => a.length - b.length);
    if (!first) {
      best = days;
      below = sum(days);
      return;
    }
    const cheapest = [...first].sort(
      ([a, x], [b, y]) => x - (days.get(a) ?? 0) - (y - (days.get(b) ?? 0)) || (a < b ? -1 : 1),
    );
    for (const [job, day] of cheapest) look(new Map(days).set(job, day));
  };
  look(least);
  return { days: best, proven: looks > 0 };
}

/** Days that clauses without a job in common cost at least. */
function apart(clauses: readonly Clause[], days: ReadonlyMap<string, number>): number {
  const seen = new Set<string>();
  let total = 0;
  for (const clause of clauses) {
    if (clause.some(([job]) => seen.has(job))) continue;
    for (const [job] of clause) seen.add(job);
    total += Math.min(...clause.map(([job, day]) => day - (days.get(job) ?? 0)));
  }
  return total;
}
