import { useEffect, useRef } from "react";
import { Link } from "react-router";
import { isReady, isTooLong, timersOf, type Timer } from "~core/build";
import type { Job } from "~core/fact";
import { call } from "./call";
import type { JobView } from "~/view/view";
import { workedOut } from "~/view/worked-out";
import { clockWords, useSeconds } from "./use-moment";

const timersIn = workedOut(({ job, applied }) => timersOf(job, applied));

/** What stands in fluid or in its sizer, counting down on every page of the job; what is ready calls once, whoever’s page it is. */
export function RailTimers({ view }: { view: JobView }) {
  const { job, applied, number } = view;
  const timers = timersIn(view);
  const standing = timers.filter(
    ({ started, ended }) => started !== null && ended === null && job.closed === null,
  );
  const used = new Set(
    (applied.scoped.build ?? []).flatMap(({ id, waits = [] }) => (isDone(job, id) ? [] : waits)),
  );
  // What nothing waits for any more has done its work.
  const shown = standing.filter(({ soak }) => used.has(soak.id));
  const now = useSeconds(shown.length > 0);
  useCalls(shown, now);
  if (shown.length === 0) return null;
  return (
    <div className="mt-3" role="status" aria-label="What stands">
      {shown.map((timer) => {
        const ready = isReady(timer, now);
        const late = isTooLong(timer, now);
        return (
          <Link
            key={keyOf(timer)}
            to={`/jobs/${number}/build?step=${timer.step.id}`}
            className={`block border-l-4 px-3 py-1 leading-tight ${late ? "border-error" : ready ? "border-success" : "border-transparent"}`}
            data-timer={timer.soak.id}
            data-ready={ready}
          >
            <b className="figure block text-xl" suppressHydrationWarning>
              {late ? "too long" : ready ? "ready" : clockWords((timer.ready ?? 0) - now)}
            </b>
            <span className="block text-sm opacity-80">{timer.soak.what}</span>
          </Link>
        );
      })}
    </div>
  );
}

const isDone = (job: Job, step: string): boolean => (job.steps.get(step)?.body.did ?? "undone") !== "undone";
const keyOf = ({ step, soak, started }: Timer): string => `${step.id} ${soak.id} ${started?.id ?? ""}`;

/** What has become ready while somebody looks calls; what was ready when the page came does not. */
function useCalls(timers: readonly Timer[], now: number): void {
  const known = useRef<Map<string, boolean>>(new Map());
  useEffect(() => {
    const before = known.current;
    const states = new Map(timers.map((timer) => [keyOf(timer), isReady(timer, now)]));
    if ([...states].some(([key, ready]) => ready && before.get(key) === false)) call();
    known.current = states;
  }, [timers, now]);
}
