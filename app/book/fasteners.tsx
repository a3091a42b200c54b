import { useState } from "react";
import { useArm, WrenchArm } from "~/look/wrench-arm";
import { useAnchor } from "~/look/use-scripted";
import { houseTorque, pictureIn, shownIn, torqueWords, usedTorque, type FastenerGroup } from "~core/book";
import { lengthText, parseMeasure } from "~core/quantity";
import { tighteningOrder } from "~core/torque";
import { Faces, FastenerMap } from "./faces";
import { HouseForm } from "./house-form";
import { useBookView } from "./book";

/** Each group of fasteners as it lies on the face, with the order it is tightened in; check balls and air-check ports beside. */
export default function FastenersPage() {
  const { applied, unit } = useBookView();
  const anchor = useAnchor();
  const groups = applied.present.fasteners ?? [];
  const [open, setOpen] = useState<string | null>(null);
  const asked = groups.find(({ id }) => anchor === `fastener-${id}`);
  const current = groups.find(({ id }) => id === open) ?? asked ?? groups[0];
  const reached = new Set((applied.scoped.fasteners ?? []).map(({ id }) => id));
  return (
    <>
      <div className="grid grid-cols-[minmax(0,4fr)_minmax(0,7fr)] items-start gap-3">
        <section className="plate p-4">
          <h2 className="mb-1 text-xl font-bold">Fasteners</h2>
          <ul>
            {groups.map((group) => (
              <li key={group.id} id={`fastener-${group.id}`}>
                <button
                  type="button"
                  aria-pressed={group === current}
                  className={`touch border-base-300 flex w-full items-center gap-3 border-t px-2 text-left ${group === current ? "bg-base-200 border-l-primary border-l-4" : ""}`}
                  onClick={() => setOpen(group.id)}
                >
                  <span className={`grow ${reached.has(group.id) ? "" : "quiet"}`}>
                    {group.name} <span className="quiet text-sm">{group.count} ×</span>
                  </span>
                  <span className="figure whitespace-nowrap">{usedTorque(group, applied.house, unit)}</span>
                </button>
              </li>
            ))}
          </ul>
        </section>
        {current && <GroupPlate key={current.id} group={current} />}
      </div>
      <Faces />
    </>
  );
}

function GroupPlate({ group }: { group: FastenerGroup }) {
  const { unit, may, applied } = useBookView();
  const order = tighteningOrder(
    group.places.map(({ at }) => at),
    group.pattern,
  );
  const house = houseTorque(group, applied.house);
  const lengths = [...new Set(group.places.map(({ length }) => length ?? group.length))].filter(
    (l) => l !== undefined,
  );
  return (
    <section className="plate p-5" aria-label={group.name}>
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h2 className="text-2xl font-bold">{group.name}</h2>
        <span className="figure text-2xl">{usedTorque(group, applied.house, unit)}</span>
        {house && <span>house; the book {torqueWords(group, unit)}</span>}
      </div>
      <p className="mb-2 text-lg">
        {group.count} × {group.size},{" "}
        {lengths.length === 1 && lengths[0] !== undefined
          ? `${lengthText(lengths[0], unit)} long`
          : "lengths as drawn"}
        , {group.thread ? `thread ${group.thread}` : "what goes on the thread is not known"}
        {group.oneTime && (
          <>
            , <b>new ones only</b>
          </>
        )}
        {group.carries && `, carries ${group.carries}`}
      </p>
      <div className="grid grid-cols-[minmax(0,3fr)_minmax(0,2fr)] gap-5">
        <FastenerMap
          picture={pictureIn(applied.present, group.picture)}
          group={group}
          order={order}
          unit={unit}
          many={lengths.length > 1}
        />
        <div>
          <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
            <dt className="quiet">Order</dt>
            <dd>
              {group.pattern ? `${group.pattern}, as numbered` : "not known; numbered as listed"}; then one
              lap over every place
            </dd>
            {group.passes && (
              <>
                <dt className="quiet">Passes</dt>
                <dd>
                  {group.passes.map((pass) => shownIn(pass, unit)).join(", ")},{" "}
                  {usedTorque(group, applied.house, unit)}
                </dd>
              </>
            )}
            {group.retorque && (
              <>
                <dt className="quiet">Again</dt>
                <dd>
                  {shownIn(group.retorque.torque, unit)} after {shownIn(group.retorque.wait, unit)}
                </dd>
              </>
            )}
            {group.places.some(({ unreached }) => unreached) && (
              <>
                <dt className="quiet">Not reached</dt>
                <dd>
                  place{" "}
                  {group.places
                    .flatMap(({ unreached }, i) => (unreached ? [order.indexOf(i) + 1] : []))
                    .join(", ")}
                  : record it as such
                </dd>
              </>
            )}
            {group.note && (
              <>
                <dt className="quiet">Note</dt>
                <dd className="font-semibold">{group.note}</dd>
              </>
            )}
          </dl>
          {group.torque && <Extension group={group} />}
          {house && (
            <p className="border-accent mt-3 border-l-4 pl-3">
              House value by {house.by}: {house.reason}.
            </p>
          )}
          {may && (
            <HouseForm
              of="fastener"
              id={group.id}
              house={house}
              fields={[
                { name: "torque", label: "Torque", book: torqueWords(group, unit), value: house?.torque },
              ]}
            />
          )}
        </div>
      </div>
    </section>
  );
}

/** What to set the wrench to with an extension in line. */
function Extension({ group }: { group: FastenerGroup }) {
  const { unit, applied } = useBookView();
  const held = useArm(unit);
  const own = houseTorque(group, applied.house)?.torque;
  const read = own ? parseMeasure(own, "torque") : null;
  const torque = read?.ok ? read.measure : group.torque;
  return torque && <WrenchArm torque={torque} unit={unit} held={held} />;
}
