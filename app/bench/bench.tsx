import { DndContext, KeyboardSensor, MouseSensor, TouchSensor, useSensor, useSensors } from "@dnd-kit/core";
import { useEffect, useMemo, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { useInside } from "~/door/inside";
import { useJobView } from "~/job/job";
import { useSay } from "~/job/say";
import { targetOf } from "~/scan/code";
import { onScan } from "~/scan/heard";
import { placesOf, whenText } from "~/teardown/places";
import { CLEANING_STEPS, IN_UNIT, SCRAPPED, type CleaningStep, type Cleanliness } from "~core/job";
import { stationOf } from "~core/inspect";
import { teardown, type Bench, type Thing } from "~core/teardown";
import type { Route } from "./+types/bench";
import { NewPlace } from "./new-place";
import { PlaceCard } from "./place-card";

export const meta: Route.MetaFunction = ({ params }) => [{ title: `Bench ${params.number} · Yard Key` }];

/** What lies where, in which order and which way up; whoever comes back in three days sees it at once. */
export default function BenchMap() {
  const { job, applied, number } = useJobView();
  const { staff } = useInside();
  const say = useSay();
  const [search] = useSearchParams();
  const plan = useMemo(() => teardown(job, applied), [job, applied]);
  const { bench } = plan;
  const asked = search.get("thing");
  const [picked, pick] = useState<readonly string[]>(asked ? [asked] : []);
  const [told, tell] = useState("");
  const places = placesOf(job);
  const toggle = (thing: string): void =>
    pick(picked.includes(thing) ? picked.filter((one) => one !== thing) : [...picked, thing]);
  const move = (things: readonly string[], place: string): void => {
    if (things.length === 0 || job.closed) return;
    say({ kind: "lies", things: [...things], place });
    pick([]);
    const where =
      place === SCRAPPED ? "out of circulation" : (places.find(({ id }) => id === place)?.name ?? place);
    tell(`${things.length === 1 ? "Laid" : `${things.length} laid`}: ${where}.`);
  };
  // A part’s label picks it, a place’s label lays down what is picked.
  useEffect(() =>
    onScan((code) => {
      const target = targetOf(code);
      if (target?.job !== number || target.kind === "case") return false;
      if (target.kind === "part" && bench.things.has(target.part)) {
        pick([...new Set([...picked, target.part])]);
        return true;
      }
      if (target.kind === "place" && picked.length > 0) {
        move(picked, target.place);
        return true;
      }
      return false;
    }),
  );
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 8 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 180, tolerance: 8 } }),
    useSensor(KeyboardSensor, { keyboardCodes: { start: ["KeyM"], cancel: ["Escape"], end: ["KeyM"] } }),
  );
  const inUnit = [...bench.things.values()].filter(
    ({ place, part }) => place === IN_UNIT && part.of === undefined,
  );
  const card = { picked, onPick: toggle, unit: applied.unit };
  return (
    <DndContext
      sensors={sensors}
      onDragEnd={({ active, over }) => {
        if (!over) return;
        const thing = String(active.id);
        move(picked.includes(thing) ? picked : [thing], String(over.id));
      }}
    >
      <div className="plate mb-3 flex flex-wrap items-center gap-x-6 gap-y-1 px-4 py-2 text-lg" data-handover>
        <span>
          Last: <b>{plan.last?.step.name ?? "nothing yet"}</b>
          {plan.last?.fact &&
            `, ${plan.last.fact.by === staff.name ? "you" : plan.last.fact.by}, ${whenText(plan.last.fact.at)}`}
        </span>
        <span>
          Next: <b>{plan.next?.step.name ?? "nothing more to take down"}</b>
        </span>
        <span className="grow" />
        <Link to={`/jobs/${number}/teardown`} className="btn touch">
          To the steps
        </Link>
      </div>
      <Actions
        {...{ picked, places: places.map(({ id, name }) => ({ id, name })), told, bench }}
        onMove={move}
        onDone={() => pick([])}
      />
      <div className="grid grid-cols-2 items-start gap-3 lg:grid-cols-3">
        {bench.nowhere.length > 0 && (
          <PlaceCard
            {...card}
            id="nowhere"
            title="Off the unit and nowhere"
            tone="bad"
            things={bench.nowhere}
            still
          />
        )}
        {places.map(({ id, name, sort }) => (
          <PlaceCard
            key={id}
            {...card}
            id={id}
            title={name}
            sort={sort === "bench" ? undefined : sort}
            things={bench.at(id)}
            bolts={[...bench.bolts.values()].filter((bolts) => bolts.place === id && bolts.out.length > 0)}
          />
        ))}
        <PlaceCard {...card} id={SCRAPPED} title="Out of circulation" things={bench.at(SCRAPPED)} />
        <PlaceCard {...card} id={IN_UNIT} title="Still in the unit" things={inUnit} quiet />
        {!job.closed && (
          <details className="plate px-4 py-2">
            <summary className="touch flex cursor-pointer items-center text-lg font-semibold">
              A new tray, bin or bag
            </summary>
            <NewPlace />
          </details>
        )}
        <Together bench={bench} />
        <Traps />
      </div>
    </DndContext>
  );
}

/** What is done with the parts picked: laid somewhere, cleaned, bagged. */
function Actions({
  picked,
  places,
  told,
  bench,
  onMove,
  onDone,
}: {
  picked: readonly string[];
  places: readonly { id: string; name: string }[];
  told: string;
  bench: { things: ReadonlyMap<string, Thing> };
  onMove: (things: readonly string[], place: string) => void;
  onDone: () => void;
}) {
  const { job } = useJobView();
  const say = useSay();
  const [did, setDid] = useState<readonly CleaningStep[]>(["washed", "blown", "dried"]);
  if (job.closed) return null;
  if (picked.length === 0)
    return (
      <p className="mb-2 text-lg" role="status">
        {told ||
          "Touch parts to pick them, then where they go. Or drag one, or scan its label and then the tray’s."}
      </p>
    );
  const clean = (state: Cleanliness): void => {
    say({ kind: "cleaning", things: [...picked], state, did: state === "clean" ? [...did] : [] });
    onDone();
  };
  const names = picked.map((id) => bench.things.get(id)?.part.name ?? id);
  return (
    <section className="plate border-primary sticky top-0 z-10 mb-2 border-2 px-3 py-2" aria-label="Picked">
      <p className="text-lg font-bold">
        {names.slice(0, 4).join(", ")}
        {names.length > 4 && ` and ${names.length - 4} more`}
      </p>
      <div className="flex flex-wrap items-center gap-2 py-1" role="group" aria-label="Lay down">
        <span className="stamp quiet">Lay down</span>
        {places.map(({ id, name }) => (
          <button key={id} type="button" className="btn touch" onClick={() => onMove(picked, id)}>
            {name}
          </button>
        ))}
        <button type="button" className="btn touch" onClick={() => onMove(picked, SCRAPPED)}>
          Out of circulation
        </button>
      </div>
      <div className="flex flex-wrap items-center gap-2 py-1" role="group" aria-label="Cleaning">
        <span className="stamp quiet">Cleaning</span>
        {CLEANING_STEPS.map((one) => (
          <button
            key={one}
            type="button"
            role="checkbox"
            aria-checked={did.includes(one)}
            className={`btn touch px-3 ${did.includes(one) ? "btn-secondary" : ""}`}
            onClick={() => setDid(did.includes(one) ? did.filter((each) => each !== one) : [...did, one])}
          >
            {one}
          </button>
        ))}
        <button
          type="button"
          className="btn btn-primary touch"
          disabled={did.length === 0}
          onClick={() => clean("clean")}
        >
          Clean now
        </button>
        {(["masked", "bagged", "opened"] as const).map((state) => (
          <button key={state} type="button" className="btn touch" onClick={() => clean(state)}>
            {state}
          </button>
        ))}
        <span className="grow" />
        <button type="button" className="btn btn-ghost touch" onClick={onDone}>
          Let go
        </button>
      </div>
    </section>
  );
}

/** What goes together, and whether it is clean: nothing dirty goes into a pack unnoticed. */
function Together({ bench }: { bench: Bench }) {
  const { applied } = useJobView();
  const packs = applied.work.packs.flatMap((pack) => {
    const plates = new Set(pack.stack.map(({ part }) => part));
    const parts = applied.work.parts.filter(
      (part) => plates.has(part.id) || stationOf(applied.work.parts, part) === pack.station,
    );
    const off = parts.filter(({ id }) => bench.isOff(id));
    const dirty = bench.dirtyOf(parts.map(({ id }) => id));
    return off.length > 0 ? [{ element: pack.element, name: pack.name, dirty }] : [];
  });
  if (packs.length === 0) return null;
  return (
    <section className="plate px-4 py-3" aria-label="Going together">
      <h2 className="text-xl font-bold">Going together</h2>
      <ul>
        {packs.map(({ element, name, dirty }) => (
          <li key={element} className="border-base-300 border-t py-1.5" data-together={element}>
            <b>{element.toUpperCase()}</b> <span className="quiet">{name}</span>
            {dirty.length === 0 ? (
              <span className="text-success block font-semibold">✓ all clean</span>
            ) : (
              <span className="text-warning block font-semibold">
                Still dirty: {dirty.map(({ part }) => part.name).join(", ")}
              </span>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Where metal hides in this unit: cleaned one by one, and recorded. */
function Traps() {
  const { job, applied } = useJobView();
  const say = useSay();
  const traps = applied.work.traps ?? [];
  if (traps.length === 0) return null;
  const { cleaning } = job.work;
  return (
    <section className="plate px-4 py-3" aria-label="Where metal hides">
      <h2 className="text-xl font-bold">Where metal hides</h2>
      <ul>
        {traps.map(({ id, where, how }) => {
          const fact = cleaning.get(`trap:${id}`);
          const clean = fact?.body.state === "clean";
          return (
            <li key={id} className="border-base-300 flex items-center gap-3 border-t py-1.5" data-trap={id}>
              <span className="grow leading-tight">
                <b className="first-letter:uppercase">{where}</b>
                <span className="quiet block text-sm">
                  {how}
                  {clean && fact && `; ${fact.by}, ${whenText(fact.at)}`}
                </span>
              </span>
              <button
                type="button"
                disabled={job.closed !== null}
                aria-pressed={clean}
                className={`btn touch ${clean ? "btn-primary" : ""}`}
                onClick={() =>
                  say({
                    kind: "cleaning",
                    things: [`trap:${id}`],
                    state: clean ? "dirty" : "clean",
                    did: clean ? [] : ["flushed"],
                  })
                }
              >
                {clean ? "✓ clean" : "clean"}
              </button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
