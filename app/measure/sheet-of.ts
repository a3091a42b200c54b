import { appliedTo, fold } from "~core/fact";
import { rows, type Row } from "~core/measure";
import type { LengthUnit } from "~core/quantity";
import type { Pool } from "~store/database";
import { readHouse, type HouseSettings } from "~store/house";
import { jobByNumber, type JobRecord } from "~store/jobs";

/** The spec sheet of a job for a file, in the unit asked for. */
export async function sheetOf(
  pool: Pool,
  number: number,
  request: Request,
): Promise<{ record: JobRecord; house: HouseSettings; lines: Row[]; unit: LengthUnit }> {
  const [record, house] = await Promise.all([jobByNumber(pool, number), readHouse(pool)]);
  if (!record) throw new Response("There is no job of this number.", { status: 404 });
  const asked = new URL(request.url).searchParams.get("unit");
  const unit = asked === "mm" || asked === "in" ? asked : record.book.unit.lengthUnit;
  const job = fold(record.facts);
  return {
    record,
    house,
    unit,
    lines: rows(job, appliedTo(record.book, job, record.houseValues), house, unit),
  };
}
