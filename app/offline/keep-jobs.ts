import { useEffect } from "react";
import { bringBook } from "~/revision/bring";
import type { RevisionRef } from "~/revision/kept-books";
import type { Fact } from "~core/fact";
import { ask } from "~/look/ask";
import { drop, dropOlder, keep, kept, keptKeys } from "./kept";
import { KEPT, type JobPage } from "./keys";

const EVERY_MS = 60_000;

interface OpenJob {
  number: number;
  /** Changes with everything that changes a page of the job. */
  state: string;
}
export interface KeptJob {
  job: { facts: string; book: RevisionRef };
  /** By the path within the job: `choose/d1-clearance`. */
  pages: Record<string, unknown>;
}

/** Keeps the pages of the open jobs on this machine, one job at a time, only those that have changed. */
async function keepOpenJobs(stopped: () => boolean): Promise<void> {
  const answer = await ask<{ jobs: OpenJob[] }>("/kept/jobs");
  if (!answer) return;
  await dropOlder();
  for (const { number, state } of answer.jobs) {
    if (stopped()) return;
    if ((await kept<string>(KEPT.state(number))) === state) continue;
    const whole = await ask<KeptJob>(`/kept/jobs/${number}`);
    if (!whole) return;
    await bringBook(whole.job.book);
    await keep(KEPT.job(number), whole.job);
    // Read beside what is remembered: many jobs one after another would push out the one that is open.
    const told = new Set(
      (JSON.parse(whole.job.facts) as Fact[]).map(({ id }): string => KEPT.said(number, id)),
    );
    await drop((await keptKeys(`said/${number}/`)).filter((key) => told.has(key)));
    for (const [path, data] of Object.entries(whole.pages))
      await keep(KEPT.page(number, path as JobPage), data);
    await keep(KEPT.state(number), state);
  }
  const open = new Set(answer.jobs.map(({ number }) => `${number}`));
  const kinds = await Promise.all(["job/", "state/", "said/"].map(keptKeys));
  const gone = kinds.flat().filter((key) => !open.has(key.split("/")[1] ?? ""));
  await drop(gone);
}

/** Begins when the page has settled, and looks again every minute. */
export function useKeepJobs(): void {
  useEffect(() => {
    let stopped = false;
    let busy = false;
    const look = (): void => {
      if (busy || stopped || document.visibilityState === "hidden") return;
      busy = true;
      void keepOpenJobs(() => stopped)
        .catch(() => {})
        .finally(() => (busy = false));
    };
    const first = setTimeout(look, 1_500);
    const timer = setInterval(look, EVERY_MS);
    void navigator.serviceWorker?.register("/sw.js").catch(() => {});
    return () => {
      stopped = true;
      clearTimeout(first);
      clearInterval(timer);
    };
  }, []);
}
