import Joi from "joi";
import { ground } from "~/server/context";
import type { Route } from "./+types/take";
import { pass } from "./pass";

/** What the simulated bench is asked to read: of what, with which gauge, and what the book has for it. */
const schema = Joi.object({
  bench: Joi.string().max(80).required(),
  what: Joi.string().max(200).required(),
  gauge: Joi.string().max(40).required(),
  nominal: Joi.number().integer().min(-10_000_000_000).max(10_000_000_000).required(),
}).required();

export const action = ({ context, request }: Route.ActionArgs): Promise<Response> =>
  pass(`${context.get(ground).gaugeUrl ?? ""}/take`, request, schema);

export const loader = (): Response => new Response("Only for sending.", { status: 405 });
