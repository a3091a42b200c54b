import { services } from "~/server/context";
import { nanometres, object, words } from "~core/shape";
import type { Route } from "./+types/take";
import { pass } from "./pass";

/** What the simulated bench is asked to read: of what, with which gauge, and what the book has for it. */
const asked = object({
  bench: words(1, 80),
  what: words(1, 200),
  gauge: words(1, 40),
  nominal: nanometres(),
});

export const action = ({ context, request }: Route.ActionArgs): Promise<Response> =>
  pass(`${context.get(services).gaugeUrl ?? ""}/take`, request, asked);

export const loader = (): Response => new Response("Only for sending.", { status: 405 });
