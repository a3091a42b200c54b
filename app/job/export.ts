import { ground } from "~/server/context";
import { jobDocument } from "~core/job";
import { jobByNumber } from "~store/jobs";
import type { Route } from "./+types/export";

/** The whole job as `yard-key/job@1` (docs/formats.md). */
export const loader = async ({ context, params }: Route.LoaderArgs): Promise<Response> => {
  const record = await jobByNumber(context.get(ground).pool, Number(params.number));
  if (!record) throw new Response("There is no job of this number.", { status: 404 });
  const { id, number, opened, document, facts } = record;
  return new Response(JSON.stringify(jobDocument({ id, number, opened, book: document, facts }), null, 2), {
    headers: {
      "Content-Type": "application/json",
      "Content-Disposition": `attachment; filename="job-${number}.json"`,
    },
  });
};
