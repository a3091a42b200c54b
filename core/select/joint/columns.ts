import { less } from "./cost";
import { wantedOf } from "./shared";
import type { Column } from "./simplex";

/** A group and the ways it may be filled: the lots each takes from, in order and each as often as it takes, the day it is there, and what it comes to in each term, in whole numbers. */
export interface Fillable {
  job: string;
  ways: readonly FillingWay[];
}
export interface FillingWay {
  lots: readonly number[];
  days: number;
  values: readonly number[];
}

/** In the place of a way: a group that has nothing, and a job that waits. */
export const NOTHING = -1;
export const WAITS = -2;

/** One column of the program: a way of a group, a job’s waiting so many days, or nothing at all for a group that must have something. */
export interface Filling extends Column {
  way: number;
  values: readonly number[];
}

/** The columns of a program, group after group and then job after job, and its rows. */
export class Columns {
  readonly all: Filling[] = [];
  /** What each row holds: lots that could run out, and days that groups may wait for. */
  readonly counts: number[] = [];
  /** A column of each group with which no row gives too much. */
  readonly start: number[];
  /** The first of the groups that are jobs. */
  readonly jobs: number;
  /** Columns that take all that another of their group takes: as long as nothing but readiness is asked, nobody needs them. */
  readonly needless: number[] = [];

  constructor(
    groups: readonly Fillable[],
    lots: readonly number[],
    readonly terms: number,
    private readonly ready: number,
  ) {
    const lotRows = this.shortLots(groups, lots);
    const dayRows = groups.map(({ ways }) => this.dayRows(ways));
    this.jobs = groups.length;
    this.start = groups.map(({ ways }, group) =>
      this.waysOf(group, ways, lotRows, dayRows[group] as Map<number, number>),
    );
    if (ready < 0) return;
    for (const own of grouped(groups.keys(), (group) => groups[group]?.job ?? "").values())
      this.start.push(
        this.waitsOf(
          this.start.length,
          own.flatMap((group) => [...(dayRows[group] ?? [])]),
        ),
      );
  }

  /** A row for each lot that could run out. */
  private shortLots(groups: readonly Fillable[], lots: readonly number[]): Map<number, number> {
    const rows = new Map<number, number>();
    const wanted = wantedOf(
      groups.map(({ ways }) => ways),
      lots.length,
    );
    for (const [lot, count] of lots.entries())
      if ((wanted[lot] as number) > count) rows.set(lot, this.counts.push(count) - 1);
    return rows;
  }

  /** A row for each day a group may wait for: what comes then or later is no more than its job waits so long. */
  private dayRows(ways: readonly FillingWay[]): Map<number, number> {
    const days = new Set(this.ready < 0 ? [] : ways.map(({ days: day }) => day).filter((day) => day > 0));
    return new Map([...days].map((day) => [day, this.counts.push(0) - 1]));
  }

  /** Columns of a group, of those that take the same the least in order; returns one that takes nothing. */
  private waysOf(
    group: number,
    ways: readonly FillingWay[],
    lotRows: ReadonlyMap<number, number>,
    dayRows: ReadonlyMap<number, number>,
  ): number {
    const known = new Map<string, Filling>();
    let start: Filling | null = null;
    for (const [way, { lots, days, values: all }] of ways.entries()) {
      const values = this.ready < 0 ? all : all.with(this.ready, 0);
      const takes = timesOf(lots.flatMap((lot) => lotRows.get(lot) ?? []));
      const isFree = takes.size === 0;
      for (const [day, row] of dayRows) if (day <= days) takes.set(row, 1);
      const one = { group, way, values, rows: [...takes.keys()], takes: [...takes.values()] };
      const key = one.rows.join(" ") + (isFree ? "" : ` ${one.takes.join(" ")}`);
      const other = known.get(key);
      if (other && !less(values, other.values)) continue;
      if (isFree && (!start || start === other)) start = one;
      known.set(key, one);
    }
    if (!start) {
      start = { group, way: NOTHING, values: [], rows: [], takes: [] };
      known.set("nothing", start);
    }
    const first = this.all.length;
    const own = [...known.values()];
    this.all.push(...own);
    if (this.ready === 0) for (const place of needless(own)) this.needless.push(first + place);
    return first + own.indexOf(start);
  }

  /** Columns of a job: how long it waits; returns the longest. */
  private waitsOf(group: number, dayRows: readonly (readonly [day: number, row: number])[]): number {
    const days = [...new Set([0, ...dayRows.map(([day]) => day)])].sort((a, b) => a - b);
    for (const day of days) {
      const rows = dayRows.flatMap(([from, row]) => (from <= day ? [row] : []));
      const values = Array.from({ length: this.terms }, (_, term) => (term === this.ready ? day : 0));
      this.all.push({ group, way: WAITS, values, rows, takes: rows.map(() => -1) });
    }
    return this.all.length - 1;
  }
}

/** Places of columns that take no less of anything than another that is not among them. */
function needless(own: readonly Filling[]): number[] {
  const order = [...own.keys()].sort((a, b) => (own[a]?.rows.length ?? 0) - (own[b]?.rows.length ?? 0));
  const needed: Filling[] = [];
  return order.filter((place) => {
    const { rows, takes, way } = own[place] as Filling;
    if (way === NOTHING) return false;
    const isNeedless = needed.some((other) =>
      other.rows.every((row, i) => (takes[rows.indexOf(row)] ?? 0) >= (other.takes[i] as number)),
    );
    if (!isNeedless) needed.push(own[place] as Filling);
    return isNeedless;
  });
}

/** How often each number is there. */
function timesOf(numbers: readonly number[]): Map<number, number> {
  const times = new Map<number, number>();
  for (const one of numbers) times.set(one, (times.get(one) ?? 0) + 1);
  return times;
}

function grouped<T, K>(all: Iterable<T>, by: (one: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>();
  for (const one of all) {
    const key = by(one);
    const group = groups.get(key);
    if (group) group.push(one);
    else groups.set(key, [one]);
  }
  return groups;
}
