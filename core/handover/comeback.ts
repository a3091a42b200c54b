import type { Applied } from "../book";
import type { Build as BuildOf } from "../build";
import { Diagnostician, toldBy } from "../diagnose";
import { isBuilding, outcomeWords, questionWords, type Job } from "../fact";
import type { SpecLine } from "../measure";
import { readDistance } from "../quantity";
import { symptomsOf, weakestOf, type Weak } from "../prove";

/** A build as it left, with everything worked out of it. */
export interface Build {
  job: Job;
  applied: Applied;
  build: BuildOf;
  lines: readonly SpecLine[];
}

/** An earlier build seen from what the unit came back with. */
export interface Comeback {
  /** From the day it left to the day it came back. */
  days: number;
  /** How far it ran meanwhile, as both odometers say; empty where one was not read or they do not agree. */
  ran: string;
  /** Symptoms told both times, in words. */
  same: string[];
  /** Symptoms told now that were not told then. */
  fresh: string[];
  /** Whether it was kept step by step: else nobody knows how it was proven. */
  kept: boolean;
  /** Where that build was proven least, those first that today’s symptoms point at. */
  weak: Weak[];
}

/**
 * What an earlier build has to say to what the unit came back with.
 *
 * @param now the job of today.
 * @param opened when it was booked in.
 */
export function comebackOf(then: Build, now: Job, opened: string): Comeback {
  const { job, applied, build, lines } = then;
  const words = (one: Job): string[] =>
    symptomsOf(one).map(
      ({ body: { question, outcome } }) => `${questionWords(question)}: ${outcomeWords(outcome)}`,
    );
  const before = new Set(words(job));
  const told = toldBy(now, applied.present);
  const suspects = told.length > 0 ? new Diagnostician(applied.present).diagnose(told).suspects : [];
  const left = Date.parse(job.closed?.at ?? job.live.at(-1)?.at ?? opened);
  return {
    days: Math.max(0, Math.round((Date.parse(opened) - left) / DAY)),
    ran: ranBetween(job.booking?.body.odometer ?? "", now.booking?.body.odometer ?? ""),
    same: words(now).filter((one) => before.has(one)),
    fresh: words(now).filter((one) => !before.has(one)),
    kept: isBuilding(job, applied.present.build),
    weak: weakestOf(job, applied, build, lines, suspects),
  };
}

const DAY = 86_400_000;

/** `148 200 km` then and `151 000 km` now: `2800 km`. */
function ranBetween(then: string, now: string): string {
  const [a, b] = [readDistance(then), readDistance(now)];
  return a && b && a.unit === b.unit && b.far >= a.far ? `${b.far - a.far} ${b.unit}` : "";
}
