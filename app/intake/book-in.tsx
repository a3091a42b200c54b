import { unitName } from "~core/book";
import { KEPT } from "~/offline/keys";
import { loadOrKept } from "~/offline/kept";
import { Link } from "react-router";
import type { Route } from "./+types/book-in";
import { ToolsNeeded } from "~/book/tools-needed";
import { Correct } from "~/job/correct";
import { useJobView } from "~/view/view";
import { useSay } from "~/say/use-say";
import { Choice, Field } from "~/look/field";
import { services } from "~/server/context";
import { questionsOf } from "~core/diagnose";
import { CODE_SORTS, DRIVEN, OPENED_BEFORE, outcomeWords, wordsOf, type Codes } from "~core/fact";
import { toolsOwned } from "~store/house-values";
import { jobUnit } from "~store/jobs";
import { SayForm } from "~/say/say-form";

export const meta: Route.MetaFunction = ({ params }) => [{ title: `Book in ${params.number} · Yard Key` }];

/** Which of the unit's tools the shop has. */
export const loader = async ({ context, params }: Route.LoaderArgs) => {
  const { pool } = context.get(services);
  const unit = await jobUnit(pool, Number(params.number));
  return { owned: unit ? [...(await toolsOwned(pool, [unit]))] : [] };
};

export const clientLoader = ({ params, serverLoader }: Route.ClientLoaderArgs) =>
  loadOrKept(KEPT.page(params.number, "book-in"), serverLoader, () => ({ owned: [] as string[] }));

/** The vehicle, the customer's words, codes and what others did before. */
export default function BookIn({ loaderData: { owned } }: Route.ComponentProps) {
  const { job, book, applied, depths, number } = useJobView();
  const booking = job.booking?.body;
  return (
    <div className="grid grid-cols-2 items-start gap-3">
      <section className="plate p-4" aria-label="Vehicle and words">
        <SayForm kind="booking" keep>
          {(problems) => (
            <>
              <div className="grid grid-cols-2 gap-x-3">
                <Field
                  label="Vehicle"
                  name="vehicle"
                  defaultValue={booking?.vehicle}
                  problem={problems.vehicle}
                />
                <Field label="Customer" name="customer" defaultValue={booking?.customer} />
                <Field
                  label="Odometer"
                  name="odometer"
                  defaultValue={booking?.odometer}
                  problem={problems.odometer}
                />
                <Field
                  label="Use, in words"
                  name="use"
                  defaultValue={booking?.use}
                  placeholder="towing, short trips, taxi"
                />
              </div>
              <Coded label="Driven" name="driven" codes={DRIVEN} value={booking?.driven} />
              <Area
                label="The customer’s words"
                name="words"
                value={booking?.words}
                problem={problems.words}
                rows={3}
              />
              <Area
                label="Earlier work by others"
                name="earlier"
                value={booking?.earlier}
                hint="old sealant, new marks, a part turned over and used again"
                rows={2}
              />
              <Coded
                label="Somebody was in it before"
                name="opened"
                codes={OPENED_BEFORE}
                value={booking?.opened}
              />
              {!job.closed && <button className="btn btn-primary touch">Keep what changed</button>}
            </>
          )}
        </SayForm>
      </section>
      <div className="grid gap-3">
        <Codes />
        <section className="plate p-4" aria-label="Unit">
          <h2 className="stamp quiet mb-1">
            {unitName(book.unit)}, {depths.join(" + ")}
          </h2>
          <ul className="mb-2">
            {book.traits.map(({ id, name, values }) => {
              const seen = values[job.configuration[id] ?? ""];
              return (
                <li key={id}>
                  {name}: <b>{seen ? seen.name : "not seen yet"}</b>
                  {seen ? ` (${seen.tell})` : ": correct it when a part shows it"}
                </li>
              );
            })}
          </ul>
          <ToolsNeeded
            unit={book.unit.id}
            tools={applied.present.tools ?? []}
            depths={depths}
            owned={owned}
          />
          <Correct />
          <p className="mt-2">
            <Link to={`/jobs/${number}/symptoms`} className="btn btn-primary touch">
              On to the symptoms
            </Link>
          </p>
        </section>
      </div>
    </div>
  );
}

/** One of a table of codes; the first until something was told. */
function Coded<C extends string>({
  label,
  name,
  codes,
  value,
}: {
  label: string;
  name: string;
  codes: Codes<C>;
  value: C | undefined;
}) {
  const options = wordsOf(codes).map(([code, words]) => ({ value: code, words }));
  return <Choice label={label} name={name} value={value ?? codes.codes[0]} options={options} />;
}

export function Area({
  label,
  name,
  value,
  problem,
  hint,
  rows,
}: {
  label: string;
  name: string;
  value?: string;
  problem?: string;
  hint?: string;
  rows: number;
}) {
  const id = `area-${name}`;
  return (
    <div className="mb-3">
      <label className="stamp mb-1 block" htmlFor={id}>
        {label}
      </label>
      <textarea
        id={id}
        name={name}
        rows={rows}
        defaultValue={value}
        placeholder={hint}
        className={`textarea w-full text-lg ${problem ? "textarea-error" : ""}`}
        aria-invalid={problem ? true : undefined}
        aria-describedby={problem ? `${id}-problem` : undefined}
      />
      {problem && (
        <p id={`${id}-problem`} role="alert" className="text-error mt-1 font-semibold">
          {problem}
        </p>
      )}
    </div>
  );
}

const RELATED = { yes: "belongs to it", no: "does not", unsure: "not sure" } as const;

function Codes() {
  const { job, applied } = useJobView();
  const say = useSay();
  const sorts =
    questionsOf(applied.present)
      .find(({ id }) => id === "scan")
      ?.outcomes.slice(1) ?? [];
  const codes = job.codes;
  return (
    <section className="plate p-4" aria-label="Codes">
      <h2 className="stamp quiet mb-1">Codes</h2>
      {codes.length === 0 && <p className="quiet mb-1">None noted.</p>}
      <ul className="mb-2">
        {codes.map(({ id, body }) => (
          <li
            key={id}
            className="border-base-300 flex items-center gap-3 border-b py-1"
            data-code={body.code}
          >
            <span className="font-bold whitespace-nowrap">{body.code}</span>
            <span className="grow leading-snug">
              {body.words}{" "}
              <span className="quiet">
                {CODE_SORTS.words[body.sort]}; {RELATED[body.related]}
              </span>
            </span>
            {!job.closed && (
              <button type="button" className="btn touch" onClick={() => say({ ...body, there: false })}>
                Take back
              </button>
            )}
          </li>
        ))}
      </ul>
      {!job.closed && (
        <details open={codes.length === 0}>
          <summary className="touch flex cursor-pointer items-center font-semibold underline underline-offset-4">
            Note a code
          </summary>
          <SayForm kind="code">
            {(problems) => (
              <>
                <div className="grid grid-cols-[8rem_1fr] gap-3">
                  <Field label="Code" name="code" problem={problems.code} autoComplete="off" />
                  <Field label="In words" name="words" autoComplete="off" />
                </div>
                <Choice
                  label="What sort"
                  name="sort"
                  problem={problems.sort}
                  options={sorts.map((value) => ({ value, words: outcomeWords(value) }))}
                />
                <Choice
                  label="To this complaint"
                  name="related"
                  problem={problems.related}
                  options={(["yes", "no", "unsure"] as const).map((value) => ({
                    value,
                    words: RELATED[value],
                  }))}
                />
                <button className="btn touch">Keep the code</button>
              </>
            )}
          </SayForm>
        </details>
      )}
    </section>
  );
}
