import { address, services } from "~/server/context";
import { readForm, typedIn } from "~/server/form";
import { secret } from "~/server/secret";
import { sealSession, sessionIdOf } from "~/server/session";
import { notProven, STATUS } from "~/server/signature";
import { field, uuid } from "~core/shape";
import { beginSession, endSession, listStaff, proveSecret } from "~store/staff";
import type { Route } from "./+types/unlock";

const entry = {
  staff: field(uuid, "Touch your name."),
  pin: field(secret, "Type your PIN or password.", { asTyped: true }),
};

/** Who may be at the bench: the names the door shows anyway. */
export const loader = async ({ context }: Route.LoaderArgs): Promise<Response> =>
  Response.json(
    { staff: await listStaff(context.get(services).pool) },
    { headers: { "Cache-Control": "no-store" } },
  );

/** Signs in over a page that stays as it is: the session before ends, another begins. */
export const action = async ({ context, request }: Route.ActionArgs): Promise<Response> => {
  const form = readForm(entry, await typedIn(request));
  if ("problems" in form) return Response.json({ problems: form.problems }, { status: 400 });
  const { pool, log } = context.get(services);
  const { staff, pin } = form.values;
  const from = context.get(address);
  const result = await proveSecret(pool, staff, pin, from);
  if (!result.ok) {
    log.warn({ staff, why: result.why }, "sign-in refused");
    const problems = { pin: notProven(result, "That is not the PIN. Try again.") };
    return Response.json({ problems }, { status: STATUS[result.why] });
  }
  const before = await sessionIdOf(context, request);
  if (before) await endSession(pool, before);
  const session = await beginSession(pool, result.staff.id, from);
  return Response.json({ problems: {} }, { headers: await sealSession(context, request, session) });
};
