import { v7 as newId } from "uuid";
import type { Pool } from "~store/database";
import type { JobRecord } from "~store/jobs";
import { stockOf } from "~store/shelf";
import { LEADS } from "~core/fact";
import type { Stock } from "~core/select";
import { listStaff, type Staff } from "~store/staff";

/** What lies on the shelf for all packs of a unit, whichever version it is. */
export function stockOfPacks(pool: Pool, { book }: JobRecord): Promise<Stock[]> {
  const series = new Set(
    book.chains.flatMap(({ kind, links }) =>
      kind === "pack clearance" ? links.flatMap(([, of, id]) => (of === "series" ? [id] : [])) : [],
    ),
  );
  const sizes = book.series.filter(({ id }) => series.has(id)).flatMap((one) => one.sizes);
  return stockOf(
    pool,
    sizes.map(({ part }) => part),
  );
}

/**
 * What a pack's page is made from besides its job; null when its book has no such pack. The stock is that of every version's series,
 * so that the job's facts need not be read for it.
 */
export async function packPage(
  pool: Pool,
  { book }: JobRecord,
  chain: string,
  staff: Promise<readonly Staff[]> = listStaff(pool),
) {
  const chains = book.chains.filter(({ id, kind }) => id === chain && kind === "pack clearance");
  if (chains.length === 0) return null;
  const series = new Set(chains.flatMap(({ links }) => links.map(([, kind, of]) => kind === "series" && of)));
  const parts = book.series.filter(({ id }) => series.has(id)).flatMap(({ sizes }) => sizes);
  const [stock, people] = await Promise.all([
    stockOf(
      pool,
      parts.map(({ part }) => part),
    ),
    staff,
  ]);
  return {
    stock,
    leads: people.filter(({ role }) => LEADS.includes(role)),
    // Ids of what this page may send: the same form sent twice is carried out once.
    ids: { choice: newId(), reading: newId(), waiver: newId() },
  };
}
