import type { Station } from "~core/book";
import { path, type Layout } from "./unit-layout";

interface ShapeProps {
  station: Station;
  layout: Layout;
  current?: boolean;
  quiet?: boolean;
  /** Whether its name stands above it. */
  named: boolean;
}

/** A station by its kind, the same above and below its shaft. */
export function StationShape({ station, layout, current = false, quiet = false, named }: ShapeProps) {
  const { x, middle, half } = layout;
  const from = x(station.from);
  const wide = x(station.to) - from;
  const line = station.line ?? 0;
  const reach = (station.reach / 100) * half(line);
  const stroke = current ? "stroke-blue" : quiet ? "stroke-soft" : "stroke-ink";
  return (
    <g opacity={quiet ? 0.55 : undefined}>
      <g
        className={stroke}
        strokeWidth={current ? 3 : 1.5}
        transform={path`translate(${from} ${middle(line)})`}
      >
        {SHAPES[station.kind].map(({ fill, thick, half: of }, i) => (
          <path key={i} className={fill} strokeWidth={thick} d={of(wide, -reach, -1) + of(wide, reach, 1)} />
        ))}
      </g>
      {named && (
        <text
          className="stamp"
          textAnchor="middle"
          x={Math.round(from + wide / 2)}
          y={middle(line) - half(line) - (layout.raised.has(station.id) ? 28 : 12)}
          opacity="0.8"
        >
          {station.name}
        </text>
      )}
    </g>
  );
}

/** All of one colour in a kind of station: one outline, for a page has a dozen stations and each thing in it costs. */
interface Piece {
  fill: string;
  /** How thick its lines are, where not as the station’s. */
  thick?: number;
  /**
   * One half of it.
   *
   * @param w how wide the station is.
   * @param r how far it reaches from its shaft, below nothing for the half above.
   * @param s one pixel that way.
   */
  half: (w: number, r: number, s: number) => string;
}

const box = (x: number, y: number, w: number, h: number): string => path`M${x} ${y}h${w}v${h}h${-w}z`;

/** So many plates stand for those of a pack, steels and frictions by turns. */
const PLATES = 8;

/** Each kind of station from below upwards. */
export const SHAPES: Readonly<Record<Station["kind"], readonly Piece[]>> = {
  converter: [
    {
      fill: "fill-piston",
      half: (w, r, s) =>
        path`M0 ${4 * s}V${r * 0.5}Q${w * 0.1} ${r} ${w * 0.45} ${r}Q${w * 0.95} ${r} ${w} ${r * 0.45}V${4 * s}z`,
    },
  ],
  pump: [
    {
      fill: "fill-reaction",
      half: (w, r, s) => path`M0 ${4 * s}V${r}H${w * 0.55}V${r * 0.45}H${w}V${4 * s}z`,
    },
  ],
  "gear set": [
    {
      fill: "fill-steel",
      half: (w, r, s) =>
        box(w * 0.12, 4 * s, w * 0.76, r * 0.26) + box(w * 0.05, r * 0.76, w * 0.9, r * 0.24),
    },
    { fill: "fill-paper", half: (w, r) => box(w * 0.24, r * 0.34, w * 0.52, r * 0.34) },
  ],
  drum: [
    {
      fill: "fill-piston",
      half: (w, r, s) => path`M0 ${4 * s}V${r}H${w}V${r * 0.86}H${w * 0.14}V${4 * s}z`,
    },
    ...plates(0.4, 0.8, 0.24),
  ],
  brake: [
    { fill: "fill-reaction", half: (w, r) => path`M0 ${r * 0.98}V${r}H${w}V${r * 0.86}H0z` },
    ...plates(0.46, 0.9, 0.08),
  ],
  support: [
    { fill: "fill-reaction", half: (w, r, s) => path`M${w * 0.3} ${4 * s}V${r}H${w * 0.7}V${4 * s}z` },
  ],
  band: [
    {
      fill: "fill-piston",
      half: (w, r, s) => path`M0 ${4 * s}V${r * 0.82}H${w}V${r * 0.7}H${w * 0.14}V${4 * s}z`,
    },
    { fill: "fill-friction", half: (w, r) => box(w * 0.06, r * 0.84, w * 0.88, r * 0.1) },
    { fill: "fill-steel", half: (w, r) => box(0, r * 0.94, w, r * 0.06) },
  ],
  clutch: [
    {
      fill: "fill-reaction",
      half: (w, r, s) => path`M0 ${4 * s}V${r}H${w * 0.2}V${r * 0.5}H${w * 0.3}V${4 * s}z`,
    },
    ...plates(0.5, 0.96, 0.3),
  ],
  shaft: [{ fill: "fill-steel", half: (w, r) => box(0, 0, w, r) }],
  pulley: [
    {
      fill: "fill-piston",
      half: (w, r, s) =>
        path`M0 ${2 * s}V${r}H${w * 0.12}L${w * 0.36} ${6 * s}V${2 * s}z` +
        path`M${w} ${2 * s}V${r}H${w * 0.88}L${w * 0.64} ${6 * s}V${2 * s}z`,
    },
    {
      fill: "fill-friction",
      half: (w, r) => path`M${w * 0.25} ${r * 0.62}H${w * 0.75}L${w * 0.68} ${r * 0.44}H${w * 0.32}z`,
    },
  ],
  fork: [
    {
      fill: "fill-steel",
      half: (w, r) =>
        box(0, 0, w, r * 0.3) +
        [0.1, 0.5, 0.9].map((at) => box(w * (at - 0.06), r * 0.3, w * 0.12, r * 0.5)).join(""),
    },
    {
      fill: "fill-reaction",
      half: (w, r) => [0.3, 0.7].map((at) => box(w * (at - 0.06), r * 0.3, w * 0.12, r * 0.36)).join(""),
    },
    {
      fill: "fill-brass",
      thick: 1,
      half: (w, r) => [0.3, 0.7].map((at) => box(w * (at - 0.012), r * 0.56, w * 0.024, r * 0.44)).join(""),
    },
  ],
  transfer: [
    {
      fill: "fill-steel",
      half: (w, r, s) =>
        box(0, 2 * s, w, r * 0.3) +
        box(w * 0.08, 2 * s, w * 0.26, r) +
        box(w * 0.68, 2 * s, w * 0.2, r * 0.6),
    },
  ],
  differential: [
    {
      fill: "fill-reaction",
      half: (w, r, s) =>
        path`M${w * 0.12} ${2 * s}V${r * 0.5}Q${w * 0.5} ${r * 0.86} ${w * 0.88} ${r * 0.5}V${2 * s}z`,
    },
    { fill: "fill-steel", half: (w, r) => box(w * 0.66, r * 0.3, w * 0.18, r * 0.7) },
  ],
  control: [
    { fill: "fill-reaction", half: (w, r) => box(0, 0, w, r) },
    {
      fill: "fill-paper",
      half: (w, r) =>
        [0.14, 0.38, 0.62, 0.86].map((at) => box(w * (at - 0.05), r * 0.2, w * 0.1, r * 0.5)).join(""),
    },
  ],
  "park lock": [
    {
      fill: "fill-steel",
      half: (w, r, s) =>
        path`M0 ${2 * s}V${r * 0.7}L${w * 0.25} ${r}V${r * 0.7}L${w * 0.5} ${r}V${r * 0.7}L${w * 0.75} ${r}V${r * 0.7}H${w}V${2 * s}z`,
    },
  ],
  output: [{ fill: "fill-piston", half: (w, r) => path`M0 0V${r}H${w * 0.7}V${r * 0.7}H${w}V0z` }],
};

/** Plates seen from the side, steels and frictions by turns. */
function plates(low: number, high: number, inset: number): Piece[] {
  const step = (0.9 - inset) / PLATES;
  return ["fill-steel", "fill-friction"].map((fill, turn) => ({
    fill,
    thick: 0.8,
    half: (w, r) =>
      Array.from({ length: PLATES / 2 }, (_, i) =>
        box(
          w * (inset + (2 * i + turn) * step),
          r * (low - (high - low) * 0.14 * turn),
          w * step * 0.8,
          r * (high - low) * (1 - 0.04 * turn),
        ),
      ).join(""),
  }));
}
