import type { Station } from "~core/book";
import { path, type Layout } from "./unit-layout";

export type Layer =
  | "piston"
  | "reaction"
  | "steel"
  | "paper"
  | "lining"
  | "steelPlates"
  | "frictionPlates"
  | "brass";

/** What a unit is drawn in, one outline for each: a page has a dozen stations, and each thing drawn costs. From below upwards. */
export const LAYERS: Readonly<Record<Layer, { fill: string; thick?: number }>> = {
  piston: { fill: "fill-piston" },
  reaction: { fill: "fill-reaction" },
  steel: { fill: "fill-steel" },
  paper: { fill: "fill-paper" },
  lining: { fill: "fill-friction" },
  steelPlates: { fill: "fill-steel", thick: 0.8 },
  frictionPlates: { fill: "fill-friction", thick: 0.8 },
  brass: { fill: "fill-brass", thick: 1 },
};

/** One half of a station, above its shaft or below it. */
interface Half {
  /** How far along it, 1 being its end. */
  x: (share: number) => number;
  /** How far from its shaft, 1 being as far as it reaches. */
  y: (share: number) => number;
  /** So many pixels from its shaft. */
  off: (pixels: number) => number;
}
type Shape = Partial<Record<Layer, (half: Half) => string>>;

const box = ({ x, y }: Half, left: number, right: number, low: number, high: number): string =>
  path`M${x(left)} ${y(low)}H${x(right)}V${y(high)}H${x(left)}z`;

const PLATES = 8;

/** Plates seen from the side, steels and frictions by turns. */
function plates(low: number, high: number, inset: number): Shape {
  const step = (0.9 - inset) / PLATES;
  const each = (half: Half, turn: 0 | 1, from: number, to: number): string =>
    Array.from({ length: PLATES / 2 }, (_, i) => {
      const left = inset + (2 * i + turn) * step;
      return box(half, left, left + step * 0.8, from, to);
    }).join("");
  return {
    steelPlates: (half) => each(half, 0, low, high),
    frictionPlates: (half) => each(half, 1, low - (high - low) * 0.14, low + (high - low) * 0.82),
  };
}

/** Each kind of station. */
export const SHAPES: Readonly<Record<Station["kind"], Shape>> = {
  converter: {
    piston: ({ x, y, off }) =>
      path`M${x(0)} ${off(4)}V${y(0.5)}Q${x(0.1)} ${y(1)} ${x(0.45)} ${y(1)}Q${x(0.95)} ${y(1)} ${x(1)} ${y(0.45)}V${off(4)}z`,
  },
  pump: {
    reaction: ({ x, y, off }) => path`M${x(0)} ${off(4)}V${y(1)}H${x(0.55)}V${y(0.45)}H${x(1)}V${off(4)}z`,
  },
  "gear set": {
    steel: (half) => box(half, 0.12, 0.88, 0.05, 0.31) + box(half, 0.05, 0.95, 0.76, 1),
    paper: (half) => box(half, 0.24, 0.76, 0.34, 0.68),
  },
  drum: {
    piston: ({ x, y, off }) => path`M${x(0)} ${off(4)}V${y(1)}H${x(1)}V${y(0.86)}H${x(0.14)}V${off(4)}z`,
    ...plates(0.4, 0.8, 0.24),
  },
  brake: {
    reaction: (half) => box(half, 0, 1, 0.86, 1),
    ...plates(0.46, 0.9, 0.08),
  },
  support: {
    reaction: ({ x, y, off }) => path`M${x(0.3)} ${off(4)}V${y(1)}H${x(0.7)}V${off(4)}z`,
  },
  band: {
    piston: ({ x, y, off }) => path`M${x(0)} ${off(4)}V${y(0.82)}H${x(1)}V${y(0.7)}H${x(0.14)}V${off(4)}z`,
    lining: (half) => box(half, 0.06, 0.94, 0.84, 0.94),
    steel: (half) => box(half, 0, 1, 0.94, 1),
  },
  clutch: {
    reaction: ({ x, y, off }) => path`M${x(0)} ${off(4)}V${y(1)}H${x(0.2)}V${y(0.5)}H${x(0.3)}V${off(4)}z`,
    ...plates(0.5, 0.96, 0.3),
  },
  shaft: { steel: (half) => box(half, 0, 1, 0, 1) },
  pulley: {
    piston: ({ x, y, off }) =>
      path`M${x(0)} ${off(2)}V${y(1)}H${x(0.12)}L${x(0.36)} ${off(6)}V${off(2)}z` +
      path`M${x(1)} ${off(2)}V${y(1)}H${x(0.88)}L${x(0.64)} ${off(6)}V${off(2)}z`,
    lining: ({ x, y }) => path`M${x(0.25)} ${y(0.62)}H${x(0.75)}L${x(0.68)} ${y(0.44)}H${x(0.32)}z`,
  },
  fork: {
    steel: (half) =>
      box(half, 0, 1, 0, 0.3) +
      [0.1, 0.5, 0.9].map((at) => box(half, at - 0.06, at + 0.06, 0.3, 0.8)).join(""),
    reaction: (half) => [0.3, 0.7].map((at) => box(half, at - 0.06, at + 0.06, 0.3, 0.66)).join(""),
    brass: (half) => [0.3, 0.7].map((at) => box(half, at - 0.012, at + 0.012, 0.56, 1)).join(""),
  },
  transfer: {
    steel: (half) =>
      box(half, 0, 1, 0.04, 0.3) + box(half, 0.08, 0.34, 0.04, 1) + box(half, 0.68, 0.88, 0.04, 0.6),
  },
  differential: {
    reaction: ({ x, y, off }) =>
      path`M${x(0.12)} ${off(2)}V${y(0.5)}Q${x(0.5)} ${y(0.86)} ${x(0.88)} ${y(0.5)}V${off(2)}z`,
    steel: (half) => box(half, 0.66, 0.84, 0.3, 1),
  },
  control: {
    reaction: (half) => box(half, 0, 1, 0, 1),
    paper: (half) => [0.14, 0.38, 0.62, 0.86].map((at) => box(half, at - 0.05, at + 0.05, 0.2, 0.7)).join(""),
  },
  "park lock": {
    steel: ({ x, y, off }) =>
      path`M${x(0)} ${off(2)}V${y(0.7)}L${x(0.25)} ${y(1)}V${y(0.7)}L${x(0.5)} ${y(1)}V${y(0.7)}L${x(0.75)} ${y(1)}V${y(0.7)}H${x(1)}V${off(2)}z`,
  },
  output: {
    piston: ({ x, y }) => path`M${x(0)} ${y(0)}V${y(1)}H${x(0.7)}V${y(0.7)}H${x(1)}V${y(0)}z`,
  },
};

type Outlines = Partial<Record<Layer, string>>;
const drawn = new WeakMap<Station, Map<string, Outlines>>();

/** A station by its kind, the same above and below its shaft: what it has in each layer, drawn once for each size. */
export function outlinesOf(station: Station, { x, middle, half }: Layout): Outlines {
  const { line = 0, from, to, reach } = station;
  const key = `${middle(line)} ${half(line)}`;
  const sizes = drawn.get(station) ?? new Map<string, Outlines>();
  const known = sizes.get(key);
  if (known) return known;
  const [left, wide] = [x(from), x(to) - x(from)];
  const halves = [-1, 1].map((side): Half => {
    const off = (pixels: number): number => middle(line) + side * pixels;
    return { x: (share) => left + share * wide, y: (share) => off(share * (reach / 100) * half(line)), off };
  });
  const made = Object.fromEntries(
    Object.entries(SHAPES[station.kind]).map(([layer, of]) => [layer, halves.map(of).join("")]),
  ) as Outlines;
  drawn.set(station, sizes.set(key, made));
  return made;
}
