import { UUID } from "~core/shape";
import type { Problem } from "~core/book";
import { addBook } from "./books";
import { inTransaction, sqlState, UNIQUE_VIOLATION, type Pool, type Queryable } from "./database";

/** A draft with its newest save. */
export interface Draft {
  id: string;
  unit: string;
  basedOn: string | null;
  begunBy: string;
  version: number;
  document: unknown;
  savedBy: string;
  savedAt: string;
}

/** Begins a draft. The same id again leaves it is. */
export async function beginDraft(
  db: Queryable,
  {
    id,
    unit,
    basedOn,
    document,
    by,
  }: { id: string; unit: string; basedOn: string | null; document: unknown; by: string },
): Promise<void> {
  await db.query(
    `with begun as (insert into draft (id, unit, based_on, begun_by) values ($1, $2, $3, $4)
                    on conflict (id) do nothing returning id)
     insert into draft_save (draft, version, document, by_name) select id, 1, $5, $4 from begun`,
    [id, unit, basedOn, by, JSON.stringify(document)],
  );
}

const NEWEST = `
  select d.id, d.unit, d.based_on as "basedOn", d.begun_by as "begunBy", s.version, s.document, s.by_name as "savedBy", s.at as "savedAt"
    from draft d join lateral (select * from draft_save where draft = d.id order by version desc limit 1) s on true
   where not exists (select from draft_end e where e.draft = d.id)`;

type DraftRow = Omit<Draft, "savedAt"> & { savedAt: Date };
const draftOf = (row: DraftRow): Draft => ({ ...row, savedAt: row.savedAt.toISOString() });

/** An open draft by its id; null when it is not there or has ended. */
export async function draftById(db: Queryable, id: string): Promise<Draft | null> {
  if (!UUID.test(id)) return null;
  const { rows } = await db.query<DraftRow>(`${NEWEST} and d.id = $1`, [id]);
  return rows[0] ? draftOf(rows[0]) : null;
}

/** Open drafts, of one unit or of all; without their documents. */
export async function openDrafts(db: Queryable, unit?: string): Promise<Omit<Draft, "document">[]> {
  const { rows } = await db.query<DraftRow>(
    `${NEWEST.replace("s.document, ", "")} and ($1::text is null or d.unit = $1) order by s.at desc limit 100`,
    [unit ?? null],
  );
  return rows.map(draftOf);
}

export type Saved = { ok: true; version: number } | { ok: false; newest: Draft | null };

/** Saves on top of the version that was seen; when somebody saved in between nothing is changed and the newest is given back. */
export async function saveDraft(
  db: Queryable,
  { id, seen, document, by }: { id: string; seen: number; document: unknown; by: string },
): Promise<Saved> {
  try {
    const { rowCount } = await db.query(
      `insert into draft_save (draft, version, document, by_name)
       select $1::uuid, $2::integer + 1, $3::json, $4
        where exists (select from draft_save where draft = $1 and version = $2)
          and not exists (select from draft_end where draft = $1)`,
      [id, seen, JSON.stringify(document), by],
    );
    if (rowCount === 1) return { ok: true, version: seen + 1 };
  } catch (error) {
    if (sqlState(error) !== UNIQUE_VIOLATION) throw error;
  }
  return { ok: false, newest: await draftById(db, id) };
}

export type Published =
  | { ok: true; book: string; revision: number }
  | { ok: false; why: "problems"; problems: Problem[] }
  | { ok: false; why: "changed" | "gone" };

/** Lets a draft out as the next revision, if nobody changed it since it was seen. */
export async function publishDraft(
  pool: Pool,
  { id, seen, note, by }: { id: string; seen: number; note: string; by: string },
): Promise<Published> {
  return inTransaction(pool, async (db): Promise<Published> => {
    await db.query("select from draft where id = $1 for update", [id]);
    const draft = await draftById(db, id);
    if (!draft) return { ok: false, why: "gone" };
    if (draft.version !== seen) return { ok: false, why: "changed" };
    const added = await addBook(db, draft.document, { published: { by, note } });
    if (!added.ok) return { ok: false, why: "problems", problems: added.problems };
    await db.query("insert into draft_end (draft, book, by_name) values ($1, $2, $3)", [id, added.id, by]);
    return { ok: true, book: added.id, revision: added.revision };
  });
}

/** Puts a draft away; its saves are kept. */
export async function putAway(db: Queryable, id: string, by: string): Promise<void> {
  await db.query("insert into draft_end (draft, by_name) values ($1, $2) on conflict (draft) do nothing", [
    id,
    by,
  ]);
}
