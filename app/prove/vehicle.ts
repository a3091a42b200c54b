import { services } from "~/server/context";
import { problemText } from "~core/fact";
import { check, flag, list, number, object, oneOf, optional, words } from "~core/shape";
import { jobUnit } from "~store/jobs";
import type { Route } from "./+types/vehicle";

/** What the simulated vehicle is asked: something done at it, a pressure read, a routine run. */
const asked = object({
  control: optional(
    object({
      engine: optional(oneOf("off", "running")),
      lever: optional(words(1, 20)),
      brake: optional(oneOf("held", "free")),
      pedal: optional(oneOf("untouched", "pressed")),
      plug: optional(oneOf("in", "out")),
      planted: optional(words(1, 40)),
      revs: optional(number(0, 20_000)),
      pour: optional(number(-20, 20)),
      fluid: optional(number(-40, 200)),
      warm: optional(number(-50, 50)),
      clear: optional(flag),
    }),
  ),
  pressure: optional(object({ low: number(0, 100_000_000), high: number(0, 100_000_000) })),
  routine: optional(words(1, 120)),
  speeds: optional(
    object({ ratio: number(-100, 100), elements: list(words(1, 80)), of: list(words(1, 80)) }),
  ),
});

/** A stream ends by itself: whoever still looks asks anew, and is asked again who they are. */
const STREAM_MS = 60_000;

/** Asks the vehicle on this job’s lift, which only the server reaches. */
export const action = async ({ context, params, request }: Route.ActionArgs): Promise<Response> => {
  const { pool, scanToolUrl } = context.get(services);
  if (!(await jobUnit(pool, Number(params.number))))
    return Response.json({ problem: "there is no such job" }, { status: 404 });
  const { value, problems } = check(asked, await request.json().catch(() => null));
  const [wrong] = problems;
  if (wrong) return Response.json({ problem: problemText(wrong) }, { status: 400 });
  const answer = await fetch(`${scanToolUrl ?? ""}/vehicle`, {
    method: "POST",
    body: JSON.stringify({ job: params.number, ...value }),
    signal: AbortSignal.timeout(5_000),
  }).catch(() => null);
  return answer?.ok
    ? Response.json(await answer.json())
    : Response.json({ problem: "no vehicle answers" }, { status: 503 });
};

/** How the vehicle on this job’s lift stands, as server-sent events. */
export const loader = async ({ context, params, request }: Route.LoaderArgs): Promise<Response> => {
  const { pool, scanToolUrl } = context.get(services);
  if (!(await jobUnit(pool, Number(params.number))))
    return new Response("There is no such job.", { status: 404 });
  const ends = AbortSignal.any([request.signal, AbortSignal.timeout(STREAM_MS)]);
  const answer = await fetch(`${scanToolUrl ?? ""}/vehicle?job=${encodeURIComponent(params.number)}`, {
    signal: ends,
  }).catch(() => null);
  if (!answer?.ok || !answer.body) return new Response("No vehicle answers.", { status: 503 });
  const told = answer.body.getReader();
  // What ends it is no fault: the browser asks anew, or has gone.
  const quietly = new ReadableStream<Uint8Array>({
    pull: async (to) => {
      const next = await told.read().catch(() => null);
      if (next?.value) to.enqueue(next.value);
      else to.close();
    },
    cancel: () => told.cancel().catch(() => {}),
  });
  return new Response(quietly, {
    headers: { "Content-Type": "text/event-stream", "Cache-Control": "no-store" },
  });
};
