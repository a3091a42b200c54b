import { v5 as namedId, v7 as newId } from "uuid";
import {
  CHECK_VIOLATION,
  constraintOf,
  inTransaction,
  sqlState,
  type Pool,
  type Queryable,
} from "./database";
import { tellOf } from "./live";
import type { SupplierTask } from "./queue";
import { covers, placeFor } from "./shelf";
import { wordsOf, type Word } from "./suppliers";

/** What lies in a box that is sold as one. */
export interface Content {
  number: string;
  name: string;
  count: number;
}
/** A line of an order, as it is made. */
export interface NewLine {
  supplier: string;
  part: string;
  name: string;
  pieces: number;
  cents: number;
  /** Until it should be here; null where the supplier does not say. */
  days: number | null;
  contents?: readonly Content[];
  /** The seats it was chosen for, where it is a selective. */
  seats?: readonly string[];
}
/** Something taken from the shelf for a job. */
export interface FromShelf {
  part: string;
  name: string;
  pieces: number;
}

/** What becomes of the list of one job: lines to suppliers, and pieces from the shelf. */
export interface NewOrder {
  /** Made with the form: the same one sent twice is ordered once. */
  id: string;
  job: string;
  by: string;
  lines: readonly NewLine[];
  shelf: readonly FromShelf[];
}

const MINE = "8a7a4f6e-4f0d-4c55-9a35-0d2f4b8a6c11";

/** Of several that come of one form, one id each, the same every time. */
const within = (id: string, ...what: string[]): string => namedId([id, ...what].join("|"), MINE);

/** Told of what is to be said to a supplier, in the transaction in which it came about. */
export type Tell = (db: Queryable, supplier: string, task: SupplierTask) => Promise<void>;
const onPaper: Tell = () => Promise.resolve();

/**
 * Orders what a job needs, one order to each supplier, and takes what lies on the shelf into the job's box: all of it or nothing.
 *
 * @param tell who sends it off; without it the order is on paper.
 * @returns the part that is not on the shelf any more; null when all is done.
 */
export async function order(
  pool: Pool,
  { id, job, by, lines, shelf }: NewOrder,
  tell = onPaper,
): Promise<string | null> {
  const suppliers = [...new Set(lines.map(({ supplier }) => supplier))].sort();
  const taken = [...shelf].sort((a, b) => (a.part < b.part ? -1 : 1));
  try {
    await inTransaction(pool, async (db) => {
      // What was sent before with this form is there already.
      await db.query("select pg_advisory_xact_lock(hashtext($1))", [id]);
      const { rowCount } = await db.query(
        "select from purchase where id = any ($1::uuid[]) union all select from box_movement where id = any ($2::uuid[])",
        [suppliers.map((one) => within(id, one)), taken.map(({ part }) => within(id, "box", part))],
      );
      if (rowCount) return;
      for (const supplier of suppliers) {
        const purchase = within(id, supplier);
        await db.query("insert into purchase (id, supplier, by_name) values ($1, $2, $3)", [
          purchase,
          supplier,
          by,
        ]);
        for (const line of lines.filter((one) => one.supplier === supplier))
          await db.query(
            `insert into purchase_line (id, purchase, job, part, name, pieces, cents, due, contents, seats)
             values ($1, $2, $3, $4, $5, $6, $7, shop_day() + $8::int, $9, $10)`,
            [
              within(id, supplier, line.part),
              purchase,
              job,
              line.part,
              line.name,
              line.pieces,
              line.cents,
              line.days,
              line.contents ? JSON.stringify(line.contents) : null,
              line.seats ?? null,
            ],
          );
        await tell(db, supplier, { do: "order", purchase });
      }
      for (const { part, name, pieces } of taken) {
        try {
          await db.query(
            "insert into movement (id, part, quantity, why, job, by_name) values ($1, $2, $3, 'for a job', $4, $5)",
            [within(id, "shelf", part), part, -pieces, job, by],
          );
        } catch (error) {
          if (sqlState(error) === CHECK_VIOLATION) throw new Gone(part);
          throw error;
        }
        // What is put aside for another is not there to be taken.
        if (!(await covers(db, { part }))) throw new Gone(part);
        await db.query(
          "insert into box_movement (id, job, part, name, quantity, why, by_name) values ($1, $2, $3, $4, $5, 'from the shelf', $6)",
          [within(id, "box", part), job, part, name, pieces, by],
        );
      }
      await tellOf(db, job);
    });
    return null;
  } catch (error) {
    if (error instanceof Gone) return error.part;
    throw error;
  }
}

class Gone extends Error {
  constructor(readonly part: string) {
    super(part);
  }
}

/** What is ready for a job, and what is on its way to it. */
export interface JobSupply {
  box: { part: string; name: string; count: number }[];
  coming: ComingLine[];
}
/** A line that is not all here. */
export interface ComingLine {
  line: string;
  order: number;
  supplier: string;
  job: number | null;
  part: string;
  name: string;
  /** Still to come. */
  pieces: number;
  ordered: number;
  cents: number;
  /** ISO day; null where the supplier does not say. */
  due: string | null;
  isLate: boolean;
  /** Of what is to come, on the road by the supplier’s word. */
  sent: number;
  contents: Content[] | null;
}

const COMING = `select l.id as line, p.number::int as order, p.supplier, j.number as job, l.part, l.name, o.pieces, l.pieces as ordered, l.cents,
                       to_char(o.due, 'YYYY-MM-DD') as due, coalesce(o.due < (select shop_day()), false) as "isLate",
                       least(o.sent, o.pieces) as sent, l.contents
                  from purchase_open o join purchase_line l on l.id = o.line join purchase p on p.id = l.purchase
                  left join job j on j.id = l.job`;

/** One statement, which sees one moment: what is just being taken in is on its way or in the box, never in neither. */
export async function supplyOf(db: Queryable, job: string): Promise<JobSupply> {
  const { rows } = await db.query<JobSupply>({
    name: "supply-of-job",
    text: `with box as (select part, max(name) as name, sum(quantity)::int as count from box_movement where job = $1
                         group by part having sum(quantity) > 0),
                coming as (${COMING} where l.job = $1 and o.pieces > 0)
           select (select coalesce(jsonb_agg(b order by b.part), '[]') from box b) as box,
                  (select coalesce(jsonb_agg(c order by c.due nulls last, c.part), '[]') from coming c) as coming`,
    values: [job],
  });
  return rows[0] ?? { box: [], coming: [] };
}

/** What is ready for several jobs and on its way to them, by their numbers: pieces by part number, a kit by what lies in it. */
export async function gotFor(
  db: Queryable,
  jobs: readonly number[],
): Promise<Map<number, Map<string, number>>> {
  const { rows } = await db.query<{ job: number; part: string; pieces: number }>({
    name: "got-for-jobs",
    text: `select j.number::int as job, got.part, sum(got.pieces)::int as pieces
             from job j cross join lateral (
               select b.part, b.quantity as pieces from box_movement b where b.job = j.id
               union all
               select l.part, o.pieces from purchase_line l join purchase_open o on o.line = l.id
                where l.job = j.id and o.pieces > 0 and l.contents is null
               union all
               select c ->> 'number', o.pieces * (c ->> 'count')::int from purchase_line l join purchase_open o on o.line = l.id
                cross join jsonb_array_elements(l.contents) c where l.job = j.id and o.pieces > 0) got
            where j.number = any ($1::int[]) group by 1, 2`,
    values: [jobs],
  });
  const got = new Map<number, Map<string, number>>(jobs.map((job) => [job, new Map()]));
  for (const { job, part, pieces } of rows) got.get(job)?.set(part, pieces);
  return got;
}

/** Everything on its way, what is latest first; a page of it. */
export async function comingIn(db: Queryable, limit = 200): Promise<ComingLine[]> {
  const { rows } = await db.query<ComingLine>({
    name: "coming-in",
    text: `${COMING} where o.pieces > 0 order by o.due nulls last, p.number, l.part limit $1`,
    values: [limit],
  });
  return rows;
}

/** Something that came, went back because it was wrong, or that its supplier does not send. */
export interface Came {
  event: string;
  what: "arrived" | "wrong" | "cancelled";
  name: string;
  part: string;
  pieces: number;
  note: string;
  order: number;
  job: number | null;
  by: string;
  /** ISO 8601. */
  at: string;
}

/** What came last, the newest first. */
export async function cameLast(db: Queryable, limit = 12): Promise<Came[]> {
  const { rows } = await db.query<Omit<Came, "at"> & { at: Date }>({
    name: "came-last",
    text: `select e.id as event, e.what, l.name, l.part, e.pieces, e.note, p.number::int as order, j.number::int as job, e.by_name as by, e.at
             from purchase_event e join purchase_line l on l.id = e.line join purchase p on p.id = l.purchase left join job j on j.id = l.job
            where e.what in ('arrived', 'wrong') or (e.what = 'cancelled' and e.by_name = p.supplier) order by e.at desc, e.id limit $1`,
    values: [limit],
  });
  return rows.map(({ at, ...one }) => Object.assign(one, { at: at.toISOString() }));
}

/** What came of pieces of a line. */
export interface Arrival {
  /** Made with the form: said twice it is once. */
  id: string;
  line: string;
  what: "arrived" | "wrong" | "cancelled";
  pieces: number;
  note: string;
  by: string;
}

/**
 * What came of a line. What arrived lies in its job's box, out of its own box where it is a kit; bought for the shelf, or for a job that is closed, it lies
 * there, and so does a selective, put aside for the seats it was chosen for.
 *
 * @param tell who lets the supplier know what is not wanted any more.
 * @returns false where more is said of the line than is still to come of it.
 */
export async function arrive(
  pool: Pool,
  { id, line, what, pieces, note, by }: Arrival,
  tell = onPaper,
): Promise<boolean> {
  try {
    await inTransaction(pool, async (db) => {
      await db.query("select pg_advisory_xact_lock(hashtext($1))", [id]);
      const known = await db.query("select from purchase_event where id = $1", [id]);
      if (known.rowCount) return;
      await db.query(
        "insert into purchase_event (id, line, what, pieces, note, by_name) values ($1, $2, $3, $4, $5, $6)",
        [id, line, what, pieces, note, by],
      );
      const { rows } = await db.query<{
        job: string | null;
        part: string;
        name: string;
        contents: Content[] | null;
        seats: string[] | null;
        supplier: string;
        /** Whether its job still goes on. */
        isOpen: boolean;
      }>(
        `select l.job, l.part, l.name, l.contents, l.seats, p.supplier, coalesce(c.open, false) as "isOpen"
           from purchase_line l join purchase p on p.id = l.purchase left join job_card c on c.job = l.job where l.id = $1`,
        [line],
      );
      const [of] = rows;
      if (!of) throw new Beyond();
      if (what === "wrong") {
        const open = await db.query<{ pieces: number }>("select pieces from purchase_open where line = $1", [
          line,
        ]);
        if ((open.rows[0]?.pieces ?? 0) < pieces) throw new Beyond();
      }
      if (what === "arrived") {
        const all = of.contents ?? [{ number: of.part, name: of.name, count: 1 }];
        for (const { number, name, count } of all)
          if (of.isOpen && of.seats === null)
            await db.query(
              `insert into box_movement (id, job, part, name, quantity, why, line, by_name) values ($1, $2, $3, $4, $5, 'bought', $6, $7)`,
              [within(id, number), of.job, number, name, count * pieces, line, by],
            );
          else
            await ontoShelf(db, {
              id: within(id, number),
              part: number,
              name,
              pieces: count * pieces,
              why: "received",
              job: null,
              by,
            });
        if (of.job !== null && of.isOpen)
          await putAside(db, { job: of.job, part: of.part, seats: of.seats ?? [], pieces, by });
      }
      if (what === "cancelled") await tell(db, of.supplier, { do: "cancel", event: id });
      if (of.job !== null) await tellOf(db, of.job);
    });
    return true;
  } catch (error) {
    if (error instanceof Beyond) return false;
    if (sqlState(error) === CHECK_VIOLATION && constraintOf(error) === "no_more_than_was_ordered")
      return false;
    throw error;
  }
}

/**
 * Cancels what is still to come for a job that is called off, as far as its suppliers still can.
 *
 * @param db the transaction in which it is called off.
 */
export async function cancelFor(
  db: Queryable,
  job: string,
  { note, by }: Pick<Arrival, "note" | "by">,
  tell: Tell,
): Promise<void> {
  const { rows } = await db.query<{ event: string; supplier: string }>(
    `with told as (
       insert into purchase_event (id, line, what, pieces, note, by_name)
       select gen_random_uuid(), l.id, 'cancelled', o.pieces, $2, $3
         from purchase_line l join purchase_open o on o.line = l.id where l.job = $1 and o.pieces > 0 returning id, line)
     select told.id as event, p.supplier from told join purchase_line l on l.id = told.line join purchase p on p.id = l.purchase order by l.id`,
    [job, note, by],
  );
  for (const { event, supplier } of rows) await tell(db, supplier, { do: "cancel", event });
}

/** What was bought for seats lies on the shelf, where it is chosen from, and is theirs: for as many of them as came pieces, and that have nothing put aside. */
async function putAside(
  db: Queryable,
  {
    job,
    part,
    seats,
    pieces,
    by,
  }: { job: string; part: string; seats: readonly string[]; pieces: number; by: string },
): Promise<void> {
  const { rows } = await db.query<{ seat: string }>(
    "select seat from reservation where job = $1 and ended is null",
    [job],
  );
  const held = new Set(rows.map(({ seat }) => seat));
  for (const seat of seats.filter((one) => !held.has(one)).slice(0, pieces))
    await db.query("insert into reservation (id, job, seat, part, by_name) values ($1, $2, $3, $4, $5)", [
      newId(),
      job,
      seat,
      part,
      by,
    ]);
}

class Beyond extends Error {}

/** Pieces onto the shelf, in a place of their own where the shelf did not have any of them. */
async function ontoShelf(
  db: Queryable,
  one: {
    id: string;
    part: string;
    name: string;
    pieces: number;
    why: string;
    job: string | null;
    by: string;
  },
): Promise<void> {
  await placeFor(db, one.part, one.name);
  await db.query(
    "insert into movement (id, part, quantity, why, job, by_name) values ($1, $2, $3, $4, $5, $6)",
    [one.id, one.part, one.pieces, one.why, one.job, one.by],
  );
}

/** Puts what a job does not need back onto the shelf; said twice with one id it is done once. */
export async function backToShelf(
  pool: Pool,
  { id, job, part, pieces, by }: { id: string; job: string; part: string; pieces: number; by: string },
): Promise<boolean> {
  return inTransaction(pool, async (db) => {
    // One at a time in a box: its sum is counted under this lock.
    await db.query("select pg_advisory_xact_lock(hashtext('box ' || $1))", [job]);
    const known = await db.query("select from box_movement where id = $1", [id]);
    if (known.rowCount) return true;
    const { rows } = await db.query<{ name: string; count: number }>(
      "select max(name) as name, coalesce(sum(quantity), 0)::int as count from box_movement where job = $1 and part = $2",
      [job, part],
    );
    const [has] = rows;
    if (!has || has.count < pieces) return false;
    await db.query(
      "insert into box_movement (id, job, part, name, quantity, why, by_name) values ($1, $2, $3, $4, $5, 'to the shelf', $6)",
      [id, job, part, has.name, -pieces, by],
    );
    await ontoShelf(db, { id: within(id, "shelf"), part, name: has.name, pieces, why: "left over", job, by });
    await tellOf(db, job);
    return true;
  });
}

/** What a supplier did with what was ordered there: of lines that are all here or should be, and pieces that went back. */
export interface SupplierRecord {
  supplier: string;
  /** Lines that are all here, or should have been by now. */
  due: number;
  /** Of these, all here by the day that was said. */
  inTime: number;
  /** Pieces that came wrong and went back. */
  wrong: number;
}

/** So many of a shop’s last orders tell how a supplier is. */
const LAST_ORDERS = 2_000;

/** What each supplier did with the last orders, by name. */
export async function supplierRecords(db: Queryable): Promise<SupplierRecord[]> {
  const { rows } = await db.query<SupplierRecord>({
    name: "supplier-records",
    text: `select p.supplier, count(*) filter (where o.pieces = 0 or l.due < (select shop_day()))::int as due,
                  count(*) filter (where o.pieces = 0 and (l.due is null or shop_day(e.last) <= l.due))::int as "inTime",
                  coalesce(sum(e.wrong), 0)::int as wrong
             from (select id, supplier from purchase order by number desc limit $1) p
             join purchase_line l on l.purchase = p.id join purchase_open o on o.line = l.id
             left join lateral (select max(at) filter (where what = 'arrived') as last,
                                       sum(pieces) filter (where what = 'wrong') as wrong,
                                       sum(case what when 'cancelled' then pieces when 'comes after all' then -pieces end) as cancelled
                                  from purchase_event where line = l.id) e on true
            -- What nobody wanted any more says nothing of who would have sent it.
            where coalesce(e.cancelled, 0) < l.pieces
            group by p.supplier order by p.supplier`,
    values: [LAST_ORDERS],
  });
  return rows;
}

/** What was said of a line, by the shop or its supplier. */
export type Happened = Arrival["what"] | "comes after all";

/** One order with its lines and what came of each. */
export interface Purchase {
  number: number;
  supplier: string;
  by: string;
  /** ISO 8601. */
  at: string;
  /** Where its supplier has a computer: how far it is there. Null where it goes on paper. */
  word: Word | null;
  lines: (ComingLine & {
    events: { what: Happened; pieces: number; note: string; by: string; at: string }[];
  })[];
}

/** An order by its number; null when there is none. */
export async function purchase(db: Queryable, number: number): Promise<Purchase | null> {
  if (!Number.isSafeInteger(number)) return null;
  const [head, lines] = await Promise.all([
    db.query<{ number: number; supplier: string; by: string; at: Date }>(
      "select number::int as number, supplier, by_name as by, at from purchase where number = $1",
      [number],
    ),
    // With what came of it in one statement: a line that comes after all is never told as all here.
    db.query<Purchase["lines"][number]>({
      name: "lines-of-purchase",
      text: `select c.*, (select coalesce(jsonb_agg(jsonb_build_object('what', e.what, 'pieces', e.pieces, 'note', e.note, 'by', e.by_name, 'at', e.at)
                                                    order by e.at, e.id), '[]')
                            from purchase_event e where e.line = c.line) as events
               from (${COMING} where p.number = $1) c order by c.part`,
      values: [number],
    }),
  ]);
  const [of] = head.rows;
  if (!of) return null;
  return {
    ...of,
    word: (await wordsOf(db, [number])).get(number) ?? null,
    at: of.at.toISOString(),
    lines: lines.rows.map((line) => ({
      ...line,
      events: line.events.map((one) => ({ ...one, at: new Date(one.at).toISOString() })),
    })),
  };
}
