import { services } from "~/server/context";
import { flag, number, object, optional, words } from "~core/shape";
import type { Route } from "./+types/pull";
import { pass } from "./pass";

/** What the simulated wrench is asked: to be pulled until it clicks, newton metres; charged first, where it was empty. */
const asked = object({ bench: words(1, 80), torque: number(0, 5_000), charge: optional(flag) });

export const action = ({ context, request }: Route.ActionArgs): Promise<Response> =>
  pass(`${context.get(services).gaugeUrl ?? ""}/pull`, request, asked);

export const loader = (): Response => new Response("Only for sending.", { status: 405 });
