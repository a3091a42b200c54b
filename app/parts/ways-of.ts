import type { RouterContextProvider } from "react-router";
import { stockOfUnit } from "~/choose/chain-page";
import { unitOf } from "~/choose/decide";
import { services } from "~/server/context";
import { jobContext } from "~/server/job-context";
import type { Book } from "~core/book";
import type { CoverQuestion } from "~core/kit";
import { together } from "~core/measure";
import { standing, type Need } from "~core/needs";
import { inSnapshot, type Queryable } from "~store/database";
import type { JobRecord } from "~store/jobs";
import { supplyOf } from "~store/orders";
import { offersOf } from "~store/prices";
import { stockOf } from "~store/shelf";
import { needsNow, numbersOf } from "./needs";
import { supplyFrom } from "./supply";

/** Pieces on the shelf that this job could have, by number; odd measured ones are no part of a list. */
export async function onShelf(
  pool: Queryable,
  { id, book }: Pick<JobRecord, "id" | "book">,
): Promise<[string, number][]> {
  const there = await stockOf(pool, numbersOf(book), [id]);
  return there.flatMap(({ part, onHand, piece }): [string, number][] =>
    piece || onHand < 1 ? [] : [[part, onHand]],
  );
}

/** What lies in each kit of a book, by its number. */
export function kitsOf({ kits = [], parts, fasteners = [] }: Book) {
  const known = new Map([...parts, ...fasteners].map(({ id, name, number }) => [id, { name, number }]));
  return new Map(
    kits.map(({ number, contents }) => [
      number,
      contents.flatMap(({ of, count }) => {
        const one = known.get(of);
        return one?.number === undefined ? [] : [{ number: one.number, name: one.name, count }];
      }),
    ]),
  );
}

/** Of what is neither in the box nor on its way, by number. */
function wantedOf(lines: readonly Need[], stands: ReturnType<typeof standing>): Map<string, number> {
  const wanted = new Map<string, number>();
  for (const { id, number } of lines) {
    const short = stands.get(id)?.short ?? 0;
    if (number !== null && short > 0) wanted.set(number, (wanted.get(number) ?? 0) + short);
  }
  return wanted;
}

/** What a job still needs and what there is to cover it with, as it stands on the server; and which seats its selectives are for. */
export async function coverQuestion(
  context: Readonly<RouterContextProvider>,
  number: string,
): Promise<{ question: CoverQuestion; seats: ReadonlyMap<string, string[]> }> {
  const { pool } = context.get(services);
  const { record, job, applied, house } = await jobContext(context, number);
  const { book } = record;
  // What is just being taken from the shelf for it would else be wanted once more.
  const { stock, offers, shelf, supply } = await inSnapshot(pool, async (db) => ({
    stock: await stockOfUnit(db, record),
    offers: await offersOf(db, numbersOf(book)),
    shelf: await onShelf(db, record),
    supply: await supplyOf(db, record.id),
  }));
  const { lines } = needsNow(job, applied, house, together(unitOf(record, house, stock)));
  const question: CoverQuestion = {
    wanted: wantedOf(lines, standing(lines, supplyFrom(supply, []))),
    // Of every version: what lies in a box for another one is left over.
    kits: [...kitsOf(book)].map(([of, contents]) => ({
      number: of,
      contents: new Map(contents.map((one) => [one.number, one.count])),
    })),
    offers,
    onHand: new Map(shelf),
  };
  return { question, seats: seatsOf(lines) };
}

/** The seats that pieces of a number were chosen for. */
function seatsOf(lines: readonly Need[]): Map<string, string[]> {
  const seats = new Map<string, string[]>();
  for (const { kind, of, number } of lines)
    if (kind === "selective" && number !== null) seats.set(number, [...(seats.get(number) ?? []), of]);
  return seats;
}
