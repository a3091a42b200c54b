import { lazy, Suspense, useMemo, useState, type FormEvent } from "react";
import { data, Form, redirect, useSearchParams } from "react-router";
import { v7 as newId } from "uuid";
import { useInside } from "~/door/inside";
import { Field } from "~/look/field";
import { skipTabChanges } from "~/look/revalidate";
import { loadOrKept } from "~/offline/kept";
import { KEPT } from "~/offline/keys";
import { useSay } from "~/say/use-say";
import { services, signedIn } from "~/server/context";
import { typedIn } from "~/server/form";
import { jobContext, jobRecord, lastSeen } from "~/server/job-context";
import { record } from "~/server/record";
import { useJobView } from "~/view/view";
import { stockOfUnit } from "~/choose/chain-page";
import { capital, shownIn } from "~core/book";
import {
  capacitiesOf,
  throughParts,
  torqueOf,
  type ElementCapacity,
  type StrongerPlan,
} from "~core/capacity";
import { startsOf } from "~core/measure";
import { appliedTo, BENCH, checkFacts, LEADS, problemText, USES } from "~core/fact";
import type { Route } from "./+types/stronger";
import type { Curve } from "./capacity-chart";
import { ElementList, nameOf } from "./element-list";
import { ThroughParts } from "./through-parts";
import { Stacks, WaysPanel } from "./ways-panel";
import { askedIn, decisionOf, dutyOf, planOf, searchOf, SHIFT_SECONDS, stackText } from "./wish";

const CapacityChart = lazy(() => import("./capacity-chart"));

export const meta: Route.MetaFunction = ({ params }) => [{ title: `Stronger ${params.number} · Yard Key` }];

export const loader = async ({ context, params }: Route.LoaderArgs) => ({
  stock: await stockOfUnit(context.get(services).pool, await jobRecord(context, params.number)),
});

export const clientLoader = ({ params, serverLoader }: Route.ClientLoaderArgs) =>
  loadOrKept(KEPT.page(params.number, "stronger"), serverLoader, () => ({ stock: [] }));

export const shouldRevalidate = skipTabChanges;

/** What each element can carry beside what it must, and what makes it stronger: worked out as one asks, decided by a lead. */
const SAY_WHY = "Say why: what it must carry, who asked for it.";
const BUILT_AS_IT_WAS = { ways: [], packs: [], cuts: [], reason: "taken back" };

/** A decision sent without script: worked out here from what the address asks for, as the page does. */
export const action = async ({ context, request, params }: Route.ActionArgs) => {
  const { staff } = context.get(signedIn);
  const { job, record: kept, applied, house } = await jobContext(context, params.number);
  const { book } = kept;
  const { reason = "", back = "", unit } = await typedIn(request);
  const refuse = (problem: string, status = 400) => data({ problem, reason }, { status });
  // A bare torque is meant in the units of the page it was typed on.
  const lengthUnit = unit === "mm" || unit === "in" ? unit : book.unit.lengthUnit;
  const asBuilt = appliedTo(book, { configuration: job.configuration, depths: job.depths }, applied.house);
  const { behind } = asBuilt.present.unit;
  const search = new URL(request.url).searchParams;
  const asked = askedIn(search, job.stronger, behind ? shownIn(behind.torque, lengthUnit) : "", lengthUnit);
  const duty = dutyOf(asked, asBuilt, lengthUnit);
  if ("problem" in duty) return refuse(duty.problem);
  const stock = await stockOfUnit(context.get(services).pool, kept);
  const onShelf = new Set(stock.filter(({ onHand }) => onHand > 0).map(({ part }) => part));
  const plan = planOf(asBuilt, asked, onShelf, startsOf(job, asBuilt, house));
  if (back === "" && plan.ways.length === 0) return refuse("Nothing is planned: it is built as it was.");
  if (back === "" && reason.trim().length < 2) return refuse(SAY_WHY);
  const body = {
    kind: "stronger" as const,
    ...decisionOf(plan, asked, duty),
    ...(back === "" ? { reason: reason.trim() } : BUILT_AS_IT_WAS),
  };
  const fact = { id: newId(), at: new Date().toISOString(), by: staff.name, ...lastSeen(kept.facts), body };
  const checked = checkFacts([fact], BENCH);
  if (!checked.ok) return refuse(checked.problems.map(problemText).join("; "));
  const done = await record(context, kept.number, checked.facts, staff);
  if (!done.ok) return refuse(`Not kept: ${done.problem}.`, done.status);
  return redirect(`/jobs/${kept.number}/stronger?at=${encodeURIComponent(search.get("at") ?? "")}`, 303);
};

export default function StrongerPage({ loaderData: { stock }, actionData }: Route.ComponentProps) {
  const { job, book, applied, unit } = useJobView();
  const { house } = useInside();
  const [search] = useSearchParams();
  const asBuilt = useMemo(
    () => appliedTo(book, { configuration: job.configuration, depths: job.depths }, applied.house),
    [book, job, applied.house],
  );
  const { behind } = asBuilt.present.unit;
  const asked = askedIn(search, job.stronger, behind ? shownIn(behind.torque, unit) : "", unit);
  const duty = dutyOf(asked, asBuilt, unit);
  const onShelf = useMemo(
    () => new Set(stock.filter(({ onHand }) => onHand > 0).map(({ part }) => part)),
    [stock],
  );
  const starts = useMemo(() => startsOf(job, asBuilt, house), [job, asBuilt, house]);
  const plan = planOf(asBuilt, asked, onShelf, starts);
  const through =
    "problem" in duty
      ? []
      : throughParts(
          asBuilt.present,
          duty,
          (asBuilt.present.stronger ?? []).filter(({ id }) => plan.ways.includes(id)),
        );
  const elements = "problem" in duty ? [] : capacitiesOf(asBuilt, duty, plan.changes, house.margins);
  const at = elements.find(({ element: { id } }) => id === search.get("at")) ?? weakest(elements);
  const names = new Map(asBuilt.present.packs.map(({ element, name }) => [element, name]));
  const ways = (asBuilt.present.stronger ?? []).filter((way) => at && way.elements.includes(at.element.id));
  return (
    <div>
      <div className="mb-2 flex flex-wrap items-end gap-x-8 gap-y-2">
        <Form
          method="get"
          replace
          preventScrollReset
          className={`flex gap-3 [&_div]:mb-0 ${"problem" in duty ? "items-center" : "items-end"}`}
        >
          <input type="hidden" name="asked" value="1" />
          {at && <input type="hidden" name="at" value={at.element.id} />}
          {asked.wish.ways.map((way) => (
            <input key={way} type="hidden" name="way" value={way} />
          ))}
          {asked.wish.turns > 0 && <input type="hidden" name="turns" value={asked.wish.turns} />}
          {[...asked.wish.packs].map(([element, stack]) => (
            <input key={element} type="hidden" name="stack" value={`${element} ${stackText(stack)}`} />
          ))}
          <div className={"problem" in duty ? "w-96" : "w-44"}>
            <Field
              label="Engine gives"
              name="torque"
              defaultValue={asked.torque}
              key={asked.torque}
              autoComplete="off"
              problem={"problem" in duty ? duty.problem : undefined}
            />
          </div>
          <label className="grid">
            <span className="stamp mb-1">Used for</span>
            <select name="use" className="select touch" defaultValue={asked.use} key={asked.use}>
              {USES.codes.map((use) => (
                <option key={use} value={use}>
                  {USES.words[use]}
                </option>
              ))}
            </select>
          </label>
          <button className="btn touch">Work it out</button>
        </Form>
        {!("problem" in duty) && (
          <Decide
            plan={plan}
            body={decisionOf(plan, asked, duty)}
            isSame={!search.has("asked")}
            at={at?.element.id ?? ""}
            refused={actionData}
          />
        )}
      </div>
      <div className="grid grid-cols-[minmax(0,3fr)_minmax(0,2fr)] items-start gap-3">
        <div className="grid gap-3">
          {elements.length > 0 && (
            <ElementList
              elements={elements}
              packs={names}
              at={at?.element.id ?? ""}
              to={(id) => searchOf(asked, id)}
              unit={unit}
            />
          )}
          {at && (
            <Stacks
              name={capital(nameOf(at, names))}
              plan={plan}
              at={at.element.id}
              asked={asked}
              unit={unit}
              start={starts.get(at.element.id) ?? null}
            />
          )}
          <ThroughParts through={through} unit={unit} />
          <p className="quiet text-sm">
            Solved from the gear train without losses; the full posts are what an element must carry, the
            dashed ones what there should be over for {USES.words[asked.use]}.{" "}
            {behind?.stall !== undefined && `The converter makes ${behind.stall} times of it pulling away. `}A
            shift is taken to slip {SHIFT_SECONDS} s. Figures of a made-up unit: the maker’s information comes
            first.
          </p>
        </div>
        {at && (
          <div className="grid gap-3">
            <WaysPanel
              name={capital(nameOf(at, names))}
              of={at}
              ways={ways}
              plan={plan}
              asked={asked}
              unit={unit}
              closed={job.closed !== null}
            />
            {at.stock.grip?.kind === "pack" && at.stock.worst && (
              <section className="plate px-3 py-2" aria-label="Torque against pressure">
                <Suspense fallback={<div className="h-[170px]" />}>
                  <CapacityChart
                    curves={curvesOf(at, plan)}
                    must={at.stock.worst.torque}
                    wanted={at.wanted}
                    unit={unit}
                  />
                </Suspense>
              </section>
            )}
          </div>
        )}
      </div>
    </div>
  );
}

/** The one that is nearest to slipping is looked at first. */
const weakest = (elements: readonly ElementCapacity[]): ElementCapacity | undefined =>
  [...elements].sort((a, b) => overIn(a) - overIn(b))[0];
const overIn = ({ stock, planned, wanted }: ElementCapacity): number =>
  ((planned ?? stock).margin ?? Infinity) / wanted;

/** One line for each stack that fits, with what else is planned, over pressures up to half as much again. */
function curvesOf({ stock, planned, element }: ElementCapacity, plan: StrongerPlan): Curve[] {
  const grip = planned?.grip ?? stock.grip;
  if (grip?.kind !== "pack") return [];
  const counts = new Map<number, boolean>([
    [stock.grip?.kind === "pack" ? stock.grip.surfaces : grip.surfaces, planned === null],
    ...(plan.fitting.get(element.id) ?? []).map(({ frictions }) => [2 * frictions, false] as const),
    [grip.surfaces, true],
  ]);
  const from = grip.spring / grip.area;
  const to = grip.pressure * 1.5;
  return [...counts].map(([surfaces, isPlanned]) => ({
    name: `${surfaces / 2}`,
    isPlanned,
    points: [from, to].map(
      (pressure) => [pressure, torqueOf({ ...grip, surfaces, pressure }, "forward")] as const,
    ),
  }));
}

type Body = ReturnType<typeof decisionOf>;

/** A lead decides; what was decided can be taken back. */
function Decide({
  plan,
  body,
  isSame,
  at,
  refused,
}: {
  plan: StrongerPlan;
  body: Body;
  isSame: boolean;
  at: string;
  /** What was wrong with a decision that was sent without script, and what was typed. */
  refused: { problem: string; reason: string } | undefined;
}) {
  const { job, unit } = useJobView();
  const { staff } = useInside();
  const say = useSay();
  const [, setSearch] = useSearchParams();
  const [reason, setReason] = useState(refused?.reason ?? "");
  const [problem, setProblem] = useState(refused?.problem ?? "");
  const decided = job.stronger;
  const mayDecide = LEADS.includes(staff.role);
  const decide = (event: FormEvent): void => {
    event.preventDefault();
    if (reason.trim().length < 2) return setProblem(SAY_WHY);
    say({ kind: "stronger", ...body, reason: reason.trim() });
    setReason("");
    setProblem("");
    setSearch({ at }, { replace: true, preventScrollReset: true });
  };
  const takeBack = (event: FormEvent): void => {
    event.preventDefault();
    say({ kind: "stronger", ...body, ...BUILT_AS_IT_WAS });
  };
  if (job.closed) return null;
  return (
    <section className="flex grow items-end gap-3" aria-label="Decision">
      {decided && isSame ? (
        <>
          <p className="border-primary grow border-l-4 pl-3 leading-tight" data-decided>
            <b className="block">Made stronger, {decided.by}</b>
            {decided.body.reason}
          </p>
          {mayDecide && (
            <form method="post" onSubmit={takeBack}>
              <input type="hidden" name="back" value="yes" />
              <button className="btn touch">Take back</button>
            </form>
          )}
        </>
      ) : plan.ways.length === 0 ? (
        <p className="quiet leading-tight">
          Nothing is planned: it is built as it was. Touch an element, then a way.
        </p>
      ) : mayDecide ? (
        <form method="post" onSubmit={decide} className="flex grow items-end gap-3 [&_div]:mb-0" noValidate>
          <input type="hidden" name="unit" value={unit} />
          <div className="grow">
            <Field
              label="Build it so, because"
              name="reason"
              value={reason}
              onChange={({ target }) => setReason(target.value)}
              problem={problem || undefined}
              autoComplete="off"
            />
          </div>
          <button className="btn btn-primary touch text-lg">Decide</button>
        </form>
      ) : (
        <p className="quiet">A lead decides.</p>
      )}
    </section>
  );
}
