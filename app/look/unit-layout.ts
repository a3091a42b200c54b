import type { Station } from "~core/book";

/** Where a unit's shafts lie on a drawing: the input's above, the others below it. */
export interface Layout {
  width: number;
  height: number;
  left: number;
  right: number;
  lines: number[];
  x: (at: number) => number;
  middle: (line: number) => number;
  half: (line: number) => number;
  /** Stations whose names would run into their neighbour's: they stand a row higher. */
  raised: ReadonlySet<string>;
}

const WIDTH = 1200;
const LEFT = 40;
const NAME_ROW = 16;
const x = (at: number): number => LEFT + (at / 100) * (WIDTH - 2 * LEFT);

/** A stamped name is about so wide; measuring it would need a browser. */
const nameWidth = (name: string): number => name.length * 8.6 + 8;

function raisedOf(stations: readonly Station[]): Set<string> {
  const raised = new Set<string>();
  const end = new Map<number, number>();
  for (const { id, name, from, to, line = 0 } of [...stations].sort(
    (a, b) => a.from + a.to - b.from - b.to,
  )) {
    const [middle, half] = [x((from + to) / 2), nameWidth(name) / 2];
    if (middle - half < (end.get(line) ?? 0)) raised.add(id);
    else end.set(line, middle + half);
  }
  return raised;
}

/**
 * @param tall with names above the stations; else only the shafts in `wanted`, low.
 * @param wanted shafts that must be there; the input's always is.
 */
export function layoutOf(stations: readonly Station[], tall: boolean, wanted?: ReadonlySet<number>): Layout {
  const all = [...new Set(stations.map(({ line = 0 }) => line))].sort((a, b) => a - b);
  const lines = all.filter((line) => line === 0 || !wanted || wanted.has(line));
  const full = tall ? ([92, 68, 50, 42][lines.length - 1] ?? 42) : 34;
  const half = (line: number): number => Math.round(full * (line === 0 ? 1 : 0.72));
  const raised = raisedOf(stations);
  const middles = new Map<number, number>();
  let y = 0;
  for (const line of lines) {
    const high = stations.some((station) => raised.has(station.id) && (station.line ?? 0) === line);
    const above = tall ? 30 + (high ? NAME_ROW : 0) : 6;
    middles.set(line, y + above + half(line));
    y += above + 2 * half(line) + (tall ? 6 : 4);
  }
  return {
    width: WIDTH,
    height: y,
    left: LEFT,
    right: WIDTH - LEFT,
    lines,
    x,
    raised,
    middle: (line) => middles.get(line) ?? 0,
    half,
  };
}

/** The outline of something, its numbers to a tenth of a pixel: more is not seen and makes a page longer. */
export function path(words: TemplateStringsArray, ...numbers: readonly number[]): string {
  return String.raw({ raw: words }, ...numbers.map((number) => Math.round(number * 10) / 10));
}

/** The case follows the stations of a shaft: wide at the converter, narrow at the tail; where stations overlap, the larger one. */
export function caseOutline(stations: readonly Station[], line: number, { middle, half }: Layout): string {
  const here = stations.filter((s) => (s.line ?? 0) === line);
  const edges = [...new Set(here.flatMap(({ from, to }) => [x(from) - 4, x(to) + 4]))].sort((a, b) => a - b);
  const reachAt = (px: number): number =>
    Math.max(
      0,
      ...here
        .filter(({ from, to }) => x(from) - 4 <= px && px <= x(to) + 4)
        .map(({ reach }) => Math.min(half(line) + 4, (reach / 100) * half(line) + 9)),
    );
  const upper = edges.slice(1).flatMap((right, i): [number, number][] => {
    const left = edges[i] ?? right;
    const reach = reachAt((left + right) / 2);
    // Between two stations the case runs straight from one to the other.
    return reach === 0
      ? []
      : [
          [left, reach],
          [right, reach],
        ];
  });
  const top = upper.map(([px, y]) => path`${px} ${middle(line) - y}`);
  const bottom = [...upper].reverse().map(([px, y]) => path`${px} ${middle(line) + y}`);
  return `M${[...top, ...bottom].join("L")}z`;
}
