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

/** Where the last thing that came off was laid: most of what follows goes there too. */
export function lastPlace(job: Job): string {
  const said = [...job.steps.values()].filter(({ body }) => body.to !== undefined);
  return (
    said.reduce<(typeof said)[number] | null>((last, one) => (!last || one.at >= last.at ? one : last), null)
      ?.body.to ??
    placesOf(job).at(1)?.id ??
    ON_BENCH
  );
}
