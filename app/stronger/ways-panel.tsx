import { Link } from "react-router";
import type { ElementCapacity, PlateStart, StrongerPlan } from "~core/capacity";
import { isOfPlates } from "~core/capacity";
import type { StrongerWay, UnitSystem } from "~core/book";
import { shownIn } from "~core/book";
import { lengthText, rangeText } from "~core/quantity";
import { riseText, torqueText } from "./figures";
import { useJobView } from "~/view/view";
import { searchOf, stackIn, stackText, type Asked } from "./wish";

/** What can be done to one element, and what comes of it. */
export function WaysPanel({
  name,
  of,
  ways,
  plan,
  asked,
  unit,
  closed,
}: {
  name: string;
  of: ElementCapacity;
  ways: readonly StrongerWay[];
  plan: StrongerPlan;
  asked: Asked;
  unit: UnitSystem;
  closed: boolean;
}) {
  const { element } = of;
  const toggled = (id: string): string => {
    const known = asked.wish.ways;
    return searchOf(asked, element.id, {
      ways: known.includes(id) ? known.filter((one) => one !== id) : [...known, id],
    });
  };
  return (
    <section className="plate px-4 py-2" aria-label={`Ways for ${name}`}>
      <h2 className="text-xl font-bold">{name}</h2>
      <Demands of={of} unit={unit} />
      {ways.length === 0 && <p className="quiet my-2">The book names no way to make it stronger.</p>}
      <ul className="mt-2 grid gap-1">
        {ways.map((way) => {
          const isOn = asked.wish.ways.includes(way.id);
          const isIdle = isOn && !plan.ways.includes(way.id);
          return (
            <li key={way.id} data-way={way.id}>
              <Link
                to={toggled(way.id)}
                replace
                preventScrollReset
                role="checkbox"
                aria-checked={isOn}
                aria-disabled={closed}
                className={`touch flex items-start gap-3 rounded border-2 px-3 py-1.5 leading-tight ${isOn ? "border-primary bg-base-200" : "border-base-300"}`}
              >
                <span aria-hidden="true" className="text-xl leading-none">
                  {isOn ? "☑" : "☐"}
                </span>
                <span>
                  <b>{way.name}</b> <span className="quiet text-sm">{effectOf(way, unit)}</span>
                  {isIdle && (
                    <span className="text-warning block text-sm font-semibold">
                      {isOfPlates(way)
                        ? "not needed for the stack below, or no more fit with it"
                        : "changes nothing here"}
                    </span>
                  )}
                  {isOn && way.harsh && (
                    <span className="block text-sm">
                      Felt: {way.harsh}.{way.softer && ` Softer: ${way.softer}.`}
                    </span>
                  )}
                  {isOn &&
                    way.against?.map(({ what, is }) => (
                      <span
                        key={what}
                        className={`block text-sm ${is === "forbidden" ? "text-error font-bold" : ""}`}
                      >
                        {what}: <b>{is}</b>
                      </span>
                    ))}
                  {isOn && <OilWay way={way} />}
                  {isOn &&
                    (way.proofs ?? []).map((text) => (
                      <span key={text} className="block text-sm">
                        Then see: {text}
                      </span>
                    ))}
                </span>
              </Link>
              {isOn && way.turns && <Turns way={way} asked={asked} at={element.id} />}
            </li>
          );
        })}
      </ul>
      <Turning of={of} unit={unit} />
    </section>
  );
}

/** What a way changes in the way of the oil: along what it runs, and what shuts it. */
function OilWay({ way: { oil, oilWay } }: { way: StrongerWay }) {
  const { applied } = useJobView();
  const path = applied.present.lubrication?.find(({ id }) => id === oilWay);
  if (!oil && !path) return null;
  return (
    <span className="block text-sm" data-oil-way={oilWay ?? ""}>
      <b>Oil:</b> {oil}
      {path && (
        <span className="block">
          {[path.from, ...path.through, path.to].join(" → ")}; shut by {path.closedBy}
        </span>
      )}
    </span>
  );
}

/** What it must carry, range by range, the heaviest first. */
function Demands({ of: { demands }, unit }: { of: ElementCapacity; unit: UnitSystem }) {
  const loaded = demands.filter(({ torque }) => torque > 0);
  if (loaded.length === 0)
    return <p className="quiet">Under engine braking only: the gear train gives it no drive to carry.</p>;
  return (
    <p className="text-sm leading-tight">
      Must carry{" "}
      {loaded.map(({ range, torque, share }, i) => (
        <span key={range}>
          {i > 0 && ", "}
          <b>{torqueText(torque, unit)}</b> in {range}{" "}
          <span className="quiet">({Math.abs(share).toFixed(2)} of the input)</span>
        </span>
      ))}
    </p>
  );
}

function Turns({ way, asked, at }: { way: StrongerWay; asked: Asked; at: string }) {
  const most = way.turns?.most ?? 0;
  return (
    <p className="mt-1 flex flex-wrap items-center gap-1">
      <span className="stamp">Turns</span>
      {Array.from({ length: Math.floor(most) }, (_, i) => i + 1).map((turns) => (
        <Link
          key={turns}
          to={searchOf(asked, at, { turns })}
          replace
          preventScrollReset
          aria-current={asked.wish.turns === turns ? "true" : undefined}
          className={`btn touch min-w-12 px-2 ${asked.wish.turns === turns ? "btn-secondary" : ""}`}
        >
          {turns}
        </Link>
      ))}
    </p>
  );
}

/** The stacks of one pack that fit, and what each asks for. */
export function Stacks({
  name,
  plan,
  at,
  asked,
  unit,
  start,
}: {
  name: string;
  plan: StrongerPlan;
  at: string;
  asked: Asked;
  unit: UnitSystem;
  /** How this very drum measures; null where nobody has read it with a known piece in. */
  start: PlateStart | null;
}) {
  const fitting = plan.fitting.get(at) ?? [];
  const chosen = plan.packs.find((one) => one.element === at);
  const inPlan = chosen && stackIn(chosen.plates);
  if (fitting.length === 0) return null;
  return (
    <section className="plate px-4 py-2" aria-label={`Stacks of ${name}`}>
      <h2 className="stamp mb-1" data-start={start ? "measured" : "book"}>
        {name}: stacks that fit,{" "}
        {start
          ? `by this drum: ${lengthText(start.gap, unit)} read with ${start.ring === null ? "nothing chosen" : lengthText(start.ring, unit)} in`
          : "by the book’s drawing"}
      </h2>
      <ul className="grid grid-cols-2 gap-2">
        {fitting.map(({ frictions, steels, isSprung, cut, gap, limits, ring, ways }) => {
          const isOn = inPlan
            ? inPlan.frictions === frictions && inPlan.isSprung === isSprung
            : ways.length === 0;
          const packs = new Map([...asked.wish.packs, [at, { frictions, isSprung }] as const]);
          return (
            <li key={`${frictions} ${isSprung}`} data-stack={stackText({ frictions, isSprung })}>
              <Link
                to={searchOf(asked, at, { packs })}
                replace
                preventScrollReset
                aria-current={isOn ? "true" : undefined}
                className="touch border-base-300 aria-[current]:border-primary aria-[current]:bg-base-200 flex items-center gap-3 rounded border-2 px-3 py-1 leading-tight"
              >
                <b className="text-2xl">{frictions}</b>
                <span className="text-sm">
                  frictions, {steels} steels{isSprung ? ", wave kept" : ""}
                  {cut > 0 && `, ${lengthText(cut, unit)} of metal off`}
                  {ring && `, piece ${ring.mark}`}
                  <span className="quiet block">
                    clearance {lengthText(gap, unit)} in {rangeText(limits.min, limits.max, unit)}
                  </span>
                </span>
              </Link>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** Heat, speed and what the fluid that turns along does. */
function Turning({ of: { stock, planned }, unit }: { of: ElementCapacity; unit: UnitSystem }) {
  const [was, will] = [stock.shift, planned?.shift];
  const drags = stock.drags;
  if (!was && !drags) return null;
  return (
    <ul className="mt-2 list-disc pl-5 text-sm leading-snug">
      {was && (
        <li>
          {was.from} to {was.to} at full throttle: steels {riseText(was.rise, unit)} warmer
          {will && will.rise !== was.rise && <b>, {riseText(will.rise, unit)} as planned</b>}; facings at{" "}
          {Math.round(was.edge)} m/s
        </li>
      )}
      {drags && (
        <li>
          with a plugged bleed it drags from {Math.round(drags.input / 50) * 50} 1/min of the input, in{" "}
          {drags.range}
        </li>
      )}
    </ul>
  );
}

/** What a way does, in figures. */
function effectOf(way: StrongerWay, unit: UnitSystem): string {
  const { steels, frictions, apply, reaction, cut, area, friction, pressure, turns, carries, work } = way;
  const plate = steels ?? frictions ?? apply ?? reaction;
  return [
    plate && lengthText(plate.thickness, unit),
    frictions?.friction && `grips ${frictions.friction}`,
    friction && `grips ${friction}`,
    cut && `up to ${lengthText(cut.most, unit)}${work ? `; ${work}` : ""}`,
    area && shownIn(area, unit),
    pressure && shownIn(pressure, unit),
    turns && `${shownIn(turns.each, unit)} a turn`,
    carries && shownIn(carries, unit),
  ]
    .filter(Boolean)
    .join(" · ");
}
