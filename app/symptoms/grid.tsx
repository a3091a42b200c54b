import { CONDITIONS, outcomeWords, questionWords, wordsOf, type Condition, type BodyOf } from "~core/fact";
import { type Question } from "~core/diagnose";

type Answer = BodyOf<"answer">;

const SHORT: Readonly<Record<Condition, string>> = { cold: "C", hot: "H", light: "L", "full-load": "F" };
/** Where a column's head is short. */
const HEAD: Readonly<Record<string, string>> = { "clunks-on-and-off": "clunks on/off" };

/** Ranges × what happens: a touch says it, another takes it back. */
export function Grid({
  questions,
  answers,
  number,
  conditions,
  setConditions,
  closed,
  onTick,
}: {
  questions: readonly Question[];
  answers: readonly Answer[];
  number: number;
  conditions: readonly Condition[];
  setConditions: (conditions: Condition[]) => void;
  closed: boolean;
  onTick: (question: string, outcome: string) => void;
}) {
  const rows = questions.filter(({ kind, id }) => kind === "range" && /^(range|manual):/.test(id));
  const changes = questions.filter(({ kind }) => kind === "change");
  const others = questions.filter(({ id }) => ["neutral", "standing", "whole"].includes(id));
  const columns = rows.reduce<readonly string[]>(
    (longest, { outcomes }) => (outcomes.length > longest.length ? outcomes : longest),
    [],
  );
  const said = (question: string, outcome: string): Answer | undefined =>
    answers.find((one) => one.question === question && one.outcome === outcome);
  const toggle = (condition: Condition): void =>
    setConditions(
      conditions.includes(condition)
        ? conditions.filter((one) => one !== condition)
        : [...conditions, condition],
    );
  return (
    <section className="plate p-3" aria-label="Symptoms by range">
      <div className="mb-1 flex flex-wrap items-center gap-2">
        <span className="stamp quiet">It shows</span>
        {wordsOf(CONDITIONS).map(([condition, words]) => (
          <button
            key={condition}
            type="button"
            className={`btn touch ${conditions.includes(condition) ? "btn-primary" : ""}`}
            aria-pressed={conditions.includes(condition)}
            onClick={() => toggle(condition)}
          >
            {words}
          </button>
        ))}
        <span className="quiet text-sm">
          {conditions.length > 0 ? "for what is touched next" : "or any time: touch what happens"}
        </span>
      </div>
      <table className="border-separate border-spacing-px">
        <thead>
          <tr>
            <td />
            {columns.map((outcome) => (
              <th key={outcome} scope="col" className="h-28 w-[44px] align-bottom font-semibold">
                <span className="inline-block rotate-180 text-sm leading-none whitespace-nowrap [writing-mode:vertical-rl]">
                  {HEAD[outcome] ?? outcomeWords(outcome)}
                </span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ id, outcomes }) => (
            <tr key={id}>
              <th scope="row" className="pr-2 text-right text-lg leading-none whitespace-nowrap">
                {id.startsWith("range:") ? (
                  id.slice(6)
                ) : (
                  <span className="quiet text-sm font-semibold">{id.slice(7)} by hand</span>
                )}
              </th>
              {columns.map((outcome, i) => (
                <td key={outcome}>
                  {outcomes.includes(outcome) && (
                    <Cell
                      {...{ number, closed, question: id, outcome }}
                      normal={i === 0}
                      said={said(id, outcome)}
                      onTick={() => onTick(id, outcome)}
                    />
                  )}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {changes.length > 0 && (
        <details className="mt-2" open={changes.some(({ id }) => answers.some((one) => one.question === id))}>
          <summary className="touch flex cursor-pointer items-center underline underline-offset-4">
            At a change: flares, binds, comes late
          </summary>
          {changes.map(({ id, outcomes }) => (
            <Outcomes key={id} {...{ number, closed, id, outcomes, onTick }} said={(one) => said(id, one)}>
              {questionWords(id)}
            </Outcomes>
          ))}
        </details>
      )}
      {others.map(({ id, name, outcomes }) => (
        <Outcomes key={id} {...{ number, closed, id, outcomes, onTick }} said={(one) => said(id, one)}>
          {OTHER_NAMES[id] ?? name}
        </Outcomes>
      ))}
    </section>
  );
}

/** One question with everything that can be answered to it. */
function Outcomes({
  id,
  outcomes,
  number,
  closed,
  said,
  onTick,
  children,
}: {
  id: string;
  outcomes: readonly string[];
  number: number;
  closed: boolean;
  said: (outcome: string) => Answer | undefined;
  onTick: (question: string, outcome: string) => void;
  children: string;
}) {
  return (
    <fieldset className="mt-2 w-0 min-w-full">
      <legend className="stamp quiet">{children}</legend>
      <div className="flex flex-wrap gap-1.5">
        {outcomes.map((outcome, i) => (
          <Chip
            key={outcome}
            {...{ number, closed, question: id, outcome }}
            normal={i === 0}
            said={said(outcome)}
            onTick={() => onTick(id, outcome)}
          />
        ))}
      </div>
    </fieldset>
  );
}

const OTHER_NAMES: Readonly<Record<string, string>> = {
  neutral: "In N",
  standing: "Standing in gear, foot on the brake",
  whole: "The vehicle as a whole",
};

interface TickProps {
  number: number;
  closed: boolean;
  question: string;
  outcome: string;
  /** Whether it says that nothing is wrong. */
  normal: boolean;
  said: Answer | undefined;
  onTick: () => void;
}

/** One tick, as a form of its own so that it can be said before the script has loaded. */
function Tick({
  number,
  closed,
  question,
  outcome,
  said,
  onTick,
  ...button
}: Omit<TickProps, "normal"> & React.ComponentProps<"button">) {
  return (
    <form
      method="post"
      action={`/jobs/${number}/say`}
      onSubmit={(event) => {
        event.preventDefault();
        onTick();
      }}
    >
      <input type="hidden" name="kind" value="answer" />
      <input type="hidden" name="question" value={question} />
      <input type="hidden" name="outcome" value={outcome} />
      <input type="hidden" name="there" value={said ? "false" : "true"} />
      <button disabled={closed} aria-pressed={said !== undefined} {...button} />
    </form>
  );
}

const look = (said: boolean, normal: boolean): string =>
  said
    ? normal
      ? "bg-success text-success-content border-success"
      : "bg-error text-error-content border-error"
    : "bg-base-200 border-base-300";

function Cell({ normal, ...tick }: TickProps) {
  const { said, question, outcome } = tick;
  return (
    <Tick
      {...tick}
      aria-label={`${questionWords(question)}: ${outcomeWords(outcome)}`}
      className={`grid size-[44px] cursor-pointer place-items-center rounded border-2 text-lg leading-none font-bold ${look(said !== undefined, normal)}`}
    >
      {said && (normal ? "✓" : said.conditions.map((one) => SHORT[one]).join("") || "✕")}
    </Tick>
  );
}

function Chip({ normal, ...tick }: TickProps) {
  const { said, outcome } = tick;
  return (
    <Tick
      {...tick}
      className={`touch cursor-pointer rounded border-2 px-3 ${look(said !== undefined, normal)}`}
    >
      {said && <span aria-hidden="true">{normal ? "✓ " : "✕ "}</span>}
      {outcomeWords(outcome)}
      {said &&
        said.conditions.length > 0 &&
        ` (${said.conditions.map((one) => CONDITIONS.words[one]).join(", ")})`}
    </Tick>
  );
}
