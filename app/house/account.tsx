import { useRef } from "react";
import { data, Form } from "react-router";
import { useInside } from "~/door/inside";
import { useWhen } from "~/door/when";
import { emptied, useRefused } from "~/look/use-refused";
import { Field } from "~/look/field";
import { address, services, signedIn } from "~/server/context";
import { readForm, typedIn } from "~/server/form";
import { leastOf, newSecret, secret, secretWords } from "~/server/secret";
import { notProven } from "~/server/signature";
import { field, uuid } from "~core/shape";
import { changeAccount, endOwnSession, proveSecret, sessionsOf } from "~store/staff";
import type { Route } from "./+types/account";

export const meta: Route.MetaFunction = () => [{ title: "Your account · Yard Key" }];

export const loader = async ({ context }: Route.LoaderArgs) => {
  const { staff, sessionId } = context.get(signedIn);
  const sessions = await sessionsOf(context.get(services).pool, staff.id);
  return { sessions: sessions.map((one) => ({ ...one, here: one.id === sessionId })) };
};

export const action = async ({ context, request }: Route.ActionArgs) => {
  const { pool } = context.get(services);
  const { staff, sessionId } = context.get(signedIn);
  const typed = await typedIn(request);
  if (typed.intent === "end") {
    const form = readForm({ session: field(uuid) }, typed);
    if ("problems" in form) return data(form, { status: 400 });
    await endOwnSession(pool, staff.id, form.values.session);
    return data({ problems: {}, done: "ended" });
  }
  const least = leastOf(staff.role);
  const form = readForm(
    {
      now: field(secret, "Type the one you have now.", { asTyped: true }),
      fresh: field(newSecret(least), secretWords(least), { asTyped: true }),
    },
    typed,
  );
  const same = typed.again === typed.fresh;
  if ("problems" in form || !same) {
    const problems: Record<string, string> = "problems" in form ? form.problems : {};
    if (!same) problems.again = "This is not the same as above.";
    return data({ problems, done: "" }, { status: 400 });
  }
  const proof = await proveSecret(pool, staff.id, form.values.now, context.get(address));
  if (!proof.ok)
    return data({ problems: { now: notProven(proof, "That is not your PIN.") }, done: "" }, { status: 400 });
  await changeAccount(pool, staff.id, { what: "secret", secret: form.values.fresh }, staff.id, sessionId);
  return data({ problems: {}, done: "secret" });
};

/** One’s own PIN, and where one is signed in. */
export default function AccountPage({ loaderData: { sessions }, actionData }: Route.ComponentProps) {
  const { staff } = useInside();
  const { moment } = useWhen();
  const problems: Readonly<Record<string, string>> = actionData?.problems ?? {};
  const done = actionData && "done" in actionData ? actionData.done : "";
  const form = useRef<HTMLFormElement>(null);
  useRefused(actionData, problems.now !== undefined, () => emptied(form.current, "now"));
  return (
    <main className="mx-auto grid max-w-[1320px] grid-cols-2 items-start gap-4 p-4">
      <section>
        <h1 className="mb-3 text-3xl font-bold">{staff.name}</h1>
        <Form method="post" className="plate p-5" key={done} ref={form}>
          <h2 className="mb-3 text-xl font-bold">Another PIN or password</h2>
          {(["now", "fresh", "again"] as const).map((name) => (
            <Field
              key={name}
              label={{ now: "The one you have", fresh: "The new one", again: "The new one again" }[name]}
              name={name}
              type="password"
              autoComplete={name === "now" ? "current-password" : "new-password"}
              problem={problems[name]}
            />
          ))}
          <button className="btn btn-primary touch">Change it</button>
          {done === "secret" && (
            <span role="status" className="ml-3 font-semibold">
              Changed. Every other place is signed out.
            </span>
          )}
        </Form>
      </section>
      <section>
        <h2 className="mb-3 text-3xl font-bold">Where you are signed in</h2>
        <ul className="plate px-5 py-2">
          {sessions.map(({ id, begun, seen, address: from, here }) => (
            <li key={id} className="border-base-300 flex items-center gap-3 border-b py-2 last:border-0">
              <span className="grow">
                <b>{here ? "Here" : "Another browser"}</b>
                <span className="quiet block text-sm">
                  since {moment(begun)}, last used {moment(seen)}
                  {from && `, from ${from}`}
                </span>
              </span>
              {!here && (
                <Form method="post">
                  <input type="hidden" name="intent" value="end" />
                  <input type="hidden" name="session" value={id} />
                  <button className="btn touch">Sign out there</button>
                </Form>
              )}
            </li>
          ))}
        </ul>
      </section>
    </main>
  );
}
