import { NextTime } from "~/next-time/soon";
import { pictureIn } from "~core/book";
import { ToolsUsed } from "~/look/tools-used";
import { BookPicture } from "~/pictures/shown";
import { figuresFrom } from "~/look/source";
import { Undecided } from "~/choose/undecided";
import { AlertTriangle, Ban, Tag } from "lucide-react";
import { useWhen } from "~/door/when";
import { useSearchParams } from "react-router";
import { useJobView } from "~/view/view";
import { TakePhoto } from "~/photos/take";
import { Skip } from "~/teardown/skip";
import { codeOf } from "~/scan/code";
import { subAssembliesOf, type Build, type BuildStep } from "~core/build";
import { AnswerList } from "./answer-list";
import { Otherwise } from "./otherwise";
import { PackPicture } from "./pack-picture";
import { PartsIn } from "./parts-in";
import { Turn } from "./turn";
import { Undo } from "./undo";

/** One step at arm’s length: what is done now, large; then what goes in and how, and everything it asks, answered or not. */
export function BuildPanel({ one, build }: { one: BuildStep; build: Build }) {
  const view = useJobView();
  const { job, applied, unit } = view;
  const { step, at, fact, reopened } = one;
  const [asked, search] = useSearchParams();
  const onward = (): void => {
    if (asked.has("step")) search({}, { replace: true, preventScrollReset: true });
  };
  const caution = applied.present.cautions?.find(({ id }) => id === step.caution);
  const settled = at === "done" || at === "skipped";
  return (
    <section className="plate p-4" aria-label="This step" data-shown-step={step.id} data-at={at}>
      <h2 className="text-3xl leading-tight font-bold">
        {step.name} <Undecided entry={step} />
      </h2>
      <Ticked one={one} />
      {!settled && reopened && <OpenedAgain one={one} build={build} />}
      {caution && !settled && (
        <p className="border-accent bg-base-200 mt-2 flex items-center gap-3 border-l-4 px-3 py-2 text-lg font-semibold">
          <AlertTriangle size={26} aria-hidden="true" className="shrink-0" /> {caution.text}
        </p>
      )}
      {!step.vehicle && <Together one={one} build={build} />}
      {!job.closed && at !== "skipped" && <Turn one={one} build={build} onDone={onward} />}
      {(step.how ?? step.lies ?? step.round) && (
        <p className="mt-2 text-lg first-letter:uppercase">
          {[step.how, step.lies && `unit lies ${step.lies}`, step.round].filter(Boolean).join(". ")}.
        </p>
      )}
      {step.never && (
        <p className="mt-2 flex items-center gap-2 text-lg font-semibold">
          <Ban size={22} aria-hidden="true" className="text-error shrink-0" /> {step.never}
        </p>
      )}
      <BookPicture picture={pictureIn(applied.present, step.picture)} />
      <ToolsUsed ids={step.tools} present={applied.present} />
      {one.turn?.kind !== "plates" && <PackPicture step={step} />}
      <PartsIn one={one} build={build} />
      <AnswerList one={one} />
      <NextTime key={step.id} of={step.id} />
      {!job.closed && (
        <div className="border-base-300 mt-3 flex flex-wrap items-start gap-3 border-t-2 pt-3">
          {fact ? <Undo one={one} build={build} /> : <Skip step={step.id} onSaid={onward} />}
          <Otherwise one={one} />
          <TakePhoto of={`step ${step.id}`} view={{ number: view.number, closed: false }} small />
        </div>
      )}
      <p className="quiet mt-2 text-sm">
        {step.minutes !== undefined && `About ${step.minutes} minutes. `}
        {figuresFrom(applied.book)}, in {unit === "mm" ? "millimetres" : "inches"}; the maker’s service
        information comes first.
      </p>
    </section>
  );
}

/** The sub-assembly it belongs to is together: it is bagged, with what was proven of it on its label. */
function Together({ one: { step }, build }: { one: BuildStep; build: Build }) {
  const { number } = useJobView();
  const sub = subAssembliesOf(build).find(({ name }) => name === step.sub);
  if (!sub?.isBuilt) return null;
  const code = codeOf({ kind: "sub", job: number, sub: sub.id });
  return (
    <p
      className="bg-base-200 mt-2 flex flex-wrap items-center gap-3 rounded px-3 py-2"
      data-together={sub.id}
    >
      <span className="grow">
        <b>{sub.name}</b> is together: bag it or bin it, with its label.
        {sub.proven.length > 0 && <span className="quiet block text-sm">{sub.proven.join("; ")}</span>}
      </span>
      <a
        className="btn touch"
        href={`/jobs/${number}/labels.pdf?label=${code}`}
        target="_blank"
        rel="noreferrer"
      >
        <Tag size={20} aria-hidden="true" /> Its label
      </a>
    </p>
  );
}

/** That it is done, by whom; or what of it is open although it was said to be. */
function Ticked({ one: { at, fact, open } }: { one: BuildStep }) {
  const { short } = useWhen();
  if (!fact) return null;
  return (
    <p className="mt-1 text-lg" role="status">
      <b>{fact.body.did === "skipped" ? "Skipped" : "Done"}</b> by {fact.by}, {short(fact.at)}
      {fact.body.reason && `: ${fact.body.reason}`}
      {at === "unproven" && open.length > 0 && (
        <b className="text-error">
          , and {open.length === 1 ? "one answer is" : `${open.length} answers are`} open
        </b>
      )}
    </p>
  );
}

/** Why what was done is to be done again. */
function OpenedAgain({ one: { reopened, step: own }, build }: { one: BuildStep; build: Build }) {
  const { short } = useWhen();
  if (!reopened) return null;
  const { by, step } = reopened;
  const name = build.steps.find((other) => other.step.id === step)?.step.name ?? step;
  return (
    <p role="alert" className="border-warning mt-2 border-l-4 pl-3 text-lg" data-reopened={step}>
      <b>Opened again</b> by {by.by}, {short(by.at)}: {name}{" "}
      {by.body.kind === "step" ? "was undone" : "had a piece exchanged"}. What was said of this step before
      counts no longer{own.sub && !own.vehicle ? `; ${own.sub} counts as dirty, and its label is void` : ""}.
    </p>
  );
}
