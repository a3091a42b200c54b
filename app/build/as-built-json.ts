import type { Route } from "./+types/as-built-json";
import { recordOfJob } from "./record-page";

/** The as-built record as `yard-key/as-built@1` (docs/formats.md). */
export const loader = async ({ context, params }: Route.LoaderArgs): Promise<Response> => {
  const { record, job, built } = await recordOfJob(context, params.number);
  const { id, revision } = record.book.unit;
  const document = {
    format: "yard-key/as-built@1",
    job: record.number,
    vehicle: job.booking?.body.vehicle ?? "",
    unit: id,
    revision,
    configuration: { ...job.configuration },
    steps: built.steps,
  };
  return Response.json(document, {
    headers: { "Content-Disposition": `attachment; filename="as-built-${record.number}.json"` },
  });
};
