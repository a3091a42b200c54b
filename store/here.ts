import type { Queryable } from "./database";

/** From where somebody runs a procedure. */
export type Side = "seat" | "lift" | "both";

/** Somebody at a procedure, and how long ago they were heard of, in milliseconds. */
export interface Here {
  side: Side;
  person: string;
  ago: number;
}

/** Says that somebody is there, and tells who else was heard of within the last hour: whoever changed ends left nobody behind. */
export async function hearHere(
  db: Queryable,
  at: { job: number; procedure: string; side: Side; person: string },
): Promise<Here[]> {
  await db.query(
    `insert into here (job, procedure, side, person) values ($1, $2, $3, $4)
     on conflict (job, procedure, side) do update set person = excluded.person, seen = now()`,
    [at.job, at.procedure, at.side, at.person],
  );
  const { rows } = await db.query<Here>(
    // Each where they were heard of last: whoever went to another end is not gone from the first.
    `select distinct on (person) side, person, (extract(epoch from now() - seen) * 1000)::float8 as ago from here
     where job = $1 and procedure = $2 and person <> $3 and seen > now() - interval '1 hour' order by person, seen desc`,
    [at.job, at.procedure, at.person],
  );
  return rows;
}
