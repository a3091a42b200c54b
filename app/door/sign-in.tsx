import { useEffect, useState } from "react";
import { data, Form, redirect, useNavigation } from "react-router";
import { Choice } from "~/look/field";
import { services } from "~/server/context";
import { readForm, typedIn } from "~/server/form";
import { secret } from "~/server/secret";
import { field, maybeWords, uuid } from "~core/shape";
import { sessionOf } from "~/server/session";
import { readHouse } from "~store/house";
import { listStaff } from "~store/staff";
import { enter } from "./enter";
import { unlocked } from "./idle";
import { useRefused } from "~/look/use-refused";
import { PinField } from "./pin-field";
import { within } from "./within";
import type { Route } from "./+types/sign-in";

export const loader = async ({ context, request }: Route.LoaderArgs) => {
  const { pool } = context.get(services);
  if (await sessionOf(context, request)) throw redirect("/");
  const [staff, house] = await Promise.all([listStaff(pool), readHouse(pool)]);
  if (staff.length === 0) throw redirect("/first-run");
  return {
    staff,
    shop: house.shopName,
    demoPin: house.demoPin,
    to: within(new URL(request.url).searchParams.get("to")),
  };
};

const entry = {
  staff: field(uuid, "Choose your name."),
  pin: field(secret, "Type your PIN or password.", { asTyped: true }),
  to: field(maybeWords(2_000), "", { empty: "/" }),
};

export const action = async ({ context, request }: Route.ActionArgs) => {
  const form = readForm(entry, await typedIn(request));
  if ("problems" in form) return data(form, { status: 400 });
  const { staff, to } = form.values;
  const entered = await enter(context, request, form.values);
  if (!entered.ok) return data({ problems: entered.problems, typed: { staff } }, { status: entered.status });
  return redirect(within(to), { headers: entered.headers });
};

export default function SignIn({
  loaderData: { staff, shop, demoPin, to },
  actionData,
}: Route.ComponentProps) {
  useEffect(unlocked, []);
  const busy = useNavigation().state !== "idle";
  const [pin, setPin] = useState("");
  const typed: Record<string, string> = actionData?.typed ?? {};
  const problems: Record<string, string> = actionData?.problems ?? {};
  useRefused(actionData, problems.pin !== undefined, () => setPin(""));
  return (
    <main className="grid min-h-dvh grid-cols-[minmax(0,5fr)_minmax(0,6fr)]">
      <div className="bg-neutral text-neutral-content flex flex-col justify-between p-10">
        <div className="flex items-center gap-3 text-3xl font-bold">
          <img src="/favicon.svg" alt="" width="44" height="44" /> Yard Key
        </div>
        <Emblem />
        <p className="text-lg opacity-90">
          {shop || "Your shop"}
          <br />
          Measure, choose, build, prove.
        </p>
      </div>
      <div className="flex items-center p-10">
        <Form method="post" className="w-full max-w-lg">
          <h1 className="mb-5 text-3xl font-bold">Who is at the bench?</h1>
          <input type="hidden" name="to" value={to} />
          <Choice
            label="Name"
            name="staff"
            size="text-xl"
            searched
            value={typed.staff}
            problem={problems.staff}
            options={staff.map(({ id, name, role }) => ({
              value: id,
              name,
              words: (
                <>
                  {name} <span className="text-sm opacity-80">{role}</span>
                </>
              ),
            }))}
          />
          <PinField
            value={pin}
            onChange={setPin}
            problem={problems.pin}
            hint={demoPin ? `Demo shop, made up throughout: everyone’s PIN is ${demoPin}.` : undefined}
          />
          <button className="btn btn-primary btn-lg touch mt-3 w-full text-xl" disabled={busy}>
            Sign in
          </button>
        </Form>
      </div>
    </main>
  );
}

/** A shaft with its packs, in chalk on steel. */
function Emblem() {
  const plates = Array.from({ length: 15 }, (_, i) => i);
  return (
    <svg viewBox="0 0 420 300" className="w-full max-w-md" aria-hidden="true">
      <path d="M0 150H420" stroke="currentColor" strokeWidth="1.5" strokeDasharray="20 6 4 6" opacity="0.6" />
      {[-1, 1].map((side) => (
        <g key={side} transform={`translate(60 150) scale(1 ${side})`}>
          <path d="M0 14H300V30H0z" fill="currentColor" opacity="0.25" />
          <path d="M0 30V132H290V118H16V30z" fill="currentColor" opacity="0.4" />
          {plates.map((i) => (
            <rect
              key={i}
              x={38 + i * 13}
              y={i % 2 ? 56 : 44}
              width="9"
              height={i % 2 ? 58 : 70}
              className={i % 2 ? "fill-brass" : ""}
              fill="currentColor"
              opacity={i % 2 ? 1 : 0.75}
            />
          ))}
          <rect x="252" y="96" width="12" height="28" className="fill-brass" />
          <path
            d="M234 64h17m-5-5l5 5-5 5M238 59l-5 5 5 5"
            fill="none"
            stroke="currentColor"
            strokeWidth="2"
          />
        </g>
      ))}
    </svg>
  );
}
