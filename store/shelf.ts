import { v7 as newId } from "uuid";
import type { Fact } from "~core/fact";
import { nm, type Nm } from "~core/quantity";
import type { Stock } from "~core/select";
import {
  CHECK_VIOLATION,
  constraintOf,
  inTransaction,
  sqlState,
  UNIQUE_VIOLATION,
  type Pool,
  type Queryable,
} from "./database";
import { addFacts, type Author } from "./facts";

export interface ShelfPart {
  part: string;
  name: string;
  bin: string;
  priceCents: number | null;
  orderDays: number | null;
}

export async function addShelfPart(
  db: Queryable,
  { part, name, bin, priceCents, orderDays }: ShelfPart,
): Promise<void> {
  await db.query(
    `insert into shelf_part (part, name, bin, price_cents, order_days) values ($1, $2, $3, $4, $5) on conflict (part) do nothing`,
    [part, name, bin, priceCents, orderDays],
  );
}

/** What lies on the shelf of some parts, odd measured pieces each for itself. */
export async function stockOf(db: Queryable, parts: readonly string[]): Promise<Stock[]> {
  const { rows } = await db.query<{
    part: string;
    on_hand: number;
    piece: string | null;
    measured_nm: number | null;
    price_cents: number | null;
    order_days: number | null;
  }>({
    name: "stock-of-parts",
    text: `select p.part, coalesce(s.on_hand, 0) as on_hand, s.piece, o.measured_nm, p.price_cents, p.order_days
             from shelf_part p left join stock s on s.part = p.part and (s.piece is null or s.on_hand > 0)
             left join piece o on o.id = s.piece
            where p.part = any ($1::text[])`,
    values: [parts],
  });
  return rows.map((row) => ({
    part: row.part,
    onHand: row.on_hand,
    ...(row.piece && row.measured_nm !== null
      ? { piece: { id: row.piece, measured: nm(row.measured_nm) } }
      : {}),
    price: row.price_cents ?? undefined,
    days: row.order_days ?? undefined,
  }));
}

export interface ShelfRow extends ShelfPart {
  onHand: number;
  oddPieces: { id: string; measured: number }[];
}

/** A page of the shelf by bin, keyset by part number. */
export async function listShelf(db: Queryable, after = "", limit = 100): Promise<ShelfRow[]> {
  const { rows } = await db.query<ShelfRow>({
    name: "shelf-list",
    text: `select p.part, p.name, p.bin, p.price_cents as "priceCents", p.order_days as "orderDays",
                  coalesce(sum(s.on_hand) filter (where s.piece is null), 0)::int as "onHand",
                  coalesce(jsonb_agg(jsonb_build_object('id', o.id, 'measured', o.measured_nm) order by o.measured_nm)
                           filter (where o.id is not null and s.on_hand > 0), '[]') as "oddPieces"
             from shelf_part p left join stock s on s.part = p.part left join piece o on o.id = s.piece
            where p.part > $1 group by p.part order by p.part limit $2`,
    values: [after, limit],
  });
  return rows;
}

/** Puts new parts on the shelf. The movement's id is made by the form: sent twice, it counts once. */
export async function receive(
  db: Queryable,
  { id, part, quantity, by }: { id: string; part: string; quantity: number; by: string },
): Promise<void> {
  await db.query(
    `insert into movement (id, part, quantity, why, by_name) values ($1, $2, $3, 'received', $4) on conflict (id) do nothing`,
    [id, part, quantity, by],
  );
}

/** Back onto the shelf: a piece of its own where it was measured, else one more of what its mark says. */
async function putBack(
  db: Queryable,
  { part, measured, job, by }: { part: string; measured: Nm | null; job: string | null; by: string },
): Promise<void> {
  const piece = measured === null ? null : newId();
  if (piece !== null)
    await db.query("insert into piece (id, part, measured_nm) values ($1, $2, $3)", [piece, part, measured]);
  await db.query(
    "insert into movement (id, part, piece, quantity, why, job, by_name) values ($1, $2, $3, 1, 'removed from unit', $4, $5)",
    [newId(), part, piece, job, by],
  );
}

export async function addOddPiece(db: Queryable, part: string, measured: Nm, by: string): Promise<void> {
  await putBack(db, { part, measured, job: null, by });
}

/** Everything one choice of a selective does: facts into the job, a part off the shelf, the removed one back onto it. */
export interface Fitting {
  job: string;
  facts: Fact[];
  author: Author;
  take: { part: string; piece?: string };
  /** The removed one, measured or by its mark; null when it is scrapped or is not of any series the shelf keeps. */
  back: { part: string; measured: Nm | null } | null;
}

export type Fitted =
  { ok: true } | { ok: false; why: "gone" | "other fitted" | "closed" | "no job" | "elsewhere" };

/** Any of these ends the transaction without a trace. */
class Refused extends Error {
  constructor(readonly why: Exclude<Fitted, { ok: true }>["why"]) {
    super(why);
  }
}

/**
 * Fits a part from the shelf in one transaction. Of two builders reaching for the last one, the check on `stock` lets one
 * through; of two fitting the same place, the unique index on fittings does. The same choice sent twice is done once.
 */
export async function fitFromShelf(pool: Pool, { job, facts, author, take, back }: Fitting): Promise<Fitted> {
  const first = facts[0];
  try {
    return await inTransaction(pool, async (db) => {
      // Facts and movements of one choice are stored together, so its first fact tells whether it was done before.
      await db.query("select pg_advisory_xact_lock(hashtext($1))", [first?.id]);
      const { rowCount } = await db.query("select from fact where id = $1", [first?.id]);
      if (rowCount) return { ok: true };
      const added = await addFacts(db, job, facts, author);
      if (!added.ok) throw new Refused(added.why);
      await db.query(
        "insert into movement (id, part, piece, quantity, why, job, by_name) values ($1, $2, $3, -1, 'fitted', $4, $5)",
        [newId(), take.part, take.piece ?? null, job, author.name],
      );
      if (back) await putBack(db, { ...back, job, by: author.name });
      return { ok: true };
    });
  } catch (error) {
    if (error instanceof Refused) return { ok: false, why: error.why };
    if (sqlState(error) === CHECK_VIOLATION && constraintOf(error) === "stock_not_negative")
      return { ok: false, why: "gone" };
    if (sqlState(error) === UNIQUE_VIOLATION && constraintOf(error) === "fact_fitting_once")
      return { ok: false, why: "other fitted" };
    throw error;
  }
}
