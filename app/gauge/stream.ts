import { services } from "~/server/context";
import type { Route } from "./+types/stream";

/** The bench gauge's needle as server-sent events, passed on from where the gauge answers: same origin, behind the door. */
export const loader = async ({ context, request }: Route.LoaderArgs): Promise<Response> => {
  const { gaugeUrl } = context.get(services);
  if (!gaugeUrl) return new Response(null, { status: 204 });
  const bench = new URL(request.url).searchParams.get("bench") ?? "1";
  const upstream = await fetch(`${gaugeUrl}/stream?bench=${encodeURIComponent(bench)}`, {
    signal: request.signal,
  }).catch(() => null);
  if (!upstream?.ok) return new Response("the gauge does not answer", { status: 503 });
  return new Response(upstream.body, {
    headers: { "Content-Type": "text/event-stream", "Cache-Control": "no-store" },
  });
};
