import { Link } from "react-router";
import type { Station } from "~core/book";
import { Mark, type MarkName } from "./mark";

/** One pack on the axis: where it sits, and how it stands. */
export interface AxisPack {
  id: string;
  station: string;
  name: string;
  /** The maker's other name, small. */
  aka: string;
  mark: MarkName;
  words: string;
  quiet: boolean;
  current: boolean;
  to: string;
}

const WIDTH = 1200;
const LEFT = 40;
const RIGHT = WIDTH - 40;

/** The map of a job: the unit cut along its shaft, front on the left, every pack a station that opens its worksheet. */
export function Axis({
  stations,
  packs,
  tall = false,
}: {
  stations: readonly Station[];
  packs: readonly AxisPack[];
  tall?: boolean;
}) {
  const half = tall ? 92 : 34;
  const middle = half + (tall ? 30 : 6);
  const height = middle + half + (tall ? 38 : 20);
  const x = (at: number): number => LEFT + (at / 100) * (RIGHT - LEFT);
  const inOrder = [...packs].sort((a, b) => centre(stations, a) - centre(stations, b));
  return (
    <nav
      aria-label="The unit along its axis"
      className={`plate no-print px-3 ${tall ? "pt-2 pb-3" : "py-1.5"}`}
    >
      <svg viewBox={`0 0 ${WIDTH} ${height}`} className="block w-full" aria-hidden="true">
        <path
          className="fill-case stroke-soft"
          strokeWidth="1.5"
          d={caseOutline(stations, x, middle, half)}
        />
        {stations.map((station) => {
          const pack = packs.find((p) => p.station === station.id);
          return (
            <StationShape
              key={station.id}
              station={station}
              x={x}
              middle={middle}
              half={half}
              pack={pack}
              tall={tall}
            />
          );
        })}
        <path
          className="stroke-ink"
          strokeWidth="1.5"
          strokeDasharray="18 5 4 5"
          d={`M${LEFT - 30} ${middle}H${RIGHT + 30}`}
        />
        {inOrder.map((pack, i) => {
          const from = x(centre(stations, pack));
          const to = ((i + 0.5) / inOrder.length) * WIDTH;
          return (
            <path
              key={pack.id}
              className={`fill-none ${pack.current ? "stroke-blue" : "stroke-soft"}`}
              strokeWidth={pack.current ? 3 : 1.5}
              d={`M${from} ${middle + reachOf(stations, pack, half)}V${middle + half + 6}L${to} ${height - 6}V${height}`}
            />
          );
        })}
      </svg>
      <ul className="flex gap-2">
        {inOrder.map((pack) => (
          <li key={pack.id} className="min-w-0 flex-1">
            <Link
              to={pack.to}
              aria-current={pack.current ? "page" : undefined}
              className={`touch flex h-full items-center gap-3 rounded border-2 px-3 ${tall ? "py-1.5" : "justify-center"} ${
                pack.current ? "border-primary bg-base-200" : "border-base-300"
              } ${pack.quiet ? "border-dashed" : ""}`}
            >
              <Mark name={pack.mark} size={tall ? 38 : 26} />
              {tall ? (
                <span className="min-w-0 leading-tight">
                  <span className="flex items-baseline gap-2">
                    <b className="text-2xl">{pack.name}</b>
                    <span className={pack.quiet ? "quiet" : ""}>{pack.words}</span>
                  </span>
                  <span className="quiet block text-sm">{pack.aka}</span>
                </span>
              ) : (
                <span className="flex min-w-0 items-center gap-2">
                  <b className="text-lg">{pack.name}</b>
                  <span className={`text-sm leading-tight ${pack.quiet ? "quiet" : ""}`}>{pack.words}</span>
                </span>
              )}
            </Link>
          </li>
        ))}
      </ul>
    </nav>
  );
}

const stationOf = (stations: readonly Station[], pack: AxisPack): Station | undefined =>
  stations.find(({ id }) => id === pack.station);
function centre(stations: readonly Station[], pack: AxisPack): number {
  const station = stationOf(stations, pack);
  return station ? (station.from + station.to) / 2 : 0;
}
const reachOf = (stations: readonly Station[], pack: AxisPack, half: number): number =>
  ((stationOf(stations, pack)?.reach ?? 50) / 100) * half;

/** The case follows the stations: wide at the converter, narrow at the tail. */
function caseOutline(
  stations: readonly Station[],
  x: (at: number) => number,
  middle: number,
  half: number,
): string {
  const inOrder = [...stations].sort((a, b) => a.from - b.from);
  const upper = inOrder.flatMap(({ from, to, reach }) => {
    const y = Math.min(half + 4, (reach / 100) * half + 9);
    return [
      [x(from) - 4, y],
      [x(to) + 4, y],
    ];
  });
  const top = upper.map(([px, y]) => `${px} ${middle - (y ?? 0)}`);
  const bottom = [...upper].reverse().map(([px, y]) => `${px} ${middle + (y ?? 0)}`);
  return `M${[...top, ...bottom].join("L")}z`;
}

interface ShapeProps {
  station: Station;
  x: (at: number) => number;
  middle: number;
  half: number;
  pack: AxisPack | undefined;
  tall: boolean;
}

/** A station by its kind, the same above and below the shaft. */
function StationShape({ station, x, middle, half, pack, tall }: ShapeProps) {
  const from = x(station.from);
  const wide = x(station.to) - from;
  const reach = (station.reach / 100) * half;
  const line = pack?.current ? "stroke-blue" : pack?.quiet ? "stroke-soft" : "stroke-ink";
  const thick = pack?.current ? 3 : 1.5;
  return (
    <g opacity={pack?.quiet ? 0.55 : 1}>
      {[1, -1].map((side) => (
        <g key={side} transform={`translate(${from} ${middle}) scale(1 ${-side})`}>
          {shape(station.kind, wide, reach, line, thick)}
        </g>
      ))}
      {tall && !pack && (
        <text className="stamp" textAnchor="middle" x={from + wide / 2} y="14" opacity="0.8">
          {station.name}
        </text>
      )}
    </g>
  );
}

function shape(kind: Station["kind"], wide: number, reach: number, line: string, thick: number) {
  switch (kind) {
    case "converter":
      return (
        <path
          className={`fill-piston ${line}`}
          strokeWidth={thick}
          d={`M0 4V${reach * 0.5}Q${wide * 0.1} ${reach} ${wide * 0.45} ${reach}Q${wide * 0.95} ${reach} ${wide} ${reach * 0.45}V4z`}
        />
      );
    case "pump":
      return (
        <path
          className={`fill-reaction ${line}`}
          strokeWidth={thick}
          d={`M0 4V${reach}H${wide * 0.55}V${reach * 0.45}H${wide}V4z`}
        />
      );
    case "gear set":
      return (
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
      );
    case "drum":
      return (
        <g className={line} strokeWidth={thick}>
          <path className="fill-piston" d={`M0 4V${reach}H${wide}V${reach * 0.86}H${wide * 0.14}V4z`} />
          {plates(wide, reach * 0.4, reach * 0.8, 0.24)}
        </g>
      );
    case "brake":
      return (
        <g className={line} strokeWidth={thick}>
          <path className="fill-reaction" d={`M0 ${reach * 0.98}V${reach}H${wide}V${reach * 0.86}H0z`} />
          {plates(wide, reach * 0.46, reach * 0.9, 0.08)}
        </g>
      );
    case "support":
      return (
        <path
          className={`fill-reaction ${line}`}
          strokeWidth={thick}
          d={`M${wide * 0.3} 4V${reach}H${wide * 0.7}V4z`}
        />
      );
    case "output":
      return (
        <path
          className={`fill-piston ${line}`}
          strokeWidth={thick}
          d={`M0 0V${reach}H${wide * 0.7}V${reach * 0.7}H${wide}V0z`}
        />
      );
  }
}

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
