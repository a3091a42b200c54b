import { Undecided } from "~/choose/undecided";
import { useInSight } from "~/look/use-in-sight";
import { Link } from "react-router";
import type { StepState } from "~core/steps";

const MARKS: Readonly<Record<StepState["at"], { sign: string; words: string; tone: string }>> = {
  done: { sign: "✓", words: "done", tone: "text-success" },
  skipped: { sign: "↷", words: "skipped", tone: "quiet" },
  next: { sign: "▶", words: "next", tone: "text-primary" },
  "passed over": { sign: "!", words: "passed over", tone: "text-warning" },
  ahead: { sign: "·", words: "to do", tone: "quiet" },
};

/** Every step in the book's order, with who did it. */
export function StepList({ steps, shown }: { steps: readonly StepState[]; shown: string }) {
  const list = useInSight<HTMLElement>(shown);
  return (
    <nav
      ref={list}
      aria-label="Steps"
      className="plate max-h-[calc(100dvh-13rem)] overflow-y-auto"
      tabIndex={0}
    >
      <ol>
        {steps.map(({ step, at, fact }) => (
          <li key={step.id} data-step={step.id} data-at={at}>
            <Link
              to={`?step=${step.id}`}
              replace
              preventScrollReset
              aria-current={step.id === shown ? "step" : undefined}
              className={`touch border-base-300 flex items-center gap-2 border-b px-2 leading-tight ${
                step.id === shown ? "bg-base-200 outline-primary -outline-offset-3 outline-3" : ""
              }`}
            >
              <b className={`w-6 shrink-0 text-center text-xl ${MARKS[at].tone}`} aria-hidden="true">
                {MARKS[at].sign}
              </b>
              <span className={`grow ${at === "done" || at === "skipped" ? "quiet" : "font-semibold"}`}>
                {step.name}
                <Undecided entry={step} />
                <span className="sr-only">, {MARKS[at].words}</span>
              </span>
              {fact && (at === "done" || at === "skipped") ? (
                <span className="quiet text-sm whitespace-nowrap">{fact.by}</span>
              ) : (
                at === "passed over" && <span className="text-warning text-sm font-bold">passed over</span>
              )}
            </Link>
          </li>
        ))}
      </ol>
    </nav>
  );
}
