import { nm, type Nm } from "../quantity";

/** One diameter, taken at a place along the bore or the journal and at an angle round it. */
export interface Point {
  /** The chain’s link it is of: `bushing bore`, `stator journal`. */
  link: string;
  place: string;
  /** Degrees round, from the oil hole. */
  angle: number;
  value: Nm;
}

/** What the points of a bore and its journal say. */
export interface Fit {
  /** The largest clearance of any place: widest bore less narrowest journal there. */
  clearance: Nm;
  place: string;
  bore: Nm;
  journal: Nm;
  /** Most that one diameter differs round one place; null with one angle only. */
  outOfRound: { link: string; place: string; by: Nm } | null;
  /** Most that one part’s mean diameter differs along it; null with one place only. */
  taper: { link: string; by: Nm } | null;
}

/**
 * A bore and its journal from diameters at several places and angles. A journal that was not measured at a place is taken at its narrowest
 * anywhere, so that the clearance is never flattered.
 *
 * @param bore name of the link that is added.
 * @param journal name of the link that is taken away.
 * @returns null while either has no point.
 */
export function fitOf(points: readonly Point[], bore: string, journal: string): Fit | null {
  const of = (link: string, place?: string): Point[] =>
    points.filter((point) => point.link === link && (place === undefined || point.place === place));
  const [bores, journals] = [of(bore), of(journal)];
  if (bores.length === 0 || journals.length === 0) return null;
  const places = [...new Set(bores.map(({ place }) => place))];
  const fits = places.map((place) => {
    const there = of(journal, place);
    const widest = Math.max(...of(bore, place).map(({ value }) => value));
    const narrowest = Math.min(...(there.length > 0 ? there : journals).map(({ value }) => value));
    return { place, bore: nm(widest), journal: nm(narrowest), clearance: nm(widest - narrowest) };
  });
  const largest = fits.reduce((a, b) => (b.clearance > a.clearance ? b : a));
  return { ...largest, outOfRound: outOfRound(points), taper: taper(points) };
}

function groups(points: readonly Point[], keyOf: (point: Point) => string): Point[][] {
  const by = new Map<string, Point[]>();
  for (const point of points) by.set(keyOf(point), [...(by.get(keyOf(point)) ?? []), point]);
  return [...by.values()];
}

function outOfRound(points: readonly Point[]): Fit["outOfRound"] {
  const round = groups(points, ({ link, place }) => `${link} ${place}`).flatMap((group) => {
    const [first] = group;
    if (!first || group.length < 2) return [];
    const values = group.map(({ value }) => value);
    return [{ link: first.link, place: first.place, by: nm(Math.max(...values) - Math.min(...values)) }];
  });
  return round.length === 0 ? null : round.reduce((a, b) => (b.by > a.by ? b : a));
}

function taper(points: readonly Point[]): Fit["taper"] {
  const along = groups(points, ({ link }) => link).flatMap((group) => {
    const means = groups(group, ({ place }) => place).map(
      (there) => there.reduce((sum, { value }) => sum + value, 0) / there.length,
    );
    const [first] = group;
    return !first || means.length < 2
      ? []
      : [{ link: first.link, by: nm(Math.round(Math.max(...means) - Math.min(...means))) }];
  });
  return along.length === 0 ? null : along.reduce((a, b) => (b.by > a.by ? b : a));
}
