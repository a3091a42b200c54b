import type { Problem } from "~core/book";
import type { Fact } from "~core/fact";
import { addBook, type Keeping } from "./books";
import { inTransaction, type Pool, type Queryable } from "./database";
import { FactsElsewhere, JobThere, openJobIn } from "./jobs";
import { addPhoto, type Picture } from "./photos";

/** A job as it comes out of a file. */
export interface IncomingJob {
  id: string;
  /** The number it had where it comes from. */
  origin: string;
  opened: string;
  book: unknown;
  facts: readonly Fact[];
  pictures: readonly Picture[];
}

export type ImportedJob =
  | { ok: true; number: number }
  | { ok: false; why: "book"; problems: Problem[] }
  /** The job is here and the file says more of it; or its facts or pictures are another job’s. */
  | { ok: false; why: "more"; number: number }
  | { ok: false; why: "elsewhere" };

/**
 * Takes a job in whole, or nothing of it. One that is here already is left as it is, and takes only what it has: nobody adds to it by a file what
 * they may not say at its page. Every fact keeps the name it came with and the name of who brought it in.
 */
export async function importJob(
  pool: Pool,
  { id, origin, opened, book, facts, pictures }: IncomingJob,
  by: { id: string; name: string },
  check?: Keeping["check"],
): Promise<ImportedJob> {
  try {
    return await inTransaction(pool, async (db): Promise<ImportedJob> => {
      const known = await knownJob(db, id, facts);
      if (known)
        return known.all
          ? { ok: true, number: known.number }
          : { ok: false, why: "more", number: known.number };
      const added = await addBook(db, book, { as: "kept", check });
      if (!added.ok) return { ok: false, why: "book", problems: added.problems };
      const number = await openJobIn(db, {
        id,
        bookId: added.id,
        opened,
        origin,
        facts: facts.map((fact) => ({ ...fact, by: broughtIn(fact.by, by.name) })),
        author: { id: null, name: "", sentBy: by.id },
      });
      for (const picture of pictures)
        if (!(await addPhoto(db, id, picture))) throw new FactsElsewhere("a picture of another job");
      return { ok: true, number };
    });
  } catch (error) {
    if (error instanceof FactsElsewhere) return { ok: false, why: "elsewhere" };
    if (error instanceof JobThere) return { ok: false, why: "more", number: error.number };
    throw error;
  }
}

/** Longer names than a shop’s own are cut, never the name of who brought it in. */
const MOST_NAME = 110;
const VIA = ", brought in by ";
const broughtIn = (name: string, by: string): string =>
  name.endsWith(`${VIA}${by}`) ? name : `${name.slice(0, MOST_NAME)}${VIA}${by}`;

/** A job that is here already, and whether it has every one of these facts. */
async function knownJob(
  db: Queryable,
  id: string,
  facts: readonly Fact[],
): Promise<{ number: number; all: boolean } | null> {
  const { rows } = await db.query<{ number: number; all: boolean }>({
    name: "job-known",
    text: `select j.number, not exists (
             select from unnest($2::uuid[]) as g (id) where not exists (select from fact f where f.job = $1 and f.id = g.id)) as all
             from job j where j.id = $1`,
    values: [id, facts.map((fact) => fact.id)],
  });
  return rows[0] ?? null;
}
