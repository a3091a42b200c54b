import type { ReactElement } from "react";
import type { Station } from "~core/book";
import type { Layout } from "./unit-layout";

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
    <g opacity={quiet ? 0.55 : 1}>
      {[1, -1].map((side) => (
        <g key={side} transform={`translate(${from} ${middle(line)}) scale(1 ${-side})`}>
          {SHAPES[station.kind]({ wide, reach, line: stroke, thick: current ? 3 : 1.5 })}
        </g>
      ))}
      {named && (
        <text
          className="stamp"
          textAnchor="middle"
          x={from + wide / 2}
          y={middle(line) - half(line) - (layout.raised.has(station.id) ? 28 : 12)}
          opacity="0.8"
        >
          {station.name}
        </text>
      )}
    </g>
  );
}

interface Drawn {
  wide: number;
  reach: number;
  /** The class of its lines, and how thick they are. */
  line: string;
  thick: number;
}

/** One half of each kind of station, its shaft below. */
const SHAPES: Readonly<Record<Station["kind"], (drawn: Drawn) => ReactElement>> = {
  converter: ({ wide, reach, line, thick }) => (
    <path
      className={`fill-piston ${line}`}
      strokeWidth={thick}
      d={`M0 4V${reach * 0.5}Q${wide * 0.1} ${reach} ${wide * 0.45} ${reach}Q${wide * 0.95} ${reach} ${wide} ${reach * 0.45}V4z`}
    />
  ),
  pump: ({ wide, reach, line, thick }) => (
    <path
      className={`fill-reaction ${line}`}
      strokeWidth={thick}
      d={`M0 4V${reach}H${wide * 0.55}V${reach * 0.45}H${wide}V4z`}
    />
  ),
  "gear set": ({ wide, reach, line, thick }) => (
    <g className={line} strokeWidth={thick}>
      <rect className="fill-steel" x={wide * 0.12} y="4" width={wide * 0.76} height={reach * 0.26} />
      <rect
        className="fill-paper"
        x={wide * 0.24}
        y={reach * 0.34}
        width={wide * 0.52}
        height={reach * 0.34}
      />
      <rect
        className="fill-steel"
        x={wide * 0.05}
        y={reach * 0.76}
        width={wide * 0.9}
        height={reach * 0.24}
      />
    </g>
  ),
  drum: ({ wide, reach, line, thick }) => (
    <g className={line} strokeWidth={thick}>
      <path className="fill-piston" d={`M0 4V${reach}H${wide}V${reach * 0.86}H${wide * 0.14}V4z`} />
      {plates(wide, reach * 0.4, reach * 0.8, 0.24)}
    </g>
  ),
  brake: ({ wide, reach, line, thick }) => (
    <g className={line} strokeWidth={thick}>
      <path className="fill-reaction" d={`M0 ${reach * 0.98}V${reach}H${wide}V${reach * 0.86}H0z`} />
      {plates(wide, reach * 0.46, reach * 0.9, 0.08)}
    </g>
  ),
  support: ({ wide, reach, line, thick }) => (
    <path
      className={`fill-reaction ${line}`}
      strokeWidth={thick}
      d={`M${wide * 0.3} 4V${reach}H${wide * 0.7}V4z`}
    />
  ),
  band: ({ wide, reach, line, thick }) => (
    <g className={line} strokeWidth={thick}>
      <path className="fill-piston" d={`M0 4V${reach * 0.82}H${wide}V${reach * 0.7}H${wide * 0.14}V4z`} />
      <rect
        className="fill-friction"
        x={wide * 0.06}
        y={reach * 0.84}
        width={wide * 0.88}
        height={reach * 0.1}
      />
      <rect className="fill-steel" x="0" y={reach * 0.94} width={wide} height={reach * 0.06} />
    </g>
  ),
  clutch: ({ wide, reach, line, thick }) => (
    <g className={line} strokeWidth={thick}>
      <path className="fill-reaction" d={`M0 4V${reach}H${wide * 0.2}V${reach * 0.5}H${wide * 0.3}V4z`} />
      {plates(wide, reach * 0.5, reach * 0.96, 0.3)}
    </g>
  ),
  shaft: ({ wide, reach, line, thick }) => (
    <rect className={`fill-steel ${line}`} strokeWidth={thick} x="0" y="0" width={wide} height={reach} />
  ),
  pulley: ({ wide, reach, line, thick }) => (
    <g className={line} strokeWidth={thick}>
      <path className="fill-piston" d={`M0 2V${reach}H${wide * 0.12}L${wide * 0.36} 6V2z`} />
      <path className="fill-piston" d={`M${wide} 2V${reach}H${wide * 0.88}L${wide * 0.64} 6V2z`} />
      <path
        className="fill-friction"
        d={`M${wide * 0.25} ${reach * 0.62}H${wide * 0.75}L${wide * 0.68} ${reach * 0.44}H${wide * 0.32}z`}
      />
    </g>
  ),
  fork: ({ wide, reach, line, thick }) => (
    <g className={line} strokeWidth={thick}>
      <rect className="fill-steel" x="0" y="0" width={wide} height={reach * 0.3} />
      {[0.1, 0.3, 0.5, 0.7, 0.9].map((at, i) => (
        <rect
          key={at}
          className={i % 2 === 0 ? "fill-steel" : "fill-reaction"}
          x={wide * (at - 0.06)}
          y={reach * 0.3}
          width={wide * 0.12}
          height={reach * (i % 2 === 0 ? 0.5 : 0.36)}
        />
      ))}
      {[0.3, 0.7].map((at) => (
        <path
          key={at}
          className="fill-brass"
          strokeWidth="1"
          d={`M${wide * (at - 0.012)} ${reach * 0.56}V${reach}h${wide * 0.024}V${reach * 0.56}z`}
        />
      ))}
    </g>
  ),
  transfer: ({ wide, reach, line, thick }) => (
    <g className={line} strokeWidth={thick}>
      <rect className="fill-steel" x="0" y="2" width={wide} height={reach * 0.3} />
      <rect className="fill-steel" x={wide * 0.08} y="2" width={wide * 0.26} height={reach} />
      <rect className="fill-steel" x={wide * 0.68} y="2" width={wide * 0.2} height={reach * 0.6} />
    </g>
  ),
  differential: ({ wide, reach, line, thick }) => (
    <g className={line} strokeWidth={thick}>
      <path
        className="fill-reaction"
        d={`M${wide * 0.12} 2V${reach * 0.5}Q${wide * 0.5} ${reach * 0.86} ${wide * 0.88} ${reach * 0.5}V2z`}
      />
      <rect className="fill-steel" x={wide * 0.66} y={reach * 0.3} width={wide * 0.18} height={reach * 0.7} />
    </g>
  ),
  control: ({ wide, reach, line, thick }) => (
    <g className={line} strokeWidth={thick}>
      <rect className="fill-reaction" x="0" y="0" width={wide} height={reach} />
      {[0.14, 0.38, 0.62, 0.86].map((at) => (
        <rect
          key={at}
          className="fill-paper"
          x={wide * (at - 0.05)}
          y={reach * 0.2}
          width={wide * 0.1}
          height={reach * 0.5}
        />
      ))}
    </g>
  ),
  "park lock": ({ wide, reach, line, thick }) => (
    <path
      className={`fill-steel ${line}`}
      strokeWidth={thick}
      d={`M0 2V${reach * 0.7}L${wide * 0.25} ${reach}V${reach * 0.7}L${wide * 0.5} ${reach}V${reach * 0.7}L${wide * 0.75} ${reach}V${reach * 0.7}H${wide}V2z`}
    />
  ),
  output: ({ wide, reach, line, thick }) => (
    <path
      className={`fill-piston ${line}`}
      strokeWidth={thick}
      d={`M0 0V${reach}H${wide * 0.7}V${reach * 0.7}H${wide}V0z`}
    />
  ),
};

/** Plates seen from the side, steels and frictions by turns. */
function plates(wide: number, low: number, high: number, inset: number) {
  const count = 8;
  const step = (wide * (0.9 - inset)) / count;
  return Array.from({ length: count }, (_, i) => (
    <rect
      key={i}
      className={i % 2 === 0 ? "fill-steel" : "fill-friction"}
      strokeWidth="0.8"
      x={wide * inset + i * step}
      y={low - (i % 2 === 0 ? 0 : (high - low) * 0.14)}
      width={step * 0.8}
      height={(high - low) * (i % 2 === 0 ? 1 : 0.96)}
    />
  ));
}
