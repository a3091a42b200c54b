import { NextTime } from "~/next-time/soon";
import { figuresFrom } from "~/look/source";
import { Undecided } from "~/choose/undecided";
import { useWhen } from "~/door/when";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { GaugeBar } from "~/gauge/soon";
import { Figure } from "~/intake/figures";
import { SayForm } from "~/say/say-form";
import { useInside } from "~/door/inside";
import { useJobView } from "~/view/view";
import { useSay } from "~/say/use-say";
import { useKeys } from "~/look/use-keys";
import { TakePhoto } from "~/photos/take";
import { asFound, isPackSheet, ruleOf } from "~core/measure";
import { counts, type StepState, type Plan } from "~core/steps";
import { Balls, Counting } from "./counting";
import { Bolts } from "./bolts";
import { FoundWrong } from "./found-wrong";
import { GoesTo } from "./goes-to";
import { Notices } from "./notices";
import { PartRow } from "./part-row";
import { placeFor } from "./places";
import { Records } from "./records";
import { Skip } from "./skip";
import { Told } from "./told";

/** One step at arm's length: what comes off, how, with what, what to mind, and one large target when it is done. */
export function StepPanel({ state, plan }: { state: StepState; plan: Plan }) {
  const { short } = useWhen();
  const view = useJobView();
  const { job, applied, unit } = view;
  const { house } = useInside();
  const { step, parts, fasteners, at, fact } = state;
  const [asked, search] = useSearchParams();
  const [to, setTo] = useState<string | null>(null);
  const place = to ?? placeFor(job, plan.bench, parts, applied.present.parts);
  const say = useSay();
  // Back from a step picked in the list to the one that is next.
  const onward = (): void => {
    if (asked.has("step")) search({}, { replace: true, preventScrollReset: true });
  };
  const ticked = at === "done" || at === "skipped";
  const done = (): void => {
    say({ kind: "step", step: step.id, did: "done", reason: "", to: place });
    onward();
  };
  const unbolted = fasteners.find(
    ({ id, count }) => (plan.bench.bolts.get(id)?.placesOut.length ?? 0) < count,
  );
  useKeys({
    d: job.closed || ticked ? undefined : done,
    // One group at a time, the one the key is printed on.
    f:
      job.closed || !unbolted
        ? undefined
        : () => say({ kind: "out", group: unbolted.id, places: unbolted.places.map((_, i) => i) }),
  });
  const counted = counts(job, applied);
  const countOf = (of: string) => counted.find((one) => one.id === of);
  const boltCounts = counted.filter(({ id: of }) =>
    fasteners.some(({ id }) => of.startsWith(`bolts:${id}:`)),
  );
  const wanted = asFound(job, applied, ruleOf(job, house)).filter(({ kind, id }) =>
    (kind === "chain" ? step.chains : step.measurements)?.includes(id),
  );
  const balls = parts.some(({ kind }) => kind === "separator plate");
  return (
    <section className="plate p-4" aria-label="This step" data-shown-step={step.id}>
      <h2 className="text-3xl leading-tight font-bold">
        {step.name} <Undecided entry={step} />
      </h2>
      {ticked && fact && (
        <p className="mt-1 text-lg" role="status">
          <b>{at === "done" ? "Done" : "Skipped"}</b> by {fact.by}, {short(fact.at)}
          {fact.body.reason && `: ${fact.body.reason}`}
        </p>
      )}
      {!job.closed && <Notices notices={state.notices} />}
      {!job.closed && !ticked && <PacksFirst step={step.id} />}
      <Told step={step} />
      {fasteners.map((group) => (
        <Bolts
          key={group.id}
          group={group}
          out={plan.bench.bolts.get(group.id)?.placesOut ?? []}
          keyed={group === unbolted}
        />
      ))}
      {boltCounts.map((one) => (
        <Counting key={one.id} one={one} />
      ))}
      {parts.length > 0 && (
        <ul className="mt-2" aria-label="What comes off">
          {parts.map((part) => (
            <PartRow key={part.id} part={part} bench={plan.bench} count={countOf(part.id)} />
          ))}
        </ul>
      )}
      {balls && <Balls />}
      {!job.closed && wanted.some(({ kind }) => kind === "chain") && (
        <div className="mt-2">
          <GaugeBar />
        </div>
      )}
      {wanted.length > 0 && (
        <ul className="mt-2" aria-label="Figures as found">
          {wanted.map((one) => (
            <Figure key={one.id} one={one} open={at === "next"} />
          ))}
        </ul>
      )}
      <Records step={step} />
      <NextTime key={step.id} of={step.id} />
      <Elsewhere state={state} shown={wanted.map(({ id }) => id)} />
      {!job.closed && (
        <>
          <FoundWrong state={state} />
          <div className="border-base-300 bg-base-100 sticky bottom-0 z-10 -mx-4 mt-3 border-t-2 px-4 pt-2 pb-3">
            {!ticked && parts.length > 0 && <GoesTo place={place} onPick={setTo} />}
            <div className="mt-2 flex flex-wrap items-start gap-3">
              {ticked ? (
                <SayForm kind="step" fixed={{ step: step.id, did: "undone" }}>
                  {() => <button className="btn touch">Not {at} after all</button>}
                </SayForm>
              ) : (
                <>
                  <SayForm
                    kind="step"
                    fixed={{ step: step.id, did: "done", to: place }}
                    onSaid={onward}
                    className="grow"
                  >
                    {() => (
                      <button className="btn btn-primary btn-lg touch w-full text-xl">
                        {state.notices.length > 0 ? "Done all the same" : "Done"} <kbd className="key">d</kbd>
                      </button>
                    )}
                  </SayForm>
                  <Skip step={step.id} onSaid={onward} />
                </>
              )}
              <TakePhoto of={`step ${step.id}`} view={{ ...view, closed: view.job.closed !== null }} small />
            </div>
          </div>
        </>
      )}
      <p className="quiet mt-2 text-sm">
        {step.minutes !== undefined && `About ${step.minutes} minutes. `}
        {figuresFrom(applied.book)}, in {unit === "mm" ? "millimetres" : "inches"}; the maker’s service
        information comes first.
      </p>
    </section>
  );
}

/** Packs this step takes apart that nobody has read as they were found: afterwards nobody can. */
function PacksFirst({ step }: { step: string }) {
  const { number, sheets } = useJobView();
  const unread = sheets
    .filter(isPackSheet)
    .filter(
      ({ applied, stage, found }) =>
        stage.at !== "quiet" && applied.apartBy.includes(step) && found.readings.length === 0,
    );
  return unread.map(({ applied: { chain, pack } }) => (
    <p
      key={chain.id}
      className="border-accent mt-3 flex items-center gap-3 border-l-4 pl-3"
      data-read-first={chain.id}
    >
      <span className="grow text-lg">
        <b>{pack.element.toUpperCase()}</b> is not read as found. Once its plates are out nobody can.
      </span>
      <Link to={`/jobs/${number}/choose/${chain.id}?show=found`} className="btn touch">
        Read it first
      </Link>
    </p>
  ));
}

/** Figures of the step that have pages of their own. */
function Elsewhere({ state: { step }, shown }: { state: StepState; shown: readonly string[] }) {
  const { applied, number, sheets } = useJobView();
  const others = [...(step.chains ?? []), ...(step.measurements ?? [])].filter((id) => !shown.includes(id));
  const named = others.flatMap((id) => {
    const chosen = sheets.some(({ applied: { chain } }) => chain.id === id);
    const one =
      applied.scoped.chains.find((chain) => chain.id === id) ??
      applied.scoped.measurements?.find((each) => each.id === id);
    return one
      ? [
          {
            id,
            name: one.name,
            to: chosen ? `/jobs/${number}/choose/${id}` : `/jobs/${number}/measure#row-${id}`,
          },
        ]
      : [];
  });
  if (named.length === 0) return null;
  return (
    <p className="mt-2 flex flex-wrap gap-x-4">
      <span className="stamp quiet self-center">To measure</span>
      {named.map(({ id, name, to }) => (
        <Link key={id} to={to} className="touch flex items-center underline underline-offset-4">
          {name}
        </Link>
      ))}
    </p>
  );
}
