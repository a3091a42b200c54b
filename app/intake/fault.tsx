import { KEPT } from "~/offline/keys";
import type { BodyOf } from "~core/fact";
import { hindersElsewhere } from "~core/stage";
import { loadOrKept } from "~/offline/kept";
import { useMemo } from "react";
import { Form, Link, useActionData } from "react-router";
import type { Route } from "./+types/fault";
import { closeJob } from "~/sheet/close";
import { useJobView } from "~/view/view";
import { useSay } from "~/say/use-say";
import { Choice, Field } from "~/look/field";
import { chanceText } from "~/symptoms/suspects";
import { useDiagnosis } from "~/symptoms/use-diagnosis";
import { OUTSIDE_NAMES, toldBy, type Told } from "~core/diagnose";
import { v7 as newId } from "uuid";
import { SayForm } from "~/say/say-form";
import { Area } from "./book-in";

export const meta: Route.MetaFunction = ({ params }) => [{ title: `At fault? ${params.number} · Yard Key` }];

export const loader = () => ({ closing: newId() });

export const clientLoader = ({ params, serverLoader }: Route.ClientLoaderArgs) =>
  loadOrKept(KEPT.page(params.number, "fault"), serverLoader, () => ({ closing: newId() }));

/** Ends a job whose fault lies elsewhere: its record stays, nothing was opened. */
export const action = ({ context, request, params }: Route.ActionArgs) =>
  closeJob(context, request, Number(params.number), ({ job }) => hindersElsewhere(job));

/** Is this unit at fault at all? The evidence on both sides, before a wrench is put to it. */
export default function Fault({ loaderData: { closing } }: Route.ComponentProps) {
  const { job, applied } = useJobView();
  const answered = useActionData<typeof action>();
  const told = useMemo(() => toldBy(job, applied.present), [job, applied]);
  const report = useDiagnosis(applied.present, told);
  const conclusion = job.conclusion;
  return (
    <div className="grid grid-cols-2 items-start gap-3">
      <div className="grid gap-3">
        <LookedAtOutside told={told} />
        <BothSides report={report} />
      </div>
      <section className="plate p-4" aria-label="Conclusion">
        <h2 className="text-xl font-bold">Where the fault lies</h2>
        {conclusion && (
          <p className="mb-2 text-lg" data-conclusion>
            <b>{WHERE[conclusion.body.fault]}</b>, says {conclusion.by}: {conclusion.body.reason}
            {conclusion.body.fee && ` Fee for looking: ${conclusion.body.fee}.`}
          </p>
        )}
        {!job.closed && <Conclude conclusion={conclusion?.body} />}
        {conclusion?.body.fault === "elsewhere" && !job.closed && (
          <Form method="post" className="border-accent mt-4 border-l-4 pl-3">
            <p className="mb-2">
              The unit was not opened. The job can end here; its record and the fee stay.
            </p>
            <input type="hidden" name="id" value={closing} />
            <button className="btn touch">End the job: not this unit</button>
          </Form>
        )}
        {job.closed && conclusion?.body.fault === "elsewhere" && (
          <p className="mt-2 text-lg" role="status">
            <b>Ended by {job.closed.by}: not this unit.</b>
          </p>
        )}
        {answered?.problem && (
          <p role="alert" className="text-error font-semibold">
            {answered.problem}
          </p>
        )}
      </section>
    </div>
  );
}

/** What was found in the engine, the wiring, the driveline and the neighbours, or found in order. */
function LookedAtOutside({ told }: { told: readonly Told[] }) {
  const { job } = useJobView();
  const say = useSay();
  const answerTo = (question: string): string | undefined =>
    job.answers.findLast(({ body }) => body.question === question)?.body.outcome;
  const answer = (question: string, outcome: string): void => {
    const before = answerTo(question);
    if (before) say({ kind: "answer", question, outcome: before, conditions: [], there: false });
    if (before !== outcome) say({ kind: "answer", question, outcome, conditions: [], there: true });
  };
  return (
    <section className="plate p-4" aria-label="Looked at outside the unit">
      <h2 className="text-xl font-bold">Looked at outside the unit</h2>
      <ul>
        {Object.entries(OUTSIDE_NAMES).map(([place, name]) => {
          const question = `outside:${place}`;
          const known = told.find((one) => one.question === question)?.outcome;
          return (
            <li
              key={place}
              className="border-base-300 flex items-center gap-2 border-t py-1.5"
              data-outside={place}
            >
              <span className="grow leading-tight font-semibold">{name}</span>
              {(["nothing", "found"] as const).map((outcome) => (
                <button
                  key={outcome}
                  type="button"
                  disabled={job.closed !== null}
                  aria-pressed={known === outcome}
                  aria-label={`${name}: ${outcome === "found" ? "found" : "in order"}`}
                  className={`btn touch ${known === outcome ? "btn-primary" : ""}`}
                  onClick={() => answer(question, outcome)}
                >
                  {outcome === "found" ? "found" : "in order"}
                </button>
              ))}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** What speaks for elsewhere and what for this unit, with the strength of each. */
function BothSides({ report }: { report: ReturnType<typeof useDiagnosis> }) {
  const { number } = useJobView();
  const elsewhere = report?.suspects.find(({ id }) => id === "elsewhere");
  const here = report?.suspects.find(({ id }) => id !== "elsewhere");
  const sides = (elsewhere?.factors ?? []).filter(({ factor }) => factor > 1.05 || factor < 0.95);
  return (
    <section
      className="plate p-4"
      aria-label="Evidence"
      data-elsewhere={elsewhere?.chance.toFixed(3)}
      data-here={here?.id}
    >
      <h2 className="text-xl font-bold">Both sides</h2>
      {!elsewhere || !here ? (
        <p className="quiet">Working it out …</p>
      ) : (
        <>
          <p className="mb-2 text-lg">
            Not this unit: <b>{chanceText(elsewhere.chance)}</b>. This unit first: {here.name},{" "}
            <b>{chanceText(here.chance)}</b>.
          </p>
          <div className="grid grid-cols-2 gap-4">
            <Side title="Speaks for elsewhere" rows={sides.filter(({ factor }) => factor > 1)} />
            <Side title="Speaks for this unit" rows={sides.filter(({ factor }) => factor < 1)} />
          </div>
        </>
      )}
      <p className="mt-2">
        <Link to={`/jobs/${number}/symptoms`} className="underline underline-offset-4">
          What it points at within the unit
        </Link>
      </p>
    </section>
  );
}

function Conclude({ conclusion }: { conclusion: BodyOf<"conclusion"> | undefined }) {
  return (
    <SayForm kind="conclusion" keep>
      {(problems) => (
        <>
          <Choice
            label="The fault lies"
            name="fault"
            value={conclusion?.fault}
            problem={problems.fault}
            options={(["this-unit", "elsewhere", "open"] as const).map((value) => ({
              value,
              words: WHERE[value],
            }))}
          />
          <Area label="Because" name="reason" value={conclusion?.reason} problem={problems.reason} rows={3} />
          <Field
            label="Fee for looking, if it ends here"
            name="fee"
            defaultValue={conclusion?.fee}
            problem={problems.fee}
          />
          <button className="btn btn-primary touch">Keep the conclusion</button>
        </>
      )}
    </SayForm>
  );
}

const WHERE = { "this-unit": "in this unit", elsewhere: "elsewhere", open: "not known yet" } as const;

function Side({
  title,
  rows,
}: {
  title: string;
  rows: readonly { question: string; answer: string; factor: number }[];
}) {
  return (
    <div>
      <h3 className="stamp quiet">{title}</h3>
      {rows.length === 0 && <p className="quiet">Nothing yet.</p>}
      <ul>
        {rows.slice(0, 8).map(({ question, answer, factor }) => (
          <li key={`${question} ${answer}`} className="border-base-300 border-t py-1 leading-snug">
            {question}: {answer}{" "}
            <span className="quiet">×{(factor > 1 ? factor : 1 / factor).toFixed(1)}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}
