import type { RouterContextProvider } from "react-router";
import { jobContext, type JobContext } from "~/server/job-context";
import { specLines, type SpecLine } from "~core/measure";
import type { LengthUnit } from "~core/quantity";

/** The spec sheet of a job for a file, in the unit asked for. */
export async function sheetOf(
  context: Readonly<RouterContextProvider>,
  number: string,
  request: Request,
): Promise<Pick<JobContext, "record" | "house"> & { lines: SpecLine[]; unit: LengthUnit }> {
  const { record, job, applied, house } = await jobContext(context, number);
  const asked = new URL(request.url).searchParams.get("unit");
  const unit = asked === "mm" || asked === "in" ? asked : record.book.unit.lengthUnit;
  return { record, house, unit, lines: specLines(job, applied, house, unit) };
}
