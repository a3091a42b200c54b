import { setImmediate as othersFirst } from "node:timers/promises";
import { KINDS, type Fact, type FactKind } from "~core/fact";
import { bookById } from "./books";
import { inTransaction, type Pool, type Queryable } from "./database";
import { addFacts, factsOfMany, factsTextOf, type Author } from "./facts";
import { houseValues, houseValuesOfJob } from "./house-values";
import type { Book, HouseValue } from "~core/book";

/** A job with everything its pages are computed from. */
export interface JobRecord {
  id: string;
  number: number;
  opened: string;
  origin: string | null;
  bookId: string;
  book: Book;
  document: unknown;
  readonly facts: Fact[];
  /** The same as JSON text, as the database made it. */
  factsText: string;
  /** Place of the last of them in the order stored: what comes later is asked for from there. */
  seq: number;
  /** The shop’s own values for this unit; of a closed job those it was closed under. */
  houseValues: HouseValue[];
  /** The newest revision of its book, when that is a later one. */
  newer: { id: string; revision: number } | null;
}

/** Thrown when a job is opened with facts that another job has; nothing is opened then. */
export class FactsElsewhere extends Error {}

/** Thrown when a job is opened a second time with something else; it is left as it is. */
export class JobThere extends Error {
  constructor(readonly number: number) {
    super(`job ${number} is there already`);
  }
}

interface NewJob {
  id: string;
  bookId: string;
  facts: readonly Fact[];
  author: Author;
  opened?: string;
  origin?: string;
}

/** Opens a job with its first facts. The same again leaves the job as it is: a form sent twice opens one. */
export const openJob = (pool: Pool, job: NewJob): Promise<number> =>
  inTransaction(pool, (db) => openJobIn(db, job));

/** The same within a transaction. @throws JobThere, FactsElsewhere; nothing is kept then. */
export async function openJobIn(
  db: Queryable,
  { id, bookId, facts, author, opened, origin }: NewJob,
): Promise<number> {
  const { rowCount: made } = await db.query(
    `insert into job (id, book, opened, origin) values ($1, $2, coalesce($3, now()), $4) on conflict (id) do nothing`,
    [id, bookId, opened ?? null, origin ?? null],
  );
  const { rows } = await db.query<{ number: number }>("select number from job where id = $1", [id]);
  const number = rows[0]?.number ?? 0;
  if (!made) {
    if (await isSame(db, id, bookId, facts)) return number;
    throw new JobThere(number);
  }
  await db.query("insert into job_card (job, number) values ($1, $2) on conflict (job) do nothing", [
    id,
    number,
  ]);
  const added = await addFacts(db, id, facts, author);
  if (!added.ok && added.why === "elsewhere") throw new FactsElsewhere("these facts belong to another job");
  return number;
}

/** Whether a job was opened with this book and says all of this already, whichever ids it was said under. */
async function isSame(db: Queryable, job: string, bookId: string, facts: readonly Fact[]): Promise<boolean> {
  const { rows } = await db.query<{ same: boolean }>({
    name: "job-same",
    text: `select j.book = $2 and not exists (
             select from jsonb_to_recordset($3::jsonb) as g (id uuid, body jsonb)
              where not exists (select from fact f where f.job = $1 and (f.id = g.id or f.body = g.body))) as same
             from job j where j.id = $1`,
    values: [job, bookId, JSON.stringify(facts)],
  });
  return rows[0]?.same ?? false;
}

/** A job by its number: one query for the job, one for its facts; the book is read once per process. */
export async function jobByNumber(db: Queryable, number: number): Promise<JobRecord | null> {
  if (!Number.isSafeInteger(number)) return null;
  const { rows } = await db.query<{
    id: string;
    number: number;
    opened: Date;
    origin: string | null;
    book: string;
    newest: string;
    revision: number;
  }>({
    name: "job-by-number",
    text: `select j.id, j.number, j.opened, j.origin, j.book, coalesce(n.id, b.id) as newest, coalesce(n.revision, b.revision) as revision
             from job j join book b on b.id = j.book
             left join lateral (select id, revision from book where unit = b.unit and offered and revision > b.revision order by revision desc limit 1) n on true
            where j.number = $1`,
    values: [number],
  });
  const row = rows[0];
  if (!row) return null;
  const [{ text, seq }, { book, document }, values] = await Promise.all([
    factsTextOf(db, row.id),
    bookById(db, row.book),
    houseValuesOfJob(db, row.id),
  ]);
  let facts: Fact[] | undefined;
  return {
    id: row.id,
    number: row.number,
    opened: row.opened.toISOString(),
    origin: row.origin,
    bookId: row.book,
    book,
    document,
    // Read when somebody asks: a page only passes the text on.
    get facts() {
      return (facts ??= JSON.parse(text) as Fact[]);
    },
    factsText: text,
    seq,
    houseValues: values,
    newer: row.newest === row.book ? null : { id: row.newest, revision: row.revision },
  };
}

/** What a list shows of a job; made by the caller from facts, kept in `job_card`. */
export interface Card {
  vehicle: string;
  unit: string;
  depth: string;
  holder: string | null;
  waitsFor: string;
  done: number;
  packs: number;
  /** Of the steps that are left, by the book. */
  minutesLeft: number;
  /** Pieces the unit needs, by part number; what is in already is not. */
  wants: readonly (readonly [number: string, pieces: number])[];
}
export interface CardRow extends Omit<Card, "holder"> {
  /** Parts on their way to it, and when the last of them should be here; null where none are. */
  coming: { lines: number; due: string | null; isLate: boolean } | null;
  number: number;
  opened: string;
  open: boolean;
  holder: string | null;
}

/** Which jobs a list is of, and after which number it goes on. */
export interface JobFilter {
  which: "open" | "closed";
  holder?: string;
  before?: number;
}
export const PAGE = 25;

/** Kinds a card is made of: not photos or findings that a long job has by the hundred. */
const CARD_KINDS = (Object.keys(KINDS) as FactKind[]).filter((kind) => KINDS[kind].onCard);

/**
 * A page of job cards, newest first, keyset by number. Cards that are behind their facts, or were made by something else, are made anew with
 * `makeCard` in two queries for the whole page.
 *
 * @param made the version of what makes a card: its code and the house's choices.
 */
export async function listJobs(
  db: Queryable,
  { which, holder, before }: JobFilter,
  made: string,
  makeCard: (book: Book, facts: Fact[], values: readonly HouseValue[]) => Card,
): Promise<{ rows: CardRow[]; more: boolean }> {
  const { rows } = await db.query<{
    job: string;
    number: number;
    opened: Date;
    open: boolean;
    holder: string | null;
    book: string;
    card: Card;
    seq: number;
    newest: number;
    made: string;
    coming: number;
    due: string | null;
    late: boolean;
  }>({
    name: `job-list-${which}${holder ? "-held" : ""}`,
    text: `select c.job, c.number, j.opened, c.open, c.holder, j.book, c.card, c.seq, c.made, coalesce(n.seq, 0) as newest,
                  w.coming, w.due, w.late
             from job_card c join job j on j.id = c.job
             left join lateral (select seq from fact f where f.job = c.job order by seq desc limit 1) n on true
             left join lateral (select count(*)::int as coming, to_char(max(l.due), 'YYYY-MM-DD') as due, coalesce(bool_or(l.due < (select shop_day())), false) as late
                                  from purchase_line l join purchase_open o on o.line = l.id where l.job = c.job and o.pieces > 0) w on true
            where ${which === "open" ? "c.open" : "not c.open"} and c.number < $1 ${holder ? "and c.holder = $3" : ""}
            order by c.number desc limit $2`,
    values: [before ?? Number.MAX_SAFE_INTEGER, PAGE + 1, ...(holder ? [holder] : [])],
  });
  const page = rows.slice(0, PAGE);
  const behind = page.filter((row) => row.seq < row.newest || row.made !== made);
  if (behind.length > 0) {
    const facts = await factsOfMany(
      db,
      behind.map(({ job }) => job),
      CARD_KINDS,
    );
    // One after another: a process that starts has to read them all, and has others to answer meanwhile.
    const books = new Map<string, Book>();
    for (const { book } of behind) if (!books.has(book)) books.set(book, (await bookById(db, book)).book);
    const values = await houseValues(db, [...new Set([...books.values()].map(({ unit }) => unit.id))]);
    for (const row of behind) {
      const book = books.get(row.book);
      if (!book) continue;
      row.card = makeCard(book, facts.get(row.job) ?? [], values.get(book.unit.id) ?? []);
      row.holder = row.card.holder;
      await othersFirst();
    }
    // A card that somebody else is writing is left to them: two that wrote the same ones in another order would wait for each other.
    await db.query(
      `update job_card c set card = u.card, seq = u.seq, made = $4, holder = u.card ->> 'holder'
         from unnest($1::uuid[], $2::jsonb[], $3::bigint[]) as u (job, card, seq)
         join (select job, seq, made from job_card where job = any($1::uuid[]) for no key update skip locked) as free using (job)
        where c.job = u.job and (free.seq < u.seq or (free.seq = u.seq and free.made <> $4))`,
      [
        behind.map(({ job }) => job),
        behind.map(({ card }) => JSON.stringify(card)),
        behind.map(({ newest }) => newest),
        made,
      ],
    );
  }
  return {
    rows: page.map(({ number, opened, open, holder: heldBy, card, coming, due, late }) => ({
      ...card,
      coming: coming > 0 ? { lines: coming, due, isLate: late } : null,
      number,
      opened: opened.toISOString(),
      open,
      holder: heldBy,
    })),
    more: rows.length > PAGE,
  };
}

// A number belongs to one job for good, so remembering it cannot differ between processes.
const places = new Map<number, { id: string; book: string }>();

/** Where a job is kept and which revision it is pinned to: neither ever changes. Null when there is no such job. */
export async function jobPlace(db: Queryable, number: number): Promise<{ id: string; book: string } | null> {
  const known = places.get(number);
  if (known) return known;
  if (!Number.isSafeInteger(number)) return null;
  const { rows } = await db.query<{ id: string; book: string }>({
    name: "job-place",
    text: "select id, book from job where number = $1",
    values: [number],
  });
  const place = rows[0] ?? null;
  if (place) {
    if (places.size > 10_000) places.clear();
    places.set(number, place);
  }
  return place;
}

/** The id behind a job's number; null when there is none. */
export const jobIdByNumber = async (db: Queryable, number: number): Promise<string | null> =>
  (await jobPlace(db, number))?.id ?? null;

/** Whether a job still takes what is said of it. */
export async function isOpen(db: Queryable, job: string): Promise<boolean> {
  const { rows } = await db.query<{ open: boolean }>({
    name: "job-open",
    text: "select open from job_card where job = $1",
    values: [job],
  });
  return rows[0]?.open ?? false;
}

/** The unit that a job is of, by the id of its book; null when there is no such job. */
export async function jobUnit(db: Queryable, number: number): Promise<string | null> {
  if (!Number.isSafeInteger(number)) return null;
  const { rows } = await db.query<{ unit: string }>({
    name: "job-unit",
    text: "select b.unit from job j join book b on b.id = j.book where j.number = $1",
    values: [number],
  });
  return rows[0]?.unit ?? null;
}

/** A job that may be an earlier visit of the same unit. */
export interface Visit {
  number: number;
  opened: string;
}

/** Earlier jobs of the same kind of unit in a vehicle booked in under the same words, latest first. */
export async function earlierVisits(db: Queryable, number: number): Promise<Visit[]> {
  if (!Number.isSafeInteger(number)) return [];
  const { rows } = await db.query<{ number: number; opened: Date }>({
    name: "earlier-visits",
    text: `with this as (
             select j.id, j.number, b.unit,
                    (select lower(f.body ->> 'vehicle') from fact f
                      where f.job = j.id and f.kind = 'booking' order by f.seq desc limit 1) as vehicle
               from job j join book b on b.id = j.book where j.number = $1)
           select distinct j.number, j.opened
             from this join fact f on f.kind = 'booking' and lower(f.body ->> 'vehicle') = this.vehicle
             join job j on j.id = f.job and j.number < this.number
             join book b on b.id = j.book and b.unit = this.unit
            order by j.number desc limit 5`,
    values: [number],
  });
  return rows.map(({ number: of, opened }) => ({ number: of, opened: opened.toISOString() }));
}

/** The newest open jobs, each with a word that changes when a fact is added or a later revision of its book comes out. */
export async function openJobStates(db: Queryable, most = 60): Promise<{ number: number; state: string }[]> {
  const { rows } = await db.query<{ number: number; state: string }>({
    name: "job-states",
    text: `select c.number, concat(f.seq, '/', n.revision) as state
             from job_card c join job j on j.id = c.job join book b on b.id = j.book
             left join lateral (select seq from fact where job = c.job order by seq desc limit 1) f on true
             left join lateral (select revision from book where unit = b.unit and offered order by revision desc limit 1) n on true
            where c.open order by c.number desc limit $1`,
    values: [most],
  });
  return rows;
}
