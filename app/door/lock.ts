import { sessionOf } from "~/server/session";
import { services } from "~/server/context";
import { lockSession } from "~store/staff";
import type { Route } from "./+types/lock";

/** Nobody has touched this bench for a while: its session answers nothing until somebody says who is there. */
export const action = async ({ context, request }: Route.ActionArgs): Promise<Response> => {
  const who = await sessionOf(context, request);
  if (who) await lockSession(context.get(services).pool, who.sessionId);
  return Response.json({ locked: who !== null });
};

export const loader = (): Response => new Response("Only for sending.", { status: 405 });
