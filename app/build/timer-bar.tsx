import { Timer as Clock } from "lucide-react";
import { Link } from "react-router";
import { useJobView } from "~/view/view";
import { isReady, type Timer } from "~core/build";
import { clockWords, useSeconds } from "./use-moment";

/** What stands in fluid or in its sizer, counting down. */
export function TimerBar({ timers }: { timers: readonly Timer[] }) {
  const { number } = useJobView();
  const running = timers.filter(({ started, ended }) => started !== null && ended === null);
  const now = useSeconds(running.length > 0);
  return (
    <span className="flex flex-wrap gap-2" role="status" aria-label="What stands">
      {running.map((timer) => (
        <Link
          key={`${timer.step.id} ${timer.soak.id}`}
          to={`/jobs/${number}/build?step=${timer.step.id}`}
          className={`btn touch ${isReady(timer, now) ? "btn-success" : ""}`}
          data-timer={timer.soak.id}
        >
          <Clock size={20} aria-hidden="true" />
          <span className="max-w-48 truncate">{timer.soak.what}</span>
          <b className="figure text-xl" suppressHydrationWarning>
            {isReady(timer, now) ? "ready" : clockWords((timer.ready ?? 0) - now)}
          </b>
        </Link>
      ))}
    </span>
  );
}
