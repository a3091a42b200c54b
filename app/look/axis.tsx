import { Link } from "react-router";
import type { Station } from "~core/book";
import { Mark, type MarkName } from "./mark";
import { UnitDrawing } from "./unit-drawing";
import { layoutOf } from "./unit-layout";

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
      <svg viewBox={`0 0 ${layout.width} ${height}`} className="block w-full" aria-hidden="true">
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
              d={`M${from} ${middle(line) + reach}V${layout.height}L${to} ${height - 6}V${height}`}
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
