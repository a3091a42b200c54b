import { v7 as newId } from "uuid";
import type { Book, Chain } from "~core/book";
import { LEADS } from "~core/fact";
import type { Stock } from "~core/select";
import type { Pool, Queryable } from "~store/database";
import type { JobRecord } from "~store/jobs";
import { reservedFor, stockOf, type Reserved } from "~store/shelf";
import { listStaff, type Staff } from "~store/staff";

/** The chains of a book that something is chosen for, of every version; a pack is one of them even where its book names no sizes. */
export const chosenChains = ({ chains }: Book): Chain[] =>
  chains.filter(
    ({ kind, links }) =>
      kind === "pack clearance" || links.some(([, of]) => of === "series" || of === "seat"),
  );

type OfBook = Pick<JobRecord, "id" | "book">;

/** What can be taken from the shelf for all seats of a unit, whichever version it is: the job’s facts need not be read for it. */
export const stockOfUnit = (pool: Queryable, job: OfBook): Promise<Stock[]> => stockOfUnits(pool, [job]);

/** The same for several jobs at once: what they keep from each other is there for all of them. */
export const stockOfUnits = (pool: Queryable, jobs: readonly OfBook[]): Promise<Stock[]> =>
  stockOf(
    pool,
    [...new Set(jobs.flatMap(({ book }) => partsOf(book)))],
    jobs.map(({ id }) => id),
  );

function partsOf(book: Book): string[] {
  const links = chosenChains(book).flatMap((chain) => chain.links);
  const seats = new Set(links.flatMap(([, kind, ref]) => (kind === "seat" ? [ref] : [])));
  const series = new Set([
    ...links.flatMap(([, kind, ref]) => (kind === "series" ? [ref] : [])),
    ...(book.seats ?? []).flatMap((seat) => (seats.has(seat.id) && seat.series ? [seat.series] : [])),
  ]);
  return book.series.filter((one) => series.has(one.id)).flatMap((one) => one.sizes.map(({ part }) => part));
}

/** What the page of one figure is made from besides its job; null when its book has no such figure. */
export async function chainPage(
  pool: Pool,
  record: JobRecord,
  chain: string,
  staff: Promise<readonly Staff[]> = listStaff(pool),
) {
  if (!chosenChains(record.book).some(({ id }) => id === chain)) return null;
  const [{ stock, reserved }, people] = await Promise.all([unitPage(pool, record), staff]);
  return {
    stock,
    aside: Object.fromEntries(reserved.map(({ seat, part, piece }) => [seat, piece ?? part])),
    leads: people.filter(({ role }) => LEADS.includes(role)),
    // Ids of what this page may send: the same form sent twice is carried out once.
    ids: { choice: newId(), reading: newId(), waiver: newId() },
  };
}

/** What the page of the whole unit is made from besides its job. */
export async function unitPage(
  pool: Pool,
  record: JobRecord,
): Promise<{ stock: Stock[]; reserved: Reserved[] }> {
  const [stock, reserved] = await Promise.all([stockOfUnit(pool, record), reservedFor(pool, record.id)]);
  return { stock, reserved };
}
