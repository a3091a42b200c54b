import { KEPT } from "~/offline/keys";
import { Undecided } from "~/choose/undecided";
import { wearKind } from "~core/book";
import { Link } from "react-router";
import { useInside } from "~/door/inside";
import { SayForm } from "~/say/say-form";
import { useJobView } from "~/view/view";
import { workedOut } from "~/view/worked-out";
import { chanceText } from "~/symptoms/suspects";
import {
  candidateCauses,
  failed,
  metalEverywhere,
  LOOKED_AT,
  weakPoints,
  type RankedCause,
  type Failed,
} from "~core/inspect";
import { SEVERITIES, CAUSE_STANDINGS } from "~core/fact";
import { ruleOf } from "~core/measure";
import { jobRecord } from "~/server/job-context";
import { loadOrKept } from "~/offline/kept";
import { services } from "~/server/context";
import { pricesOf } from "~store/prices";
import type { Route } from "./+types/cause";
import { RebuildOrReplace } from "./worth";
import { pricedParts } from "./worth-of";

export const meta: Route.MetaFunction = ({ params }) => [{ title: `Cause ${params.number} · Yard Key` }];

export const loader = async ({ context, params }: Route.LoaderArgs) => {
  const record = await jobRecord(context, params.number);
  return {
    prices: await pricesOf(context.get(services).pool, pricedParts(record.book)),
  };
};

export const clientLoader = ({ params, serverLoader }: Route.ClientLoaderArgs) =>
  loadOrKept(KEPT.page(params.number, "cause"), serverLoader, () => ({ prices: [] as [string, number][] }));

const causesIn = workedOut(({ job, applied }) => ({
  failures: failed(job, applied),
  points: weakPoints(job, applied),
}));

/** Why it failed, and the weak points of this version: what must be answered before the unit leaves. */
export default function CausePage({ loaderData: { prices } }: Route.ComponentProps) {
  const view = useJobView();
  const { job, applied, number } = view;
  const { house } = useInside();
  const { failures, points } = causesIn(view);
  const metal = metalEverywhere(job);
  return (
    <div className="grid grid-cols-[minmax(0,3fr)_minmax(0,2fr)] items-start gap-3">
      <div className="grid gap-3">
        {metal && (
          <p role="alert" className="plate border-error border-2 p-4 text-lg font-semibold">
            Metal everywhere: {metal}. Converter, cooler and filters go; and before more work, is another unit
            cheaper?
          </p>
        )}
        {failures.length === 0 && (
          <section className="plate p-5">
            <h2 className="text-2xl font-bold">Nothing has failed so far</h2>
            <p className="mt-1 text-lg">
              A burnt pack, a glazed band, a broken one-way clutch asks here for its cause, once it is{" "}
              <Link to={`/jobs/${number}/inspect`} className="underline underline-offset-4">
                found at the inspection
              </Link>
              .
            </p>
          </section>
        )}
        {failures.map((one) => (
          <Failure
            key={one.id}
            one={one}
            others={failures.filter(({ id }) => id !== one.id)}
            candidates={candidateCauses(job, applied, ruleOf(job, house), one)}
          />
        ))}
        <RebuildOrReplace prices={prices} />
      </div>
      <div className="grid gap-3">
        <section className="plate p-4" aria-label="Known weak points">
          <h2 className="text-2xl font-bold">Known weak points</h2>
          <p className="quiet mb-2">Of this version. Each is answered before the unit is closed.</p>
          <ul>
            {points.map(({ point, fact, answer }) => (
              <li key={point.id} className="border-base-300 border-t py-2" data-weak-point={point.id}>
                <b className="text-lg">{point.name}</b> <Undecided entry={point} />
                <span className="quiet block text-sm">The complaint: {point.complaint}</span>
                {fact && (
                  <p data-answered>
                    ✓ <b>{answerWords(answer, fact.body.answer)}</b>, says {fact.by}
                  </p>
                )}
                {!job.closed && (
                  <SayForm
                    kind="weak-point"
                    fixed={{ point: point.id }}
                    className="mt-1 flex flex-wrap gap-2"
                  >
                    {() =>
                      [...point.answers, IN_ORDER].map(({ id, name }) => (
                        <button
                          key={id}
                          name="answer"
                          value={id}
                          className={`btn touch ${fact?.body.answer === id ? "btn-primary" : ""}`}
                        >
                          {name}
                        </button>
                      ))
                    }
                  </SayForm>
                )}
              </li>
            ))}
          </ul>
        </section>
      </div>
    </div>
  );
}

/** The answer that every weak point can have besides the book’s own. */
const IN_ORDER = { id: LOOKED_AT, name: "looked at, in order" };
const answerWords = (answer: { name: string } | null, given: string): string =>
  answer?.name ?? (given === IN_ORDER.id ? IN_ORDER.name : given.replaceAll("-", " "));

function Failure({
  one,
  others,
  candidates,
}: {
  one: Failed;
  others: readonly Failed[];
  candidates: readonly RankedCause[];
}) {
  const { job, applied } = useJobView();
  const { cause } = one;
  const said = cause?.body;
  const named = candidates.find(({ id }) => id === said?.cause)?.name ?? said?.cause;
  return (
    <section className="plate p-4" aria-label={`Cause: ${one.name}`} data-failure={one.id}>
      <h2 className="text-2xl font-bold first-letter:uppercase">{one.name}</h2>
      <p className="quiet">
        {one.findings
          .map(
            ({ body: { wear, severity } }) =>
              `${wearKind(applied.present, wear).name}, ${SEVERITIES.words[severity]}`,
          )
          .join("; ")}
      </p>
      <p className="my-1 text-lg" role="status" data-cause={said?.standing ?? ""}>
        {said ? (
          <>
            <b>
              {said.standing === "not-found"
                ? "Cause not found"
                : `${CAUSE_STANDINGS.words[said.standing]}: ${named}`}
            </b>
            , says {cause?.by}
            {said.note && `: ${said.note}`}
            {said.after &&
              `; it followed from ${others.find(({ id }) => id === said.after)?.name ?? said.after}`}
          </>
        ) : (
          <b className="text-error">
            No cause yet: it would {one.kind === "pack" || one.kind === "band" ? "burn" : "fail"} again.
          </b>
        )}
      </p>
      <ol>
        {candidates.slice(0, 6).map(({ id, name, chance, evidence, checks }) => (
          <li key={id} className="border-base-300 border-t py-1.5" data-candidate={id}>
            <div className="flex items-baseline gap-3">
              <b className="grow text-lg">{name}</b>
              <span className="figure text-xl">{chanceText(chance)}</span>
            </div>
            {evidence.map(({ words, factor }) => (
              <span key={words} className={`mr-3 text-sm ${factor >= 1 ? "text-error" : "text-success"}`}>
                {factor >= 1 ? "▲" : "▼"} {words}
              </span>
            ))}
            {checks.length > 0 && (
              <span className="quiet block text-sm">Would settle it: {checks.slice(0, 3).join("; ")}</span>
            )}
          </li>
        ))}
      </ol>
      {!job.closed && <NameIt one={one} others={others} candidates={candidates} />}
    </section>
  );
}

/** Says which cause it was, how sure that is, and what failed first. */
function NameIt({
  one,
  others,
  candidates,
}: {
  one: Failed;
  others: readonly Failed[];
  candidates: readonly RankedCause[];
}) {
  const said = one.cause?.body;
  return (
    <SayForm
      kind="cause"
      fixed={{ of: one.id }}
      keep
      className="border-base-300 mt-2 grid gap-2 border-t pt-2"
    >
      {(problems) => (
        <>
          <div className="grid grid-cols-2 gap-2">
            <label>
              <span className="stamp block">The cause</span>
              <select
                name="cause"
                className={`select touch w-full ${problems.cause ? "select-error" : ""}`}
                aria-invalid={problems.cause ? true : undefined}
                defaultValue={said?.cause ?? ""}
              >
                <option value="">choose</option>
                {candidates
                  .filter(({ id }) => id !== "unknown")
                  .map(({ id, name }) => (
                    <option key={id} value={id}>
                      {name}
                    </option>
                  ))}
              </select>
              {problems.cause && (
                <span role="alert" className="text-error block font-semibold">
                  {problems.cause}
                </span>
              )}
            </label>
            <label>
              <span className="stamp block">Followed from</span>
              <select name="after" className="select touch w-full" defaultValue={said?.after ?? ""}>
                <option value="">it failed first</option>
                {others.map(({ id, name }) => (
                  <option key={id} value={id}>
                    {name}
                  </option>
                ))}
              </select>
            </label>
          </div>
          <input
            name="note"
            aria-label="What shows it"
            placeholder="what shows it"
            className="input touch w-full"
            defaultValue={said?.note}
          />
          <span className="flex flex-wrap gap-2">
            {CAUSE_STANDINGS.codes.map((standing) => (
              <button key={standing} name="standing" value={standing} className="btn touch">
                {standing === "found" ? "Found: this is it" : standing === "likely" ? "Likely" : "Not found"}
              </button>
            ))}
          </span>
          {problems.standing && (
            <p role="alert" className="text-error font-semibold">
              {problems.standing}
            </p>
          )}
        </>
      )}
    </SayForm>
  );
}
