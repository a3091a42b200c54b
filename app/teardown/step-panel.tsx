import { AlertTriangle, ArrowRight, Hammer, RotateCw, TriangleRight } from "lucide-react";
import { useState, type ReactNode } from "react";
import { Link, useSearchParams } from "react-router";
import { v7 as newId } from "uuid";
import { Figure } from "~/intake/figures";
import { SayForm } from "~/intake/say-form";
import { useInside } from "~/door/inside";
import { useJobView } from "~/job/job";
import { useSay } from "~/job/say";
import { useKeys } from "~/look/use-keys";
import { TakePhoto } from "~/photos/take";
import { asFound, FOUND_WRONG, ruleOf } from "~core/job";
import { counts, type Notice, type StepState, type Teardown } from "~core/teardown";
import { Balls, Counting } from "./counting";
import { Bolts } from "./bolts";
import { PartRow } from "./part-row";
import { lastPlace, placesOf, whenText } from "./places";

/** One step at arm's length: what comes off, how, with what, what to mind, and one large target when it is done. */
export function StepPanel({ state, plan }: { state: StepState; plan: Teardown }) {
  const view = useJobView();
  const { job, applied, unit } = view;
  const { house } = useInside();
  const { step, parts, fasteners, at, fact } = state;
  const [, search] = useSearchParams();
  const [to, setTo] = useState<string | null>(null);
  const place = to ?? lastPlace(job);
  const say = useSay();
  const ticked = at === "done" || at === "skipped";
  const done = (): void => {
    say({ kind: "step", step: step.id, did: "done", reason: "", to: place });
    search({}, { replace: true });
  };
  const open = fasteners.filter(({ id, count }) => (plan.bench.bolts.get(id)?.out.length ?? 0) < count);
  useKeys({
    d: job.closed || ticked ? undefined : done,
    f:
      job.closed || open.length === 0
        ? undefined
        : () => {
            for (const { id, places } of open)
              say({ kind: "out", group: id, places: places.map((_, i) => i) });
          },
  });
  const counted = counts(job, applied);
  const countOf = (of: string) => counted.find((one) => one.of === of);
  const boltCounts = counted.filter(({ of }) => fasteners.some(({ id }) => of.startsWith(`bolts:${id}:`)));
  const wanted = asFound(job, applied, ruleOf(job, house)).filter(({ kind, id }) =>
    (kind === "chain" ? step.chains : step.measurements)?.includes(id),
  );
  const tools = (step.tools ?? []).flatMap((id) => applied.unit.tools?.find((tool) => tool.id === id) ?? []);
  const caution = applied.unit.cautions?.find(({ id }) => id === step.caution);
  const balls = parts.some(({ kind }) => kind === "separator plate");
  return (
    <section className="plate p-4" aria-label="This step" data-shown-step={step.id}>
      <h2 className="text-3xl leading-tight font-bold">{step.name}</h2>
      {ticked && fact && (
        <p className="mt-1 text-lg" role="status">
          <b>{at === "done" ? "Done" : "Skipped"}</b> by {fact.by}, {whenText(fact.at)}
          {fact.body.reason && `: ${fact.body.reason}`}
        </p>
      )}
      {!job.closed && <Notices notices={state.notices} />}
      {caution && (
        <p className="border-accent bg-base-200 mt-2 flex items-center gap-3 border-l-4 px-3 py-2 text-lg font-semibold">
          <AlertTriangle size={26} aria-hidden="true" className="shrink-0" /> {caution.text}
        </p>
      )}
      <div className="mt-2 grid gap-x-6 text-lg md:grid-cols-2">
        <Line name="How" text={step.how} icon={<ArrowRight size={20} aria-hidden="true" />} />
        <Line name="Sits" text={step.round} icon={<RotateCw size={20} aria-hidden="true" />} />
        <Line name="Unit lies" text={step.lies} icon={<TriangleRight size={20} aria-hidden="true" />} />
        <Line name="Pry" text={step.pry} icon={<Hammer size={20} aria-hidden="true" />} />
      </div>
      {tools.length > 0 && (
        <p className="mt-1">
          <span className="stamp quiet mr-2">Tools</span>
          {tools.map(({ name, limit }) => `${name}${limit ? ` (${limit})` : ""}`).join(", ")}
        </p>
      )}
      {(step.check?.length ?? 0) + (step.record?.length ?? 0) > 0 && (
        <p className="mt-1">
          {step.check && (
            <>
              <span className="stamp quiet mr-2">See to it</span> {step.check.join(", ")}.{" "}
            </>
          )}
          {step.record && (
            <>
              <span className="stamp quiet mr-2">Record</span> {step.record.join(", ")}.
            </>
          )}
        </p>
      )}
      {fasteners.map((group, i) => (
        <Bolts key={group.id} group={group} out={plan.bench.bolts.get(group.id)?.out ?? []} first={i === 0} />
      ))}
      {boltCounts.map((one) => (
        <Counting key={one.of} one={one} />
      ))}
      {parts.length > 0 && (
        <ul className="mt-2" aria-label="What comes off">
          {parts.map((part) => (
            <PartRow key={part.id} part={part} bench={plan.bench} count={countOf(part.id)} />
          ))}
        </ul>
      )}
      {balls && <Balls />}
      {wanted.length > 0 && (
        <ul className="mt-2" aria-label="Figures as found">
          {wanted.map((one) => (
            <Figure key={one.id} one={one} open={at === "next"} />
          ))}
        </ul>
      )}
      <Elsewhere state={state} shown={wanted.map(({ id }) => id)} />
      {!job.closed && (
        <>
          <FoundWrong state={state} />
          <div className="border-base-300 bg-base-100 sticky bottom-0 z-10 -mx-4 mt-3 border-t-2 px-4 pt-2 pb-3">
            {!ticked && parts.length > 0 && <Places place={place} onPick={setTo} />}
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
                    onSaid={() => search({}, { replace: true })}
                    className="grow"
                  >
                    {() => (
                      <button className="btn btn-primary btn-lg touch w-full text-xl">
                        {state.notices.length > 0 ? "Done all the same" : "Done"} <kbd className="key">d</kbd>
                      </button>
                    )}
                  </SayForm>
                  <Skip step={step.id} onSaid={() => search({}, { replace: true })} />
                </>
              )}
              <TakePhoto of={`step ${step.id}`} view={view} small />
            </div>
          </div>
        </>
      )}
      <p className="quiet mt-2 text-sm">
        {step.minutes !== undefined && `About ${step.minutes} minutes. `}Figures made up for the demo, in{" "}
        {unit}; the maker’s service information comes first.
      </p>
    </section>
  );
}

const Line = ({ name, text, icon }: { name: string; text: string | undefined; icon: ReactNode }) =>
  text ? (
    <p className="flex items-center gap-2">
      {icon}
      <span className="stamp quiet">{name}</span> {text}
    </p>
  ) : null;

/** What doing it now runs into: said, not forbidden. */
function Notices({ notices }: { notices: readonly Notice[] }) {
  const { applied } = useJobView();
  if (notices.length === 0) return null;
  const { unit, work } = applied;
  const name = (id: string): string =>
    [
      ...unit.parts,
      ...(unit.fasteners ?? []),
      ...(work.teardown ?? []),
      ...unit.chains,
      ...(unit.measurements ?? []),
    ].find((one) => one.id === id)?.name ?? id;
  const words = (notice: Notice): string => {
    switch (notice.kind) {
      case "held":
        return `${name(notice.by)} still in: it holds ${name(notice.part)}.`;
      case "fasteners":
        return `${notice.out} of ${notice.of} ${name(notice.group).toLowerCase()} out.`;
      case "spoils":
        return `Not done yet: ${name(notice.step)}. Once this is off, ${notice.what.map((one) => name(one).toLowerCase()).join(", ")} can no longer be had.`;
    }
  };
  return (
    <div role="alert" className="border-warning mt-3 border-l-4 pl-3" data-notices={notices.length}>
      <ul className="text-lg font-semibold">
        {notices.map((notice) => (
          <li key={JSON.stringify(notice)} className="first-letter:uppercase">
            {words(notice)}
          </li>
        ))}
      </ul>
    </div>
  );
}

function Places({ place, onPick }: { place: string; onPick: (place: string) => void }) {
  const { job } = useJobView();
  const say = useSay();
  const places = placesOf(job);
  const trays = places.filter(({ sort }) => sort === "tray").length;
  const add = (): void => {
    const id = newId().slice(-8);
    say({ kind: "place", place: id, sort: "tray", name: `Tray ${trays + 1}` });
    onPick(id);
  };
  return (
    <div className="flex flex-wrap items-center gap-2" role="group" aria-label="Goes to">
      <span className="stamp quiet">Goes to</span>
      {places.map(({ id, name }) => (
        <button
          key={id}
          type="button"
          aria-pressed={id === place}
          className={`btn touch ${id === place ? "btn-secondary" : ""}`}
          onClick={() => onPick(id)}
        >
          {name}
        </button>
      ))}
      <button type="button" className="btn btn-ghost touch" onClick={add}>
        + tray
      </button>
    </div>
  );
}

const REASONS = ["already off", "not needed here", "left together on purpose"];

function Skip({ step, onSaid }: { step: string; onSaid: () => void }) {
  return (
    <details>
      <summary className="btn touch">Skip …</summary>
      <SayForm
        kind="step"
        fixed={{ step, did: "skipped" }}
        onSaid={onSaid}
        className="mt-2 flex flex-wrap gap-2"
      >
        {(problems) => (
          <>
            <input
              name="reason"
              aria-label="Why it is skipped"
              className="input touch w-64"
              placeholder="why"
              list="skip-reasons"
            />
            <datalist id="skip-reasons">
              {REASONS.map((reason) => (
                <option key={reason} value={reason} />
              ))}
            </datalist>
            <button className="btn touch">Skip it</button>
            {problems.reason && (
              <p role="alert" className="text-error w-full font-semibold">
                {problems.reason}
              </p>
            )}
          </>
        )}
      </SayForm>
    </details>
  );
}

/** What an earlier builder did, or another version left: it can be the cause. */
function FoundWrong({ state: { parts } }: { state: StepState }) {
  const { job } = useJobView();
  const say = useSay();
  if (parts.length === 0) return null;
  const ids = new Set(parts.map(({ id }) => id));
  const noted = job.work.wrongs.filter(({ body }) => ids.has(body.of));
  return (
    <div className="mt-2">
      {noted.map(({ id, by, body }) => (
        <p key={id} className="flex items-center gap-3 font-semibold" data-wrong={body.what}>
          <span className="text-error">Found wrong:</span> {parts.find((part) => part.id === body.of)?.name}{" "}
          {body.what}
          {body.note && `, ${body.note}`} ({by})
          <button
            type="button"
            className="btn btn-ghost touch"
            onClick={() => say({ ...body, there: false })}
          >
            Take back
          </button>
        </p>
      ))}
      <details>
        <summary className="touch quiet flex cursor-pointer items-center underline underline-offset-4">
          Something is wrong here
        </summary>
        <SayForm kind="wrong" className="flex flex-wrap items-end gap-2">
          {(problems) => (
            <>
              <select
                name="of"
                aria-label="Which part"
                className="select touch w-56"
                defaultValue={parts[0]?.id}
              >
                {parts.map(({ id, name }) => (
                  <option key={id} value={id}>
                    {name}
                  </option>
                ))}
              </select>
              <input name="note" aria-label="Note" className="input touch w-56" placeholder="note" />
              {FOUND_WRONG.map((what) => (
                <button key={what} name="what" value={what} className="btn touch">
                  {what}
                </button>
              ))}
              {problems.what && (
                <p role="alert" className="text-error font-semibold">
                  {problems.what}
                </p>
              )}
            </>
          )}
        </SayForm>
      </details>
    </div>
  );
}

/** Figures of the step that have pages of their own. */
function Elsewhere({ state: { step }, shown }: { state: StepState; shown: readonly string[] }) {
  const { applied, number } = useJobView();
  const others = [...(step.chains ?? []), ...(step.measurements ?? [])].filter((id) => !shown.includes(id));
  const named = others.flatMap((id) => {
    const pack = applied.packs.find(({ chain }) => chain.id === id);
    const one =
      applied.work.chains.find((chain) => chain.id === id) ??
      applied.work.measurements?.find((each) => each.id === id);
    return one
      ? [
          {
            id,
            name: one.name,
            to: pack ? `/jobs/${number}/pack/${id}` : `/jobs/${number}/measure#row-${id}`,
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
