import { Fragment } from "react";
import { FIRST } from "~core/select";
import { data, Form, useLoaderData } from "react-router";
import { useInside } from "~/door/inside";
import { useWhen } from "~/door/when";
import { Choice, Field } from "~/look/field";
import { services } from "~/server/context";
import { readForm, typedIn } from "~/server/form";
import { leastOf, newSecret, secretWords } from "~/server/secret";
import { field, oneOf, suchThat, whole, words, written } from "~core/shape";
import { mustBe } from "~/server/session";
import { LEADS, ROLES, USES, type Use } from "~core/fact";
import { capital } from "~core/book";
import { moneyOf, moneyText } from "~core/quantity";
import { UNIQUE_VIOLATION, sqlState } from "~store/database";
import { setHouse, type HouseSettings } from "~store/house";
import { Busy } from "~store/secret";
import { addStaff, listAccounts } from "~store/staff";
import { changed } from "./accounts";
import { People } from "./people";
import type { Route } from "./+types/house";

export const meta: Route.MetaFunction = () => [{ title: "House · Yard Key" }];

export const loader = async ({ context }: Route.LoaderArgs) => ({
  everyone: await listAccounts(context.get(services).pool),
  now: Date.now(),
  zones: Intl.supportedValuesOf("timeZone"),
});

/** Whether clocks know a time zone of this name. */
function isZone(zone: string): boolean {
  try {
    return Boolean(new Intl.DateTimeFormat("en", { timeZone: zone }));
  } catch {
    return false;
  }
}

const money = written(moneyOf, "90.00");
const margin = field(
  written((text) => {
    const value = Number(text.replace(",", "."));
    if (!(value >= 1 && value <= 5)) throw new RangeError(`"${text}" is no margin; write one from 1 to 5`);
    return value;
  }, "1.3"),
  "Write how many times what it must carry, from 1 to 5: 1.3.",
);
/** Each use has two: an element that takes over in motion wants more over than one that engages at a standstill. */
const MARGINS = USES.codes.flatMap((use) =>
  (["standstill", "shifting"] as const).map((duty) => ({ use, duty, name: `${duty}-${use}` })),
);
const margins = Object.fromEntries(MARGINS.map(({ name }) => [name, margin]));
const settings = {
  rule: field(oneOf("proven", "plain")),
  target: field(oneOf("middle", "low end")),
  chooseFirst: field(oneOf(...FIRST)),
  steels: field(oneOf("reuse if flat", "always new")),
  bushings: field(oneOf("on measurement", "always new")),
  hourCents: field(money, "Write what an hour costs: 90 or 90.00."),
  comebackCents: field(money, "Write what a comeback costs: 1200."),
  shopName: field(words(1, 80), "Name the shop, at most 80 letters."),
  timeZone: field(
    suchThat(words(1, 80), { test: isZone, message: "no time zone", remedy: "write UTC" }),
    "Write a time zone by its name: Europe/Oslo, America/Halifax, UTC.",
  ),
  lockMinutes: field(whole(0, 480), "Write minutes, 480 at most; 0 asks never."),
  copiesKept: field(whole(1, 400), "Write how many copies are kept, at least one: 14."),
  footKey: field(words(2, 20), "Write the name of a key such as F8 or PageDown."),
};
const person = {
  name: field(words(1, 60), "Write the name, at most 60 letters."),
  role: field(oneOf(...ROLES), "Choose what they do."),
  secret: field(newSecret(4), secretWords(4), { asTyped: true }),
};

export const action = async ({ context, request }: Route.ActionArgs) => {
  const by = mustBe(context, "lead", "owner");
  const { pool } = context.get(services);
  const typed = await typedIn(request);
  if (typed.intent === "person") {
    const form = readForm(person, typed);
    if ("problems" in form) return data(form, { status: 400 });
    const least = leastOf(form.values.role);
    if (form.values.secret.length < least) {
      const { name, role } = form.values;
      return data({ problems: { secret: secretWords(least) }, typed: { name, role } }, { status: 400 });
    }
    try {
      await addStaff(pool, form.values);
    } catch (error) {
      if (error instanceof Busy)
        return data(
          {
            problems: { secret: "Many are signing in at this moment. Try again." },
            typed: { name: form.values.name },
          },
          { status: 503 },
        );
      if (sqlState(error) !== UNIQUE_VIOLATION) throw error;
      return data(
        { problems: { name: "Somebody of this name is here already." }, typed: { name: form.values.name } },
        { status: 409 },
      );
    }
    return data({ problems: {}, typed: {}, done: "person" });
  }
  if (typed.intent === "account") return changed(context, typed, by);
  const form = readForm(settings, typed);
  const own = readForm(margins, typed);
  if ("problems" in form || "problems" in own) {
    const problems = [form, own].map((one) => ("problems" in one ? one.problems : {}));
    return data(
      { problems: Object.assign({}, ...problems) as Record<string, string>, typed },
      { status: 400 },
    );
  }
  const of = ({ use, duty }: { use: Use; duty: string }): number => own.values[`${duty}-${use}`] ?? 1;
  const kept = Object.fromEntries(
    USES.codes.map((use) => [
      use,
      { standstill: of({ use, duty: "standstill" }), shifting: of({ use, duty: "shifting" }) },
    ]),
  ) as Record<Use, { standstill: number; shifting: number }>;
  await setHouse(pool, { ...form.values, margins: kept }, by.name);
  return data({ problems: {}, typed: {}, done: "settings" });
};

export default function House({ loaderData: { everyone, zones }, actionData }: Route.ComponentProps) {
  const typed: Record<string, string> = actionData?.typed ?? {};
  const problems: Record<string, string> = actionData?.problems ?? {};
  const done = actionData && "done" in actionData ? actionData.done : undefined;
  return (
    <main className="mx-auto grid max-w-[1320px] grid-cols-2 gap-4 p-4">
      <section>
        <h1 className="mb-3 text-3xl font-bold">House</h1>
        <Settings zones={zones} typed={typed} problems={problems} kept={done === "settings"} />
      </section>
      <section>
        <h2 className="mb-3 text-3xl font-bold">People</h2>
        <People everyone={everyone} typed={typed} problems={problems} done={done} />
      </section>
    </main>
  );
}

interface Answered {
  typed: Record<string, string>;
  problems: Record<string, string>;
}
function useMay(): boolean {
  return LEADS.includes(useInside().staff.role);
}

/** What the house has chosen, once for everybody. */
function Settings({ zones, typed, problems, kept }: Answered & { zones: readonly string[]; kept: boolean }) {
  const { house } = useInside();
  const may = useMay();
  return (
    <Form method="post" className="plate p-5">
      <fieldset disabled={!may}>
        <Field
          label="Shop"
          name="shopName"
          defaultValue={typed.shopName ?? house.shopName}
          problem={problems.shopName}
        />
        <Choice
          label="How a limit is decided"
          name="rule"
          value={(typed.rule as HouseSettings["rule"] | undefined) ?? house.rule}
          options={[
            {
              value: "proven",
              words: <Words title="Proven" text="the whole uncertainty must lie inside" />,
            },
            { value: "plain", words: <Words title="Plain" text="the mean alone is compared" /> },
          ]}
        />
        <Choice
          label="Where in the range"
          name="target"
          value={(typed.target as HouseSettings["target"] | undefined) ?? house.target}
          options={[
            { value: "middle", words: <Words title="Middle" text="of the book’s range" /> },
            { value: "low end", words: <Words title="Low end" text="a quarter up, for crisp apply" /> },
          ]}
        />
        <Choice
          label="Choosing pieces: after surety, first"
          name="chooseFirst"
          value={(typed.chooseFirst as HouseSettings["chooseFirst"] | undefined) ?? house.chooseFirst}
          options={[
            { value: "ready", words: <Words title="Soonest" text="nothing waits that need not" /> },
            { value: "money", words: <Words title="Cheapest" text="even where it waits" /> },
            { value: "changed", words: <Words title="Keep what is in" text="change as little as can be" /> },
            { value: "scarce", words: <Words title="Spare the scarce" text="for the work to come" /> },
            { value: "target", words: <Words title="Nearest" text="the middle, whatever it takes" /> },
          ]}
        />
        <Choice
          label="Steels"
          name="steels"
          value={(typed.steels as HouseSettings["steels"] | undefined) ?? house.steels}
          options={[
            {
              value: "reuse if flat",
              words: <Words title="Used again" text="when flat and unspotted" />,
            },
            { value: "always new", words: <Words title="Always new" text="whatever they look like" /> },
          ]}
        />
        <Choice
          label="Bushings"
          name="bushings"
          value={(typed.bushings as HouseSettings["bushings"] | undefined) ?? house.bushings}
          options={[
            { value: "on measurement", words: <Words title="By measure" text="when they are outside" /> },
            { value: "always new", words: <Words title="All of them" text="every time" /> },
          ]}
        />
        <div className="grid grid-cols-2 gap-3">
          <Field
            label="An hour of work"
            name="hourCents"
            inputMode="decimal"
            defaultValue={typed.hourCents ?? moneyText(house.hourCents)}
            problem={problems.hourCents}
          />
          <Field
            label="A comeback costs the shop"
            name="comebackCents"
            inputMode="decimal"
            defaultValue={typed.comebackCents ?? moneyText(house.comebackCents)}
            problem={problems.comebackCents}
          />
        </div>
        <fieldset className="mb-3">
          <legend className="stamp mb-1">An element should hold so many times what it must</legend>
          <div className="grid grid-cols-[auto_1fr_1fr] items-center gap-x-3 [&_div]:mb-1">
            {USES.codes.map((use) => (
              <Fragment key={use}>
                <b>{capital(USES.words[use])}</b>
                {MARGINS.filter((one) => one.use === use).map(({ duty, name }) => (
                  <Field
                    key={name}
                    label={duty === "shifting" ? "in motion" : "at a standstill"}
                    name={name}
                    inputMode="decimal"
                    defaultValue={typed[name] ?? `${house.margins[use][duty]}`}
                    problem={problems[name]}
                  />
                ))}
              </Fragment>
            ))}
          </div>
        </fieldset>
        <Field
          label="Time zone"
          name="timeZone"
          list="time-zones"
          autoComplete="off"
          defaultValue={typed.timeZone ?? house.timeZone}
          problem={problems.timeZone}
        />
        <datalist id="time-zones">
          {zones.map((zone) => (
            <option key={zone} value={zone} />
          ))}
        </datalist>
        <Field
          label="Foot switch sends"
          name="footKey"
          defaultValue={typed.footKey ?? house.footKey}
          problem={problems.footKey}
        />
        <div className="grid grid-cols-2 gap-3">
          <Field
            label="Minutes until a bench asks who is there"
            name="lockMinutes"
            inputMode="numeric"
            defaultValue={typed.lockMinutes ?? house.lockMinutes}
            problem={problems.lockMinutes}
            hint="0: never"
          />
          <Field
            label="Copies kept"
            name="copiesKept"
            inputMode="numeric"
            defaultValue={typed.copiesKept ?? house.copiesKept}
            problem={problems.copiesKept}
          />
        </div>
        <LastCopy />
        {may ? (
          <button className="btn btn-primary touch">Keep</button>
        ) : (
          <p className="quiet">A lead or the owner sets these.</p>
        )}
        {kept && (
          <span role="status" className="ml-3 font-semibold">
            Kept.
          </span>
        )}
      </fieldset>
    </Form>
  );
}

/** A day and a half: one night was missed. */
const OLD_HOURS = 36;

/** How old the last good copy of everything is; loud where it is old, or none could be made. */
function LastCopy() {
  const {
    house: { copy, copyProblem },
  } = useInside();
  const { moment } = useWhen();
  const { now } = useLoaderData<typeof loader>();
  const hours = copy ? (now - Date.parse(copy.at)) / 3_600_000 : null;
  const loud = copyProblem !== "" || (hours !== null && hours > OLD_HOURS);
  return (
    <p
      role={loud ? "alert" : undefined}
      data-copy={copy?.at ?? ""}
      className={`mb-3 ${loud ? "border-error text-error border-l-4 pl-3 text-lg font-semibold" : "quiet"}`}
    >
      {copy
        ? `Last copy of everything: ${moment(copy.at)}, ${(copy.bytes / 1_000_000).toFixed(1)} MB.`
        : "No copy of everything was made by itself yet."}
      {copyProblem && ` The last try failed: ${copyProblem}.`}
      {!copyProblem && loud && " That is too long ago: is the machine on at night?"}
    </p>
  );
}

const Words = ({ title, text }: { title: string; text: string }) => (
  <>
    <b className="block">{title}</b>
    <span className="text-sm">{text}</span>
  </>
);
