import { redirect } from "react-router";
import { services } from "~/server/context";
import { clearSession, sessionOf } from "~/server/session";
import { endSession } from "~store/staff";
import type { Route } from "./+types/sign-out";

export const loader = () => redirect("/");

export const action = async ({ context, request }: Route.ActionArgs) => {
  const who = await sessionOf(context, request);
  if (who) await endSession(context.get(services).pool, who.sessionId);
  return redirect("/sign-in", { headers: { "Set-Cookie": await clearSession(context, request) } });
};
