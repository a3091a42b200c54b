import Joi from "joi";
import { data, Form, redirect } from "react-router";
import { Field } from "~/look/field";
import { ground } from "~/server/context";
import { readForm } from "~/server/form";
import { setHouse } from "~store/house";
import { addFirstLead, listStaff } from "~store/staff";
import type { Route } from "./+types/first-run";

export const loader = async ({ context }: Route.LoaderArgs) => {
  if ((await listStaff(context.get(ground).pool)).length > 0) throw redirect("/sign-in");
  return null;
};

const schema = Joi.object<{ shop: string; name: string; pin: string; again: string }>({
  shop: Joi.string().trim().max(80).required().messages({ "*": "Name the shop, at most 80 letters." }),
  name: Joi.string().trim().max(60).required().messages({ "*": "Write your name, at most 60 letters." }),
  pin: Joi.string()
    .min(6)
    .max(200)
    .required()
    .messages({ "*": "At least six digits or letters: this account may do everything." }),
  again: Joi.string().valid(Joi.ref("pin")).required().messages({ "*": "This is not the same as above." }),
});

export const action = async ({ context, request }: Route.ActionArgs) => {
  const form = await readForm(request, schema);
  if ("problems" in form) return data(form, { status: 400 });
  const { pool } = context.get(ground);
  const { shop, name, pin } = form.values;
  if (await addFirstLead(pool, name, pin)) await setHouse(pool, { shopName: shop }, name);
  return redirect("/sign-in");
};

export default function FirstRun({ actionData }: Route.ComponentProps) {
  const typed: Record<string, string> = actionData?.typed ?? {};
  const problems: Record<string, string> = actionData?.problems ?? {};
  return (
    <main className="mx-auto mt-16 max-w-lg p-6">
      <h1 className="mb-2 text-3xl font-bold">A new Yard Key</h1>
      <p className="mb-6 text-lg">
        Nobody is known here yet. Make the first account, a lead’s; the lead adds the others under House.
      </p>
      <Form method="post" className="plate p-6">
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
