import { Link } from "react-router";
import { useJobView } from "~/view/view";
import type { Asked, BuildStep } from "~core/build";
import { SayForm } from "~/say/say-form";
import { CheckButtons } from "./check-buttons";
import { figurePlace } from "./places";

const SIGNS: Readonly<Record<Asked["answer"], { sign: string; tone: string; words: string }>> = {
  open: { sign: "○", tone: "quiet", words: "open" },
  "not so": { sign: "✕", tone: "text-error", words: "not so" },
  answered: { sign: "✓", tone: "text-success", words: "answered" },
  otherwise: { sign: "≠", tone: "text-warning", words: "otherwise" },
};

/** Everything the step asks, with its answer; each can be answered again. */
export function AnswerList({ one }: { one: BuildStep }) {
  const list = one.asked.filter(({ kind }) => kind !== "behind" && kind !== "put" && kind !== "part");
  if (list.length === 0) return null;
  return (
    <ul className="mt-3" aria-label="What it asks">
      {list.map((asked) => (
        <li
          key={asked.key}
          className="border-base-300 flex flex-wrap items-center gap-3 border-t py-1.5"
          data-asked={asked.key}
          data-answer={asked.answer}
        >
          <b className={`w-6 text-center text-xl ${SIGNS[asked.answer].tone}`} aria-hidden="true">
            {SIGNS[asked.answer].sign}
          </b>
          <span className="grow leading-tight">
            <span className="text-lg first-letter:uppercase">{asked.name}</span>
            <span className="sr-only">, {SIGNS[asked.answer].words}</span>
            <span className="quiet block text-sm">
              {[asked.words, asked.fact && `${asked.fact.by}`].filter(Boolean).join(", ")}
            </span>
          </span>
          <Again asked={asked} one={one} />
        </li>
      ))}
    </ul>
  );
}

/** Where, or how, it is answered again. */
function Again({ asked, one }: { asked: Asked; one: BuildStep }) {
  const { job, number, sheets } = useJobView();
  if (asked.kind === "figure")
    return (
      <Link to={`/jobs/${number}/${figurePlace(sheets, asked.subject)}`} className="btn touch">
        Read
      </Link>
    );
  if (asked.kind === "begin" && asked.fact && !job.closed)
    return (
      <SayForm kind="timer" fixed={{ step: one.step.id, soak: asked.subject }} className="flex gap-2">
        {() => (
          <>
            <button name="did" value="started" className="btn touch">
              Begin anew
            </button>
            <button name="did" value="ended" className="btn touch">
              Taken out
            </button>
          </>
        )}
      </SayForm>
    );
  if (asked.kind === "check" && asked.answer !== "open" && !job.closed)
    return <CheckButtons fixed={{ step: one.step.id, check: asked.subject }} said={asked.fact} small />;
  return null;
}
