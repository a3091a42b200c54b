import type { Station } from "~core/book";
import { LAYERS, outlinesOf, type Layer } from "./station-shape";
import { caseOutline, type Layout } from "./unit-layout";

/** How stations are drawn: those the work reaches, those it does not, and the one that is meant. */
const LOOKS = {
  plain: { stroke: "stroke-ink", thick: 1.5, opacity: undefined },
  quiet: { stroke: "stroke-soft", thick: 1.5, opacity: 0.55 },
  current: { stroke: "stroke-blue", thick: 3, opacity: undefined },
} as const;

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
  const here = stations.filter(({ line = 0 }) => lines.includes(line));
  const lookOf = ({ id }: Station): keyof typeof LOOKS =>
    id === current ? "current" : quiet?.has(id) ? "quiet" : "plain";
  return (
    <>
      <path
        className="fill-case stroke-soft"
        strokeWidth="1.5"
        d={lines.map((line) => caseOutline(stations, line, layout)).join("")}
      />
      {(Object.keys(LOOKS) as (keyof typeof LOOKS)[]).map((look) => (
        <Outlines
          key={look}
          {...LOOKS[look]}
          of={here.filter((one) => lookOf(one) === look)}
          layout={layout}
        />
      ))}
      {here.filter(named).map((station) => (
        <StationName key={station.id} station={station} layout={layout} />
      ))}
      <path
        className="stroke-ink"
        strokeWidth="1.5"
        strokeDasharray="18 5 4 5"
        d={lines.map((line) => `M${left - 30} ${middle(line)}H${right + 30}`).join("")}
      />
    </>
  );
}

function Outlines({
  of,
  layout,
  stroke,
  thick,
  opacity,
}: {
  of: readonly Station[];
  layout: Layout;
  stroke: string;
  thick: number;
  opacity: number | undefined;
}) {
  if (of.length === 0) return null;
  const outlines = of.map((station) => outlinesOf(station, layout));
  return (
    <g className={stroke} strokeWidth={thick} opacity={opacity}>
      {(Object.keys(LAYERS) as Layer[]).map((layer) => {
        const outline = outlines.map((one) => one[layer] ?? "").join("");
        const { fill, thick: own } = LAYERS[layer];
        return outline && <path key={layer} className={fill} strokeWidth={own} d={outline} />;
      })}
    </g>
  );
}

function StationName({ station, layout: { x, middle, half, raised } }: { station: Station; layout: Layout }) {
  const { id, name, from, to, line = 0 } = station;
  return (
    <text
      className="stamp"
      textAnchor="middle"
      x={Math.round(x((from + to) / 2))}
      y={middle(line) - half(line) - (raised.has(id) ? 28 : 12)}
      opacity="0.8"
    >
      {name}
    </text>
  );
}
