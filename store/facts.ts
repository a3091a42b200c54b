import type { Fact, FactKind } from "~core/fact";
import { inTransaction, type Pool, type Queryable } from "./database";
import { keptOf, type FactsText } from "./kept-texts";

/** Who a fact is stored under; `id` is null for one imported from elsewhere, which keeps the name it came with. */
export interface Author {
  id: string | null;
  name: string;
  /** Who sent it, when that was somebody else. */
  sentBy?: string;
}

export type AddedFacts = { ok: true } | { ok: false; why: "closed" | "no job" | "elsewhere" };

/**
 * Adds facts to a job, each once: an id that is there already is left as it is and counts as added. A closed job takes no new
 * ones, and an id that another job has is refused: it cannot be the same fact. One statement, so either all are kept or none.
 */
export async function addFacts(
  db: Queryable,
  job: string,
  facts: readonly Fact[],
  author: Author,
): Promise<AddedFacts> {
  const { rows } = await db.query<{ open: boolean | null; elsewhere: boolean; missing: number }>({
    name: "fact-add",
    text: `with given as (
             select * from jsonb_to_recordset($2::jsonb) as f (id uuid, at timestamptz, by text, replaces uuid, after uuid, body jsonb)
           ), card as (
             select open from job_card where job = $1 for no key update
           ), elsewhere as (
             select from fact f join given g on g.id = f.id where f.job <> $1
           ), added as (
             insert into fact (id, job, kind, by_staff, by_name, sent_by, at, replaces, said_after, body)
             select id, $1, body ->> 'kind', $3, coalesce($4, by), $5, least(at, now()), replaces, after, body from given
              where (select open from card) and not exists (select from elsewhere)
             on conflict (id) do nothing returning id, kind, body, said_after
           ), held as (
             -- One said before that of today was, and sent later by a tablet that was away, changes nothing: the order of core/fact.
             update job_card set holder = added.body ->> 'name' from added
              where job = $1 and added.kind = 'holder' and not exists (
                select from fact f join fact seen on seen.id = added.said_after
                 where f.job = $1 and f.kind = 'holder' and f.id <> added.id
                   and coalesce((select s.seq from fact s where s.id = f.said_after), f.seq - 1) > seen.seq)
           ), closed as (
             update job_card set open = false from added where job = $1 and added.kind = 'closed'
           )
           select (select open from card) as open, exists (select from elsewhere) as elsewhere,
                  (select count(*)::int from given g where not exists (select from fact f where f.id = g.id)) as missing`,
    values: [
      job,
      JSON.stringify(facts),
      author.id,
      author.id === null ? null : author.name,
      author.sentBy ?? null,
    ],
  });
  const row = rows[0];
  if (row?.open === null || row === undefined) return { ok: false, why: "no job" };
  if (row.elsewhere) return { ok: false, why: "elsewhere" };
  if (!row.open && row.missing > 0) return { ok: false, why: "closed" };
  return { ok: true };
}

/**
 * Adds the fact that closes a job, unless something was said of it since it was decided: the card's lock keeps writers out until then.
 *
 * @param decidedOn the place in the order stored that the decision was made on.
 */
export async function closeJob(
  pool: Pool,
  job: string,
  fact: Fact,
  decidedOn: number,
  author: Author,
  then?: (db: Queryable) => Promise<void>,
): Promise<AddedFacts | { ok: false; why: "more said" }> {
  return inTransaction(pool, async (db) => {
    await db.query("select from job_card where job = $1 for update", [job]);
    const { rows } = await db.query<{ last: number; known: boolean }>(
      `select coalesce(max(seq), 0) as last, bool_or(id = $2) as known from fact where job = $1`,
      [job, fact.id],
    );
    const now = rows[0];
    if (now && now.last !== decidedOn && !now.known) return { ok: false, why: "more said" };
    const added = await addFacts(db, job, [fact], author);
    if (added.ok && !now?.known) await then?.(db);
    return added;
  });
}

interface FactRow {
  id: string;
  at: Date;
  by_name: string;
  replaces: string | null;
  said_after: string | null;
  body: Fact["body"];
}

const toFact = ({ id, at, by_name, replaces, said_after, body }: FactRow): Fact => ({
  id,
  at: at.toISOString(),
  by: by_name,
  ...(replaces ? { replaces } : {}),
  ...(said_after ? { after: said_after } : {}),
  body,
});

/** The facts of a job stored after a place in its order, and the place of the last. Facts of one job are stored one after another. */
export async function factsSince(
  db: Queryable,
  job: string,
  seq: number,
): Promise<{ facts: Fact[]; seq: number }> {
  const { rows } = await db.query<FactRow & { seq: number }>({
    name: "fact-since",
    text: `select seq, id, at, by_name, replaces, said_after, body from fact where job = $1 and seq > $2 order by seq`,
    values: [job, seq],
  });
  return { facts: rows.map(toFact), seq: rows.at(-1)?.seq ?? seq };
}

/**
 * Every fact of a job in the order stored, as JSON text made by the database: a page passes it on as it is, and a long job is not taken
 * apart into rows and put together again on the way. Only what came since it was last read here is asked for.
 */
export async function factsTextOf(db: Queryable, job: string): Promise<FactsText> {
  const kept = keptOf(db);
  const before = kept?.get(job) ?? NOTHING;
  const { rows } = await db.query<{ later: string | null; last: number }>({
    name: "fact-text",
    text: `select coalesce((select max(seq) from fact where job = $1), 0) as last, string_agg(
             '{"id":"' || id || '","at":"' || to_char(at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') || '","by":' || to_json(by_name)
             || coalesce(',"replaces":"' || replaces || '"', '') || coalesce(',"after":"' || said_after || '"', '') || ',"body":' || body || '}', ',' order by seq) as later
             from fact where job = $1 and seq > $2`,
    values: [job, before.seq],
  });
  const { later, last } = rows[0] ?? { later: null, last: 0 };
  if (last < before.seq) {
    // The database is one from before what was read: a copy put back.
    kept?.keep(job, NOTHING);
    return factsTextOf(db, job);
  }
  const text = later === null ? before.text : joined(before.text, later);
  const read = { text, seq: last };
  kept?.keep(job, read);
  return read;
}

const NOTHING: FactsText = { text: "[]", seq: 0 };
const joined = (list: string, later: string): string =>
  list === NOTHING.text ? `[${later}]` : `${list.slice(0, -1)},${later}]`;

/** Every fact of a job in the order stored. */
export const factsOf = async (db: Queryable, job: string): Promise<Fact[]> =>
  (await factsSince(db, job, 0)).facts;

/** Those of these facts that a job has. */
export async function factsById(db: Queryable, job: string, ids: readonly string[]): Promise<Fact[]> {
  const { rows } = await db.query<FactRow>({
    name: "fact-by-id",
    text: `select id, at, by_name, replaces, said_after, body from fact where job = $1 and id = any ($2::uuid[])`,
    values: [job, ids],
  });
  return rows.map(toFact);
}

/** The facts of several jobs at once, for cards that are behind. */
export async function factsOfMany(
  db: Queryable,
  jobs: readonly string[],
  kinds: readonly FactKind[],
): Promise<Map<string, Fact[]>> {
  const { rows } = await db.query<FactRow & { job: string }>({
    name: "fact-of-many",
    text: `select job, id, at, by_name, replaces, said_after, body from fact
            where job = any ($1::uuid[]) and kind = any ($2::text[]) order by job, seq`,
    values: [jobs, kinds],
  });
  const byJob = new Map<string, Fact[]>();
  for (const row of rows) byJob.set(row.job, [...(byJob.get(row.job) ?? []), toFact(row)]);
  return byJob;
}
