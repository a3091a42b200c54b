import { useMemo } from "react";
import { Link, useSearchParams } from "react-router";
import { useInside } from "~/door/inside";
import { Mark, markOf } from "~/look/mark";
import { skipTabChanges } from "~/look/revalidate";
import { KEPT } from "~/offline/keys";
import { loadOrKept } from "~/offline/kept";
import { services } from "~/server/context";
import { jobRecord } from "~/server/job-context";
import { useJobView } from "~/view/view";
import {
  basis,
  houseOf,
  together,
  worksheetCandidates,
  worksheets,
  type Together,
  type Worksheet,
} from "~core/measure";
import { lengthText, moneyText, roundedText, type LengthUnit } from "~core/quantity";
import {
  chooseJointly,
  insteads,
  proposals,
  type Aim,
  type Instead,
  type JointPlan,
  type SelectiveCandidate,
  type Stock,
} from "~core/select";
import { stageWords } from "~core/stage";
import type { Route } from "./+types/all-together";
import { stockOfPacks } from "./pack-page";
import { pieceText } from "./piece-text";
import { percent, sourceText } from "./ring-words";

export const loader = async ({ context, params }: Route.LoaderArgs) => ({
  stock: await stockOfPacks(context.get(services).pool, await jobRecord(context, params.number)),
});

export const clientLoader = ({ params, serverLoader }: Route.ClientLoaderArgs) =>
  loadOrKept(KEPT.page(params.number, "choose"), serverLoader);

export const shouldRevalidate = skipTabChanges;

type Wanted = "best" | Aim;
const AIMS: readonly { aim: Wanted; words: string }[] = [
  { aim: "best", words: "Best" },
  { aim: "nearest", words: "Nearest the target" },
  { aim: "at hand", words: "With what is here" },
  { aim: "sparing", words: "Spare the scarce" },
];

/** Every pack that can be chosen for now, together: what the shelf does best for the whole unit. */
export default function AllTogether({ loaderData: { stock } }: Route.ComponentProps) {
  const { job, applied, number, unit } = useJobView();
  const { house } = useInside();
  const [search] = useSearchParams();
  const wanted = AIMS.find(({ aim }) => aim === search.get("for"))?.aim ?? "best";
  const asked = useMemo(
    () => together(worksheets(job, applied, houseOf(job, house)), stock),
    [job, applied, house, stock],
  );
  const closed = job.closed !== null;
  const plans = useMemo(() => (asked.sheets.size > 0 && !closed ? plansOf(asked) : null), [asked, closed]);
  const plan = plans?.[wanted];
  const others = useMemo(() => (plan ? insteads(asked.question, plan) : []), [asked, plan]);
  return (
    <div>
      <div className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-1">
        <h1 className="text-2xl font-bold whitespace-nowrap">All together</h1>
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
      </div>
      {plan ? (
        <>
          <Summary plan={plan} packs={asked.sheets.size} />
          <Seats asked={asked} plan={plan} others={others} stock={stock} unit={unit} number={number} />
        </>
      ) : (
        <p className="plate p-5 text-lg">
          {closed
            ? "The job is closed."
            : asked.waiting.length === 0
              ? "Nothing is left to choose: every pack in scope has its piece or is signed for."
              : "Nothing to choose for just now. A pack stands here as soon as it has its trial readings with the new plates in, and what was found in it is known."}
        </p>
      )}
      {!closed && <Waiting sheets={asked.waiting} number={number} />}
    </div>
  );
}

const plansOf = ({ question }: Together): Record<Wanted, JointPlan> => ({
  best: chooseJointly(question),
  ...proposals(question),
});

/** The plan in one line, and whether it is proved. */
function Summary({ plan: { values, proven, seats }, packs }: { plan: JointPlan; packs: number }) {
  const ordered = seats.filter(({ offer }) => (offer?.days ?? 0) > 0).length;
  const words = [
    `${packs} ${packs === 1 ? "pack" : "packs"}`,
    values.outside === 0 ? "all inside" : `${values.outside} outside`,
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
      <Mark name={values.outside === 0 ? "inside" : "loose"} size={26} />
      <span>{words.join(" · ")}</span>
      <span className="quiet text-base font-normal">
        {proven ? "Proved: nothing on this shelf is better." : "Not proved: the search was stopped."}
      </span>
    </p>
  );
}

function Seats({
  asked,
  plan,
  others,
  stock,
  unit,
  number,
}: {
  asked: Together;
  plan: JointPlan;
  others: readonly Instead[];
  stock: readonly Stock[];
  unit: LengthUnit;
  number: number;
}) {
  const { house } = useInside();
  return (
    <div className="plate overflow-x-auto px-4 py-2">
      <table className="w-full">
        <thead>
          <tr className="stamp text-left">
            <th className="py-1 font-semibold">Pack</th>
            <th className="py-1 font-semibold">In now</th>
            <th className="py-1 font-semibold">Put in</th>
            <th className="py-1 text-right font-semibold">Clearance, now → then</th>
            <th className="py-1 pl-4 text-right font-semibold">Chance</th>
            <th className="py-1 pl-4 font-semibold">Instead of it</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {plan.seats.map(({ seat, offer, kept }) => {
            const sheet = asked.sheets.get(seat);
            if (!sheet) return null;
            const key = kept ? "fitted" : offer && asked.offers.get(offer.id)?.key;
            const candidate = worksheetCandidates(sheet, stock, house.rule).find((one) => one.key === key);
            return (
              <Row
                key={seat}
                sheet={sheet}
                candidate={candidate}
                source={offer && !kept ? asked.offers.get(offer.id)?.source : candidate?.source}
                instead={others.find((one) => one.seat === seat)}
                asked={asked}
                plan={plan}
                unit={unit}
                number={number}
              />
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

function Row({
  sheet,
  candidate,
  source,
  instead,
  asked,
  plan,
  unit,
  number,
}: {
  sheet: Worksheet;
  candidate: SelectiveCandidate | undefined;
  source: SelectiveCandidate["source"] | undefined;
  instead: Instead | undefined;
  asked: Together;
  plan: JointPlan;
  unit: LengthUnit;
  number: number;
}) {
  const { applied, fitted } = sheet;
  const now = basis(sheet)?.assessment;
  const name = applied.pack.element.toUpperCase();
  const to = `/jobs/${number}/pack/${applied.chain.id}?show=ring${candidate ? `&piece=${encodeURIComponent(candidate.key)}` : ""}`;
  return (
    <tr className="border-base-300 border-t align-middle" data-seat={applied.chain.id}>
      <td className="py-2 pr-3 leading-tight">
        <b className="text-lg">{name}</b>
        <span className="quiet block text-sm">{applied.pack.name}</span>
      </td>
      <td className="pr-3 leading-tight">{fitted ? pieceText(fitted, unit) : "?"}</td>
      <td className="pr-3 leading-tight">
        {candidate ? (
          <>
            <b className="text-lg whitespace-nowrap">
              {candidate.source.kind === "fitted" ? "keep it" : sizeText(candidate, unit)}
            </b>
            <span className="quiet block text-sm">
              {candidate.source.kind === "fitted" ? "" : `${candidate.piece.mark ?? ""} · `}
              {source && sourceText(source)}
            </span>
          </>
        ) : (
          <b>nothing that can be had</b>
        )}
      </td>
      <td className="text-right leading-tight whitespace-nowrap">
        {now?.estimate && (
          <span className="quiet mr-2 inline-flex items-center gap-1">
            <Mark name={markOf(now.verdict)} size={18} /> {roundedText(now.estimate.mean, unit)} →
          </span>
        )}
        {candidate && (
          <span className="inline-flex items-center gap-1">
            <Mark name={markOf(candidate.verdict)} size={22} />
            <b className="text-lg">{roundedText(candidate.predicted.mean, unit)}</b>
          </span>
        )}
        <span className="quiet block text-sm">
          {roundedText(applied.spec.min, unit)} – {roundedText(applied.spec.max, unit)}
        </span>
      </td>
      <td className="pl-4 text-right whitespace-nowrap">{candidate && percent(candidate.chance)}</td>
      <td className="max-w-64 pl-4 text-sm leading-tight">
        {instead && insteadText(instead, plan, asked, unit)}
      </td>
      <td className="pl-3 text-right">
        <Link to={to} className="btn touch btn-primary whitespace-nowrap" aria-label={`Choose for ${name}`}>
          Choose
        </Link>
      </td>
    </tr>
  );
}

const sizeText = ({ piece }: SelectiveCandidate, unit: LengthUnit): string => {
  const size = piece.measured ?? piece.size;
  return size === undefined ? "?" : lengthText(size, unit);
};

/** The next best for a seat, and what that costs: here, in time, in money, or in another pack. */
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
  const costs = [
    other.values.outside > plan.values.outside ? "then one is outside" : "",
    other.values.ready > plan.values.ready ? `${other.values.ready - plan.values.ready} d later` : "",
    other.values.money > plan.values.money ? `${moneyText(other.values.money - plan.values.money)} more` : "",
    other.values.chance > plan.values.chance ? "less sure" : "",
    elsewhere.length > 0
      ? `${elsewhere.map((id) => asked.sheets.get(id)?.applied.pack.element.toUpperCase() ?? id).join(", ")} changes too`
      : "",
  ].filter(Boolean);
  const farther =
    other.values.target > plan.values.target ? "farther from the target" : "as good but for what is spared";
  return `${what}: ${costs.length > 0 ? costs.join(", ") : farther}`;
}

/** Packs that nothing can be chosen for yet, and why. */
function Waiting({ sheets, number }: { sheets: readonly Worksheet[]; number: number }) {
  if (sheets.length === 0) return null;
  return (
    <section className="mt-3" aria-label="Not yet">
      <h2 className="stamp mb-1">Not yet</h2>
      <ul className="flex flex-wrap gap-2">
        {sheets.map(({ applied, stage }) => (
          <li key={applied.chain.id}>
            <Link
              to={`/jobs/${number}/pack/${applied.chain.id}`}
              className="plate touch flex items-center gap-2 px-3 leading-tight"
            >
              <b>{applied.pack.element.toUpperCase()}</b>{" "}
              {applied.series ? stageWords(stage) : "the book names no sizes"}
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
