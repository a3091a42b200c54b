import type { Applied, AppliedChain } from "../book";
import type { Job } from "../fact";
import { nearestNm, type Nm } from "../quantity";
import { specLines } from "./spec-lines";
import { isPackChain } from "./reading-set";
import type { House } from "./worksheet";

/** What one unit came with and left with, of one figure. */
export interface FigureLeft {
  /** Of its chain. */
  id: string;
  /** What was stacked: units of another version are not like it. */
  version: string;
  found?: Nm;
  built?: Nm;
}

/** Where the figures of several units lie, in nanometres: a middle between two is rounded. */
export interface Spread {
  count: number;
  low: Nm;
  middle: Nm;
  high: Nm;
}

/** The plates a figure is of, as far as they tell versions apart; nothing where it is of no pack. */
export const versionOf = (applied: AppliedChain): string =>
  isPackChain(applied) ? applied.stack.map(({ part, count = 1 }) => `${count} ${part}`).join(", ") : "";

/** The lengths a unit came with and left with; what was not read, or is of several things, is left out. */
export function figuresLeft(job: Job, applied: Applied, house: House): FigureLeft[] {
  const byId = new Map([...applied.chains, ...applied.packs].map((one) => [one.chain.id, one]));
  return specLines(job, applied, house, "mm").flatMap(({ id, found, built }): FigureLeft[] => {
    const chain = byId.get(id);
    if (!chain || (found.mean === undefined && built.mean === undefined)) return [];
    return [
      {
        id,
        version: versionOf(chain),
        ...(found.mean === undefined ? {} : { found: found.mean }),
        ...(built.mean === undefined ? {} : { built: built.mean }),
      },
    ];
  });
}

/** @returns null where there are none. */
export function spreadOf(values: readonly Nm[]): Spread | null {
  const sorted = [...values].sort((a, b) => a - b);
  const [low, high] = [sorted[0], sorted.at(-1)];
  if (low === undefined || high === undefined) return null;
  const [below, above] = [sorted[Math.floor((sorted.length - 1) / 2)], sorted[Math.floor(sorted.length / 2)]];
  return { count: sorted.length, low, middle: nearestNm(((below ?? low) + (above ?? low)) / 2), high };
}

/** How one figure of a version came out on the units before, as they came and as they left. */
export function spreadsOf(
  before: readonly FigureLeft[],
  applied: AppliedChain,
): { found: Spread | null; built: Spread | null } {
  const version = versionOf(applied);
  const same = before.filter((one) => one.id === applied.chain.id && one.version === version);
  return {
    found: spreadOf(same.flatMap(({ found }) => found ?? [])),
    built: spreadOf(same.flatMap(({ built }) => built ?? [])),
  };
}
