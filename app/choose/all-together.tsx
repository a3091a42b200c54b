import { limitWords } from "~core/book";
import { useDeferredValue, useMemo, useState } from "react";
import { data, Form, Link, useSearchParams } from "react-router";
import { useInside } from "~/door/inside";
import { Mark, markOf } from "~/look/mark";
import { skipTabChanges } from "~/look/revalidate";
import { KEPT } from "~/offline/keys";
import { loadOrKept } from "~/offline/kept";
import { services, signedIn } from "~/server/context";
import { readForm, typedIn } from "~/server/form";
import { jobRecord } from "~/server/job-context";
import { useJobView } from "~/view/view";
import { isPackSheet, swapsOf, titleOf, type OpenSeat, type Together, type Worksheet } from "~core/measure";
import { predict } from "~core/chain";
import { lengthText, moneyText, roundedText, type LengthUnit } from "~core/quantity";
import { chanceInside, isStated, judge } from "~core/reading";
import {
  aimed,
  chooseJointly,
  insteads,
  type Aim,
  type Instead,
  type JointPlan,
  type JointQuestion,
  type Offered,
} from "~core/select";
import { field, maybeWords, oneOf, words } from "~core/shape";
import { stageWords } from "~core/stage";
import { readHouse } from "~store/house";
import { giveUp, reserve } from "~store/shelf";
import type { Route } from "./+types/all-together";
import { unitPage } from "./chain-page";
import { AWAY, unlessAway } from "~/look/unless-away";
import { askedOf } from "./decide";
import { pieceText } from "./piece-text";
import { percent, sourceText } from "./candidate-words";
import { MeasureNext, Orders, WaysOut } from "./plan-notes";
import { proofText } from "./proof-words";
import { PullList } from "./pull-list";
import { picksIn, planText, QUICKER, wantedBy } from "./put-aside";
import { seatName } from "./seat-name";
import { useShelfAnew } from "./use-shelf-anew";
import { useUnitAsked } from "./use-unit-asked";

export const loader = async ({ context, params }: Route.LoaderArgs) =>
  unitPage(context.get(services).pool, await jobRecord(context, params.number));

export const clientLoader = ({ params, serverLoader }: Route.ClientLoaderArgs) =>
  loadOrKept(KEPT.page(params.number, "choose"), serverLoader);

export const shouldRevalidate = skipTabChanges;

/** What could not be sent is said, and the page stays. */
export const clientAction = ({ serverAction }: Route.ClientActionArgs) =>
  unlessAway(serverAction, () => ({ problem: AWAY }));

const accepted = {
  intent: field(oneOf("accept", "give up")),
  /** One seat; empty for all that is proposed from the shelf. */
  seat: field(maybeWords(120)),
  /** What is proposed, as `seat=key` with a line each: another plan meanwhile is not accepted unseen. */
  plan: field(words(0, 10_000)),
};

/** Reserves what is proposed for one seat or for all, or gives up what was reserved. */
export const action = async ({ context, request, params }: Route.ActionArgs) => {
  const { pool } = context.get(services);
  const { staff } = context.get(signedIn);
  const record = await jobRecord(context, params.number);
  const form = readForm(accepted, await typedIn(request));
  if ("problems" in form) return data({ problem: "Nothing was proposed. Look again." }, { status: 400 });
  const { intent, seat, plan } = form.values;
  if (intent === "give up") {
    await giveUp(pool, record.id, seat);
    return data({ problem: "" });
  }
  if (record.facts.some(({ body }) => body.kind === "closed"))
    return data({ problem: "The job is closed." }, { status: 409 });
  const asked = await askedOf(pool, record, await readHouse(pool));
  const picks = picksIn(plan).filter((one) => seat === "" || one.seat === seat);
  const wanted = wantedBy(asked, record.id, picks);
  const gone = wanted === null || (await reserve(pool, staff.name, wanted)) !== null;
  return gone ? data({ problem: QUICKER }, { status: 409 }) : data({ problem: "" });
};

type Wanted = "best" | Aim;
const AIMS: readonly { aim: Wanted; words: string }[] = [
  { aim: "best", words: "Best" },
  { aim: "nearest", words: "Nearest the target" },
  { aim: "at hand", words: "With what is here" },
  { aim: "sparing", words: "Spare the scarce" },
];

/** Everything that can be chosen for now, together: what the shelf does best for the whole unit. */
export default function AllTogether({ loaderData, actionData }: Route.ComponentProps) {
  const { job, number, unit } = useJobView();
  const [search] = useSearchParams();
  const { stock, reserved } = useShelfAnew(`/jobs/${number}/choose`, loaderData);
  const wanted = AIMS.find(({ aim }) => aim === search.get("for"))?.aim ?? "best";
  const { whole: asked } = useUnitAsked(stock);
  const closed = job.closed !== null;
  const question = useMemo(
    () => (wanted === "best" ? asked.question : aimed(asked.question, wanted)),
    [asked, wanted],
  );
  const plan = useMemo(
    () => (asked.seats.size > 0 && !closed ? chooseJointly(question) : null),
    [asked, closed, question],
  );
  // What would be next best is many choices more: the plan does not wait for it.
  const told = useDeferredValue(useMemo(() => ({ question, plan }), [question, plan]));
  const nextBest = useMemo(() => (told.plan ? insteads(told.question, told.plan) : []), [told]);
  const others = told.plan === plan ? nextBest : [];
  const held = new Map(reserved.map((one) => [one.seat, one]));
  return (
    <div>
      <div className="mb-2 flex flex-wrap items-center gap-x-3 gap-y-1">
        <h1 className="text-2xl font-bold whitespace-nowrap max-[1100px]:sr-only">All together</h1>
        <nav aria-label="What to choose for" className="flex flex-wrap gap-1">
          {AIMS.map(({ aim, words }) => (
            <Link
              key={aim}
              to={aim === "best" ? "?" : `?for=${encodeURIComponent(aim)}`}
              replace
              aria-current={aim === wanted ? "true" : undefined}
              className={`btn touch ${aim === wanted ? "btn-secondary" : "btn-ghost"}`}
            >
              {words}
            </Link>
          ))}
        </nav>
        <span className="grow" />
        {plan && (
          <Link to="/shelf/share" className="btn btn-ghost touch">
            With other jobs
          </Link>
        )}
        {plan && <AcceptAll asked={asked} plan={plan} held={held} />}
      </div>
      {actionData?.problem && (
        <p role="alert" className="text-error mb-2 text-lg font-semibold">
          {actionData.problem}
        </p>
      )}
      {plan ? (
        <>
          <Changed key={wanted} asked={asked} plan={plan} unit={unit} />
          <Summary plan={plan} asked={asked} terms={question.terms} />
          <Seats asked={asked} plan={plan} others={others} unit={unit} number={number} held={held} />
        </>
      ) : (
        <p className="plate p-5 text-lg">
          {closed
            ? "The job is closed."
            : asked.waiting.length === 0
              ? "Nothing is left to choose: every figure in scope has its piece or is signed for."
              : "Nothing to choose for just now. A place stands here as soon as its trial readings are enough, and what was found in it is known."}
        </p>
      )}
      {plan && <OrderList asked={asked} plan={plan} unit={unit} />}
      {!closed && <PullList reserved={reserved} asked={asked} />}
      {!closed && <Waiting sheets={asked.waiting} number={number} />}
    </div>
  );
}

function AcceptAll({
  asked,
  plan,
  held,
}: {
  asked: Together;
  plan: JointPlan;
  held: ReadonlyMap<string, { part: string }>;
}) {
  const text = planText(asked, plan);
  const seats = text === "" ? [] : text.split("\n").map((line) => line.split("=")[0] ?? "");
  if (seats.length === 0 || seats.every((seat) => held.has(seat))) return null;
  return (
    <Form method="post" preventScrollReset>
      <input type="hidden" name="intent" value="accept" />
      <input type="hidden" name="seat" value="" />
      <input type="hidden" name="plan" value={text} />
      <button className="btn btn-primary touch text-lg">
        Accept {seats.length === 1 ? "it" : `all ${seats.length}`}
      </button>
    </Form>
  );
}

/** What the plan waits for, to be ordered. */
function OrderList({ asked, plan, unit }: { asked: Together; plan: JointPlan; unit: LengthUnit }) {
  const lines = plan.seats.flatMap(({ seat, offer, kept }) => {
    const open = asked.seats.get(seat);
    const offered = offer && !kept ? asked.offers.get(offer.id) : undefined;
    return open && offered?.source.kind === "order"
      ? [{ open, piece: offered.piece, source: offered.source }]
      : [];
  });
  if (lines.length === 0) return null;
  return (
    <section className="plate mt-3 px-4 py-2" aria-label="Order list">
      <h2 className="text-lg font-bold">To order</h2>
      <ul>
        {lines.map(({ open, piece, source }) => (
          <li
            key={open.link.id}
            className="border-base-300 flex gap-4 border-t py-1"
            data-order-part={piece.part}
          >
            <b className="w-32">{piece.part}</b>
            <span className="grow">
              {pieceText(piece, unit)}, for {seatName(open)}
            </span>
            <span>{source.days === undefined ? "" : `${source.days} d`}</span>
            <b>{source.price === undefined ? "" : moneyText(source.price)}</b>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What is put where by a plan, as one says it. */
const putIn = (asked: Together, plan: JointPlan, unit: LengthUnit): Map<string, string> =>
  new Map(
    plan.seats.flatMap(({ seat, offer, kept }) => {
      const offered = offer && !kept ? asked.offers.get(offer.id) : undefined;
      return asked.seats.has(seat)
        ? [[seat, kept ? "keep it" : offered ? pieceText(offered.piece, unit) : "nothing"]]
        : [];
    }),
  );

/** What is proposed otherwise than when somebody last looked: said until they have seen it. */
function Changed({ asked, plan, unit }: { asked: Together; plan: JointPlan; unit: LengthUnit }) {
  const now = putIn(asked, plan, unit);
  const [seen, setSeen] = useState(now);
  const changes = [...now].flatMap(([seat, words]) => {
    const open = asked.seats.get(seat);
    const was = seen.get(seat);
    return open && was !== undefined && was !== words
      ? [`${seatName(open)}: ${words} instead of ${was}`]
      : [];
  });
  const added = [...now.keys()].filter((seat) => !seen.has(seat));
  if (changes.length === 0 && added.length === 0) return null;
  return (
    <div
      role="status"
      className="border-accent plate mb-2 flex items-center gap-4 border-l-4 px-4 py-1"
      data-changed={changes.length}
    >
      <span className="grow">
        {changes.length > 0 ? (
          <>
            <b>The plan has changed.</b> {changes.join("; ")}.
          </>
        ) : (
          `New here: ${added
            .flatMap((seat) => asked.seats.get(seat) ?? [])
            .map(seatName)
            .join(", ")}.`
        )}
      </span>
      <button type="button" className="btn touch" onClick={() => setSeen(now)}>
        Seen
      </button>
    </div>
  );
}

/** The plan in one line, and whether it is proved. */
function Summary({
  plan,
  asked,
  terms,
}: {
  plan: JointPlan;
  asked: Together;
  terms: JointQuestion["terms"];
}) {
  const { values, proven, seats, broken } = plan;
  const ordered = seats.filter(({ offer }) => (offer?.days ?? 0) > 0).length;
  const figures = asked.sheets.size;
  const inside =
    values.outside > 0
      ? `${values.outside} outside`
      : broken.length > 0
        ? "all inside, order wrong"
        : "all inside";
  const text = [
    `${figures} ${figures === 1 ? "figure" : "figures"}`,
    inside,
    values.changed === 0 ? "nothing changed" : `${values.changed} changed`,
    ordered === 0
      ? "nothing to order"
      : `${ordered} to order, ${values.ready} ${values.ready === 1 ? "day" : "days"}, ${moneyText(values.money)}`,
  ];
  return (
    <p
      role="status"
      className="mb-2 flex items-center gap-3 text-lg font-semibold"
      data-plan={proven ? "proved" : "not proved"}
    >
      <Mark name={values.outside === 0 && broken.length === 0 ? "inside" : "loose"} size={26} />
      <span>{text.join(" · ")}</span>
      <span className="quiet text-base font-normal">{proofText(plan, terms)}</span>
    </p>
  );
}

type Held = ReadonlyMap<string, { part: string; bin: string }>;

function Seats({
  asked,
  plan,
  others,
  unit,
  number,
  held,
}: {
  asked: Together;
  plan: JointPlan;
  others: readonly Instead[];
  unit: LengthUnit;
  number: number;
  held: Held;
}) {
  return (
    <div className="plate overflow-x-auto px-4 py-2">
      <table className="w-full">
        <thead>
          <tr className="stamp text-left">
            <th className="py-1 font-semibold">Where</th>
            <th className="py-1 font-semibold">In now</th>
            <th className="py-1 font-semibold">Put in</th>
            <th className="py-1 text-right font-semibold">What it moves, now → then</th>
            <th className="py-1 pl-4 text-right font-semibold">Chance</th>
            <th className="py-1 pl-4 font-semibold">Instead of it</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {plan.seats.map(({ seat, offer, kept }) => {
            const open = asked.seats.get(seat);
            if (!open) return null;
            return (
              <Row
                key={seat}
                open={open}
                offered={offer && !kept ? asked.offers.get(offer.id) : undefined}
                kept={kept}
                instead={others.find((one) => one.seat === seat)}
                asked={asked}
                plan={plan}
                unit={unit}
                number={number}
                held={held}
              />
            );
          })}
        </tbody>
      </table>
      <Orders asked={asked} plan={plan} unit={unit} />
      <WaysOut asked={asked} plan={plan} unit={unit} />
      <MeasureNext asked={asked} plan={plan} number={number} />
    </div>
  );
}

function Row({
  open,
  offered,
  kept,
  instead,
  asked,
  plan,
  unit,
  number,
  held,
}: {
  open: OpenSeat;
  offered: Offered | undefined;
  kept: boolean;
  instead: Instead | undefined;
  asked: Together;
  plan: JointPlan;
  unit: LengthUnit;
  number: number;
  held: Held;
}) {
  const { link, fitted, sheets } = open;
  const name = seatName(open);
  const [first] = sheets;
  const key = kept ? "fitted" : offered?.key;
  const at = `/jobs/${number}/choose/${first?.applied.chain.id ?? ""}?show=choose`;
  const to = `${at}&seat=${encodeURIComponent(link.id)}${key ? `&piece=${encodeURIComponent(key)}` : ""}`;
  const mine = held.get(link.id);
  const mayPutAside =
    offered?.piece.part !== undefined && offered.source.kind !== "order" && mine?.part !== offered.piece.part;
  const isHeld = mine !== undefined && mine.part === offered?.piece.part;
  return (
    <tr className="border-base-300 border-t align-middle" data-seat={link.id}>
      <td className="py-2 pr-3 leading-tight">
        <b className="text-lg">{name}</b>
        <span className="quiet block text-sm">
          {first && !link.seat && isPackSheet(first)
            ? first.applied.pack.name
            : link.seat
              ? sheets.map(titleOf).join(", ")
              : ""}
        </span>
      </td>
      <td className="pr-3 leading-tight">
        {pieceText({ ...fitted, measured: undefined, size: undefined }, unit)}
        <span className="block whitespace-nowrap">{pieceText({ ...fitted, mark: undefined }, unit)}</span>
      </td>
      <td className="pr-3 leading-tight">
        {kept ? (
          <b className="text-lg whitespace-nowrap">keep it</b>
        ) : offered ? (
          <>
            <b className="text-lg whitespace-nowrap">
              {lengthText(offered.piece.measured ?? offered.piece.size ?? (0 as never), unit)}
            </b>
            <span className="quiet block text-sm">
              {offered.piece.mark ?? ""} ·{" "}
              {isHeld ? `put aside, bin ${mine.bin}` : sourceText(offered.source)}
            </span>
          </>
        ) : (
          <b>nothing that can be had</b>
        )}
      </td>
      <td className="text-right leading-tight whitespace-nowrap">
        {sheets.map((sheet) => (
          <Moved
            key={sheet.applied.chain.id}
            sheet={sheet}
            asked={asked}
            plan={plan}
            unit={unit}
            named={sheets.length > 1}
          />
        ))}
      </td>
      <td className="pl-4 text-right whitespace-nowrap">
        {sheets.map((sheet) => (
          <Chance key={sheet.applied.chain.id} sheet={sheet} asked={asked} plan={plan} />
        ))}
      </td>
      <td className="max-w-64 pl-4 text-sm leading-tight">
        {instead && insteadText(instead, plan, asked, unit)}
      </td>
      <td className="py-1 pl-3 text-right whitespace-nowrap">
        {mayPutAside && (
          <Form method="post" preventScrollReset className="mr-2 inline max-[1100px]:hidden">
            <input type="hidden" name="intent" value="accept" />
            <input type="hidden" name="seat" value={link.id} />
            <input type="hidden" name="plan" value={`${link.id}=${offered?.key ?? ""}`} />
            <button className="btn touch btn-ghost" aria-label={`Put aside for ${name}`}>
              Put aside
            </button>
          </Form>
        )}
        <Link to={to} className="btn touch btn-primary whitespace-nowrap" aria-label={`Choose for ${name}`}>
          Choose
        </Link>
      </td>
    </tr>
  );
}

const thenOf = (sheet: Worksheet, asked: Together, plan: JointPlan) => {
  const { id } = sheet.applied.chain;
  const now = asked.sheets.get(id)?.now;
  return now && { now, then: predict(now, swapsOf(asked, plan, id)) };
};

function Moved({
  sheet,
  asked,
  plan,
  unit,
  named,
}: {
  sheet: Worksheet;
  asked: Together;
  plan: JointPlan;
  unit: LengthUnit;
  named: boolean;
}) {
  const { house } = useInside();
  const told = thenOf(sheet, asked, plan);
  if (!told) return null;
  const { spec } = sheet.applied;
  return (
    <span className="block">
      {named && <span className="quiet mr-2 text-sm">{titleOf(sheet)}</span>}
      <span className="quiet mr-2 inline-flex items-center gap-1">
        <Mark name={markOf(judge(told.now, spec, house.rule))} size={18} /> {roundedText(told.now.mean, unit)}{" "}
        →
      </span>
      <span className="inline-flex items-center gap-1">
        <Mark name={markOf(judge(told.then, spec, house.rule))} size={22} />
        <b className="text-lg">{roundedText(told.then.mean, unit)}</b>
      </span>
      <span className="quiet block text-sm">{limitWords(spec, unit)}</span>
    </span>
  );
}

function Chance({ sheet, asked, plan }: { sheet: Worksheet; asked: Together; plan: JointPlan }) {
  const told = thenOf(sheet, asked, plan);
  const { spec } = sheet.applied;
  return told && isStated(spec) ? (
    <span className="block">{percent(chanceInside(told.then, spec))}</span>
  ) : null;
}

/** The next best for a seat, and what that costs: here, in time, in money, or in another place. */
function insteadText(
  { seat, plan: other, elsewhere }: Instead,
  plan: JointPlan,
  asked: Together,
  unit: LengthUnit,
): string {
  const has = other.seats.find((one) => one.seat === seat);
  const offered = has?.offer && asked.offers.get(has.offer.id);
  const what = has?.kept
    ? "what is in"
    : offered
      ? `${pieceText({ ...offered.piece, mark: undefined }, unit)}${offered.source.kind === "order" ? " ordered" : ""}`
      : "nothing";
  const also = elsewhere.flatMap((id) => {
    const one = asked.seats.get(id);
    return one ? [seatName(one)] : [];
  });
  const costs = [
    other.values.outside > plan.values.outside ? "then one is outside" : "",
    other.values.order > plan.values.order ? "then the order is wrong" : "",
    other.values.ready > plan.values.ready ? `${other.values.ready - plan.values.ready} d later` : "",
    other.values.money > plan.values.money ? `${moneyText(other.values.money - plan.values.money)} more` : "",
    other.values.chance > plan.values.chance ? "less sure" : "",
    also.length > 0 ? `${also.join(", ")} changes too` : "",
  ].filter(Boolean);
  const farther =
    other.values.target > plan.values.target ? "farther from the target" : "as good but for what is spared";
  return `${what}: ${costs.length > 0 ? costs.join(", ") : farther}`;
}

/** Figures that nothing can be chosen for yet, and why. */
function Waiting({ sheets, number }: { sheets: readonly Worksheet[]; number: number }) {
  if (sheets.length === 0) return null;
  return (
    <section className="mt-3" aria-label="Not yet">
      <h2 className="stamp mb-1">Not yet</h2>
      <ul className="flex flex-wrap gap-2">
        {sheets.map((sheet) => (
          <li key={sheet.applied.chain.id}>
            <Link
              to={`/jobs/${number}/choose/${sheet.applied.chain.id}`}
              className="plate touch flex items-center gap-2 px-3 leading-tight"
            >
              <b>{titleOf(sheet)}</b> {sheet.seats.length > 0 ? waitWords(sheet) : "the book names no sizes"}
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

const waitWords = ({ stage, seats }: Worksheet): string =>
  stage.at === "choose" && seats.some(({ fitted }) => !fitted)
    ? "what was in is not known"
    : stageWords(stage);
