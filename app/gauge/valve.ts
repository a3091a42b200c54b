import Joi from "joi";
import { check } from "~/server/check";
import { ground } from "~/server/context";
import type { Route } from "./+types/valve";

/** What the simulated bench can be told: what lies in the drum, and air on or off. A real gauge ignores all of it. */
const schema = Joi.object({
  bench: Joi.string().max(80).required(),
  drum: Joi.string().max(160),
  gap: Joi.number().integer(),
  air: Joi.boolean(),
}).required();

export const action = async ({ context, request }: Route.ActionArgs): Promise<Response> => {
  const { gaugeUrl } = context.get(ground);
  const checked = check<unknown>(schema, await request.json().catch(() => null));
  if (!checked.ok) return Response.json({ problem: checked.details[0]?.message }, { status: 400 });
  const answer = await fetch(`${gaugeUrl}/set`, {
    method: "POST",
    body: JSON.stringify(checked.value),
  }).catch(() => null);
  return answer?.ok
    ? Response.json({ ok: true })
    : Response.json({ problem: "the gauge does not answer" }, { status: 503 });
};

export const loader = (): Response => new Response("Only for sending.", { status: 405 });
