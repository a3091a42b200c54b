import { v7 as newId } from "uuid";
import type { Pool } from "~store/database";
import type { HouseSettings } from "~store/house";
import type { JobRecord } from "~store/jobs";
import { stockOf } from "~store/shelf";
import type { Staff } from "~store/staff";
import { partsOf, worksheetOf } from "./choose";

/** What a pack's page is made from besides its job; null when the job has no such pack. */
export async function packPage(
  pool: Pool,
  record: JobRecord,
  chain: string,
  house: HouseSettings,
  staff: readonly Staff[],
) {
  const sheet = worksheetOf(record, chain, house);
  if (!sheet) return null;
  return {
    stock: await stockOf(pool, partsOf(sheet)),
    leads: staff.filter(({ role }) => role === "lead" || role === "owner"),
    // Ids of what this page may send: the same form sent twice is carried out once.
    ids: { choice: newId(), reading: newId(), waiver: newId() },
  };
}
