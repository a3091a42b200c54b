import { useWhen } from "~/door/when";
import { useState, type FormEvent } from "react";
import { useJobView } from "~/view/view";
import { useSay } from "~/say/use-say";
import { ask } from "~/look/ask";
import { Field } from "~/look/field";
import type { Visit } from "~store/jobs";
import type { Earlier } from "./earlier";

/** Brings in what the same unit left with when it was here before, to stand beside as found and spec. */
export function EarlierVisit() {
  const { day } = useWhen();
  const { job, number } = useJobView();
  const say = useSay();
  const [visits, setVisits] = useState<Visit[] | null>(null);
  const [problem, setProblem] = useState("");
  const [of, setOf] = useState("");
  const look = async (): Promise<void> => {
    const answer = await ask<Earlier>(`/jobs/${number}/earlier`);
    if (answer && "visits" in answer) setVisits(answer.visits);
    else setProblem(AWAY);
  };
  const bring = async (which: string): Promise<void> => {
    setProblem("");
    if (!/^\d{1,12}$/.test(which.trim())) return setProblem("Write the number of the earlier job: 1012.");
    const answer = await ask<Earlier>(`/jobs/${number}/earlier?of=${which.trim()}`);
    if (!answer) return setProblem(AWAY);
    if ("problem" in answer) return setProblem(answer.problem);
    if (!("figures" in answer)) return;
    if (answer.figures.length === 0) return setProblem(`No figure was kept with job ${which}.`);
    say({ kind: "earlier-visit", ...answer });
  };
  const { earlier } = job;
  return (
    <details
      className="relative"
      onToggle={({ currentTarget }) => {
        if (currentTarget.open && !visits) void look();
      }}
    >
      <summary className="touch quiet flex cursor-pointer items-center underline underline-offset-4">
        {earlier ? `Beside job ${earlier.body.job}, ${day(earlier.body.left)}` : "Was it here before?"}
      </summary>
      <div className="plate absolute bottom-full left-0 z-20 w-96 p-4">
        {visits?.length === 0 && <p>No earlier job of this vehicle and unit is in the records.</p>}
        <div className="flex flex-wrap gap-2">
          {visits?.map(({ number: before, opened }) => (
            <button
              key={before}
              type="button"
              className="btn touch"
              disabled={job.closed !== null}
              onClick={() => void bring(`${before}`)}
            >
              Job {before}, {day(opened)}
            </button>
          ))}
        </div>
        <form
          className="mt-3 flex items-start gap-2"
          noValidate
          onSubmit={(event: FormEvent) => {
            event.preventDefault();
            void bring(of);
          }}
        >
          <Field
            label="Another job’s number"
            inputMode="numeric"
            autoComplete="off"
            value={of}
            problem={problem}
            onChange={({ target }) => setOf(target.value)}
          />
          <button className="btn touch mt-6" disabled={job.closed !== null}>
            Set beside
          </button>
        </form>
      </div>
    </details>
  );
}

const AWAY = "The server is away: the record is there, and can be set beside later.";
