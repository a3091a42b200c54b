import { createHash } from "node:crypto";
import { v7 as newId } from "uuid";
import { keptBook, withHead, withoutPictureData, type Book, type Problem } from "~core/book";
import { readBook } from "~core/check";
import type { Queryable } from "./database";
import { keepPictures, wrongPictures } from "./pictures";

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

/** What a book's check says, as far as keeping it asks. */
export type Checked =
  | { ok: true; unit: string; revision: number }
  | { ok: false; problems: Problem[]; warnings: Problem[] };

/** @param as as in {@link readBook}. */
export function outcomeOf(document: unknown, as: "written" | "kept"): Checked {
  const read = readBook(document, as);
  return read.ok ? { ok: true, unit: read.book.unit.id, revision: read.book.unit.revision } : read;
}

export interface Keeping {
  /** Who lets it out and what for, when it was written here. */
  published?: { by: string; note: string };
  /** `kept` for the book of a job that was done by it: {@link readBook}. It is that job's and not offered; taken in by itself later, it is. */
  as?: "written" | "kept";
  /** Only where there is no other book of this unit: a name given twice must not put a new book over the one there is. */
  first?: boolean;
  /** How it is checked, where that is done beside others' requests. */
  check?: (document: unknown, as: "written" | "kept") => Checked | Promise<Checked>;
}

export type AddedBook =
  | { ok: true; id: string; unit: string; revision: number }
  | { ok: false; problems: Problem[]; warnings: Problem[] };

/** Keeps a valid book. The same document again is found, not stored twice; another one takes the next free revision. */
export async function addBook(
  db: Queryable,
  given: unknown,
  { published, as = "written", first = false, check = outcomeOf }: Keeping = {},
): Promise<AddedBook> {
  const { document: bare, pictures } = withoutPictureData(given);
  const astray = wrongPictures(pictures);
  if (astray.length > 0) return { ok: false, problems: astray, warnings: [] };
  const document = withHead(bare);
  const read = await check(document, as);
  if (!read.ok) return read;
  await keepPictures(db, pictures);
  const { unit, revision } = read;
  const digest = createHash("sha256").update(canonical(document)).digest("hex");
  const { rows } = await db.query<{ id: string; revision: number }>(
    `with added as (
       insert into book (id, unit, revision, digest, document, published_by, note, offered)
       select $1, $2, greatest($3, (select coalesce(max(revision), 0) + 1 from book where unit = $2)), $4, $5, $6, $7, $8
        where not $9 or not exists (select from book where unit = $2 and digest <> $4)
       on conflict (digest) do update set offered = true where excluded.offered and not book.offered returning id, revision)
     select id, revision from added union all select id, revision from book where digest = $4`,
    [
      newId(),
      unit,
      revision,
      digest,
      JSON.stringify(document),
      published?.by ?? null,
      published?.note ?? null,
      as === "written",
      first,
    ],
  );
  const row = rows[0];
  if (!row && first)
    return {
      ok: false,
      problems: [
        {
          path: "unit.id",
          message: `there is a book of ${unit} already`,
          remedy: "open that one, or give this one another name",
        },
      ],
      warnings: [],
    };
  if (!row) throw new Error(`book ${unit} was neither added nor found`);
  return { ok: true, unit, ...row };
}

/** The newest revision of every unit. */
export async function listBooks(db: Queryable): Promise<BookEntry[]> {
  const { rows } = await db.query<BookEntry>({
    name: "book-list",
    text: `select distinct on (unit) id, unit, revision, document #>> '{unit,maker}' as maker,
                  document #>> '{unit,name}' as name, document #>> '{unit,family}' as family
             from book where offered order by unit, revision desc`,
  });
  return rows;
}

export interface Revision {
  id: string;
  revision: number;
  added: string;
  by: string | null;
  note: string | null;
}

/** Every revision of a unit, newest first; behind them those that only came along with a job. */
export async function revisionsOf(db: Queryable, unit: string): Promise<Revision[]> {
  const { rows } = await db.query<Omit<Revision, "added"> & { added: Date }>({
    name: "book-revisions",
    text: `select id, revision, added, published_by as by, note from book where unit = $1 order by offered desc, revision desc`,
    values: [unit],
  });
  return rows.map((row) => ({ ...row, added: row.added.toISOString() }));
}

// Revisions never change, so keeping read ones in memory cannot differ between processes.
const readAlready = new Map<string, { book: Book; document: unknown }>();
const MOST_KEPT = 50;

/**
 * A book revision by its id, read.
 *
 * @throws Error when it is not there.
 */
/** Thrown when there is no book of an id. */
export class NoSuchBook extends Error {}

export async function bookById(db: Queryable, id: string): Promise<{ book: Book; document: unknown }> {
  const kept = readAlready.get(id);
  if (kept) return kept;
  const { rows } = await db.query<{ document: unknown; revision: number }>(
    "select document, revision from book where id = $1",
    [id],
  );
  const row = rows[0];
  const read = row && keptBook(row.document);
  if (!row) throw new NoSuchBook(`book ${id} is not here`);
  if (!read) throw new Error(`book ${id} has lost its form`);
  // The number it has here goes before the one its file was written with.
  const book = { ...read, unit: { ...read.unit, revision: row.revision } };
  const entry = { book, document: row.document };
  if (readAlready.size >= MOST_KEPT) readAlready.delete([...readAlready.keys()][0] ?? "");
  readAlready.set(id, entry);
  return entry;
}
