import { services } from "~/server/context";
import { problemText } from "~core/fact";
import { check, number, object, oneOf, optional, words } from "~core/shape";
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
    }),
  ),
  pressure: optional(object({ low: number(0, 100_000_000), high: number(0, 100_000_000) })),
  routine: optional(words(1, 120)),
});

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

export const loader = (): Response => new Response("Only for asking.", { status: 405 });
