import type { HouseValue } from "~core/book";
import type { Queryable } from "./database";

interface HouseValueRow {
  unit: string;
  kind: HouseValue["of"];
  entry: string;
  value: Pick<HouseValue, "min" | "max" | "torque"> | null;
  reason: string;
  by_name: string;
  at: Date;
}

const valueOf = ({ kind, entry, value, reason, by_name, at }: HouseValueRow): HouseValue => ({
  of: kind,
  id: entry,
  ...value,
  reason,
  by: by_name,
  at: at.toISOString(),
});

/** The shop’s own values for some units, by unit. */
export async function houseValues(
  db: Queryable,
  units: readonly string[],
): Promise<Map<string, HouseValue[]>> {
  const { rows } = await db.query<HouseValueRow>({
    name: "house-values",
    text: `select distinct on (unit, kind, entry) unit, kind, entry, value, reason, by_name, at
             from house_value where unit = any($1)
            order by unit, kind, entry, seq desc`,
    values: [units],
  });
  const found = new Map<string, HouseValue[]>(units.map((unit) => [unit, []]));
  for (const row of rows) if (row.value) found.get(row.unit)?.push(valueOf(row));
  return found;
}

/** The values that hold for a job: today's, or for a closed job those of the moment it was closed. */
export async function houseValuesOfJob(db: Queryable, job: string): Promise<HouseValue[]> {
  const { rows } = await db.query<HouseValueRow>({
    name: "house-values-of-job",
    text: `select distinct on (h.kind, h.entry) h.unit, h.kind, h.entry, h.value, h.reason, h.by_name, h.at
             from job j join book b on b.id = j.book join house_value h on h.unit = b.unit
            where j.id = $1 and h.at <= coalesce((select max(stored) from fact where job = $1 and kind = 'closed'), 'infinity')
            order by h.kind, h.entry, h.seq desc`,
    values: [job],
  });
  return rows.filter(({ value }) => value).map(valueOf);
}

/** Every value an entry of a unit ever had, newest first; one without figures took it back. */
export async function houseHistory(
  db: Queryable,
  unit: string,
): Promise<(HouseValue & { taken: boolean })[]> {
  const { rows } = await db.query<HouseValueRow>(
    "select unit, kind, entry, value, reason, by_name, at from house_value where unit = $1 order by seq desc limit 200",
    [unit],
  );
  return rows.map((row) => ({ ...valueOf(row), taken: row.value === null }));
}

/** Adds a value, or takes one back with null. */
export async function setHouseValue(
  db: Queryable,
  {
    unit,
    of,
    id,
    value,
    reason,
    by,
  }: {
    unit: string;
    of: HouseValue["of"];
    id: string;
    value: HouseValueRow["value"];
    reason: string;
    by: string;
  },
): Promise<void> {
  await db.query(
    "insert into house_value (unit, kind, entry, value, reason, by_name) values ($1, $2, $3, $4, $5, $6)",
    [unit, of, id, value && JSON.stringify(value), reason, by],
  );
  // What lists show of open jobs was made under the old value: it is made anew when they are read.
  await db.query(
    // In one order, so that two who do so do not wait for each other.
    `with behind as (select c.job from job_card c join job j on j.id = c.job join book b on b.id = j.book
                      where c.open and b.unit = $1 order by c.job for no key update of c)
     update job_card c set seq = 0 from behind where c.job = behind.job`,
    [unit],
  );
}

/** The tools of some units that the shop has, as `unit/tool`. */
export async function toolsOwned(db: Queryable, units: readonly string[]): Promise<Set<string>> {
  const { rows } = await db.query<{ unit: string; tool: string; owned: boolean }>({
    name: "tools-owned",
    text: `select distinct on (unit, tool) unit, tool, owned from tool_owned where unit = any($1) order by unit, tool, seq desc`,
    values: [units],
  });
  return new Set(rows.filter(({ owned }) => owned).map(({ unit, tool }) => `${unit}/${tool}`));
}

export async function setToolOwned(
  db: Queryable,
  { unit, tool, owned, by }: { unit: string; tool: string; owned: boolean; by: string },
): Promise<void> {
  await db.query("insert into tool_owned (unit, tool, owned, by_name) values ($1, $2, $3, $4)", [
    unit,
    tool,
    owned,
    by,
  ]);
}
