import type { Chain } from "~core/book";
import { lengthText, type LengthUnit, type Nm } from "~core/quantity";

/** A link as it is drawn: what it is called, how long it is where that is known, and which way it goes. */
export interface DrawnLink {
  sign: "+" | "-";
  words: string;
  size: Nm | null;
  /** Not stated: only what it would be for a result in the middle of the range. */
  implied?: boolean;
  selective: boolean;
}

const WIDTH = 640;
const ROW = 34;
const PAD = 14;

/** However small a step is beside the others, it is seen. */
const LEAST = 44;

/** Lengths → places on the drawing, in their order; steps to scale, but none smaller than can be seen. */
function spread(lengths: readonly number[]): (length: number) => number {
  const sorted = [...new Set(lengths)].sort((a, b) => a - b);
  const room = WIDTH - 120;
  const all = (sorted.at(-1) ?? 0) - (sorted[0] ?? 0) || 1;
  const steps = sorted
    .slice(1)
    .map((length, i) => Math.max(LEAST, ((length - (sorted[i] ?? 0)) / all) * room));
  const scale =
    room /
    Math.max(
      room,
      steps.reduce((sum, step) => sum + step, 0),
    );
  const places = new Map([[sorted[0] ?? 0, 60]]);
  let at = 60;
  steps.forEach((step, i) => {
    at += step * scale;
    places.set(sorted[i + 1] ?? 0, at);
  });
  return (length) => places.get(length) ?? 60;
}

/** Each link from where the one before ended. */
const laid = (links: readonly DrawnLink[]): (DrawnLink & { from: number; to: number })[] =>
  links.reduce<(DrawnLink & { from: number; to: number })[]>((before, link) => {
    const from = before.at(-1)?.to ?? 0;
    return [...before, { ...link, from, to: from + (link.sign === "+" ? 1 : -1) * (link.size ?? 0) }];
  }, []);

/**
 * The loop of a chain: each link an arrow from where the one before ended, forwards or back; what is left over at the end is the
 * result. A link of unknown size is taken as what brings the result to the middle of its range, and drawn broken.
 */
export function Loop({
  chain,
  links,
  unit,
}: {
  chain: Chain;
  links: readonly DrawnLink[];
  unit: LengthUnit;
}) {
  const drawn = laid(links);
  const at = drawn.at(-1)?.to ?? 0;
  const x = spread([0, ...drawn.map(({ to }) => to)]);
  const height = PAD * 2 + (links.length + 1) * ROW;
  const y = (i: number): number => PAD + i * ROW + ROW / 2;
  const result = y(links.length);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${height}`}
      className="w-full"
      role="img"
      aria-label={`Loop of ${chain.name}`}
    >
      <path
        className="stroke-soft"
        strokeWidth="1.5"
        strokeDasharray="3 5"
        d={`M${x(0)} ${PAD}V${result + 8}`}
      />
      {drawn.map(({ sign, words, size, selective, implied = false, from, to }, i) => (
        <g key={i}>
          <Arrow
            from={x(from)}
            to={x(to)}
            y={y(i)}
            tone={selective ? "brass" : "ink"}
            broken={implied || size === null}
          />
          <path
            className="stroke-soft"
            strokeWidth="1"
            strokeDasharray="2 4"
            d={`M${x(to)} ${y(i)}V${y(i + 1)}`}
          />
          <LinkWords
            from={x(from)}
            to={x(to)}
            y={y(i)}
            text={`${sign === "+" ? "+" : "−"} ${words}${size !== null && !implied ? ` ${lengthText(size, unit)}` : ""}`}
          />
        </g>
      ))}
      <Arrow from={x(0)} to={x(at)} y={result} tone="blue" broken={false} />
      <text
        fontSize="15"
        fontWeight="700"
        {...beside(x(0), x(at), chain.name)}
        y={result + 5}
        className="fill-blue"
      >
        {chain.name}
      </text>
    </svg>
  );
}

/** Words right of an arrow, and left of it where the drawing ends. */
const beside = (from: number, to: number, text: string): { x: number; textAnchor: "start" | "end" } => {
  const right = Math.max(from, to) + 12;
  return right + text.length * 7.4 < WIDTH
    ? { x: right, textAnchor: "start" }
    : { x: Math.min(from, to) - 12, textAnchor: "end" };
};

/** A link's words: above its arrow, or beside it where the arrow is shorter than they are. */
function LinkWords({ from, to, y, text }: { from: number; to: number; y: number; text: string }) {
  const long = Math.abs(to - from) > text.length * 7.4;
  return (
    <text
      fontSize="15"
      {...(long ? { x: (from + to) / 2, textAnchor: "middle" } : beside(from, to, text))}
      y={long ? y - 6 : y + 5}
    >
      {text}
    </text>
  );
}

function Arrow({
  from,
  to,
  y,
  tone,
  broken,
}: {
  from: number;
  to: number;
  y: number;
  tone: string;
  broken: boolean;
}) {
  const way = to >= from ? 1 : -1;
  return (
    <g
      className={`stroke-${tone} fill-none`}
      strokeWidth={tone === "ink" ? 2 : 4}
      strokeDasharray={broken ? "10 5" : undefined}
    >
      <path d={`M${from} ${y}H${to}`} />
      <path
        strokeDasharray="none"
        strokeWidth="2"
        d={`M${to - way * 8} ${y - 4}L${to} ${y}L${to - way * 8} ${y + 4}`}
      />
      <path strokeDasharray="none" strokeWidth="1.5" d={`M${from} ${y - 5}v10`} />
    </g>
  );
}
