import type { FigureLeft } from "~core/measure";
import type { Pool } from "./database";
import { jobByNumber, type JobRecord } from "./jobs";

/** So many of the units that left last tell how the next one comes out. */
const UNITS = 60;
/** No more of them are made for one who asks: the next who asks makes on. */
const AT_ONCE = 10;

/**
 * What the last units of a kind came with and left with, the newest first. What nobody has asked for before is made from the facts and kept.
 *
 * @param made what one job's unit left with.
 */
export async function leftOf(
  pool: Pool,
  unit: string,
  made: (record: JobRecord) => FigureLeft[],
): Promise<FigureLeft[][]> {
  const { rows } = await pool.query<{ job: string; number: number; figures: FigureLeft[] | null }>({
    name: "left-of-unit",
    text: `select l.id as job, l.number::int as number, w.figures
             from (select j.id, j.number from job j join job_card c on c.job = j.id and not c.open
                    where j.book = any (select id from book where unit = $1) order by j.number desc limit $2) l
             left join left_with w on w.job = l.id order by l.number desc`,
    values: [unit, UNITS],
  });
  const waiting = rows.filter(({ figures }) => figures === null).slice(0, AT_ONCE);
  const own = new Map<string, FigureLeft[]>();
  for (const { job, number } of waiting) {
    const record = await jobByNumber(pool, number);
    if (!record) continue;
    const figures = made(record);
    own.set(job, figures);
    await pool.query("insert into left_with (job, figures) values ($1, $2) on conflict (job) do nothing", [
      job,
      JSON.stringify(figures),
    ]);
  }
  return rows.map(({ job, figures }) => figures ?? own.get(job) ?? []);
}
