import { useState } from "react";
import { Field } from "~/look/field";
import { useAnchor } from "~/look/use-scripted";
import { houseTorque, shownIn, torqueWords, type FastenerGroup } from "~core/book";
import { lengthText, measureText, parseLength, parseMeasure, unitFor } from "~core/quantity";
import { tighteningOrder, wrenchSetting } from "~core/torque";
import { HouseForm } from "./house-form";
import { useBookView } from "./book";

/** Each group of fasteners as it lies on the face, with the order it is tightened in; check balls and air-check ports beside. */
export default function FastenersPage() {
  const { applied, unit } = useBookView();
  const anchor = useAnchor();
  const groups = applied.unit.fasteners ?? [];
  const [open, setOpen] = useState<string | null>(null);
  const asked = groups.find(({ id }) => anchor === `fastener-${id}`);
  const current = groups.find(({ id }) => id === open) ?? asked ?? groups[0];
  const reached = new Set((applied.work.fasteners ?? []).map(({ id }) => id));
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
                  <span className="figure whitespace-nowrap">
                    {houseTorque(group, applied.house)?.torque ?? torqueWords(group, unit)}
                  </span>
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
        <span className="figure text-2xl">{house?.torque ?? torqueWords(group, unit)}</span>
        {house && <span>house; the book {torqueWords(group, unit)}</span>}
      </div>
      <p className="mb-2 text-lg">
        {group.count} × {group.size},{" "}
        {lengths.length === 1 && lengths[0] !== undefined
          ? `${lengthText(lengths[0], unit)} long`
          : "lengths as drawn"}
        , thread {group.thread}
        {group.oneTime && (
          <>
            , <b>new ones only</b>
          </>
        )}
        {group.carries && `, carries ${group.carries}`}
      </p>
      <div className="grid grid-cols-[minmax(0,3fr)_minmax(0,2fr)] gap-5">
        <FastenerMap group={group} order={order} unit={unit} many={lengths.length > 1} />
        <div>
          <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
            <dt className="quiet">Order</dt>
            <dd>{group.pattern}, as numbered; then one lap over every place</dd>
            {group.passes && (
              <>
                <dt className="quiet">Passes</dt>
                <dd>
                  {group.passes.map((pass) => shownIn(pass, unit)).join(", ")}, {torqueWords(group, unit)}
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
  const [wrench, setWrench] = useState("");
  const [extension, setExtension] = useState("");
  const [length, more] = [parseLength(wrench, unit), parseLength(extension, unit)];
  const own = houseTorque(group, applied.house)?.torque;
  const read = own ? parseMeasure(own, "torque") : null;
  const torque = read?.ok ? read.measure : group.torque;
  const fits = length.ok && more.ok && length.length > 0 && more.length >= 0;
  const problem = (typed: string, ok: boolean): string | undefined =>
    typed !== "" && !ok ? "write a length such as 320 mm" : undefined;
  return (
    <details className="no-print mt-3">
      <summary className="touch flex cursor-pointer items-center font-semibold underline underline-offset-4">
        Wrench with an extension in line
      </summary>
      <div className="grid grid-cols-2 gap-2">
        <Field
          label="Wrench, grip to square"
          value={wrench}
          onChange={(e) => setWrench(e.target.value)}
          problem={problem(wrench, length.ok)}
        />
        <Field
          label="Extension"
          value={extension}
          onChange={(e) => setExtension(e.target.value)}
          problem={problem(extension, more.ok)}
        />
      </div>
      {fits && torque && (
        <p role="status" className="text-lg">
          Set{" "}
          <b className="figure">
            {measureText(wrenchSetting(torque, length.length, more.length), unitFor(torque, unit))}
          </b>
          : {shownIn(torque, unit)} · L ÷ (L + E)
        </p>
      )}
    </details>
  );
}

const WIDE = 420;
const HIGH = 320;
const px = ([x, y]: readonly [number, number]): [number, number] => [
  24 + (x / 100) * (WIDE - 48),
  24 + (y / 100) * (HIGH - 48),
];

/** The face with its places, numbered in the order they are tightened. */
function FastenerMap({
  group,
  order,
  unit,
  many,
}: {
  group: FastenerGroup;
  order: readonly number[];
  unit: "mm" | "in";
  many: boolean;
}) {
  const path = order.map((i) => px(group.places[i]?.at ?? [50, 50]));
  return (
    <svg
      viewBox={`0 0 ${WIDE} ${HIGH}`}
      className="w-full"
      role="img"
      aria-label={`${group.name}: ${group.count} places, tightened ${group.pattern}`}
    >
      {group.pattern === "star" ? (
        <ellipse
          className="fill-case stroke-soft"
          strokeWidth="1.5"
          cx={WIDE / 2}
          cy={HIGH / 2}
          rx={WIDE / 2 - 4}
          ry={HIGH / 2 - 4}
        />
      ) : (
        <rect
          className="fill-case stroke-soft"
          strokeWidth="1.5"
          x="4"
          y="4"
          width={WIDE - 8}
          height={HIGH - 8}
          rx="14"
        />
      )}
      {group.pattern !== "any order" && (
        <path
          className="stroke-blue fill-none"
          strokeWidth="1.2"
          strokeDasharray="4 5"
          opacity="0.7"
          d={`M${path.map((p) => p.join(" ")).join("L")}`}
        />
      )}
      {order.map((i, n) => {
        const placed = group.places[i];
        if (!placed) return null;
        const [x, y] = px(placed.at);
        return (
          <g key={i}>
            <circle
              className={placed.unreached ? "fill-paper stroke-ink" : "fill-steel stroke-ink"}
              strokeDasharray={placed.unreached ? "4 3" : undefined}
              strokeWidth="1.5"
              cx={x}
              cy={y}
              r="16"
            />
            <text x={x} y={y + 6} textAnchor="middle" fontSize="17" fontWeight="700">
              {n + 1}
            </text>
            {many && placed.length !== undefined && (
              <text x={x} y={y + 31} textAnchor="middle" fontSize="13">
                {lengthText(placed.length, unit)}
              </text>
            )}
          </g>
        );
      })}
    </svg>
  );
}

/** Where check balls lie in this version, and where air goes in. */
function Faces() {
  const { applied, unit } = useBookView();
  const { checkBalls = [], airChecks = [] } = applied.unit;
  return (
    <div className="mt-3 grid grid-cols-2 items-start gap-3">
      {checkBalls.length > 0 && (
        <section className="plate p-5" id="balls-all">
          <h2 className="mb-2 text-xl font-bold">Check balls: {checkBalls.length} in this version</h2>
          <svg
            viewBox={`0 0 ${WIDE} ${HIGH}`}
            className="w-full"
            role="img"
            aria-label={`${checkBalls.length} check balls in their places`}
          >
            <rect
              className="fill-case stroke-soft"
              strokeWidth="1.5"
              x="4"
              y="4"
              width={WIDE - 8}
              height={HIGH - 8}
              rx="14"
            />
            {checkBalls.map(({ id, at, material }, i) => {
              const [x, y] = px(at);
              return (
                <g key={id}>
                  <circle
                    className={`${material === "steel" ? "fill-steel" : "fill-brass"} stroke-ink`}
                    strokeWidth="1.5"
                    cx={x}
                    cy={y}
                    r="13"
                  />
                  <text x={x} y={y + 5} textAnchor="middle" fontSize="15" fontWeight="700">
                    {i + 1}
                  </text>
                </g>
              );
            })}
          </svg>
          <ol className="mt-2 grid grid-cols-2 gap-x-4">
            {checkBalls.map(({ id, name, size, material }, i) => (
              <li key={id}>
                <b>{i + 1}</b> {name ?? id.replaceAll("-", " ")}, {lengthText(size, unit)} {material}
              </li>
            ))}
          </ol>
        </section>
      )}
      {airChecks.length > 0 && (
        <section className="plate p-5">
          <h2 className="mb-2 text-xl font-bold">Air checks</h2>
          <p className="mb-2">
            Regulate the air, keep hands off the piston’s path, hold the piston, eye protection.
          </p>
          <table className="w-full">
            <tbody>
              {airChecks.map(({ element, port, pressure, expect, hiss }) => (
                <tr
                  key={element}
                  id={`air-${element}`}
                  className="border-base-300 border-t align-top target:outline-3"
                >
                  <th scope="row" className="py-1.5 pr-3 text-left text-lg">
                    {element.toUpperCase()}
                  </th>
                  <td className="py-1.5">
                    {port}: {expect}
                    {hiss && <span className="quiet block text-sm">belongs there: {hiss}</span>}
                  </td>
                  <td className="figure py-1.5 text-right whitespace-nowrap">{shownIn(pressure, unit)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
    </div>
  );
}
