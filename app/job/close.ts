import { data, type RouterContextProvider } from "react-router";
import { ground, visitor } from "~/server/context";
import { fold, type House, type Job } from "~core/job";
import { addFacts } from "~store/facts";
import { readHouse } from "~store/house";
import { jobByNumber, type JobRecord } from "~store/jobs";
import type { Staff } from "~store/staff";

/**
 * Closes a job: nothing more is added to it. The same form sent twice closes it once.
 *
 * @param hinders what still stands in the way, in words; empty when nothing does.
 */
export async function closeJob(
  context: Readonly<RouterContextProvider>,
  request: Request,
  number: number,
  hinders: (job: Job, record: JobRecord, house: House, staff: Staff) => string,
) {
  const { pool } = context.get(ground);
  const { staff } = context.get(visitor);
  const id = (await request.formData()).get("id");
  const [record, house] = await Promise.all([jobByNumber(pool, number), readHouse(pool)]);
  if (!record || typeof id !== "string" || !/^[0-9a-f-]{36}$/.test(id))
    throw new Response("There is no such job.", { status: 404 });
  const job = fold(record.facts);
  if (job.closed) return data({ problem: "" });
  const problem = hinders(job, record, house, staff);
  if (problem) return data({ problem }, { status: 409 });
  const body = { kind: "closed", rule: house.rule } as const;
  await addFacts(pool, record.id, [{ id, at: new Date().toISOString(), by: staff.name, body }], staff);
  return data({ problem: "" });
}
