import { v7 as newId } from "uuid";
import type { Fact } from "~core/fact";
import { nm, type Nm } from "~core/quantity";
import { USED_OVER_DAYS, type Stock } from "~core/select";
import { constraintOf, inTransaction, type Pool, type Queryable } from "./database";
import { addFacts, type Author } from "./facts";
import { tellOf } from "./live";

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

/**
 * What can be taken from the shelf of some parts, odd measured pieces each for itself.
 *
 * @param jobs what others than these have reserved is not counted; without them nothing that is reserved is.
 */
export async function stockOf(
  db: Queryable,
  parts: readonly string[],
  jobs: readonly string[] = [],
): Promise<Stock[]> {
  const { rows } = await db.query<{
    part: string;
    on_hand: number;
    piece: string | null;
    measured_nm: number | null;
    price_cents: number | null;
    order_days: number | null;
    reserved: number;
    used: number | null;
  }>({
    name: "stock-of-parts",
    text: `select p.part, coalesce(s.on_hand, 0) as on_hand, s.piece, o.measured_nm, p.price_cents, p.order_days,
                  (select count(*)::int from reservation r
                    where r.part = p.part and r.piece is not distinct from s.piece and r.ended is null
                      and r.job <> all ($2::uuid[])) as reserved,
                  case when s.piece is null then
                    (select count(*)::int from movement m where m.part = p.part and m.why = 'fitted'
                        and m.at > now() - make_interval(days => $3)) end as used
             from shelf_part p left join stock s on s.part = p.part and (s.piece is null or s.on_hand > 0)
             left join piece o on o.id = s.piece
            where p.part = any ($1::text[])`,
    values: [parts, jobs, USED_OVER_DAYS],
  });
  return rows.map((row) => ({
    part: row.part,
    onHand: Math.max(0, row.on_hand - row.reserved),
    ...(row.reserved > 0 ? { reserved: row.reserved } : {}),
    ...(row.used ? { used: row.used } : {}),
    ...(row.piece && row.measured_nm !== null
      ? { piece: { id: row.piece, measured: nm(row.measured_nm) } }
      : {}),
    price: row.price_cents ?? undefined,
    days: row.order_days ?? undefined,
  }));
}

export interface ShelfRow extends ShelfPart {
  onHand: number;
  /** Of what lies there, put aside for jobs. */
  reserved: number;
  oddPieces: { id: string; measured: number }[];
}

/** What of the shelf is asked for. */
export interface ShelfAsked {
  /** Only these parts; all of them where it is left out. */
  parts?: readonly string[];
  /** What a part’s number, name or bin contains. */
  text?: string;
  /** Only bins that begin so. */
  bin?: string;
  /** The emptiest first, else by part. */
  lowFirst?: boolean;
  /** The last row of the page before. */
  after?: { part: string; onHand: number };
  limit?: number;
}

/** A page of the shelf, keyset by part number, or by what lies there and part number. */
export async function listShelf(
  db: Queryable,
  { parts, text = "", bin = "", lowFirst = false, after, limit = 100 }: ShelfAsked = {},
): Promise<ShelfRow[]> {
  const { rows } = await db.query<ShelfRow>({
    name: `shelf-list-${lowFirst ? "low" : "part"}`,
    text: `with page as (
             select p.part, p.name, p.bin, p.price_cents, p.order_days, s.on_hand
               from stock s join shelf_part p on p.part = s.part and s.piece is null
              where ($1::text[] is null or p.part = any ($1))
                and ($2 = '' or position(lower($2) in lower(p.part || ' ' || p.name || ' ' || p.bin)) > 0)
                and ($3 = '' or p.bin like $3 || '%')
                and ${lowFirst ? "(s.on_hand, s.part) > ($5, $4)" : "p.part > $4 and s.part > $4 and ($5::int is not null)"}
              order by ${lowFirst ? "s.on_hand, s.part" : "p.part"} limit $6)
           select p.part, p.name, p.bin, p.price_cents as "priceCents", p.order_days as "orderDays", p.on_hand as "onHand",
                  (select count(*)::int from reservation r where r.part = p.part and r.ended is null) as reserved,
                  (select coalesce(jsonb_agg(jsonb_build_object('id', o.id, 'measured', o.measured_nm) order by o.measured_nm), '[]')
                     from stock i join piece o on o.id = i.piece where i.part = p.part and i.on_hand > 0) as "oddPieces"
             from page p order by ${lowFirst ? "p.on_hand, p.part" : "p.part"}`,
    values: [
      parts ?? null,
      text,
      bin.replace(/[\\%_]/g, "\\$&"),
      after?.part ?? "",
      after?.onHand ?? -1,
      limit,
    ],
  });
  return rows;
}

/** One movement of a part, with the job it was for. */
export interface Movement {
  id: string;
  quantity: number;
  why: string;
  job: number | null;
  by: string;
  at: string;
  measured: number | null;
}

/** The last movements of a part, newest first. */
export async function movementsOf(db: Queryable, part: string, limit = 60): Promise<Movement[]> {
  const { rows } = await db.query<Omit<Movement, "at"> & { at: Date }>({
    name: "movements-of-part",
    text: `select m.id, m.quantity, m.why, j.number as job, m.by_name as by, m.at, o.measured_nm as measured
             from movement m left join job j on j.id = m.job left join piece o on o.id = m.piece
            where m.part = $1 order by m.at desc limit $2`,
    values: [part, limit],
  });
  return rows.map((row) => ({ ...row, at: row.at.toISOString() }));
}

/** Jobs that have put one of a part aside. */
export async function reservedOf(
  db: Queryable,
  part: string,
): Promise<{ job: number; seat: string; by: string }[]> {
  const { rows } = await db.query<{ job: number; seat: string; by: string }>({
    name: "reserved-of-part",
    text: `select j.number as job, r.seat, r.by_name as by from reservation r join job j on j.id = r.job
            where r.part = $1 and r.ended is null order by r.at`,
    values: [part],
  });
  return rows;
}

/**
 * Sets a count right: what was counted less what the ledger says becomes a movement with its reason. Sent twice it counts once; where nothing
 * differs nothing moves.
 */
export async function countShelf(
  db: Queryable,
  {
    id,
    part,
    counted,
    reason,
    by,
  }: { id: string; part: string; counted: number; reason: string; by: string },
): Promise<void> {
  await db.query(
    `insert into movement (id, part, quantity, why, by_name)
     select $1, s.part, $3 - s.on_hand, $4, $5 from stock s
      where s.part = $2 and s.piece is null and s.on_hand <> $3
     on conflict (id) do nothing`,
    [id, part, counted, `counted: ${reason}`, by],
  );
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

/** What the shelf never had gets a place there, which somebody has yet to name; what it has stays as it is. */
export const placeFor = (db: Queryable, part: string, name: string): Promise<void> =>
  addShelfPart(db, { part, name, bin: "to be put away", priceCents: null, orderDays: null });

/** What goes back onto the shelf, measured or by its mark. */
export interface Back {
  part: string;
  /** What it is called there, where the shelf has none of it yet. */
  name: string;
  measured: Nm | null;
}

/** Back onto the shelf: a piece of its own where it was measured, else one more of what its mark says. */
async function putBack(
  db: Queryable,
  { part, measured, job, by }: Omit<Back, "name"> & { job: string | null; by: string },
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
  /** Null for what is set or made on the spot. */
  take: { part: string; piece?: string } | null;
  /** Whose reservation ends with it. */
  seat?: string;
  /** The removed one, measured or by its mark; null when it is scrapped or is not of any series the shelf keeps. */
  back: Back | null;
}

export type Fitted =
  | { ok: true }
  | { ok: false; why: "gone" | "other fitted" | "closed" | "no job" | "elsewhere" };

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
export async function fitFromShelf(
  pool: Pool,
  { job, facts, author, take, seat, back }: Fitting,
): Promise<Fitted> {
  const first = facts[0];
  try {
    return await inTransaction(pool, async (db) => {
      // Facts and movements of one choice are stored together, so its first fact tells whether it was done before.
      await db.query("select pg_advisory_xact_lock(hashtext($1))", [first?.id]);
      const { rowCount } = await db.query("select from fact where id = $1", [first?.id]);
      if (rowCount) return { ok: true };
      const added = await addFacts(db, job, facts, author);
      if (!added.ok) throw new Refused(added.why);
      if (take) {
        await db.query(
          "insert into movement (id, part, piece, quantity, why, job, by_name) values ($1, $2, $3, -1, 'fitted', $4, $5)",
          [newId(), take.part, take.piece ?? null, job, author.name],
        );
      }
      if (seat !== undefined) await endReservation(db, job, seat, "fitted");
      // What somebody has reserved is not there to be taken.
      if (take && !(await covers(db, take))) throw new Refused("gone");
      if (back) {
        await placeFor(db, back.part, back.name);
        await putBack(db, { ...back, job, by: author.name });
      }
      return { ok: true };
    });
  } catch (error) {
    if (error instanceof Refused) return { ok: false, why: error.why };
    const off = constraintOf(error);
    if (off === "stock_not_negative" || off === "movement_part_fkey") return { ok: false, why: "gone" };
    if (off === "fact_fitting_once") return { ok: false, why: "other fitted" };
    throw error;
  }
}

/** Whether what lies there covers all that is reserved of it; whoever else asks of the same waits, so that this is known for sure. */
export async function covers(
  db: Queryable,
  { part, piece }: { part: string; piece?: string },
): Promise<boolean> {
  const which = [part, piece ?? null];
  // A statement of its own: one that waits counts what there was before it waited.
  await db.query("select pg_advisory_xact_lock(hashtext($1 || ' ' || coalesce($2, '')))", which);
  const { rows } = await db.query<{ covers: boolean }>(
    `select s.on_hand >= (select count(*) from reservation r where r.part = s.part
              and r.piece is not distinct from s.piece and r.ended is null) as covers
       from stock s where s.part = $1 and s.piece is not distinct from $2`,
    which,
  );
  return rows[0]?.covers ?? false;
}

const endReservation = (
  db: Queryable,
  job: string,
  seat: string,
  why: "fitted" | "given up",
): Promise<unknown> =>
  db.query(
    "update reservation set ended = clock_timestamp(), ended_why = $3 where job = $1 and seat = $2 and ended is null",
    [job, seat, why],
  );

/** A piece meant for a seat of a job. */
export interface Reserve {
  job: string;
  seat: string;
  part: string;
  piece?: string;
}

/**
 * Reserves pieces for seats, of one job or of several, all of them or none; what was reserved for these seats before is given up.
 *
 * @returns the place whose piece somebody else has meanwhile; null when all are reserved.
 */
export async function reserve(pool: Pool, by: string, wanted: readonly Reserve[]): Promise<Reserve | null> {
  const inOrder = [...wanted].sort((a, b) => (a.part < b.part ? -1 : a.part > b.part ? 1 : 0));
  try {
    await inTransaction(pool, async (db) => {
      for (const { job, seat } of [...wanted].sort(byPlace)) await endReservation(db, job, seat, "given up");
      // Parts in one order, so that two who reserve at once do not wait for each other.
      for (const one of inOrder) {
        const { job, seat, part, piece } = one;
        await db.query(
          "insert into reservation (id, job, seat, part, piece, by_name) values ($1, $2, $3, $4, $5, $6)",
          [newId(), job, seat, part, piece ?? null, by],
        );
        if (!(await covers(db, { part, ...(piece === undefined ? {} : { piece }) }))) throw new Taken(one);
      }
      for (const job of new Set(wanted.map((one) => one.job))) await tellOf(db, job);
    });
    return null;
  } catch (error) {
    if (error instanceof Taken) return error.wanted;
    throw error;
  }
}

/** Places in one order: two who give up the same ones do not wait for each other either. */
const byPlace = (a: Reserve, b: Reserve): number =>
  a.job === b.job ? (a.seat < b.seat ? -1 : 1) : a.job < b.job ? -1 : 1;

class Taken extends Error {
  constructor(readonly wanted: Reserve) {
    super(wanted.seat);
  }
}

/** What is reserved for a job, by bin: what has to be fetched. */
export interface Reserved {
  seat: string;
  part: string;
  piece: string | null;
  measured: Nm | null;
  name: string;
  bin: string;
  by: string;
}

export async function reservedFor(db: Queryable, job: string): Promise<Reserved[]> {
  const { rows } = await db.query<Reserved>({
    name: "reserved-for-job",
    text: `select r.seat, r.part, r.piece, o.measured_nm as measured, p.name, p.bin, r.by_name as by
             from reservation r join shelf_part p on p.part = r.part left join piece o on o.id = r.piece
            where r.job = $1 and r.ended is null order by p.bin, r.part, r.seat`,
    values: [job],
  });
  return rows;
}

/** Gives up what was reserved for a seat. */
export async function giveUp(db: Queryable, job: string, seat: string): Promise<void> {
  await endReservation(db, job, seat, "given up");
  await tellOf(db, job);
}
