/** A place in hundredths of the drawn face. */
export type Place = readonly [x: number, y: number];

/** The pattern fasteners are tightened in. */
export type Pattern = "star" | "crosswise" | "spiral" | "in line" | "any order";

interface Polar {
  index: number;
  angle: number;
  radius: number;
}

const TURN = 2 * Math.PI;
const apart = (a: number, b: number): number => {
  const d = Math.abs(a - b) % TURN;
  return d > Math.PI ? TURN - d : d;
};

/**
 * The order in which the places of a pattern are tightened.
 *
 * - star: round a ring, always to the place farthest round from the last, and of equally far ones to the one with most space about it;
 * - crosswise: from the middle outwards, each place followed by the one across;
 * - spiral: from the middle outwards in one turning line;
 * - in line, any order, and where nobody knows one: as listed.
 *
 * @returns indices into `places`, each once.
 */
export function tighteningOrder(places: readonly Place[], pattern: Pattern = "any order"): number[] {
  if (pattern === "in line" || pattern === "any order" || places.length < 3) return places.map((_, i) => i);
  // From the innermost, then round from the top: where they stand in the list decides nothing.
  const polar = aboutCentre(places).sort(
    (a, b) => round(a.radius) - round(b.radius) || round(a.angle) - round(b.angle) || a.index - b.index,
  );
  switch (pattern) {
    case "star":
      return star(polar);
    case "crosswise":
      return crosswise(polar);
    case "spiral":
      return spiral(polar);
  }
}

function aboutCentre(places: readonly Place[]): Polar[] {
  const n = places.length;
  const cx = places.reduce((sum, [x]) => sum + x, 0) / n;
  const cy = places.reduce((sum, [, y]) => sum + y, 0) / n;
  return places.map(([x, y], index) => ({
    index,
    // From the top, clockwise, as one reads a clock.
    angle: (Math.atan2(x - cx, cy - y) + TURN) % TURN,
    radius: Math.hypot(x - cx, y - cy),
  }));
}

const round = (value: number): number => Math.round(value * 1e6) / 1e6;

/** The best of a list: the largest by the first key that differs. */
function best<T>(list: readonly T[], keys: (item: T) => number[]): T | undefined {
  let winner: { item: T; keys: number[] } | undefined;
  for (const item of list) {
    const found = keys(item).map(round);
    const i = winner ? found.findIndex((key, k) => key !== winner?.keys[k]) : 0;
    if (!winner || (i >= 0 && (found[i] ?? 0) > (winner.keys[i] ?? 0))) winner = { item, keys: found };
  }
  return winner?.item;
}

function star(polar: readonly Polar[]): number[] {
  const left = [...polar].sort((a, b) => a.angle - b.angle);
  const order: Polar[] = [];
  while (left.length > 0) {
    const last = order.at(-1);
    const next = last
      ? best(left, (p) => [
          apart(p.angle, last.angle),
          Math.min(...order.map((done) => apart(p.angle, done.angle))),
        ])
      : left[0];
    if (!next) break;
    order.push(...left.splice(left.indexOf(next), 1));
  }
  return order.map(({ index }) => index);
}

function crosswise(polar: readonly Polar[]): number[] {
  const left = [...polar];
  const order: Polar[] = [];
  while (left.length > 0) {
    const first = best(left, (p) => [-p.radius, -p.angle]);
    if (!first) break;
    order.push(...left.splice(left.indexOf(first), 1));
    const across = best(left, (p) => [
      -Math.hypot(
        p.radius * Math.sin(p.angle) + first.radius * Math.sin(first.angle),
        p.radius * Math.cos(p.angle) + first.radius * Math.cos(first.angle),
      ),
    ]);
    if (across) order.push(...left.splice(left.indexOf(across), 1));
  }
  return order.map(({ index }) => index);
}

function spiral(polar: readonly Polar[]): number[] {
  const [first] = polar;
  if (!first) return [];
  const most = Math.max(...polar.map(({ radius }) => radius)) - first.radius;
  // So many turns that a turn holds about as many places as there are turns: neighbours then follow each other.
  const pitch = most / Math.max(1, Math.sqrt(polar.length / Math.PI)) || 1;
  // The line begins at the innermost place: its angle and its radius are where both are counted from.
  const along = ({ radius, angle }: Polar): number => {
    const round = ((angle - first.angle + TURN) % TURN) / TURN;
    return Math.max(0, Math.round((radius - first.radius) / pitch - round)) + round;
  };
  return [...polar].sort((a, b) => along(a) - along(b)).map(({ index }) => index);
}
