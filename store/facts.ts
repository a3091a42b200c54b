import type { Fact, FactKind } from "~core/job";
import type { Queryable } from "./database";

/** Who a fact is stored under; `id` is null for one imported from elsewhere. */
export interface Author {
  id: string | null;
  name: string;
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
             select * from jsonb_to_recordset($2::jsonb) as f (id uuid, at timestamptz, by text, replaces uuid, body jsonb)
           ), card as (
             select open from job_card where job = $1 for share
           ), elsewhere as (
             select from fact f join given g on g.id = f.id where f.job <> $1
           ), added as (
             insert into fact (id, job, kind, by_staff, by_name, at, replaces, body)
             select id, $1, body ->> 'kind', $3, coalesce($4, by), least(at, now()), replaces, body from given
              where (select open from card) and not exists (select from elsewhere)
             on conflict (id) do nothing returning kind, body
           ), held as (
             update job_card set holder = added.body ->> 'name' from added where job = $1 and added.kind = 'holder'
           ), closed as (
             update job_card set open = false from added where job = $1 and added.kind = 'closed'
           )
           select (select open from card) as open, exists (select from elsewhere) as elsewhere,
                  (select count(*)::int from given g where not exists (select from fact f where f.id = g.id)) as missing`,
    values: [job, JSON.stringify(facts), author.id, author.id === null ? null : author.name],
  });
  const row = rows[0];
  if (row?.open === null || row === undefined) return { ok: false, why: "no job" };
  if (row.elsewhere) return { ok: false, why: "elsewhere" };
  if (!row.open && row.missing > 0) return { ok: false, why: "closed" };
  return { ok: true };
}

interface FactRow {
  id: string;
  at: Date;
  by_name: string;
  replaces: string | null;
  body: Fact["body"];
}

const toFact = ({ id, at, by_name, replaces, body }: FactRow): Fact => ({
  id,
  at: at.toISOString(),
  by: by_name,
  ...(replaces ? { replaces } : {}),
  body,
});

/** Every fact of a job in the order stored. */
export async function factsOf(db: Queryable, job: string): Promise<Fact[]> {
  const { rows } = await db.query<FactRow>({
    name: "fact-of-job",
    text: "select id, at, by_name, replaces, body from fact where job = $1 order by seq",
    values: [job],
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
    text: `select job, id, at, by_name, replaces, body from fact
            where job = any ($1::uuid[]) and kind = any ($2::text[]) order by job, seq`,
    values: [jobs, kinds],
  });
  const byJob = new Map<string, Fact[]>();
  for (const row of rows) byJob.set(row.job, [...(byJob.get(row.job) ?? []), toFact(row)]);
  return byJob;
}
