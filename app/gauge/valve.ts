import Joi from "joi";
import { ground } from "~/server/context";
import type { Route } from "./+types/valve";
import { pass } from "./pass";

/** What the simulated bench can be told: what lies in the drum, and air on or off. A real gauge ignores all of it. */
const schema = Joi.object({
  bench: Joi.string().max(80).required(),
  drum: Joi.string().max(160),
  gap: Joi.number().integer(),
  air: Joi.boolean(),
}).required();

export const action = ({ context, request }: Route.ActionArgs): Promise<Response> =>
  pass(`${context.get(ground).gaugeUrl ?? ""}/set`, request, schema);

export const loader = (): Response => new Response("Only for sending.", { status: 405 });
