import type { RouterContextProvider } from "react-router";
import { jobContext, type JobContext } from "~/server/job-context";
import { buildOf, recordOf, type BuildRecord } from "~core/build";
import { houseOf, specLines } from "~core/measure";
import { provenRecord } from "~core/prove";

/** What was built on a job, as its page, its paper and its document have it. */
export async function recordOfJob(
  context: Readonly<RouterContextProvider>,
  number: string,
): Promise<Pick<JobContext, "record" | "house" | "job" | "applied"> & { built: BuildRecord }> {
  const { record, house, job, applied } = await jobContext(context, number);
  const unit = record.book.unit.lengthUnit;
  const lines = specLines(job, applied, house, unit);
  const build = buildOf(job, applied, houseOf(job, house), Date.now(), { lines });
  const { steps } = recordOf(job, applied, build, lines, unit);
  return { record, house, job, applied, built: { steps: [...steps, ...provenRecord(job, applied)] } };
}
