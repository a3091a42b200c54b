import type { SolveProgram } from "../kit";

/** Pieces by part number: what a job took, or wants. */
export type Pieces = ReadonlyMap<string, number>;

/** What a past job took. */
export interface PastJob {
  /** The unit it was of. */
  unit: string;
  took: Pieces;
}

/** A job that is here already. */
export interface KnownJob {
  /** The unit it is of: it will take what jobs of that unit take. */
  unit: string;
  /** What its list still wants. */
  wants: Pieces;
  /** Whether its sizes are chosen: until then more is expected of it than is known. */
  chosen: boolean;
}

/** What is asked: of this shop's own records. */
export interface RestockQuestion {
  past: readonly PastJob[];
  /** Jobs that are here already, the next to be built first. */
  known: readonly KnownJob[];
  /** How many jobs are looked ahead, the known ones among them. */
  jobs: number;
  /** Pieces that are free. */
  shelf: Pieces;
  /** What one piece costs, in cents, of what the shop keeps and can buy. Other parts are bought for the job that wants them, and have no say. */
  cents: Pieces;
  /** How likely the next jobs shall all be finished from the shelf: 0.9. */
  level: number;
}

/** How likely something is, and within what the records tell it: nine times in ten. */
export interface Chance {
  chance: number;
  low: number;
  high: number;
}

/** One part as the next jobs may want it. */
export interface PartDemand {
  part: string;
  onHand: number;
  /** Wanted on average. */
  mean: number;
  /** Wanted by no more than one in ten futures is more than this. */
  most: number;
  /** How likely it runs out. */
  short: number;
  /** To be bought for the level wanted. */
  buy: number;
}

/** What to keep, answered. */
export interface Restock {
  /** That the next jobs finish from the shelf as it is. */
  now: Chance;
  /** And with what is to be bought. */
  then: Chance;
  /** What the cheapest restock costs, in cents. */
  cents: number;
  /** Whether none is cheaper for the futures that were drawn. */
  proven: boolean;
  parts: PartDemand[];
}

const NOTHING: Pieces = new Map();
const RUNS = 400;
/** So often the records are drawn anew to tell how far they can be trusted. */
const RECORDS = 40;

/** Numbers between 0 and 1 that are the same each time (mulberry32, T. Ettinger): what a page says does not change by itself. */
function numbers(seed: number): () => number {
  let state = seed | 0;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
}

/**
 * What the next jobs may want altogether: for each a past job drawn by chance (the bootstrap: the records themselves are the distribution, B. Efron
 * 1979), for those that are here one of their unit and at least what is known of them; nothing is drawn for one whose sizes are chosen.
 */
function futures(
  { past, known, jobs, cents }: RestockQuestion,
  runs: number,
  random: () => number,
): Map<string, number>[] {
  const of = (unit: string): readonly PastJob[] => past.filter((job) => job.unit === unit);
  const drawnFrom = Array.from({ length: jobs }, (_, n) => {
    const here = known[n];
    return !here ? past : here.chosen ? [] : of(here.unit);
  });
  return Array.from({ length: runs }, () => {
    const wanted = new Map<string, number>();
    drawnFrom.forEach((from, n) => {
      const wants = known[n]?.wants ?? NOTHING;
      const took = from[Math.floor(random() * from.length)]?.took ?? NOTHING;
      for (const part of new Set([...wants.keys(), ...took.keys()])) {
        const pieces = Math.max(wants.get(part) ?? 0, took.get(part) ?? 0);
        if (cents.has(part)) wanted.set(part, (wanted.get(part) ?? 0) + pieces);
      }
    });
    return wanted;
  });
}

const isServed = (future: Pieces, shelf: Pieces, bought: Pieces): boolean =>
  [...future].every(([part, pieces]) => pieces <= (shelf.get(part) ?? 0) + (bought.get(part) ?? 0));

const shareOf = (all: readonly Pieces[], shelf: Pieces, bought: Pieces): number =>
  all.filter((future) => isServed(future, shelf, bought)).length / all.length;

/**
 * What to keep: how likely the next jobs finish from the shelf, and the cheapest that makes it as likely as is wanted.
 *
 * @param solve an integer program’s solver: with it the restock is proved where that is possible in time.
 * @returns chances with their spread, which comes of there being only so many records; parts by how likely they run out.
 */
export function restock(question: RestockQuestion, solve?: SolveProgram): Restock {
  const { shelf, cents, past } = question;
  const all = futures(question, RUNS, numbers(1));
  const { bought, proven } = cheapestFor(question, all, solve);
  const told = (buy: Pieces): Chance => {
    const random = numbers(2);
    const shares = Array.from({ length: past.length === 0 ? 0 : RECORDS }, () => {
      const drawn = past.flatMap(() => past[Math.floor(random() * past.length)] ?? []);
      return shareOf(futures(Object.assign({}, question, { past: drawn }), 100, random), shelf, buy);
    }).sort((a, b) => a - b);
    const chance = shareOf(all, shelf, buy);
    const at = (share: number): number => shares[Math.floor(share * (shares.length - 1))] ?? chance;
    return { chance, low: Math.min(chance, at(0.05)), high: Math.max(chance, at(0.95)) };
  };
  const names = [...new Set(all.flatMap((future) => [...future.keys()]))];
  const parts = names.map((part): PartDemand => {
    const wanted = all.map((future) => future.get(part) ?? 0).sort((a, b) => a - b);
    const onHand = shelf.get(part) ?? 0;
    return {
      part,
      onHand,
      mean: wanted.reduce((a, b) => a + b, 0) / wanted.length,
      most: wanted[Math.ceil(0.9 * wanted.length) - 1] ?? 0,
      short: wanted.filter((pieces) => pieces > onHand).length / wanted.length,
      buy: bought.get(part) ?? 0,
    };
  });
  parts.sort((a, b) => b.short - a.short || b.mean - a.mean || (a.part < b.part ? -1 : 1));
  return { now: told(new Map()), then: told(bought), cents: costOf(bought, cents), proven, parts };
}

const costOf = (bought: Pieces, cents: Pieces): number =>
  [...bought].reduce((sum, [part, pieces]) => sum + pieces * (cents.get(part) ?? 0), 0);

interface Bought {
  bought: Pieces;
  proven: boolean;
}

/**
 * The cheapest pieces that serve enough of the futures: by hand first (the future that lacks the least money next, then what can be left out
 * again), and by an integer program where there is a solver: `x` pieces of each part, `z` whether a future is served.
 */
export function cheapestFor(
  question: Pick<RestockQuestion, "shelf" | "cents" | "level">,
  all: readonly Pieces[],
  solve?: SolveProgram,
): Bought {
  const { shelf, cents, level } = question;
  const enough = Math.ceil(level * all.length - 1e-9);
  const lacks = all.map((future) =>
    [...future].flatMap(([part, pieces]): [string, number][] => {
      const more = pieces - (shelf.get(part) ?? 0);
      return more > 0 ? [[part, more]] : [];
    }),
  );
  const byHand = trimmed(grown(lacks, cents, enough), lacks, cents, enough);
  const free = lacks.filter((lack) => lack.length === 0).length;
  if (free >= enough) return { bought: new Map(), proven: true };
  const solved = solve?.(programOf(lacks, cents, enough));
  if (!solved) return { bought: byHand, proven: false };
  const parts = partsOf(lacks);
  const found = new Map(
    parts.flatMap((part, i): [string, number][] => {
      const pieces = solved.values.get(`x${i}`) ?? 0;
      return pieces > 0 ? [[part, pieces]] : [];
    }),
  );
  return costOf(found, cents) <= costOf(byHand, cents)
    ? { bought: found, proven: solved.proven }
    : { bought: byHand, proven: false };
}

type Lack = readonly (readonly [part: string, more: number])[];

const partsOf = (lacks: readonly Lack[]): string[] =>
  [...new Set(lacks.flatMap((lack) => lack.map(([part]) => part)))].sort();
const isMet = (lack: Lack, bought: Pieces): boolean =>
  lack.every(([part, more]) => (bought.get(part) ?? 0) >= more);

/** Futures served one after the other, each time the one that costs least beside what is bought already. */
function grown(lacks: readonly Lack[], cents: Pieces, enough: number): Map<string, number> {
  const bought = new Map<string, number>();
  const costs = (lack: Lack): number =>
    lack.reduce(
      (sum, [part, more]) => sum + Math.max(0, more - (bought.get(part) ?? 0)) * (cents.get(part) ?? 0),
      0,
    );
  const open = new Set(lacks.filter((lack) => lack.length > 0));
  let served = lacks.length - open.size;
  while (served < enough) {
    let [next, least]: [Lack | null, number] = [null, Infinity];
    for (const lack of open) {
      const cost = costs(lack);
      if (cost < least) [next, least] = [lack, cost];
    }
    if (!next) break;
    for (const [part, more] of next) bought.set(part, Math.max(more, bought.get(part) ?? 0));
    for (const lack of [...open])
      if (isMet(lack, bought)) {
        open.delete(lack);
        served++;
      }
  }
  return bought;
}

/** What can be left out again and enough are still served, the dearest first. */
function trimmed(
  bought: Map<string, number>,
  lacks: readonly Lack[],
  cents: Pieces,
  enough: number,
): Map<string, number> {
  const dearest = [...bought.keys()].sort((a, b) => (cents.get(b) ?? 0) - (cents.get(a) ?? 0));
  for (const part of dearest)
    for (let pieces = bought.get(part) ?? 0; pieces > 0; pieces--) {
      bought.set(part, pieces - 1);
      if (lacks.filter((lack) => isMet(lack, bought)).length >= enough) continue;
      bought.set(part, pieces);
      break;
    }
  return new Map([...bought].filter(([, pieces]) => pieces > 0));
}

/** The integer program, in the CPLEX LP format: futures that lack the same are one. */
function programOf(lacks: readonly Lack[], cents: Pieces, enough: number): string {
  const parts = partsOf(lacks);
  const at = new Map(parts.map((part, i) => [part, i]));
  const kinds = new Map<string, { lack: Lack; count: number }>();
  for (const lack of lacks) {
    const key = JSON.stringify([...lack].sort(([a], [b]) => (a < b ? -1 : 1)));
    const kind = kinds.get(key) ?? { lack, count: 0 };
    kind.count++;
    kinds.set(key, kind);
  }
  const all = [...kinds.values()];
  const most = parts.map((part) =>
    Math.max(...lacks.flatMap((lack) => lack.filter(([of]) => of === part).map(([, more]) => more))),
  );
  return [
    "Minimize",
    ` obj: ${parts.map((part, i) => `+ ${cents.get(part) ?? 0} x${i}`).join("\n ")}`,
    "Subject To",
    ` enough: ${all.map(({ count }, k) => `+ ${count} z${k}`).join("\n ")} >= ${enough}`,
    ...all.flatMap(({ lack }, k) =>
      lack.map(([part, more]) => ` c${k}_${at.get(part) ?? 0}: x${at.get(part) ?? 0} - ${more} z${k} >= 0`),
    ),
    "Bounds",
    ...parts.map((_, i) => ` 0 <= x${i} <= ${most[i] ?? 0}`),
    "General",
    ...parts.map((_, i) => ` x${i}`),
    "Binary",
    ...all.map((_, k) => ` z${k}`),
    "End",
  ].join("\n");
}
