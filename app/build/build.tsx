import { useHead } from "~/look/use-head";
import { useWhen } from "~/door/when";
import { useSearchParams } from "react-router";
import type { Route } from "./+types/build";
import { minutesWords } from "~/look/minutes";
import { KEPT } from "~/offline/keys";
import { loadOrKept } from "~/offline/kept";
import { v7 as newId } from "uuid";
import { services } from "~/server/context";
import { jobRecord } from "~/server/job-context";
import { typedIn } from "~/server/form";
import { signOff } from "~/server/sign-off";
import { buildOf, signedAs, type Build } from "~core/build";
import { LEADS } from "~core/fact";
import { houseOf } from "~core/measure";
import { supplyOf } from "~store/orders";
import { listStaff } from "~store/staff";
import { Signing } from "./signing";
import { NO_SUPPLY, Supply } from "./supply";
import { BuildList } from "./build-list";
import { BuildPanel } from "./build-panel";
import { useBuild } from "./use-build";

export const meta: Route.MetaFunction = ({ params }) => [{ title: `Build ${params.number} · Yard Key` }];

/** Leads who may put their name to it, and an id for that: the same form sent twice is carried out once. */
export const loader = async ({ context, params }: Route.LoaderArgs) => {
  const { pool } = context.get(services);
  const { id: job } = await jobRecord(context, params.number);
  const [people, { box, coming }] = await Promise.all([listStaff(pool), supplyOf(pool, job)]);
  const leads = people.filter(({ role }) => LEADS.includes(role));
  return {
    signing: newId(),
    leads: leads.map(({ id, name }) => ({ id, name })),
    supply: {
      box: box.map(({ part }) => part),
      coming: coming.map(({ part, due, isLate }) => ({ part, due, isLate })),
    },
  };
};

export const clientLoader = ({ params, serverLoader }: Route.ClientLoaderArgs) =>
  loadOrKept(KEPT.page(params.number, "build"), serverLoader, () => ({
    signing: newId(),
    leads: [],
    supply: NO_SUPPLY,
  }));

/** A lead answers for one thing that a step asks and that no reason stands for: a figure not read, an old one-time part. */
export const action = async ({ context, request, params }: Route.ActionArgs) => {
  const { of = "" } = await typedIn(request);
  return signOff(context, request, params.number, ({ job, applied, house }) =>
    buildOf(job, applied, houseOf(job, house), Date.now()).steps.some(({ asked }) =>
      asked.some((one) => signedAs(one) === of && one.answer !== "answered"),
    )
      ? [of]
      : [],
  );
};

/** What is built on the bench; what is done in the vehicle has its own stage. */
function onBench(build: Build): Build {
  const steps = build.steps.filter(({ step }) => !step.vehicle);
  const settled = steps.filter(({ at }) => at === "done" || at === "skipped");
  const left = steps.filter((one) => !settled.includes(one));
  const next = build.next && steps.includes(build.next) ? build.next : null;
  const last = build.last && steps.includes(build.last) ? build.last : (settled.at(-1) ?? null);
  return {
    ...build,
    steps,
    next,
    last,
    done: settled.length,
    minutesLeft: left.reduce((sum, { step }) => sum + (step.minutes ?? 0), 0),
  };
}

/** The unit goes together, a step at a time, each with its check; whoever takes over sees what is done and what is next. */
export default function BuildPage({
  loaderData: { leads, signing, supply },
  actionData,
}: Route.ComponentProps) {
  const { short } = useWhen();
  const build = onBench(useBuild());
  const [search] = useSearchParams();
  const shown = build.steps.find(({ step }) => step.id === search.get("step")) ?? build.next ?? build.last;
  const panel = useHead<HTMLDivElement>(shown?.step.id);
  if (!shown)
    return (
      <p className="plate p-5 text-xl">The book has no steps for building this unit up at this depth.</p>
    );
  return (
    <>
      <div className="flex items-center gap-4">
        <b className="shrink-0 text-xl" data-progress>
          {build.done} of {build.steps.length} steps
        </b>
        {build.minutesLeft > 0 && (
          <span className="shrink-0 text-sm" data-left={build.minutesLeft}>
            {minutesWords(build.minutesLeft)} to go by the book
          </span>
        )}
        {build.last?.fact && (
          <span className="min-w-0 truncate text-sm" data-last>
            Last: {build.last.step.name}, <b>{build.last.fact.by}</b>, {short(build.last.fact.at)}
          </span>
        )}
      </div>
      <div className="mt-2 grid grid-cols-[minmax(0,2fr)_minmax(0,5fr)] items-start gap-3">
        <BuildList build={build} shown={shown.step.id} />
        <div ref={panel} className="min-w-0">
          <Signing value={{ leads, id: signing, actionData }}>
            <Supply value={supply}>
              <BuildPanel key={shown.step.id} one={shown} build={build} />
            </Supply>
          </Signing>
        </div>
      </div>
    </>
  );
}
