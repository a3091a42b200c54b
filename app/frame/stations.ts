import type { Applied } from "~core/book";
import { openByStation, stationsInScope, type Standing } from "~core/stage";
import type { StationWay } from "~/look/axis";
import { placeOf } from "./stages";

/** Every station the work reaches as a way into what belongs to it: to what is open there first, else to its figures. */
export function stationWays(
  number: number,
  applied: Applied,
  { open }: Pick<Standing, "open">,
): Map<string, StationWay> {
  const byStation = openByStation(open, applied);
  const reached = stationsInScope(applied);
  const stations = applied.present.stations.filter(({ id }) => reached.has(id) || byStation.has(id));
  return new Map(
    stations.map(({ id, name }) => {
      const here = byStation.get(id) ?? [];
      const [first] = here;
      const place = first
        ? placeOf({ what: first.kind, subject: first.subject, stage: first.stage })
        : `measure?at=${encodeURIComponent(name)}`;
      return [id, { open: here.length, first: first?.name ?? "", to: `/jobs/${number}/${place}` }];
    }),
  );
}
