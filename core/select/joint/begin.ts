import { WAITS, type Columns, type Filling } from "./columns";

/**
 * Begins nearer the end: one job after the other has the fewest days it can have of what those before it leave, each of its groups what others want least. What is left out
 * stays as it was.
 *
 * @param columns whose start is changed in place; with it no row gives too much, as before.
 */
export function beginSooner(columns: Columns): void {
  const { all, counts, start, jobs } = columns;
  const first = all.reduce<number[]>((places, { group }, j) => ((places[group] ??= j), places), []);
  const own = (group: number): readonly Filling[] => all.slice(first[group], first[group + 1]);
  const left = [...counts];
  const demand = counts.map(() => 0);
  const groupOf = new Map<number, number>();
  for (const { rows, takes, group, way } of all)
    for (const [i, row] of rows.entries()) {
      demand[row] = (demand[row] ?? 0) + Math.max(0, takes[i] ?? 0);
      if (way !== WAITS) groupOf.set(row, group);
    }
  for (let job = jobs; job < start.length; job++) {
    const waits = own(job);
    const groups = [...new Set((waits.at(-1)?.rows ?? []).map((row) => groupOf.get(row) as number))];
    for (const [k, wait] of waits.entries()) {
      const has = new Map(wait.rows.map((row) => [row, 1 + (left[row] as number)]));
      const picked = pickedOf(groups.map(own), (row) => has.get(row) ?? (left[row] as number), demand);
      if (!picked) continue;
      start[job] = (first[job] as number) + k;
      for (const [i, group] of groups.entries())
        start[group] = (first[group] as number) + (picked.places[i] as number);
      for (const row of wait.rows) left[row] = (left[row] as number) + 1;
      for (const [row, takes] of picked.taken) left[row] = (left[row] as number) - takes;
      break;
    }
  }
}

/** The place of a column for each group, one after the other what others want least of what is left; null where one finds none. */
function pickedOf(
  groups: readonly (readonly Filling[])[],
  has: (row: number) => number,
  demand: readonly number[],
): { places: number[]; taken: Map<number, number> } | null {
  const taken = new Map<number, number>();
  const places: number[] = [];
  for (const columns of groups) {
    let [best, least] = [-1, Infinity];
    for (const [place, { rows, takes }] of columns.entries()) {
      let wanted = 0;
      for (const [i, row] of rows.entries()) {
        const left = has(row) - (taken.get(row) ?? 0);
        wanted += left < (takes[i] as number) ? Infinity : (demand[row] as number) / left;
      }
      if (wanted < least) [best, least] = [place, wanted];
    }
    if (best < 0) return null;
    places.push(best);
    const { rows, takes } = columns[best] as Filling;
    for (const [i, row] of rows.entries()) taken.set(row, (taken.get(row) ?? 0) + (takes[i] as number));
  }
  return { places, taken };
}
