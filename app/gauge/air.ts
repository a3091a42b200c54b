import { services } from "~/server/context";
import { number, object, words } from "~core/shape";
import type { Route } from "./+types/air";
import { pass } from "./pass";

/** What the simulated air-check rig is asked: of what, let to which pressure, and the most it may lose; pascals. */
const asked = object({
  what: words(1, 200),
  pressure: number(0, 20_000_000),
  allowed: number(0, 20_000_000),
});

export const action = ({ context, request }: Route.ActionArgs): Promise<Response> =>
  pass(`${context.get(services).gaugeUrl ?? ""}/air`, request, asked);

export const loader = (): Response => new Response("Only for sending.", { status: 405 });
