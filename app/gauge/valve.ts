import { services } from "~/server/context";
import { flag, maybeWords, nanometres, object, optional, words } from "~core/shape";
import type { Route } from "./+types/valve";
import { pass } from "./pass";

/** What the simulated bench can be told: what lies in the drum, and air on or off. A real gauge ignores all of it. */
const set = object({
  bench: words(1, 80),
  drum: optional(maybeWords(160)),
  gap: optional(nanometres()),
  air: optional(flag),
});

export const action = ({ context, request }: Route.ActionArgs): Promise<Response> =>
  pass(`${context.get(services).gaugeUrl ?? ""}/set`, request, set);

export const loader = (): Response => new Response("Only for sending.", { status: 405 });
