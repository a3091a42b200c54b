import { useHead } from "~/look/use-head";
import { useWhen } from "~/door/when";
import { Link, useSearchParams } from "react-router";
import { planIn } from "~/view/plan";
import { useJobView } from "~/view/view";
import { UnitDrawing } from "~/look/unit-drawing";
import { layoutOf } from "~/look/unit-layout";
import type { StepState } from "~core/steps";
import type { Route } from "./+types/teardown";
import { Recorder } from "./recorder";
import { StepList } from "./step-list";
import { StepPanel } from "./step-panel";

export const meta: Route.MetaFunction = ({ params }) => [{ title: `Tear down ${params.number} · Yard Key` }];

/** The unit comes apart in the book's order; whoever takes over sees what is done and what is next. */
export default function TearDown() {
  const { short } = useWhen();
  const view = useJobView();
  const { job, number } = view;
  const [search] = useSearchParams();
  const plan = planIn(view);
  const shown = plan.steps.find(({ step }) => step.id === search.get("step")) ?? plan.next ?? plan.last;
  const ticked = plan.steps.filter(({ at }) => at === "done" || at === "skipped").length;
  const nowhere = plan.bench.nowhere.length;
  const panel = useHead<HTMLDivElement>(shown?.step.id);
  if (!shown)
    return (
      <>
        <p className="mb-3 text-lg">
          The book has no steps for taking this unit down: say what comes off as you do it, and the next one
          goes by it.
        </p>
        <Recorder />
      </>
    );
  return (
    <>
      <div className="flex items-center gap-4">
        <div className="max-w-64 shrink-0 leading-tight">
          <b className="block text-xl" data-progress>
            {ticked} of {plan.steps.length} steps
          </b>
          {plan.last?.fact && (
            <span className="block truncate text-sm" data-last>
              Last: {plan.last.step.name}, <b>{plan.last.fact.by}</b>, {short(plan.last.fact.at)}
            </span>
          )}
        </div>
        <div className="min-w-0 grow">
          <Where state={shown} />
        </div>
        {nowhere > 0 && (
          <Link
            to={`/jobs/${number}/bench`}
            className="text-error touch flex items-center font-bold underline underline-offset-4"
          >
            {nowhere} off the unit and nowhere
          </Link>
        )}
      </div>
      <div className="mt-2 grid grid-cols-[minmax(0,2fr)_minmax(0,5fr)] items-start gap-3">
        <StepList steps={plan.steps} shown={shown.step.id} />
        <div ref={panel} className="min-w-0">
          <StepPanel key={shown.step.id} state={shown} plan={plan} />
        </div>
      </div>
      <details className="mt-3" open={job.cameOff.length > 0 || undefined}>
        <summary className="touch flex cursor-pointer items-center text-lg font-semibold underline underline-offset-4">
          Something came off that the book does not have
        </summary>
        <Recorder after={plan.last?.step.id} />
      </details>
    </>
  );
}

/** Where on the unit this step is: its station, along the axis. */
function Where({ state: { parts, fasteners } }: { state: StepState }) {
  const { applied } = useJobView();
  const { stations } = applied.present;
  const all = new Map(applied.present.parts.map((part) => [part.id, part]));
  const stationOf = (id: string | undefined): string | undefined => {
    const part = id === undefined ? undefined : all.get(id);
    return part?.station ?? (part?.of ? stationOf(part.of) : undefined);
  };
  const station =
    parts.map(({ id }) => stationOf(id)).find((one) => one !== undefined) ??
    fasteners.map((group) => group.station ?? stationOf(group.part)).find((one) => one !== undefined);
  const line = stations.find(({ id }) => id === station)?.line ?? 0;
  const layout = layoutOf(stations, false, new Set([line]));
  return (
    <svg
      viewBox={`0 0 ${layout.width} ${layout.height}`}
      className="plate block h-14 w-full px-3 py-1"
      role="img"
      aria-label={`The unit along its axis: ${stations.find(({ id }) => id === station)?.name ?? "no one station"}`}
    >
      <UnitDrawing stations={stations} layout={layout} current={station} named={() => false} />
    </svg>
  );
}
