import type { Applied, Soak, Step } from "../book";
import { isKind, type FactOf, type Job } from "../fact";
import { millisecondsOf } from "./face";

/** Something that stands for a while: frictions in fluid, rings in their sizer. */
export interface Timer {
  step: Step;
  soak: Soak;
  started: FactOf<"timer"> | null;
  ended: FactOf<"timer"> | null;
  /** When it may be used, and where the book says so must be, in milliseconds; null while it has not begun. */
  ready: number | null;
  latest: number | null;
}

/** Every soak that the steps in scope begin, as it stands. */
export function timersOf(job: Job, { scoped }: Pick<Applied, "scoped">): Timer[] {
  const soaks = new Map((scoped.soaks ?? []).map((soak) => [soak.id, soak]));
  const begun = startsOf(job);
  return (scoped.build ?? []).flatMap((step) =>
    (step.starts ?? []).flatMap((id): Timer[] => {
      const soak = soaks.get(id);
      if (!soak) return [];
      const said = job.timers.get(`${step.id} ${id}`) ?? null;
      const started = said?.body.did === "started" ? said : (begun.get(`${step.id} ${id}`) ?? null);
      const from = started ? Date.parse(started.at) : null;
      return [
        {
          step,
          soak,
          started,
          ended: said?.body.did === "ended" ? said : null,
          ready: from === null ? null : from + millisecondsOf(soak.time),
          latest: from === null || !soak.longest ? null : from + millisecondsOf(soak.longest),
        },
      ];
    }),
  );
}

/** The last beginning of each soak. */
function startsOf(job: Job): Map<string, FactOf<"timer">> {
  const last = new Map<string, FactOf<"timer">>();
  for (const fact of job.live)
    if (isKind(fact, "timer") && fact.body.did === "started")
      last.set(`${fact.body.step} ${fact.body.soak}`, fact);
  return last;
}

/** Whether what stands may be used: long enough, or taken out after so long. */
export const isReady = ({ ready, ended }: Timer, now: number): boolean =>
  ready !== null && (ended ? Date.parse(ended.at) >= ready : now >= ready);

/** Whether it was taken out before its time: it is begun anew. */
export const isTooSoon = (timer: Timer): boolean => timer.ended !== null && !isReady(timer, Infinity);

/** Whether it stood, or stands, longer than the book has it. */
export const isTooLong = ({ latest, ended }: Timer, now: number): boolean =>
  latest !== null && (ended ? Date.parse(ended.at) : now) > latest;
