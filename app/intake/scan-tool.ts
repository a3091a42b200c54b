import { services } from "~/server/context";
import { jobUnit } from "~store/jobs";
import type { Route } from "./+types/scan-tool";

/** What the scan tool reads out of this job's unit, as text. */
export const loader = async ({ context, params }: Route.LoaderArgs): Promise<Response> => {
  const { pool, scanToolUrl } = context.get(services);
  const unit = await jobUnit(pool, Number(params.number));
  if (!unit || !scanToolUrl) return new Response("There is no scan tool here.", { status: 404 });
  const search = new URLSearchParams({ unit, job: params.number, item: params.item });
  const answer = await fetch(`${scanToolUrl}/read?${search}`, { signal: AbortSignal.timeout(5_000) }).catch(
    () => null,
  );
  if (!answer?.ok) return new Response("The scan tool does not answer.", { status: 503 });
  return Response.json({ text: (await answer.text()).slice(0, 20_000) });
};
