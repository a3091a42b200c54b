import type { Queryable } from "./database";

/** The newest migration this code knows; a test holds it against the folder. */
export const NEWEST = "0020_book_pictures";

const newer = (newest: string): string =>
  `This database was made by a newer Yard Key (${newest}; this one knows ${NEWEST}). Update Yard Key first; nothing was touched.`;

/** @throws where a database is of a newer Yard Key than this: what this one does not know it could only spoil. */
export async function againstNewer(db: Queryable): Promise<void> {
  const { rows } = await db.query<{ there: boolean }>("select to_regclass('migration') is not null as there");
  const newest = rows[0]?.there ? await newestOf(db) : "";
  if (newest > NEWEST) throw new Error(newer(newest));
}

/**
 * Whether this code may work on a database.
 *
 * @returns what stands against it, in words; empty when nothing does.
 */
export async function againstSchema(db: Queryable): Promise<string> {
  const newest = await newestOf(db);
  if (newest === NEWEST) return "";
  return newest > NEWEST
    ? newer(newest)
    : `This database is of an older Yard Key (${newest || "none"}): npm start brings it up to date.`;
}

async function newestOf(db: Queryable): Promise<string> {
  const { rows } = await db.query<{ newest: string | null }>("select max(name) as newest from migration");
  return rows[0]?.newest ?? "";
}
