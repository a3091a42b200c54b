import { drawStack, GAP_DRAWN, type Plate } from "~core/pack";
import { roundedText, type LengthUnit, type Nm } from "~core/quantity";

const WIDTH = 640;
const TOP = 52;
const HALF = 84;

const FILL = {
  piston: "fill-piston",
  "apply plate": "fill-reaction",
  "waved plate": "fill-steel",
  "cushion plate": "fill-steel",
  steel: "fill-steel",
  friction: "fill-friction",
  "reaction plate": "fill-reaction",
  ring: "fill-brass",
  gap: "fill-paper",
} as const;

const STANDS = {
  in: "stroke-ink",
  next: "stroke-primary stroke-3",
  later: "stroke-soft opacity-25",
} as const;

/** A pack to scale from the piston outwards; the gap is drawn wider than it is and says so. */
export function Stack({
  plates,
  gap,
  ring,
  unit,
  caption,
  predicted = false,
  selective = "ring",
  stands,
  onTouch,
}: {
  plates: readonly Plate[];
  gap: Nm | null;
  ring: Nm | null;
  unit: LengthUnit;
  caption: string;
  /** Whether gap and ring are a candidate's, not what is in. */
  predicted?: boolean;
  /** What closes it: a ring stands in its groove, anything else lies among the plates. */
  selective?: string;
  /** While it is put together: what is in, what is next, what comes later. */
  stands?: (place: number) => "in" | "next" | "later";
  /** A plate touched, by its place. */
  onTouch?: (place: number) => void;
}) {
  const { pieces, length } = drawStack(plates, gap, ring);
  // Room for the piston on the left and the drum's lip beyond the ring.
  const scale = (WIDTH - 150) / Math.max(length, 1);
  const x = (at: number): number => 60 + at * scale;
  const steels = plates.filter(({ role }) => role === "steel").length;
  const frictions = plates.filter(({ role }) => role === "friction").length;
  const words = `${caption}: ${frictions} frictions, ${steels} steels${gap === null ? "" : `, gap ${roundedText(gap, unit)}`}${ring === null ? "" : `, ${selective} ${roundedText(ring, unit)}`}`;
  return (
    <svg viewBox={`0 0 ${WIDTH} ${TOP + HALF + 58}`} className="w-full" role="img" aria-label={words}>
      {/* the drum's wall with the ring groove */}
      <path
        className="fill-case stroke-soft"
        strokeWidth="1.5"
        d={`M8 ${TOP - 18}H${x(length) + 34}v16H8z`}
      />
      {/* the piston with its lip seal */}
      <path className="fill-piston" d={`M26 ${TOP + 6}h28v${HALF - 12}h-16v-14h-12z`} />
      <path className="stroke-ink fill-none" strokeWidth="2.5" d={`M26 ${TOP + 12}l-7-6`} />
      {pieces.map((piece, i) => {
        const from = x(piece.from);
        const wide = Math.max(x(piece.to) - from, 1.5);
        if (piece.kind === "gap")
          return (
            <Gap
              key={i}
              from={from}
              wide={wide}
              label={roundedText(piece.thickness, unit)}
              predicted={predicted}
            />
          );
        if (piece.kind === "ring") {
          return (
            <g key={i}>
              {selective === "ring" ? (
                <rect className="fill-brass" x={from} y={TOP - 16} width={wide} height={40} />
              ) : (
                <rect className="fill-brass stroke-ink" x={from} y={TOP + 2} width={wide} height={HALF - 2} />
              )}
              <text
                textAnchor="middle"
                x={from + wide / 2}
                y={TOP + HALF + 44}
                fontSize="15"
                fontWeight="700"
              >
                {roundedText(piece.thickness, unit)}
              </text>
              <path
                className="stroke-soft"
                strokeWidth="1.5"
                strokeDasharray="2 3"
                d={`M${from + wide / 2} ${TOP + 26}v${HALF + 2}`}
              />
            </g>
          );
        }
        // Steels are lugged outside and reach the drum; frictions are splined inside and stand lower.
        const outer = piece.kind === "friction" ? TOP + 16 : TOP + 2;
        const inner = piece.kind === "friction" ? TOP + HALF + 12 : TOP + HALF;
        const look = stands ? STANDS[stands(i)] : "stroke-ink";
        if (piece.kind === "waved plate") {
          return (
            <path
              key={i}
              className={`${look} fill-steel`}
              strokeWidth="1"
              onClick={onTouch && (() => onTouch(i))}
              d={waved(from, wide, outer, inner)}
            />
          );
        }
        return (
          <rect
            key={i}
            className={`${FILL[piece.kind]} ${look}`}
            strokeWidth="1"
            onClick={onTouch && (() => onTouch(i))}
            x={from}
            y={outer}
            width={wide}
            height={inner - outer}
          />
        );
      })}
      <path
        className="stroke-soft fill-none"
        strokeWidth="1.5"
        d={`M8 ${TOP + HALF + 20}H${x(length) + 34}`}
      />
      <text className="stamp" x="8" y={TOP + HALF + 44}>
        {caption} · {frictions} F + {steels} S{gap !== null && ` · gap drawn ×${GAP_DRAWN}`}
        {plates.some(({ thickness }) => thickness === null) && " · plates not to scale"}
      </text>
    </svg>
  );
}

function Gap({
  from,
  wide,
  label,
  predicted,
}: {
  from: number;
  wide: number;
  label: string;
  predicted: boolean;
}) {
  const middle = from + wide / 2;
  return (
    <g>
      <rect
        className={predicted ? "stroke-blue fill-none" : "fill-none stroke-soft"}
        strokeWidth="1.5"
        strokeDasharray={predicted ? "5 4" : undefined}
        x={from}
        y={TOP + 2}
        width={wide}
        height={HALF - 2}
      />
      <path
        className="stroke-blue fill-none"
        strokeWidth="2.5"
        d={`M${from + 2} ${TOP + 56}H${from + wide - 2}m-7-5l7 5-7 5M${from + 9} ${TOP + 51}l-7 5 7 5`}
      />
      <path className="stroke-blue" strokeWidth="1.5" d={`M${middle} ${TOP - 24}V${TOP + 52}`} />
      <text textAnchor="middle" x={middle} y={TOP - 30} fontSize="18" fontWeight="700">
        {label}
      </text>
    </g>
  );
}

/** A waved plate: the same width all along, swinging to both sides. */
function waved(from: number, wide: number, top: number, bottom: number): string {
  const swing = Math.min(4, wide / 2);
  const quarter = (bottom - top) / 4;
  const half = quarter / 2;
  const side = (sign: 1 | -1): string =>
    `q${swing * sign} ${half * sign} 0 ${quarter * sign}q${-swing * sign} ${half * sign} 0 ${quarter * sign}`.repeat(
      2,
    );
  return `M${from} ${top}${side(1)}h${wide}${side(-1)}z`;
}
