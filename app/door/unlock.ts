import { services } from "~/server/context";
import { readForm, typedIn } from "~/server/form";
import { secret } from "~/server/secret";
import { field, uuid } from "~core/shape";
import { listStaff } from "~store/staff";
import { enter } from "./enter";
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
  const entered = await enter(context, request, form.values);
  return entered.ok
    ? Response.json({ problems: {} }, { headers: entered.headers })
    : Response.json({ problems: entered.problems }, { status: entered.status });
};
