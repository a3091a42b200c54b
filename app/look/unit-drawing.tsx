import type { Station } from "~core/book";
import { StationShape } from "./station-shape";
import { caseOutline, type Layout } from "./unit-layout";

/** A unit cut along its shafts, front on the left. */
export function UnitDrawing({
  stations,
  layout,
  current,
  quiet,
  named,
}: {
  stations: readonly Station[];
  layout: Layout;
  current?: string;
  /** Stations the work does not reach. */
  quiet?: ReadonlySet<string>;
  named: (station: Station) => boolean;
}) {
  const { lines, left, right, middle } = layout;
  return (
    <>
      {lines.map((line) => (
        <path
          key={line}
          className="fill-case stroke-soft"
          strokeWidth="1.5"
          d={caseOutline(stations, line, layout)}
        />
      ))}
      {stations
        .filter(({ line = 0 }) => lines.includes(line))
        .map((station) => (
          <StationShape
            key={station.id}
            station={station}
            layout={layout}
            current={station.id === current}
            quiet={quiet?.has(station.id)}
            named={named(station)}
          />
        ))}
      {lines.map((line) => (
        <path
          key={line}
          className="stroke-ink"
          strokeWidth="1.5"
          strokeDasharray="18 5 4 5"
          d={`M${left - 30} ${middle(line)}H${right + 30}`}
        />
      ))}
    </>
  );
}
