import { v5 as namedId, v7 as newId } from "uuid";
import { inTransaction, sqlState, UNIQUE_VIOLATION, type Pool, type Queryable } from "./database";
import { tellOf } from "./live";

/** The last that was heard of an order at a supplier with a computer. */
export interface Word {
  what: "waiting" | "failing" | "taken" | "refused";
  /** Why; of one that was taken the supplier’s own number. */
  note: string;
  /** Since when; ISO 8601. */
  at: string;
}

/** How orders stand at suppliers with a computer, by their numbers; those on paper have no word. */
export async function wordsOf(db: Queryable, orders: readonly number[]): Promise<Map<number, Word>> {
  const { rows } = await db.query<Omit<Word, "at"> & { number: number; at: Date }>({
    name: "words-of-orders",
    text: `select distinct on (p.number) p.number::int as number, w.what, w.note, w.at
             from purchase p join purchase_word w on w.purchase = p.id where p.number = any ($1::bigint[]) order by p.number, w.at desc, w.id desc`,
    values: [orders],
  });
  return new Map(rows.map(({ number, what, note, at }) => [number, { what, note, at: at.toISOString() }]));
}

/** Orders that their supplier does not answer to: they are tried again by themselves, and somebody may want to ring up. */
export async function stuckOrders(
  db: Queryable,
): Promise<{ number: number; supplier: string; word: Word }[]> {
  const { rows } = await db.query<{ number: number; supplier: string }>({
    name: "stuck-orders",
    text: `select distinct p.number::int as number, p.supplier from purchase_open o join purchase_line l on l.id = o.line join purchase p on p.id = l.purchase
             join lateral (select what from purchase_word where purchase = p.id order by at desc, id desc limit 1) w on w.what = 'failing'
            where o.pieces > 0 order by 1 limit 50`,
  });
  const words = await wordsOf(
    db,
    rows.map(({ number }) => number),
  );
  return rows.flatMap((one) => {
    const word = words.get(one.number);
    return word ? [{ number: one.number, supplier: one.supplier, word }] : [];
  });
}

/** An order as its supplier is told of it. */
export interface Placed {
  id: string;
  number: number;
  supplier: string;
  lines: {
    id: string;
    part: string;
    name: string;
    pieces: number;
    cents: number;
    open: number;
    due: string | null;
  }[];
  /** Whether the supplier has answered to it for good. */
  answered: "taken" | "refused" | null;
}

/** An order by its id; null when there is none. */
export async function placed(db: Queryable, id: string): Promise<Placed | null> {
  const { rows: heads } = await db.query<Pick<Placed, "number" | "supplier" | "answered">>({
    name: "placed-order",
    text: `select number::int as number, supplier, (select what from purchase_word where purchase = $1 and what in ('taken', 'refused')) as answered
             from purchase where id = $1`,
    values: [id],
  });
  const [head] = heads;
  if (!head) return null;
  const { rows: lines } = await db.query<Placed["lines"][number]>({
    name: "placed-lines",
    text: `select l.id, l.part, l.name, l.pieces, l.cents, o.pieces as open, to_char(o.due, 'YYYY-MM-DD') as due
             from purchase_line l join purchase_open o on o.line = l.id where l.purchase = $1 order by l.part`,
    values: [id],
  });
  return { id, ...head, lines };
}

/** What was cancelled, as the supplier is told of it; null when there is nothing of that id. */
export async function cancelled(
  db: Queryable,
  event: string,
): Promise<{ purchase: string; line: string; part: string; pieces: number } | null> {
  const { rows } = await db.query<{ purchase: string; line: string; part: string; pieces: number }>({
    name: "cancelled-pieces",
    text: `select l.purchase, l.id as line, l.part, e.pieces from purchase_event e join purchase_line l on l.id = e.line
            where e.id = $1 and e.what = 'cancelled'`,
    values: [event],
  });
  return rows[0] ?? null;
}

/** Notes how an order stands at its supplier, where that is not what was noted last. */
export async function noteWord(
  db: Queryable,
  purchase: string,
  { what, note }: Omit<Word, "at">,
): Promise<void> {
  await db.query({
    name: "note-word",
    text: `insert into purchase_word (id, purchase, what, note)
           select $1::uuid, $2::uuid, $3::text, $4::text where not exists
             (select from (select what, note from purchase_word where purchase = $2 order by at desc, id desc limit 1) w
               where w.what = $3 and w.note = $4)`,
    values: [newId(), purchase, what, note],
  });
}

/** What a supplier answers to one line of an order. */
export interface LineAnswer {
  line: string;
  /** By when it is here; null where it does not say. */
  due: string | null;
  /** Why it does not come; empty where it does. */
  refused: string;
  /** How many are on the road. */
  sent: number;
}

/**
 * Keeps a supplier’s answer to an order, once: what it takes with its days, and what it does not send as cancelled by it, so that the need is open
 * again.
 *
 * @param then what is to be done in the same transaction.
 * @returns false where it was answered before.
 */
export async function keepAnswer(
  pool: Pool,
  { id, supplier }: Placed,
  word: Omit<Word, "at">,
  answers: readonly LineAnswer[],
  then?: (db: Queryable) => Promise<void>,
): Promise<boolean> {
  try {
    await inTransaction(pool, async (db) => {
      await db.query("insert into purchase_word (id, purchase, what, note) values ($1, $2, $3, $4)", [
        newId(),
        id,
        word.what,
        word.note,
      ]);
      await keepNews(db, answers);
      for (const { line, refused } of answers)
        if (refused !== "")
          await db.query(
            `insert into purchase_event (id, line, what, pieces, note, by_name)
             select $1, line, 'cancelled', pieces, $3, $4 from purchase_open where line = $2 and pieces > 0`,
            [newId(), line, refused, supplier],
          );
      await tellJobs(db, id);
      await then?.(db);
    });
    return true;
  } catch (error) {
    if (sqlState(error) === UNIQUE_VIOLATION) return false;
    throw error;
  }
}

/** Keeps what a supplier says of lines later, where it says anything new. */
export async function keepNews(db: Queryable, news: readonly LineAnswer[]): Promise<void> {
  for (const { line, due, sent } of news)
    await db.query({
      name: "keep-news",
      text: `insert into purchase_news (id, line, due, sent)
             select $1, line, $3::date, $4 from purchase_open where line = $2 and (due, sent) is distinct from (coalesce($3::date, due), $4::int)`,
      values: [newId(), line, due, sent],
    });
}

/** What could not be cancelled any more comes after all; said twice it comes once. */
export async function comesAfterAll(
  pool: Pool,
  {
    event,
    line,
    pieces,
    note,
    supplier,
  }: { event: string; line: string; pieces: number; note: string; supplier: string },
): Promise<void> {
  await inTransaction(pool, async (db) => {
    const { rows } = await db.query<{ purchase: string }>(
      `with told as (insert into purchase_event (id, line, what, pieces, note, by_name)
                     values ($1, $2, 'comes after all', $3, $4, $5) on conflict (id) do nothing returning line)
       select l.purchase from told join purchase_line l on l.id = told.line`,
      // One answer to one cancelling.
      [namedId("comes after all", event), line, pieces, note, supplier],
    );
    if (rows[0]) await tellJobs(db, rows[0].purchase);
  });
}

async function tellJobs(db: Queryable, purchase: string): Promise<void> {
  const { rows } = await db.query<{ job: string }>(
    "select distinct job from purchase_line where purchase = $1 and job is not null",
    [purchase],
  );
  for (const { job } of rows) await tellOf(db, job);
}
