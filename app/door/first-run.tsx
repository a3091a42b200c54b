import { data, Form, redirect } from "react-router";
import { Field } from "~/look/field";
import { services } from "~/server/context";
import { readForm, typedIn } from "~/server/form";
import { isCode } from "~/server/first-run-code";
import { leastOf, newSecret, secretWords } from "~/server/secret";
import { field, words } from "~core/shape";
import { setHouse } from "~store/house";
import { addFirstLead, listStaff } from "~store/staff";
import type { Route } from "./+types/first-run";

export const loader = async ({ context }: Route.LoaderArgs) => {
  if ((await listStaff(context.get(services).pool)).length > 0) throw redirect("/sign-in");
  return { asksCode: context.get(services).firstRunCode !== "" };
};

const first = {
  shop: field(words(1, 80), "Name the shop, at most 80 letters."),
  name: field(words(1, 60), "Write your name, at most 60 letters."),
  pin: field(newSecret(leastOf("lead")), secretWords(leastOf("lead")), { asTyped: true }),
};

export const action = async ({ context, request }: Route.ActionArgs) => {
  // Before anything is read or hashed: where somebody is known already, a stranger's form is no work.
  if ((await listStaff(context.get(services).pool)).length > 0) return redirect("/sign-in");
  const given = await typedIn(request);
  const form = readForm(first, given);
  const same = given.again === given.pin;
  const { firstRunCode } = context.get(services);
  const invited = firstRunCode === "" || isCode(given.code ?? "", firstRunCode);
  if ("problems" in form || !same || !invited) {
    const problems = "problems" in form ? form.problems : {};
    if (!invited) problems.code = "That is not the code the server’s console shows.";
    if (!same) problems.again = "This is not the same as above.";
    return data({ problems, typed: { shop: given.shop ?? "", name: given.name ?? "" } }, { status: 400 });
  }
  const { pool } = context.get(services);
  const { shop, name, pin } = form.values;
  if (await addFirstLead(pool, name, pin)) await setHouse(pool, { shopName: shop }, name);
  return redirect("/sign-in");
};

export default function FirstRun({ loaderData: { asksCode }, actionData }: Route.ComponentProps) {
  const typed: Record<string, string> = actionData?.typed ?? {};
  const problems: Record<string, string> = actionData?.problems ?? {};
  return (
    <main className="mx-auto mt-16 max-w-lg p-6">
      <h1 className="mb-2 text-3xl font-bold">A new Yard Key</h1>
      <p className="mb-6 text-lg">
        Nobody is known here yet. Make the first account, a lead’s; the lead adds the others under House.
      </p>
      <Form method="post" className="plate p-6">
        {asksCode && (
          <Field
            label="Code of the console"
            name="code"
            autoComplete="off"
            problem={problems.code}
            hint="shown where npm start was typed"
          />
        )}
        <Field label="Shop" name="shop" defaultValue={typed.shop} problem={problems.shop} />
        <Field label="Your name" name="name" defaultValue={typed.name} problem={problems.name} />
        <Field
          label="PIN or password"
          name="pin"
          type="password"
          autoComplete="new-password"
          problem={problems.pin}
        />
        <Field
          label="The same again"
          name="again"
          type="password"
          autoComplete="new-password"
          problem={problems.again}
        />
        <button className="btn btn-primary btn-lg touch w-full">Make the account</button>
      </Form>
    </main>
  );
}
