import { isDecided, isFromShelf, type Applied } from "../book";
import type { PlateStart } from "../capacity";
import { Job } from "../fact";
import { isEnough } from "../reading";
import { nm } from "../quantity";
import { thickness } from "../select";
import { worksheets, type House, type PackSheet } from "./worksheet";

/**
 * How the drums of this very unit measure, by pack: the clearance that was read with the stock plates and a known piece in, and that piece. What was
 * found in it says nothing of that, since its plates are worn.
 *
 * @param asBuilt what applies to the unit as it was built. Readings after it was decided to make it stronger are of other plates, and left out.
 * @returns only packs that were read often enough.
 */
export function startsOf(job: Job, asBuilt: Applied, house: House): Map<string, PlateStart> {
  const decided = job.live.findIndex(({ body }) => body.kind === "stronger");
  const before = decided < 0 ? job : new Job(job.live.slice(0, decided));
  return new Map(
    worksheets(before, asBuilt, house).flatMap((sheet) => {
      const start = startOf(sheet);
      return start ? [[sheet.applied.pack.element, start] as const] : [];
    }),
  );
}

/** A mean of readings says nothing finer. */
const MICROMETRE = 1_000;

/** The last of its readings that stand with a piece that is known: after a choice those as built, before it those of the trial. */
function startOf({ seats, choice, built, trial }: PackSheet): PlateStart | null {
  const chosen = seats.filter(({ link }) => isDecided(link) && isFromShelf(link));
  const [seat] = chosen;
  const { assessment } = choice ? built : trial;
  if (chosen.length !== 1 || !seat?.fitted || seat.out || !isEnough(assessment) || !assessment.estimate)
    return null;
  const ring = thickness(seat.fitted, seat.link.tolerance)?.value;
  return ring === undefined
    ? null
    : { gap: nm(Math.round(assessment.estimate.mean / MICROMETRE) * MICROMETRE), ring };
}
