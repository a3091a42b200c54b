import { Link } from "react-router";
import type { Station } from "~core/book";
import { Mark, type MarkName } from "./mark";
import { UnitDrawing } from "./unit-drawing";
import { layoutOf, path } from "./unit-layout";

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

/** A station as the way into what belongs to it. */
export interface StationWay {
  /** How much is open there. */
  open: number;
  /** What is open first, by its name. */
  first: string;
  to: string;
}

/** The map of a job: the unit cut along its shaft, front on the left, every pack a station that opens its worksheet. */
export function Axis({
  stations,
  packs,
  ways,
  tall = false,
}: {
  stations: readonly Station[];
  packs: readonly AxisPack[];
  /** The way into each station, by its id. */
  ways?: ReadonlyMap<string, StationWay>;
  tall?: boolean;
}) {
  const lineOf = (pack: AxisPack): number => stationOf(stations, pack)?.line ?? 0;
  const layout = layoutOf(stations, tall, tall ? undefined : new Set(packs.map(lineOf)));
  const { x, middle, half } = layout;
  // Down from one of several shafts a line would cross the others: there the packs are named where they sit.
  const leads = layout.lines.length === 1;
  const height = layout.height + (leads ? (tall ? 32 : 14) : 4);
  const inOrder = [...packs].sort((a, b) => centre(stations, a) - centre(stations, b));
  const quiet = new Set(packs.flatMap((pack) => (pack.quiet ? [pack.station] : [])));
  return (
    <nav
      aria-label="The unit along its axis"
      className={`plate no-print px-3 ${tall ? "pt-2 pb-3" : "py-1.5"}`}
    >
      <svg viewBox={`0 0 ${layout.width} ${height}`} className="block w-full">
        <g aria-hidden="true">
          <UnitDrawing
            stations={stations}
            layout={layout}
            current={packs.find((pack) => pack.current)?.station}
            quiet={quiet}
            named={({ id }) => tall && !(leads && packs.some(({ station }) => station === id))}
          />
          {(leads ? inOrder : []).map((pack, i) => {
            const from = x(centre(stations, pack));
            const to = ((i + 0.5) / inOrder.length) * layout.width;
            const line = lineOf(pack);
            const reach = ((stationOf(stations, pack)?.reach ?? 50) / 100) * half(line);
            return (
              <path
                key={pack.id}
                className={`fill-none ${pack.current ? "stroke-blue" : "stroke-soft"}`}
                strokeWidth={pack.current ? 3 : 1.5}
                d={path`M${from} ${middle(line) + reach}V${layout.height}L${to} ${height - 6}V${height}`}
              />
            );
          })}
        </g>
        {ways && <Ways stations={stations} ways={ways} layout={layout} />}
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
                  <b className="block text-2xl leading-none">{pack.name}</b>
                  <span className={`block ${pack.quiet ? "quiet" : ""}`}>{pack.words}</span>
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

/** Over the drawing, where each station sits: a touch goes to what is open there. */
function Ways({
  stations,
  ways,
  layout: { x, middle, half },
}: {
  stations: readonly Station[];
  ways: ReadonlyMap<string, StationWay>;
  layout: ReturnType<typeof layoutOf>;
}) {
  return stations.flatMap(({ id, name, from, to, line = 0 }) => {
    const way = ways.get(id);
    if (!way) return [];
    const [left, wide, y] = [Math.round(x(from)), Math.round(x(to) - x(from)), middle(line)];
    const words = way.open > 0 ? `${name}: ${way.open} open, first ${way.first}` : `${name}: nothing open`;
    return [
      <Link key={id} to={way.to} data-station={id} data-open={way.open} aria-label={words} className="group">
        <title>{words}</title>
        <rect
          className="group-hover:stroke-blue group-focus-visible:stroke-blue fill-transparent stroke-transparent"
          strokeWidth="3"
          rx="4"
          x={left - 2}
          width={wide + 4}
          y={y - half(line) - 6}
          height={2 * half(line) + 12}
        />
        <rect
          className={way.open > 0 ? "fill-paper stroke-accent" : "fill-success stroke-success"}
          strokeWidth="2"
          rx="12"
          x={left + wide / 2 - 16}
          width="32"
          y={y - 12}
          height="24"
        />
        <text
          className={`font-bold ${way.open > 0 ? "fill-ink" : "fill-success-content"}`}
          fontSize="17"
          textAnchor="middle"
          x={left + wide / 2}
          y={y + 6}
        >
          {way.open > 0 ? way.open : "✓"}
        </text>
      </Link>,
    ];
  });
}

const stationOf = (stations: readonly Station[], pack: AxisPack): Station | undefined =>
  stations.find(({ id }) => id === pack.station);
function centre(stations: readonly Station[], pack: AxisPack): number {
  const station = stationOf(stations, pack);
  return station ? (station.from + station.to) / 2 : 0;
}
