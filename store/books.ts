import { createHash } from "node:crypto";
import { v7 as newId } from "uuid";
import { readBook, type Book, type Problem } from "~core/book";
import type { Queryable } from "./database";

export interface BookEntry {
  id: string;
  unit: string;
  revision: number;
  maker: string;
  name: string;
  family: Book["unit"]["family"];
}

/** JSON with sorted keys: the same document always has the same digest. */
const canonical = (value: unknown): string =>
  JSON.stringify(value, (_key, inner: unknown) =>
    inner !== null && typeof inner === "object" && !Array.isArray(inner)
      ? Object.fromEntries(Object.entries(inner).sort(([a], [b]) => (a < b ? -1 : 1)))
      : inner,
  );

export type AddedBook = { ok: true; id: string } | { ok: false; problems: Problem[] };

/** Keeps a valid book. The same document again is found, not stored twice; another one takes the next free revision. */
export async function addBook(db: Queryable, document: unknown): Promise<AddedBook> {
  const read = readBook(document);
  if (!read.ok) return read;
  const { id: unit, revision } = read.book.unit;
  const digest = createHash("sha256").update(canonical(document)).digest("hex");
  const { rows } = await db.query<{ id: string }>(
    `with added as (
       insert into book (id, unit, revision, digest, document)
       values ($1, $2, greatest($3, (select coalesce(max(revision), 0) + 1 from book where unit = $2)), $4, $5)
       on conflict (digest) do nothing returning id)
     select id from added union all select id from book where digest = $4`,
    [newId(), unit, revision, digest, JSON.stringify(document)],
  );
  const id = rows[0]?.id;
  if (!id) throw new Error(`book ${unit} was neither added nor found`);
  return { ok: true, id };
}

/** The newest revision of every unit. */
export async function listBooks(db: Queryable): Promise<BookEntry[]> {
  const { rows } = await db.query<BookEntry>({
    name: "book-list",
    text: `select distinct on (unit) id, unit, revision, document #>> '{unit,maker}' as maker,
                  document #>> '{unit,name}' as name, document #>> '{unit,family}' as family
             from book order by unit, revision desc`,
  });
  return rows;
}

// Revisions never change, so keeping read ones in memory cannot differ between processes.
const readAlready = new Map<string, { book: Book; document: unknown }>();
const MOST_KEPT = 50;

/** A book revision by its id, read and checked. @throws Error when it is not there. */
export async function bookById(db: Queryable, id: string): Promise<{ book: Book; document: unknown }> {
  const kept = readAlready.get(id);
  if (kept) return kept;
  const { rows } = await db.query<{ document: unknown }>("select document from book where id = $1", [id]);
  const read = readBook(rows[0]?.document);
  if (!read.ok) throw new Error(`book ${id} cannot be read: ${JSON.stringify(read.problems.slice(0, 3))}`);
  const entry = { book: read.book, document: rows[0]?.document };
  if (readAlready.size >= MOST_KEPT) readAlready.delete([...readAlready.keys()][0] ?? "");
  readAlready.set(id, entry);
  return entry;
}
