import { useWhen } from "~/door/when";
import {
  DndContext,
  DragOverlay,
  KeyboardSensor,
  MouseSensor,
  TouchSensor,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { useEffect, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { useInside } from "~/door/inside";
import { planIn } from "~/view/plan";
import { useJobView } from "~/view/view";
import { useSay } from "~/say/use-say";
import { targetOf } from "~/scan/code";
import { onScan } from "~/scan/heard";
import { placesOf } from "~/teardown/places";
import { partsOf } from "~core/book";
import { IN_UNIT, SCRAPPED } from "~core/fact";
import type { Bench, planOf } from "~core/steps";
import type { Route } from "./+types/bench";
import { Actions } from "./actions";
import { NewPlace } from "./new-place";
import { PlaceCard } from "./place-card";
import { Traps } from "./traps";

export const meta: Route.MetaFunction = ({ params }) => [{ title: `Bench ${params.number} · Yard Key` }];

/** What lies where, in which order and which way up; whoever comes back in three days sees it at once. */
export default function BenchMap() {
  const view = useJobView();
  const { job, applied, number } = view;
  const say = useSay();
  const [search] = useSearchParams();
  const plan = planIn(view);
  const { bench } = plan;
  const asked = search.get("thing");
  const [picked, setPicked] = useState<readonly string[]>(asked ? [asked] : []);
  const [told, setTold] = useState("");
  const [carried, setCarried] = useState<readonly string[]>([]);
  const places = placesOf(job);
  const toggle = (thing: string): void =>
    setPicked(picked.includes(thing) ? picked.filter((one) => one !== thing) : [...picked, thing]);
  const move = (things: readonly string[], place: string): void => {
    if (things.length === 0 || job.closed) return;
    say({ kind: "lies", things: [...things], place });
    setPicked([]);
    const where =
      place === SCRAPPED ? "out of circulation" : (places.find(({ id }) => id === place)?.name ?? place);
    setTold(`${things.length === 1 ? "Laid" : `${things.length} laid`}: ${where}.`);
  };
  // A part’s label picks it, a place’s label lays down what is picked.
  useEffect(() =>
    onScan((code) => {
      const target = targetOf(code);
      if (target?.job !== number || target.kind === "case") return false;
      if (target.kind === "part" && bench.things.has(target.part)) {
        setPicked([...new Set([...picked, target.part])]);
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
  const card = { picked, onPick: toggle, unit: applied.present };
  return (
    <DndContext
      sensors={sensors}
      onDragStart={({ active }) => {
        const thing = String(active.id);
        setCarried(picked.includes(thing) ? picked : [thing]);
      }}
      onDragCancel={() => setCarried([])}
      onDragEnd={({ over }) => {
        setCarried([]);
        if (over) move(carried, String(over.id));
      }}
    >
      <Handover plan={plan} />
      <Actions
        {...{ picked, places: places.map(({ id, name }) => ({ id, name })), told, bench }}
        onMove={move}
        onDone={() => setPicked([])}
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
            bolts={[...bench.bolts.values()].filter(
              (bolts) => bolts.place === id && bolts.placesOut.length > 0,
            )}
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
      </div>
      <div className="mt-3 grid grid-cols-2 items-start gap-3 lg:grid-cols-3">
        <Together bench={bench} />
        <Traps />
      </div>
      {/* Under the finger, so that one sees what is carried. It is only ever drawn here, where scripts may place it. */}
      <DragOverlay dropAnimation={null}>
        {carried.length > 0 && (
          <div
            className="plate border-primary border-2 px-3 py-2 text-lg font-bold"
            data-carried={carried.length}
          >
            {bench.things.get(carried[0] ?? "")?.part.name}
            {carried.length > 1 && ` and ${carried.length - 1} more`}
          </div>
        )}
      </DragOverlay>
    </DndContext>
  );
}

/** Where the work stands, for whoever takes it up. */
function Handover({ plan }: { plan: ReturnType<typeof planOf> }) {
  const { short } = useWhen();
  const { staff } = useInside();
  const { number } = useJobView();
  return (
    <div className="plate mb-3 flex flex-wrap items-center gap-x-6 gap-y-1 px-4 py-2 text-lg" data-handover>
      <span>
        Last: <b>{plan.last?.step.name ?? "nothing yet"}</b>
        {plan.last?.fact &&
          `, ${plan.last.fact.by === staff.name ? "you" : plan.last.fact.by}, ${short(plan.last.fact.at)}`}
      </span>
      <span>
        Next: <b>{plan.next?.step.name ?? "nothing more to take down"}</b>
      </span>
      <span className="grow" />
      <Link to={`/jobs/${number}/teardown`} className="btn touch">
        To the steps
      </Link>
    </div>
  );
}

/** What goes together, and whether it is clean: nothing dirty goes into a pack unnoticed. */
function Together({ bench }: { bench: Bench }) {
  const { applied } = useJobView();
  const packs = applied.scoped.packs.flatMap((pack) => {
    const off = partsOf(applied.scoped.parts, pack).some(({ id }) => bench.isOff(id));
    return off ? [{ element: pack.element, name: pack.name, dirty: bench.dirtyOfPack(pack) }] : [];
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
