import { fold, type FactOf } from "~core/fact";
import type { Queryable } from "./database";
import { factsOfMany } from "./facts";

/** What a job found out for next time, as it is kept. */
export interface SaidNextTime {
  job: number;
  fact: FactOf<"next-time">;
}

/** Newer jobs first: what is older than so many waits until those are decided on. */
const MOST_JOBS = 200;

/** What jobs of a unit found out for next time, the newest first; what a lead has left is not among it. */
export async function saidNextTime(db: Queryable, unit: string): Promise<SaidNextTime[]> {
  const { rows: jobs } = await db.query<{ id: string; number: number }>({
    name: "next-time-jobs",
    text: `select j.id, j.number::int as number from job j
            where j.id in (select job from fact where kind = 'next-time') and j.book = any (select id from book where unit = $1)
            order by j.number desc limit $2`,
    values: [unit, MOST_JOBS],
  });
  if (jobs.length === 0) return [];
  const ids = jobs.map(({ id }) => id);
  const facts = await factsOfMany(db, ids, ["next-time"]);
  const { rows: ended } = await db.query<{ job: string; lesson: string }>({
    name: "next-time-ended",
    text: "select job, lesson from proposal_end where job = any ($1::uuid[])",
    values: [ids],
  });
  const isEnded = (job: string, lesson: string): boolean =>
    ended.some((one) => one.job === job && one.lesson === lesson);
  return jobs.flatMap(({ id, number }) =>
    fold(facts.get(id) ?? [])
      .nextTime.filter(({ body }) => !isEnded(id, body.lesson))
      .map((fact) => ({ job: number, fact })),
  );
}

/** A lead does not take it over: it is offered no more. */
export async function leaveProposal(
  db: Queryable,
  { job, lesson, by }: { job: string; lesson: string; by: string },
): Promise<void> {
  await db.query(
    "insert into proposal_end (job, lesson, by_name) values ($1, $2, $3) on conflict (job, lesson) do nothing",
    [job, lesson, by],
  );
}
