import type { SupplyOffer } from "~core/kit";
import type { Queryable } from "./database";

/** What a supplier asks for a part, in whole cents, and in how many days it is here. */
export interface Price {
  part: string;
  cents: number;
  days: number | null;
  /** Pieces that are sold together for it; one where it is absent. */
  pack?: number;
  /** What is paid on top until the old one comes back, each; null where nothing is. */
  deposit?: number | null;
}

/** A price as it stands: the last that was said of its part. */
export interface ListedPrice extends Price {
  supplier: string;
  by: string;
  /** ISO 8601. */
  at: string;
}

/**
 * Takes in a supplier's prices. What is the same as what this supplier said last is not said again, so that a list taken in twice is one.
 *
 * @returns how many were new or other than before.
 */
export async function addPrices(
  db: Queryable,
  prices: readonly Price[],
  { supplier, by }: { supplier: string; by: string },
): Promise<number> {
  const { rowCount } = await db.query(
    `insert into price (part, cents, days, pack, deposit, supplier, by_name)
     select n.part, n.cents, n.days, n.pack, n.deposit, $6, $7
       from unnest($1::text[], $2::int[], $3::int[], $4::int[], $5::int[]) as n (part, cents, days, pack, deposit)
       left join lateral (select cents, days, pack, deposit from price p where p.part = n.part and p.supplier = $6 order by id desc limit 1) as last on true
      where (n.cents, n.days, n.pack, n.deposit) is distinct from (last.cents, last.days, last.pack, last.deposit)`,
    [
      prices.map(({ part }) => part),
      prices.map(({ cents }) => cents),
      prices.map(({ days }) => days),
      prices.map(({ pack = 1 }) => pack),
      prices.map(({ deposit = null }) => deposit),
      supplier,
      by,
    ],
  );
  return rowCount ?? 0;
}

/** What each supplier asks for some parts now: the last word of each. */
export async function offersOf(db: Queryable, parts: readonly string[]): Promise<SupplyOffer[]> {
  const { rows } = await db.query<SupplyOffer>({
    name: "offers-of-parts",
    text: `select distinct on (part, supplier) part as number, supplier, cents, days, pack
             from price where part = any ($1::text[]) order by part, supplier, id desc`,
    values: [parts],
  });
  return rows;
}

/** Prices known of some parts, in cents by part number: a supplier's list first, else what the shelf has noted. */
export async function pricesOf(
  db: Queryable,
  parts: readonly string[],
): Promise<[part: string, cents: number][]> {
  const { rows } = await db.query<{ part: string; cents: number }>({
    name: "prices-of-parts",
    text: `select w.part, coalesce(last.cents, s.price_cents) as cents
             from unnest($1::text[]) as w (part)
             left join lateral (select round(cents::numeric / pack)::int as cents from price p where p.part = w.part order by id desc limit 1) as last on true
             left join shelf_part s on s.part = w.part
            where coalesce(last.cents, s.price_cents) is not null`,
    values: [parts],
  });
  return rows.map(({ part, cents }) => [part, cents]);
}

/** What is paid on top of the price of some parts until the old one comes back, in cents by part number: the most that a supplier asks now. */
export async function depositsOf(
  db: Queryable,
  parts: readonly string[],
): Promise<[part: string, cents: number][]> {
  const { rows } = await db.query<{ part: string; deposit: number }>({
    name: "deposits-of-parts",
    text: `select part, max(deposit)::int as deposit
             from (select distinct on (part, supplier) part, deposit
                     from price where part = any ($1::text[]) order by part, supplier, id desc) last
            where deposit is not null group by part`,
    values: [parts],
  });
  return rows.map(({ part, deposit }) => [part, deposit]);
}

/** A page of the prices as they stand, keyset by part number; those whose number begins so, where `begins` is given. */
export async function listPrices(
  db: Queryable,
  { begins = "", after = "", limit = 60 }: { begins?: string; after?: string; limit?: number },
): Promise<ListedPrice[]> {
  const { rows } = await db.query<ListedPrice>({
    name: "price-list",
    text: `select distinct on (part) part, cents, days, deposit, supplier, by_name as by, at
             from price where part > $1 and starts_with(part, $2) order by part, id desc limit $3`,
    values: [after, begins, limit],
  });
  return rows.map((row) => ({ ...row, at: new Date(row.at).toISOString() }));
}
