import { data, Form, Link, useSearchParams, type RouterContextProvider } from "react-router";
import { v7 as newId } from "uuid";
import { useWhen } from "~/door/when";
import { Choice, Field } from "~/look/field";
import { loadOrKept } from "~/offline/kept";
import { KEPT } from "~/offline/keys";
import { services } from "~/server/context";
import { typedIn } from "~/server/form";
import { contextOf, findJob, jobContext, lastSeen } from "~/server/job-context";
import { labourOf } from "~/inspect/worth-of";
import { numbersOf, pricedNow } from "~/parts/needs";
import { WeakRows } from "~/prove/weak-rows";
import { LeadFields } from "~/say/lead-signs";
import { record } from "~/server/record";
import { readSignature } from "~/server/signature";
import { useJobView } from "~/view/view";
import { buildOf } from "~core/build";
import { LEADS, WARRANTY, wordsOf, type FactBody } from "~core/fact";
import { comebackOf } from "~core/handover";
import { houseOf, specLines } from "~core/measure";
import { moneyText } from "~core/quantity";
import { pricesOf } from "~store/prices";
import { readHouse } from "~store/house";
import { earlierVisits, type JobRecord } from "~store/jobs";
import { listStaff } from "~store/staff";
import type { Route } from "./+types/comeback";

export const meta: Route.MetaFunction = ({ params }) => [
  { title: `Here before ${params.number} · Yard Key` },
];

/** Whether the unit was here before, and what that build has to say to what it came back with. */
export const loader = async ({ context, params, request }: Route.LoaderArgs) => {
  const { pool } = context.get(services);
  const number = Number(params.number);
  const [{ job, applied, record: own }, visits, people, house] = await Promise.all([
    jobContext(context, number),
    earlierVisits(pool, number),
    listStaff(pool),
    readHouse(pool),
  ]);
  const asked = new URL(request.url).searchParams.get("of");
  const of = Number(asked ?? job.comeback?.body.job ?? job.earlier?.body.job ?? visits[0]?.number ?? 0);
  const leads = people.filter(({ role }) => LEADS.includes(role)).map(({ id, name }) => ({ id, name }));
  // As far as is known today: what its parts cost one by one, and the hours the book has for it.
  const priced = pricedNow(job, applied, house, [...(await pricesOf(pool, numbersOf(own.book)))]);
  const labour = job.quoted?.body.labour ?? labourOf(job, applied, house).cents;
  const cost = moneyText(priced.parts + labour);
  const base = { id: newId(), leads, visits, of, cost };
  const found = await earlierOf(context, own, of);
  if (!found)
    return {
      ...base,
      before: null,
      problem: of > 0 ? `There is no earlier job ${of} of this kind of unit.` : "",
    };
  const then = contextOf(found, house);
  const unit = found.book.unit.lengthUnit;
  const lines = specLines(then.job, then.applied, house, unit);
  const build = buildOf(then.job, then.applied, houseOf(then.job, house), Date.now(), { lines });
  const came = comebackOf({ job: then.job, applied: then.applied, build, lines }, job, own.opened);
  const builders = [...new Set(then.job.live.flatMap(({ body, by }) => (body.kind === "step" ? [by] : [])))];
  return {
    ...base,
    problem: "",
    before: {
      ...came,
      number: found.number,
      words: then.job.booking?.body.words ?? "",
      left: then.job.closed?.at ?? "",
      builders,
      depths: then.job.depths ?? [],
      renewed: then.job.renewed.size,
      steps: build.steps.map(({ step: { id, name } }) => ({ id, name })),
    },
  };
};

export const clientLoader = ({ params, serverLoader }: Route.ClientLoaderArgs) =>
  loadOrKept(KEPT.page(params.number, "comeback"), serverLoader, () => ({
    id: newId(),
    leads: [],
    visits: [],
    of: 0,
    cost: "",
    before: null,
    problem: "Earlier jobs are with the server, which does not answer.",
  }));

/** An earlier job of the same kind of unit; null where it is none. */
async function earlierOf(
  context: Readonly<RouterContextProvider>,
  own: JobRecord,
  number: number,
): Promise<JobRecord | null> {
  const found = number > 0 && number < own.number ? await findJob(context, number) : null;
  return found?.book.unit.id === own.book.unit.id ? found : null;
}

/** A lead says whose cost it is, and what of the earlier build it comes from. */
export const action = async ({ context, params, request }: Route.ActionArgs) => {
  const typed = await typedIn(request);
  const read = await readSignature(context, request, "Say why, for the record.");
  const kept = { ...typed, pin: "" };
  if (!read.ok) return data({ problems: read.problems, typed: kept }, { status: read.status });
  const { id, reason, lead } = read.signature;
  const { record: own } = await jobContext(context, params.number);
  const { warranty } = typed;
  const before = await earlierOf(context, own, Number(typed.job));
  const isStep = !typed.step || before?.book.build?.some((step) => step.id === typed.step);
  if (!before || !isStep)
    return data(
      { problems: { reason: "There is no such earlier build: load the page anew." }, typed: kept },
      { status: 400 },
    );
  if (warranty !== "ours" && warranty !== "theirs")
    return data({ problems: { warranty: "Choose whose cost it is." }, typed: kept }, { status: 400 });
  const body: FactBody = {
    kind: "comeback",
    job: before.number,
    same: typed.same === "yes",
    step: typed.step ?? "",
    cause: typed.cause ?? "",
    warranty,
    cost: typed.cost ?? "",
    reason,
    signedBy: lead.name,
  };
  const fact = { id, at: new Date().toISOString(), by: lead.name, ...lastSeen(own.facts), body };
  const said = await record(context, own.number, [fact], lead);
  return said.ok
    ? data({ problems: {}, typed: {} })
    : data({ problems: { reason: `Not kept: ${said.problem}.` }, typed: kept }, { status: said.status });
};

/** The earlier build beside what the unit came back with. */
export default function ComebackPage({ loaderData, actionData }: Route.ComponentProps) {
  const { visits, of, before, problem } = loaderData;
  const { job, number } = useJobView();
  const { day } = useWhen();
  const [search] = useSearchParams();
  const said = job.comeback;
  return (
    <>
      <div className="flex min-h-[50px] flex-wrap items-center gap-2">
        <b className="text-xl">{before ? `Here before, as job ${before.number}` : "Was it here before?"}</b>
        {visits.map(({ number: one, opened }) => (
          <Link
            key={one}
            to={`?of=${one}`}
            replace
            className={`btn touch ${one === of ? "btn-secondary" : ""}`}
            aria-current={one === of ? "true" : undefined}
          >
            {one}, {day(opened)}
          </Link>
        ))}
        <Form className="ml-auto flex items-center gap-2" replace>
          <input
            name="of"
            className="input touch w-32"
            aria-label="Another job’s number"
            placeholder="another: 1012"
            inputMode="numeric"
            defaultValue={search.get("of") ?? ""}
          />
          <button className="btn touch">Look</button>
        </Form>
      </div>
      {problem && (
        <p role="alert" className="text-error mt-1 font-semibold">
          {problem}
        </p>
      )}
      {said && (
        <p className="plate mt-2 px-4 py-2 text-lg" role="status" data-comeback={said.body.warranty}>
          <b className="first-letter:uppercase">{WARRANTY.words[said.body.warranty]}</b>, signed by{" "}
          {said.body.signedBy}: {said.body.reason}.{" "}
          {said.body.same ? "The same complaint" : "Another complaint"}
          {said.body.cause && `; because of: ${said.body.cause}`}
          {said.body.cost && `; cost ${said.body.cost}`}.
        </p>
      )}
      {before ? (
        <Before key={before.number} before={before} loaderData={loaderData} actionData={actionData} />
      ) : (
        <p className="plate mt-2 p-5 text-lg">
          {visits.length === 0
            ? "No earlier job of this vehicle and unit is in the records. One booked in under other words is found by its number, or by its label."
            : "Choose the earlier visit."}
        </p>
      )}
      {job.closed && !said && before && <p className="quiet mt-2">Job {number} is closed.</p>}
    </>
  );
}

type Loaded = Route.ComponentProps["loaderData"];

function Before({
  before,
  loaderData: { leads, id, cost },
  actionData,
}: {
  before: NonNullable<Loaded["before"]>;
  loaderData: Loaded;
  actionData: Route.ComponentProps["actionData"];
}) {
  const { job } = useJobView();
  const { day } = useWhen();
  const problems: Readonly<Record<string, string>> = actionData?.problems ?? {};
  const typed: Readonly<Record<string, string | undefined>> = actionData?.typed ?? {};
  const { weak } = before;
  return (
    <div className="mt-2 grid grid-cols-[minmax(0,3fr)_minmax(0,2fr)] items-start gap-3">
      <section className="plate p-4" aria-label="Then and now">
        <dl className="grid grid-cols-[9rem_1fr] gap-x-4 gap-y-1 text-lg">
          <dt className="stamp quiet">Left</dt>
          <dd>
            {before.left ? day(before.left) : "not closed"}, {before.days} days ago
            {before.ran && `, ${before.ran} since`}
          </dd>
          <dt className="stamp quiet">Then</dt>
          <dd>“{before.words}”</dd>
          <dt className="stamp quiet">Now</dt>
          <dd>“{job.booking?.body.words}”</dd>
          <dt className="stamp quiet">The same</dt>
          <dd data-same={before.same.length}>{before.same.join(", ") || "no symptom told both times"}</dd>
          <dt className="stamp quiet">New</dt>
          <dd>{before.fresh.join(", ") || "none told"}</dd>
          <dt className="stamp quiet">Work then</dt>
          <dd>
            {before.depths.join(" + ")}, {before.renewed} new parts, by{" "}
            {before.builders.join(", ") || "nobody named"}:{" "}
            <Link className="link" to={`/jobs/${before.number}/as-built`}>
              Its record
            </Link>
            ,{" "}
            <Link className="link" to={`/jobs/${before.number}/sheet`}>
              its sheet
            </Link>
          </dd>
        </dl>
        <h2 className="mt-3 text-xl font-bold">Where that build was proven least</h2>
        {weak.length === 0 && (
          <p>
            {before.kept
              ? "Nothing of it stands out: everything was read and answered at once."
              : "It was not kept step by step: nobody knows how it was proven."}
          </p>
        )}
        <WeakRows weak={weak} number={before.number} by="by what is told now" />
      </section>
      {!job.closed && (
        <section className="plate p-4" aria-label="Whose it is">
          <h2 className="mb-2 text-xl font-bold">Whose it is: a lead signs</h2>
          <Form method="post" preventScrollReset>
            <input type="hidden" name="id" value={id} />
            <input type="hidden" name="job" value={before.number} />
            <Choice
              label="Complaint"
              name="same"
              value={
                typed.same ??
                (before.same.length > 0 || before.words === job.booking?.body.words ? "yes" : "no")
              }
              options={[
                { value: "yes", words: "the same" },
                { value: "no", words: "another" },
              ]}
            />
            <label className="mb-3 block">
              <span className="stamp mb-1 block">Step of that build it goes back to</span>
              <select name="step" className="select touch w-full" defaultValue={typed.step ?? ""}>
                <option value="">none of them</option>
                {before.steps.map(({ id: step, name }) => (
                  <option key={step} value={step}>
                    {name}
                  </option>
                ))}
              </select>
            </label>
            <Field label="Cause, where it is ours" name="cause" defaultValue={typed.cause} />
            <Field
              label="What it cost"
              name="cost"
              defaultValue={typed.cost ?? cost}
              hint="Parts and work as far as they are known."
            />
            <Choice
              label="Cost"
              name="warranty"
              value={typed.warranty}
              problem={problems.warranty}
              options={wordsOf(WARRANTY).map(([value, words]) => ({ value, words }))}
            />
            <LeadFields leads={leads} problems={problems} typed={typed} />
            <button className="btn btn-primary touch w-full">Sign</button>
          </Form>
        </section>
      )}
    </div>
  );
}
