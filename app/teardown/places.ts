import { stationOf, type Part } from "~core/book";
import type { Bench } from "~core/steps";
import { IN_UNIT, ON_BENCH, SCRAPPED, type Job, type PlaceSort } from "~core/fact";

/** A place parts of this job lie in. */
export interface BenchPlace {
  id: string;
  name: string;
  sort: PlaceSort | "bench";
}

/** The bench itself, then the trays, bins and bags somebody has named. */
export const placesOf = (job: Job): BenchPlace[] => [
  { id: ON_BENCH, name: "On the bench", sort: "bench" },
  ...job.places.map(({ body }): BenchPlace => ({ id: body.place, name: body.name, sort: body.sort })),
];

export function placeName(job: Job, place: string | null): string {
  if (place === null) return "nowhere";
  if (place === IN_UNIT) return "in the unit";
  if (place === SCRAPPED) return "out of circulation";
  return placesOf(job).find(({ id }) => id === place)?.name ?? place;
}

/** Where what comes off goes unless another place is picked: beside what sat at the same station, else onto the bench. */
export function placeFor(job: Job, bench: Bench, taken: readonly Part[], all: readonly Part[]): string {
  const known = new Set(placesOf(job).map(({ id }) => id));
  const stations = new Set(taken.flatMap((part) => stationOf(all, part) ?? []));
  const beside = [...bench.things.values()]
    .filter(
      ({ part, place }) => place !== null && known.has(place) && stations.has(stationOf(all, part) ?? ""),
    )
    .sort((a, b) => (a.moved?.at ?? "").localeCompare(b.moved?.at ?? ""));
  return beside.at(-1)?.place ?? ON_BENCH;
}
