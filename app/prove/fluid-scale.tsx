import { useId } from "react";
import type { Procedure } from "~core/book";
import type { Told } from "~core/fact";
import type { Typed } from "./use-typed";
import { baseOf, limitsText, measureText, parseMeasure, toNumber, type Measure } from "~core/quantity";

const WIDTH = 720;
const celsius = (measure: Measure): number => toNumber(baseOf(measure));

/** How warm the fluid is, as large as it can be read, in its window; typed where no vehicle tells it. */
export function FluidScale({
  procedure: { window },
  told,
  typed,
  asksRevs,
}: {
  procedure: Procedure;
  told: Told;
  /** Where figures are typed; null where the vehicle tells them. */
  typed: Typed | null;
  asksRevs: boolean;
}) {
  const read = parseMeasure(told.fluid ?? "", "temperature", window?.from.unit ?? "°C");
  const unit = window?.from.unit ?? "°C";
  return (
    <div className="plate flex items-center gap-5 px-4 py-2">
      {typed ? (
        <>
          <Entry of="fluid" label="Fluid" unit={unit} typed={typed} />
          {asksRevs && <Entry of="revs" label="Engine" unit="rpm" typed={typed} />}
        </>
      ) : (
        <p className="figure shrink-0 text-[3.4rem] leading-none" data-fluid={told.fluid}>
          {read.ok ? measureText(read.measure, unit) : told.fluid}
        </p>
      )}
      {window && (
        <svg
          viewBox={`0 0 ${WIDTH} 60`}
          className="min-w-0 grow"
          role="img"
          aria-label={`Window ${limitsText(window.from, window.to)}`}
        >
          <Scale window={window} now={read.ok ? celsius(read.measure) : null} />
        </svg>
      )}
    </div>
  );
}

function Entry({
  of,
  label,
  unit,
  typed: { raw, problems, type },
}: {
  of: "fluid" | "revs";
  label: string;
  unit: string;
  typed: Typed;
}) {
  const id = useId();
  const problem = problems[of];
  return (
    <div className="shrink-0">
      <label className="flex items-center gap-2 text-xl">
        {label}
        <input
          className={`input touch figure h-16 w-36 text-3xl ${problem ? "input-error" : ""}`}
          inputMode="decimal"
          autoComplete="off"
          aria-label={`${label}, ${unit}`}
          aria-invalid={problem ? true : undefined}
          aria-describedby={problem ? id : undefined}
          placeholder={unit}
          value={raw[of]}
          onChange={({ currentTarget }) => type(of, currentTarget.value)}
        />
      </label>
      {problem && (
        <p id={id} role="alert" className="text-error w-64 text-sm font-semibold">
          {problem}
        </p>
      )}
    </div>
  );
}

function Scale({ window, now }: { window: NonNullable<Procedure["window"]>; now: number | null }) {
  const [from, to] = [celsius(window.from), celsius(window.to)];
  const [low, high] = [from - (to - from) * 1.5, to + (to - from) * 1.5];
  const at = (value: number): number =>
    10 + ((Math.min(high, Math.max(low, value)) - low) / (high - low)) * (WIDTH - 20);
  const inside = now !== null && now >= from && now <= to;
  return (
    <>
      <rect x={10} y={20} width={WIDTH - 20} height={16} rx={3} className="fill-base-300" />
      <rect
        x={at(from)}
        y={14}
        width={at(to) - at(from)}
        height={28}
        rx={3}
        className="fill-success"
        opacity={0.45}
      />
      {[window.from, window.to].map((limit) => (
        <text
          key={limit.figure}
          x={at(celsius(limit))}
          y={57}
          textAnchor="middle"
          className="fill-base-content text-[15px] font-semibold"
        >
          {limit.figure} {limit.unit}
        </text>
      ))}
      {now !== null && (
        <path
          d={`M ${at(now)} 36 l -10 -26 h 20 z`}
          className={inside ? "fill-success" : "fill-error"}
          data-mark={inside ? "inside" : "outside"}
        />
      )}
    </>
  );
}
