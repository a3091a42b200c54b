import { useState } from "react";
import type { Question, Report } from "~core/diagnose";
import { outcomeWords, type BodyOf } from "~core/fact";

type Answer = BodyOf<"answer">;

const SHOWN = 4;

/** Chances are told in whole parts of a hundred and never as certain. */
export function chanceText(chance: number): string {
  if (chance > 0.985) return "over 98 %";
  if (chance < 0.01) return "under 1 %";
  return `${Math.round(chance * 100)} %`;
}

/** What is told points at these, the runner-up always beside the first; and what would tell most next. */
export function Suspects({
  report,
  questions,
  answers,
  onAnswer,
}: {
  report: Report | null;
  questions: readonly Question[];
  answers: readonly Answer[];
  onAnswer: (question: string, outcome: string) => void;
}) {
  const [all, setAll] = useState(false);
  if (!report)
    return (
      <section className="plate p-5" aria-label="Suspects">
        <h2 className="text-xl font-bold">Suspects</h2>
        <p className="quiet">Working it out …</p>
      </section>
    );
  const shown = all ? report.suspects : report.suspects.slice(0, SHOWN);
  return (
    <section className="plate p-4" aria-label="Suspects" data-told={report.told}>
      <h2 className="text-xl font-bold">{report.told === 0 ? "Nothing told yet" : "It points at"}</h2>
      {report.told === 0 && (
        <p className="quiet mb-2">Touch what happens in each range; fine ones tell as much as bad ones.</p>
      )}
      <ol className="mb-1">
        {shown.map((suspect, i) => (
          <li key={suspect.id} data-suspect={suspect.id}>
            <details name="suspect" className="border-base-300 border-t">
              <summary className="touch flex cursor-pointer flex-col justify-center py-1">
                <span className="flex items-baseline gap-2">
                  <span
                    className={`grow ${i === 0 && report.told > 0 ? "text-lg font-bold" : "font-semibold"}`}
                  >
                    {suspect.name}
                  </span>
                  <span className="figure text-lg whitespace-nowrap">{chanceText(suspect.chance)}</span>
                </span>
                <progress
                  className="chance w-full"
                  value={suspect.chance}
                  max={1}
                  aria-label={`${suspect.name}: ${chanceText(suspect.chance)}`}
                />
              </summary>
              <div className="pb-2 text-base leading-snug">
                <p>{suspect.working.would}</p>
                {suspect.working.told.map((line) => (
                  <p key={line}>{line}</p>
                ))}
                {suspect.working.against.map((line) => (
                  <p key={line} className="border-warning my-1 border-l-4 pl-2 font-semibold">
                    {line}
                  </p>
                ))}
                {suspect.factors.length > 0 && (
                  <ul className="quiet mt-1 text-sm">
                    {suspect.factors.slice(0, 6).map(({ question, answer, factor }) => (
                      <li key={`${question} ${answer}`}>
                        {question}: {answer}: {factorText(factor)}
                      </li>
                    ))}
                  </ul>
                )}
              </div>
            </details>
          </li>
        ))}
      </ol>
      <button
        type="button"
        className="touch quiet font-semibold underline underline-offset-4"
        onClick={() => setAll(!all)}
      >
        {all ? "Only the first" : `All ${report.suspects.length} causes`}
      </button>
      {report.told > 0 &&
        report.pairs.slice(0, 2).map(({ names, chance }) => (
          <p key={names.join()} className="border-base-300 border-t py-1">
            Two at once: {names.join(" and ")}, {chanceText(chance)}
          </p>
        ))}
      <h3 className="stamp mt-3">Asked next, it would tell most for its minutes</h3>
      <ol>
        {report.next.slice(0, 3).map((check) => (
          <li key={check.id} className="border-base-300 border-t py-1.5" data-next={check.id}>
            <p className="flex items-baseline gap-2">
              <span className="grow font-semibold">{check.name}</span>
              <span className="quiet text-sm whitespace-nowrap">{check.minutes} min</span>
            </p>
            <p className="quiet text-sm leading-snug">
              {check.would
                .slice(0, 2)
                .map(
                  ({ outcome, first, firstChance }) =>
                    `${outcomeWords(outcome)}: ${first} ${chanceText(firstChance)}`,
                )
                .join("; ")}
            </p>
          </li>
        ))}
      </ol>
      <Checks questions={questions} answers={answers} onAnswer={onAnswer} />
      <details className="border-base-300 border-t">
        <summary className="touch quiet flex cursor-pointer items-center font-semibold underline underline-offset-4">
          How it is worked out
        </summary>
        <p className="text-base leading-snug">
          Every cause alone and every two together are tried on the gear train: what each range would do with
          them. The answers are weighed with a table of how often a fault is felt how, made up for the demo.
          Answers count as independent; two faults explain a range when either does. It ranks, it does not
          know: open nothing on this alone.
        </p>
      </details>
    </section>
  );
}

const factorText = (factor: number): string =>
  factor >= 1.05
    ? `×${factor.toFixed(1)} for it`
    : factor <= 0.95
      ? `×${factor < 0.1 ? factor.toFixed(2) : factor.toFixed(1)} against it`
      : "tells nothing";

/** Every check whose answer is one of a few; the rest have pages of their own. */
function Checks({
  questions,
  answers,
  onAnswer,
}: {
  questions: readonly Question[];
  answers: readonly Answer[];
  onAnswer: (question: string, outcome: string) => void;
}) {
  const checks = questions.filter(({ kind }) => kind === "tap" || kind === "air" || kind === "scan");
  return (
    <details className="border-base-300 border-t">
      <summary className="touch flex cursor-pointer items-center font-semibold underline underline-offset-4">
        Note what a check said
      </summary>
      {checks.map(({ id, name, outcomes, minutes }) => (
        <fieldset key={id} className="mb-2">
          <legend className="font-semibold">
            {name} <span className="quiet text-sm font-normal">{minutes} min</span>
          </legend>
          <div className="flex flex-wrap gap-1.5">
            {outcomes.map((outcome) => {
              const said = answers.some((one) => one.question === id && one.outcome === outcome);
              return (
                <button
                  key={outcome}
                  type="button"
                  aria-pressed={said}
                  className={`btn touch ${said ? "btn-primary" : ""}`}
                  onClick={() => onAnswer(id, outcome)}
                >
                  {outcomeWords(outcome)}
                </button>
              );
            })}
          </div>
        </fieldset>
      ))}
      <p className="quiet text-sm">
        Shop air: regulated, hands off the piston’s path, eye protection. Road tests: licensed driver, local
        law. Rev in neutral only with wheels chocked and the lift’s procedure followed.
      </p>
    </details>
  );
}
