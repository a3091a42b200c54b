import { useMemo, useState } from "react";
import type { Route } from "./+types/symptoms";
import { useJobView } from "~/view/view";
import { useSay } from "~/say/use-say";
import { questionsOf, toldBy } from "~core/diagnose";
import { type Condition } from "~core/fact";
import { Grid } from "./grid";
import { SpeedsForm } from "./speeds-form";
import { chanceText, Suspects } from "./suspects";
import { useDiagnosis } from "./use-diagnosis";

export const meta: Route.MetaFunction = ({ params }) => [{ title: `Symptoms ${params.number} · Yard Key` }];

/** What happens in which range, and what it points at. */
export default function Symptoms() {
  const { applied, job, number } = useJobView();
  const say = useSay();
  const unit = applied.present;
  const questions = useMemo(() => questionsOf(unit), [unit]);
  const told = useMemo(() => toldBy(job, unit), [job, unit]);
  const report = useDiagnosis(unit, told);
  const [conditions, setConditions] = useState<Condition[]>([]);
  const answers = job.answers.map(({ body }) => body);
  const answer = (question: string, outcome: string, there: boolean, when: Condition[] = []): void =>
    say({ kind: "answer", question, outcome, conditions: when, there });
  const tick = (question: string, outcome: string): void => {
    const found = questions.find(({ id }) => id === question);
    const normal = found?.outcomes[0];
    const here = answers.filter((one) => one.question === question);
    const there = here.some((one) => one.outcome === outcome);
    if (there) return answer(question, outcome, false);
    // In order and out of order cannot both be said of one range.
    for (const other of here) {
      if (outcome === normal || other.outcome === normal) answer(question, other.outcome, false);
    }
    answer(question, outcome, true, outcome === normal ? [] : conditions);
  };
  const [first, second] = report && report.told > 0 ? report.suspects : [];
  return (
    <>
      {first && second && (
        // On a tablet the suspects lie below the grid: what they say now stays in sight.
        <p className="plate mb-2 px-4 py-1.5 text-lg xl:hidden" role="status">
          <b>{first.name}</b> {chanceText(first.chance)}, then {second.name} {chanceText(second.chance)}
        </p>
      )}
      <div className="grid items-start gap-3 xl:grid-cols-[auto_minmax(0,1fr)]">
        <div>
          <Grid
            questions={questions}
            answers={answers}
            number={number}
            conditions={conditions}
            setConditions={setConditions}
            closed={job.closed !== null}
            onTick={tick}
          />
          <SpeedsForm />
        </div>
        <Suspects
          report={report}
          questions={questions}
          answers={answers}
          onAnswer={(question, outcome) => tick(question, outcome)}
        />
      </div>
    </>
  );
}
