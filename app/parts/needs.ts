import type { Applied, Book } from "~core/book";
import type { Job } from "~core/fact";
import { dispositions, OTHER_UNITS, unitPart, type Schools } from "~core/inspect";
import { ruleOf, type House, type Together } from "~core/measure";
import { needsOf, quoteOf, type Needs, type Quote } from "~core/needs";
import { chooseJointly } from "~core/select";
import { seatName } from "~/choose/seat-name";

/** What a job needs now; with what is best chosen and has to be bought. */
export function needsNow(job: Job, applied: Applied, house: House & Schools, asked: Together): Needs {
  const states = dispositions(job, applied, house, ruleOf(job, house));
  return needsOf(job, applied, states, job.closed ? [] : toBuy(asked));
}

/** What the parts of a job come to, of what is known to be wanted; what is still to be chosen is not in it. A closed job keeps the prices it was closed with. */
export function pricedNow(
  job: Job,
  applied: Applied,
  house: House & Schools,
  prices: readonly (readonly [number: string, cents: number])[],
): Quote {
  const { lines } = needsOf(job, applied, dispositions(job, applied, house, ruleOf(job, house)), []);
  return quoteOf(lines, new Map(job.closed?.body.prices ?? prices));
}

/** The pieces that the best choice for the unit has to wait for. */
const toBuy = (asked: Together) =>
  (asked.seats.size > 0 ? chooseJointly(asked.question).seats : []).flatMap(({ seat, offer, kept }) => {
    const open = asked.seats.get(seat);
    const offered = offer && !kept ? asked.offers.get(offer.id) : undefined;
    return open && offered?.source.kind === "order" && offered.piece.part !== undefined
      ? [
          {
            seat,
            chain: open.sheets[0]?.applied.chain.id ?? "",
            name: `${seatName(open)}, ${offered.piece.mark ?? offered.piece.part}`,
            number: offered.piece.part,
          },
        ]
      : [];
  });

/** What each number is called in a book. */
export function namesOf({
  unit,
  parts,
  fasteners = [],
  kits = [],
  consumables = [],
  fluid,
  series,
  stronger = [],
}: Book): Map<string, string> {
  const others = fluid ? [fluid, ...(fluid.others ?? [])] : [];
  return new Map([
    ...series.flatMap(({ name, sizes }) => sizes.map(({ part, mark }) => [part, `${name} ${mark}`] as const)),
    ...parts.flatMap(({ name, instead = [] }) => instead.map(({ number }) => [number, name] as const)),
    ...stronger.flatMap(({ name, number, steels, frictions, apply, reaction }) =>
      [number, ...[steels, frictions, apply, reaction].map((plate) => plate?.number)].flatMap((one) =>
        one === undefined ? [] : [[one, name] as const],
      ),
    ),
    ...OTHER_UNITS.map((way) => [unitPart(unit.id, way), `${way} ${unit.name}`] as const),
    ...[...parts, ...fasteners, ...consumables, ...others, ...kits].flatMap(({ number, name }) =>
      number === undefined ? [] : [[number, name] as const],
    ),
  ]);
}

/** Every number that a price or a place on the shelf is looked up for. */
export const numbersOf = (book: Book): string[] => [...namesOf(book).keys()];
