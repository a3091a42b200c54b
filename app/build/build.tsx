import { useWhen } from "~/door/when";
import { useEffect, useRef } from "react";
import { useSearchParams } from "react-router";
import type { Route } from "./+types/build";
import { BuildList } from "./build-list";
import { BuildPanel } from "./build-panel";
import { useBuild } from "./use-build";
import { minutesWords } from "./use-moment";

export const meta: Route.MetaFunction = ({ params }) => [{ title: `Build ${params.number} · Yard Key` }];

/** The unit goes together, a step at a time, each with its check; whoever takes over sees what is done and what is next. */
export default function BuildPage() {
  const { short } = useWhen();
  const build = useBuild();
  const [search] = useSearchParams();
  const shown = build.steps.find(({ step }) => step.id === search.get("step")) ?? build.next ?? build.last;
  const panel = useRef<HTMLDivElement>(null);
  const before = useRef(shown?.step.id);
  useEffect(() => {
    // The next step begins at its head, also for whoever had scrolled down the last one.
    if (before.current !== shown?.step.id && window.scrollY > 0) panel.current?.scrollIntoView();
    before.current = shown?.step.id;
  }, [shown?.step.id]);
  if (!shown)
    return (
      <p className="plate p-5 text-xl">The book has no steps for building this unit up at this depth.</p>
    );
  return (
    <>
      <div className="flex items-center gap-4">
        <div className="shrink-0 leading-tight">
          <b className="block text-xl" data-progress>
            {build.done} of {build.steps.length} steps
          </b>
          <span className="block text-sm" data-left={build.minutesLeft}>
            {build.minutesLeft > 0 && `${minutesWords(build.minutesLeft)} to go by the book`}
          </span>
        </div>
        {build.last?.fact && (
          <span className="min-w-0 truncate text-sm" data-last>
            Last: {build.last.step.name}, <b>{build.last.fact.by}</b>, {short(build.last.fact.at)}
          </span>
        )}
      </div>
      <div className="mt-2 grid grid-cols-[minmax(0,2fr)_minmax(0,5fr)] items-start gap-3">
        <BuildList build={build} shown={shown.step.id} />
        <div ref={panel} className="min-w-0">
          <BuildPanel key={shown.step.id} one={shown} build={build} />
        </div>
      </div>
    </>
  );
}
