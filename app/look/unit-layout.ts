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
}

const WIDTH = 1200;
const LEFT = 40;

/**
 * @param tall with names above the stations; else only the shafts in `wanted`, low.
 * @param wanted shafts that must be there; the input's always is.
 */
export function layoutOf(stations: readonly Station[], tall: boolean, wanted?: ReadonlySet<number>): Layout {
  const all = [...new Set(stations.map(({ line = 0 }) => line))].sort((a, b) => a - b);
  const lines = all.filter((line) => line === 0 || !wanted || wanted.has(line));
  const full = tall ? (lines.length > 2 ? 52 : lines.length > 1 ? 68 : 92) : 34;
  const half = (line: number): number => Math.round(full * (line === 0 ? 1 : 0.72));
  const above = tall ? 30 : 6;
  const middles = new Map<number, number>();
  let y = 0;
  for (const line of lines) {
    middles.set(line, y + above + half(line));
    y += above + 2 * half(line) + (tall ? 6 : 4);
  }
  return {
    width: WIDTH,
    height: y,
    left: LEFT,
    right: WIDTH - LEFT,
    lines,
    x: (at) => LEFT + (at / 100) * (WIDTH - 2 * LEFT),
    middle: (line) => middles.get(line) ?? 0,
    half,
  };
}

/** The case follows the stations of a shaft: wide at the converter, narrow at the tail. */
export function caseOutline(stations: readonly Station[], line: number, { x, middle, half }: Layout): string {
  const inOrder = stations.filter((s) => (s.line ?? 0) === line).sort((a, b) => a.from - b.from);
  const upper = inOrder.flatMap(({ from, to, reach }) => {
    const y = Math.min(half(line) + 4, (reach / 100) * half(line) + 9);
    return [
      [x(from) - 4, y],
      [x(to) + 4, y],
    ];
  });
  const top = upper.map(([px, y]) => `${px} ${middle(line) - (y ?? 0)}`);
  const bottom = [...upper].reverse().map(([px, y]) => `${px} ${middle(line) + (y ?? 0)}`);
  return `M${[...top, ...bottom].join("L")}z`;
}
