import { limitWords } from "~core/book";
import { roundedText, type LengthUnit, type Nm } from "~core/quantity";
import { ends, isSpread, isStated, type Assessment, type Estimate, type Limits } from "~core/reading";
import type { Target } from "~core/select";

/** Something drawn above the scale: a prediction, never drawn like a measurement. */
export interface Predicted {
  label: string;
  estimate: Estimate;
}

const WIDTH = 720;
const LEFT = 24;
const RIGHT = WIDTH - 24;
const BASE = 96;

/** Where lengths fall on the drawing: the band with more than half its width on both sides, wider if readings lie out there. */
function scaleFor({ min, max }: Limits, lengths: readonly number[]): (length: number) => number {
  const known = [...lengths, ...[min, max].filter((limit) => limit !== undefined)];
  // Of what has no range, what was read is one.
  const [first, last] = [min ?? Math.min(...known), max ?? Math.max(...known)];
  const width = Math.max(last - first, NARROW);
  const spec = { min: known.length > 0 ? first : 0, max: known.length > 0 ? last : 0 };
  const far = 2.2 * width;
  const low = Math.max(
    spec.min - far,
    Math.min(spec.min - 0.6 * width, ...lengths.map((l) => l - 0.1 * width)),
  );
  const high = Math.min(
    spec.max + far,
    Math.max(spec.max + 0.6 * width, ...lengths.map((l) => l + 0.1 * width)),
  );
  return (length) => LEFT + ((Math.min(high, Math.max(low, length)) - low) / (high - low)) * (RIGHT - LEFT);
}

/** A range that is none is drawn as wide as this: a tenth of a millimetre. */
const NARROW = 100_000;

/** How every verdict is shown: the spec as a band, the target, each reading as a mark, the mean with its uncertainty. */
export function Rule({
  spec,
  target,
  assessment,
  predicted = [],
  unit,
}: {
  spec: Limits;
  target: Target;
  assessment: Assessment;
  predicted?: Predicted[];
  unit: LengthUnit;
}) {
  const { estimate, marks } = assessment;
  const read = marks.flatMap(({ low, high }) => [low, high].filter((end): end is Nm => end !== undefined));
  const at = scaleFor(spec, [...read, ...predicted.map((p) => p.estimate.mean)]);
  const show = (length: Nm): string => roundedText(length, unit);
  const summary = estimate
    ? `mean ${show(estimate.mean)}, plus or minus ${show(estimate.expanded)}, ${estimate.count} readings`
    : "no readings yet";
  const { min, max } = ends(spec);
  const height = predicted.length > 0 ? 172 : 150;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${height}`}
      className="w-full"
      role="img"
      aria-label={`${isStated(spec) ? `Spec ${limitWords(spec, unit)}` : "No limit known"}; ${summary}`}
    >
      {isStated(spec) ? (
        <rect className="fill-band" x={at(min)} y={BASE - 62} width={at(max) - at(min)} height={62} />
      ) : (
        <text className="stamp" textAnchor="middle" x={WIDTH / 2} y={BASE - 62}>
          no limit known: what is read stands for itself
        </text>
      )}
      <Ticks spec={spec} at={at} />
      {spec.min !== undefined && <Limit x={at(spec.min)} word="min" label={show(spec.min)} anchor="end" />}
      {spec.max !== undefined && <Limit x={at(spec.max)} word="max" label={show(spec.max)} anchor="start" />}
      {target.kind === "at" && (
        <g>
          <path
            className="stroke-brass fill-none"
            strokeWidth="2.5"
            strokeDasharray="7 4"
            d={`M${at(target.length)} ${BASE - 74}v${74}`}
          />
          <text className="stamp" textAnchor="middle" x={at(target.length)} y={BASE - 80}>
            target {show(target.length)}
          </text>
        </g>
      )}
      <path className="stroke-ink fill-none" strokeWidth="2" d={`M${LEFT} ${BASE}H${RIGHT}`} />
      {marks.map((mark, i) => (
        <ReadingMark key={i} mark={mark} at={at} />
      ))}
      {estimate && <Mean estimate={estimate} at={at} />}
      {predicted.map(({ label, estimate: guess }, i) => (
        <g key={i}>
          <path
            className="stroke-blue fill-none"
            strokeWidth="2"
            strokeDasharray="3 3"
            d={`M${at(guess.mean - guess.expanded)} ${BASE + 58}H${at(guess.mean + guess.expanded)}`}
          />
          <path
            className="stroke-blue fill-paper"
            strokeWidth="2.5"
            d={`M${at(guess.mean)} ${BASE + 50}l8 8-8 8-8-8z`}
          />
          <text x={at(guess.mean + guess.expanded) + 12} y={BASE + 63} fontSize="15">
            {label}
          </text>
        </g>
      ))}
    </svg>
  );
}

function Limit({
  x,
  word,
  label,
  anchor,
}: {
  x: number;
  word: string;
  label: string;
  anchor: "start" | "end";
}) {
  const away = anchor === "end" ? -8 : 8;
  return (
    <g>
      <path className="stroke-good fill-none" strokeWidth="4" d={`M${x} ${BASE - 66}v66`} />
      <text className="stamp" textAnchor={anchor} x={x + away} y={BASE - 52}>
        {word}
      </text>
      <text textAnchor={anchor} x={x + away} y={BASE - 34} fontSize="17" fontWeight="700">
        {label}
      </text>
    </g>
  );
}

/** Graduations at a tenth of the band, so that the eye can count. */
function Ticks({ spec: { min, max }, at }: { spec: Limits; at: (length: number) => number }) {
  if (min === undefined || max === undefined) return null;
  const step = (max - min) / 10;
  const ticks = Array.from({ length: 23 }, (_, i) => ({
    x: at(min + (i - 6) * step),
    long: (i - 6) % 5 === 0,
  }));
  return (
    <path
      className="stroke-soft fill-none"
      strokeWidth="1.5"
      d={ticks
        .filter(({ x }) => x > LEFT && x < RIGHT)
        .map(({ x, long }) => `M${x} ${BASE}v${long ? 12 : 7}`)
        .join("")}
    />
  );
}

/** A dial reading is a tick with a foot; a feeler's bracket a bar from blade to blade; what does not count is hollow or struck. */
function ReadingMark({ mark, at }: { mark: Assessment["marks"][number]; at: (length: number) => number }) {
  const { use, low, high } = mark;
  const from = low ?? high;
  const to = high ?? low;
  if (from === undefined || to === undefined) return null;
  const faint = use === "used" ? 1 : 0.55;
  const y = BASE - 16;
  if (from !== to || low === undefined || high === undefined) {
    const open = low === undefined ? "M-10 0l-6 5m6-5l-6-5" : high === undefined ? "M10 0l6 5m-6-5l6-5" : "";
    return (
      <g opacity={faint} transform={`translate(0 ${y})`}>
        <path
          className="stroke-ink fill-none"
          strokeWidth="3"
          d={`M${at(from)} -6v12M${at(from)} 0H${at(to)}M${at(to)} -6v12`}
        />
        {open && (
          <path
            className="stroke-ink fill-none"
            strokeWidth="2.5"
            d={open}
            transform={`translate(${at(from)} 0)`}
          />
        )}
      </g>
    );
  }
  const x = at(from);
  return (
    <g opacity={faint}>
      <circle
        className={use === "used" ? "fill-ink" : "stroke-ink fill-paper"}
        strokeWidth="2"
        cx={x}
        cy={y}
        r="5.5"
      />
      {use === "out" && <path className="stroke-bad" strokeWidth="2.5" d={`M${x - 9} ${y + 9}l18-18`} />}
    </g>
  );
}

/** The mean on the underside of the scale, with arms as long as the expanded uncertainty. */
function Mean({ estimate, at }: { estimate: Estimate; at: (length: number) => number }) {
  const x = at(estimate.mean);
  const from = at(estimate.mean - estimate.expanded);
  const to = at(estimate.mean + estimate.expanded);
  return (
    <g>
      <path className="fill-blue" d={`M${x} ${BASE + 2}l9 16h-18z`} />
      {isSpread(estimate) && (
        <path
          className="stroke-blue fill-none"
          strokeWidth="3.5"
          d={`M${from} ${BASE + 20}v14M${from} ${BASE + 27}H${to}M${to} ${BASE + 20}v14`}
        />
      )}
    </g>
  );
}
