import { services } from "~/server/context";
import { jobDocument } from "~core/fact";
import { jobRecord } from "~/server/job-context";
import { photosOf } from "~store/photos";
import type { Route } from "./+types/export";

/** The whole job as `yard-key/job@1` (docs/formats.md). */
export const loader = async ({ context, params }: Route.LoaderArgs): Promise<Response> => {
  const { pool } = context.get(services);
  const { id, number, opened, document, facts } = await jobRecord(context, params.number);
  const pictures = (await photosOf(pool, id)).map(({ large, small, ...picture }) => ({
    ...picture,
    large: large.toString("base64"),
    small: small.toString("base64"),
  }));
  const whole = jobDocument({
    id,
    number,
    opened,
    book: document,
    facts,
    ...(pictures.length > 0 ? { pictures } : {}),
  });
  return new Response(JSON.stringify(whole, null, 2), {
    headers: {
      "Content-Type": "application/json",
      "Content-Disposition": `attachment; filename="job-${number}.json"`,
    },
  });
};
