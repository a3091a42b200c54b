import { inTransaction, type Pool, type Queryable } from "./database";
import { countShelf } from "./shelf";

/** So many of the last closed jobs tell what jobs take. */
const LAST_JOBS = 400;

/** What each of the last closed jobs took, bought or off the shelf, what came in a kit as the kit, and of which unit it was; those of which nothing was kept say nothing. */
export async function takenByJobs(db: Queryable): Promise<{ unit: string; took: Map<string, number> }[]> {
  const { rows } = await db.query<{ unit: string; taken: Record<string, number> }>({
    name: "taken-by-jobs",
    text: `select b.unit, jsonb_object_agg(t.part, t.pieces) as taken
             from (select job from job_card where not open order by number desc limit $1) l
             join job j on j.id = l.job join book b on b.id = j.book
             cross join lateral (
               select part, sum(pieces)::int as pieces from (
                 select b.part, b.quantity as pieces from box_movement b left join purchase_line p on p.id = b.line
                  where b.job = l.job and p.contents is null
                 union all
                 select p.part, e.pieces from purchase_line p join purchase_event e on e.line = p.id and e.what = 'arrived'
                  where p.job = l.job and p.contents is not null
                 union all
                 select m.part, -m.quantity from movement m where m.job = l.job and m.why = 'fitted') each
               group by part having sum(pieces) > 0) t
            group by l.job, b.unit order by l.job`,
    values: [LAST_JOBS],
  });
  return rows.map(({ unit, taken }) => ({ unit, took: new Map(Object.entries(taken)) }));
}

/** Of these jobs, which unit they are of and whether their sizes are chosen: put aside for a seat, or fitted. */
export async function unitsOf(
  db: Queryable,
  jobs: readonly number[],
): Promise<ReadonlyMap<number, { unit: string; chosen: boolean }>> {
  const { rows } = await db.query<{ number: number; unit: string; chosen: boolean }>({
    name: "units-of-jobs",
    text: `select j.number::int as number, b.unit,
                  exists (select from movement m where m.job = j.id and m.why = 'fitted')
                    or exists (select from reservation r where r.job = j.id and r.ended is null) as chosen
             from job j join book b on b.id = j.book where j.number = any ($1::int[])`,
    values: [jobs],
  });
  return new Map(rows.map(({ number, unit, chosen }) => [number, { unit, chosen }]));
}

/** A part the shelf keeps: what lies there free, and what one costs. */
export interface KeptPart {
  part: string;
  name: string;
  free: number;
  cents: number | null;
}

/** Everything the shelf keeps, what is put aside not counted. */
export async function keptParts(db: Queryable): Promise<KeptPart[]> {
  const { rows } = await db.query<KeptPart>({
    name: "kept-parts",
    text: `select p.part, p.name, greatest(0, s.on_hand - coalesce(r.n, 0))::int as free, p.price_cents as cents
             from shelf_part p join stock s on s.part = p.part and s.piece is null
             left join (select part, count(*) as n from reservation where ended is null and piece is null group by part) r on r.part = p.part
            order by p.part`,
  });
  return rows;
}

/** A part whose count is to be looked at: how often it moved since somebody counted it. */
export interface ToCount {
  part: string;
  name: string;
  bin: string;
  pieces: number;
  moves: number;
}

/** So many of the last movements tell what moves. */
const LAST_MOVEMENTS = 2_000;
/** Fewer are not worth a walk to the shelf. */
const MOVED_OFTEN = 3;

/** What is to be counted: of the parts that moved lately those that moved most since they were counted. */
export async function toCount(db: Queryable, limit = 6): Promise<ToCount[]> {
  const { rows } = await db.query<ToCount>({
    name: "to-count",
    // Whoever was counted before the last movements has moved with all of those that are among them.
    text: `select p.part, p.name, p.bin, s.on_hand as pieces, m.moves
             from (select part, count(*) filter (where at > coalesce(counted, '-infinity'))::int as moves
                     from (select part, at, max(at) filter (where why like 'counted:%') over (partition by part) as counted
                             from (select part, at, why from movement where piece is null order by at desc limit $1) l) w
                    group by part) m
             join shelf_part p on p.part = m.part join stock s on s.part = m.part and s.piece is null
            where m.moves >= $2 order by m.moves desc, p.part limit $3`,
    values: [LAST_MOVEMENTS, MOVED_OFTEN, limit],
  });
  return rows;
}

/** How long it is that anything of a part left the shelf. */
export const SINCE = ["a month", "three months", "half a year", "a year", "longer, or never"] as const;

/** What lies on the shelf, in money, by how long nothing of it was wanted; and the dearest of what moves least. */
export interface ShelfValue {
  cents: number;
  since: { within: (typeof SINCE)[number]; cents: number; parts: number }[];
  slow: {
    part: string;
    name: string;
    pieces: number;
    cents: number;
    /** ISO 8601. */ moved: string | null;
  }[];
}

export async function shelfValue(db: Queryable): Promise<ShelfValue> {
  const lying = `select p.part, p.name, s.on_hand as pieces, s.on_hand::bigint * p.price_cents as cents, m.at as moved,
      case when m.at > now() - interval '1 month' then 0 when m.at > now() - interval '3 months' then 1
           when m.at > now() - interval '6 months' then 2 when m.at > now() - interval '1 year' then 3 else 4 end as within
    from stock s join shelf_part p on p.part = s.part
    left join lateral (select at from movement where part = p.part and quantity < 0 order by at desc limit 1) m on true
   where s.piece is null and s.on_hand > 0 and p.price_cents is not null`;
  const [sums, slow] = await Promise.all([
    db.query<{ within: number; cents: number; parts: number }>({
      name: "shelf-value",
      text: `select within, sum(cents)::float8 as cents, count(*)::int as parts from (${lying}) l group by within order by within`,
    }),
    db.query<{ part: string; name: string; pieces: number; cents: number; moved: Date | null }>({
      name: "slow-movers",
      text: `select part, name, pieces, cents::float8 as cents, moved from (${lying}) l where within >= 3 order by cents desc, part limit 12`,
    }),
  ]);
  const since = SINCE.map((within, i) => {
    const of = sums.rows.find((row) => row.within === i);
    return { within, cents: of?.cents ?? 0, parts: of?.parts ?? 0 };
  });
  return {
    cents: since.reduce((sum, { cents }) => sum + cents, 0),
    since,
    slow: slow.rows.map((row) => Object.assign(row, { moved: row.moved?.toISOString() ?? null })),
  };
}

/** One line of the shelf as a table. */
export interface ShelfLine {
  part: string;
  name: string;
  bin: string;
  pieces: number;
  cents: number | null;
}

/** The whole shelf as a table, whole pieces only: odd ones were measured and are none like the other. */
export async function shelfTable(db: Queryable): Promise<ShelfLine[]> {
  const { rows } = await db.query<ShelfLine>({
    name: "shelf-table",
    text: `select p.part, p.name, p.bin, s.on_hand as pieces, p.price_cents as cents
             from shelf_part p join stock s on s.part = p.part and s.piece is null order by p.bin, p.part`,
  });
  return rows;
}

/**
 * Sets counts right by a table: all of it or nothing. The same table taken in twice changes nothing more.
 *
 * @param id made with the form.
 * @returns parts that the shelf does not keep, of which nothing was counted then; else how many counts were other than the ledger said.
 */
export async function countTable(
  pool: Pool,
  counted: readonly { id: string; part: string; pieces: number }[],
  { reason, by }: { reason: string; by: string },
): Promise<{ unknown: string[] } | { changed: number }> {
  return inTransaction(pool, async (db) => {
    const parts = counted.map(({ part }) => part);
    const { rows } = await db.query<{ part: string; on_hand: number }>(
      "select part, on_hand from stock where piece is null and part = any ($1::text[])",
      [parts],
    );
    const known = new Map(rows.map((row) => [row.part, row.on_hand]));
    const unknown = parts.filter((part) => !known.has(part));
    if (unknown.length > 0) return { unknown };
    const other = counted.filter(({ part, pieces }) => known.get(part) !== pieces);
    // In one order, so that two tables wait for each other and not in a circle.
    for (const { id, part, pieces } of [...other].sort((a, b) => (a.part < b.part ? -1 : 1)))
      await countShelf(db, { id, part, counted: pieces, reason, by });
    return { changed: other.length };
  });
}
