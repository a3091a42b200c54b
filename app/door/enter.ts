import type { RouterContextProvider } from "react-router";
import { address, services } from "~/server/context";
import { sealSession, sessionIdOf } from "~/server/session";
import { notProven, STATUS } from "~/server/signature";
import { beginSession, endSession, proveSecret } from "~store/staff";

/** What became of a try to come in: the headers of the session that begins, or what is wrong with the PIN. */
export type Entered =
  | { ok: true; headers: Headers }
  | { ok: false; status: number; problems: Record<string, string> };

/** Proves who somebody is and begins their session, at the door and over a bench that was left; the one this browser had ends. */
export async function enter(
  context: Readonly<RouterContextProvider>,
  request: Request,
  { staff, pin }: { staff: string; pin: string },
): Promise<Entered> {
  const { pool, log } = context.get(services);
  const from = context.get(address);
  const result = await proveSecret(pool, staff, pin, from);
  if (!result.ok) {
    log.warn({ staff, why: result.why }, "sign-in refused");
    const problems = { pin: notProven(result, "That is not the PIN. Try again.") };
    return { ok: false, status: STATUS[result.why], problems };
  }
  const before = await sessionIdOf(context, request);
  if (before) await endSession(pool, before);
  const session = await beginSession(pool, result.staff.id, from);
  return { ok: true, headers: await sealSession(context, request, session) };
}
