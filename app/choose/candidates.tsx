import { ends } from "~core/reading";
import { useMemo, useState } from "react";
import { Form, useNavigation, useSearchParams } from "react-router";
import { Field } from "~/look/field";
import { Mark, markOf } from "~/look/mark";
import { Rule } from "~/look/rule";
import { Budget, Working } from "~/look/working";
import { useInside } from "~/door/inside";
import {
  askedFor,
  isPackSheet,
  seatCandidates,
  standsNow,
  titleOf,
  type SeatState,
  type SelectiveCandidate,
  type Together,
  type Unit,
  type Worksheet,
} from "~core/measure";
import type { Piece } from "~core/chain";
import { lengthText, measureText, roundedText, signedText, type LengthUnit, type Nm } from "~core/quantity";
import { capital, isFromShelf, isSprung, selectiveWord, type Seat, type SeatKind } from "~core/book";
import { thickness } from "~core/select";
import { useUnsent } from "~/outbox/use-outbox";
import type { FormAnswer } from "~/view/form-answer";
import { useJobView } from "~/view/view";
import { ChainDrawing } from "./chain-drawing";
import { OrderWith } from "./order-with";
import { pieceText } from "./piece-text";
import { WaysOut } from "./plan-notes";
import { percent, sourceText } from "./candidate-words";
import { OpensAgain } from "./soon";
import { PackDrawing } from "./pack-drawing";

interface Props {
  sheet: Worksheet;
  seat: SeatState;
  /** All that can be chosen on the job now, and what that is made of. */
  asked: Together;
  whole: Unit;
  /** What was put aside for this seat: it is picked already. */
  aside: string | undefined;
  unit: LengthUnit;
  closed: boolean;
  id: string;
  actionData: FormAnswer | undefined;
}

/** Everything a seat could have, best first for the whole unit; the picked one shown in place. */
export function Candidates(props: Props) {
  const { sheet, seat, asked: all, whole, aside, unit } = props;
  const { house } = useInside();
  const { job } = useJobView();
  const [search] = useSearchParams();
  // The page that chooses all together leads here with the piece it proposes.
  const [picked, setPicked] = useState(search.get("piece") ?? aside);
  const { id } = sheet.applied.chain;
  const asked = useMemo(() => askedFor(whole, id, seat.link.id, all), [whole, id, seat.link.id, all]);
  const candidates = useMemo(
    () => seatCandidates(asked, seat.link.id, id, house.rule),
    [asked, seat.link.id, id, house.rule],
  );
  const now = useMemo(() => standsNow(job, sheet), [job, sheet]);
  const chosen = candidates.find(({ key }) => key === picked) ?? candidates[0] ?? null;
  if (!now || !chosen) return <p className="plate p-5 text-lg">{whyNone(sheet, seat, asked, unit)}</p>;
  return (
    <Chosen {...props} asked={asked} candidates={candidates} chosen={chosen} onPick={setPicked} now={now} />
  );
}

/** Why nothing can be chosen yet, and what would change that. */
function whyNone(sheet: Worksheet, seat: SeatState, asked: Together, unit: LengthUnit): string {
  const what = selectiveWord(seat.link);
  const others = asked.waiting.filter(
    (one) =>
      one.applied.chain.id !== sheet.applied.chain.id &&
      one.seats.some(({ link }) => link.id === seat.link.id),
  );
  if (sheet.choice && !sheet.kept && sheet.built.readings.length === 0)
    return `The ${what} is chosen: ${seat.fitted ? pieceText(seat.fitted, unit) : ""}. Read as built with it in; then another can be chosen from those readings.`;
  if (sheet.conditions.missing.length > 0 && sheet.trial.readings.length > 0)
    return `Its readings count once the conditions are said: ${sheet.conditions.missing.join(", ")}.`;
  if (sheet.trial.assessment.verdict.kind !== "too few" && others.length > 0)
    return `This ${what} moves ${others.map(titleOf).join(" and ")} too: read that first, so that nothing is chosen for one at the cost of the other.`;
  return isPackSheet(sheet)
    ? "Take trial readings with the new frictions and steels in until they tell enough: a prediction from fewer would pretend."
    : "Take trial readings until they tell enough: a prediction from fewer would pretend.";
}

function Chosen({
  sheet,
  seat,
  asked,
  unit,
  closed,
  id,
  actionData,
  candidates,
  chosen,
  onPick,
  now,
}: Props & {
  candidates: readonly SelectiveCandidate[];
  chosen: SelectiveCandidate;
  onPick: (key: string) => void;
  now: NonNullable<ReturnType<typeof standsNow>>;
}) {
  const { house } = useInside();
  const { present } = useJobView().applied;
  const { applied } = sheet;
  const { link, fitted } = seat;
  const into = thickness(chosen.piece, link.tolerance);
  const out = fitted && thickness(fitted, link.tolerance);
  const name = pieceText(chosen.piece, unit);
  const others = asked.seats.size > 1 ? chosen.elsewhere : [];
  const then = piecesThen(sheet, chosen, link.id, asked);
  const first = (link.seat?.first ?? []).flatMap((one) => {
    const before = asked.seats.get(one);
    return before && !before.choice ? [`the ${before.link.name}`] : [];
  });
  const moved = (asked.seats.get(link.id)?.sheets ?? []).filter(
    (one) => one.applied.chain.id !== applied.chain.id,
  );
  return (
    <div className="grid grid-cols-[minmax(0,29fr)_minmax(0,20fr)] gap-3">
      <section className="plate px-4 py-3" aria-label="Candidates">
        <h2 className="stamp quiet">
          From {now.set.readings.length} readings; in it is {fitted && pieceText(fitted, unit)}
        </h2>
        <Rule
          spec={applied.spec}
          target={sheet.target}
          assessment={now.set.assessment}
          unit={unit}
          predicted={[
            { label: `predicted ${roundedText(chosen.predicted.mean, unit)}`, estimate: chosen.predicted },
          ]}
        />
        <OrderWith
          sheet={sheet}
          mean={chosen.predicted.mean}
          unit={unit}
          then={(chain) => chosen.plan?.chains.find((one) => one.chain === chain)?.mean ?? null}
        />
        {candidates[0]?.plan && <WaysOut asked={asked} plan={candidates[0].plan} unit={unit} of={sheet} />}
        <OpensAgain sheet={sheet} />
        {first.length > 0 && (
          <p className="border-warning mb-1 border-l-4 pl-3" data-first={first.join(" ")}>
            Set {first.join(" and ")} first.
          </p>
        )}
        {others.length > 0 && (
          <p className="border-warning mb-1 border-l-4 pl-3" data-elsewhere={others.join(" ")}>
            With this one in, {namesOf(others, asked)} gets another too.
          </p>
        )}
        {moved.length > 0 && (
          <p className="border-accent mb-1 border-l-4 pl-3" data-moves={moved.length}>
            It moves {moved.map(titleOf).join(" and ")} as well: {movedText(moved, chosen, asked, unit)}.
          </p>
        )}
        <table className="w-full">
          <thead>
            <tr className="stamp text-left">
              <th className="pb-1 font-semibold">{capital(selectiveWord(link))}</th>
              <th className="pb-1 font-semibold">Where</th>
              <th className="pb-1 text-right font-semibold">Predicted</th>
              <th className="pb-1 text-right font-semibold">Chance</th>
              <th className="pb-1 pl-4 font-semibold">Why</th>
            </tr>
          </thead>
          <tbody>
            {candidates.map((candidate) => (
              <Line
                key={candidate.key}
                candidate={candidate}
                picked={candidate.key === chosen.key}
                onPick={onPick}
                unit={unit}
              />
            ))}
          </tbody>
        </table>
        <details>
          <summary className="touch quiet flex cursor-pointer items-center font-semibold underline underline-offset-4">
            Working of the prediction
          </summary>
          <p>
            result′ = result {seatSign(sheet, seat)} (new − old) = {roundedText(now.estimate.mean, unit)}{" "}
            {seatSign(sheet, seat)} ({into && roundedText(into.value, unit)} −{" "}
            {out ? roundedText(out.value, unit) : "?"}) = <b>{roundedText(chosen.predicted.mean, unit)}</b>.
            Everything that stays in cancels; only the two pieces’ uncertainties are added. Chance of being
            inside {percent(chosen.chance)} from Student’s distribution with{" "}
            {chosen.predicted.dof === Infinity ? "∞" : chosen.predicted.dof.toFixed(1)} degrees of freedom.
          </p>
          <Budget estimate={chosen.predicted} unit={unit} />
        </details>
        <Working
          applied={applied}
          assessment={now.set.assessment}
          rule={house.rule}
          unit={unit}
          source={present.unit.source}
        />
      </section>
      <div className="grid content-start gap-3">
        <section className="plate px-3 pt-3" aria-label="The stack with this one">
          {isPackSheet(sheet) ? (
            <PackDrawing
              sheet={sheet}
              gap={chosen.predicted.mean}
              sameIn
              unit={unit}
              caption={`with ${name}`}
              swaps={new Map([...then].map(([id, piece]) => [id, sizeOf(sheet, id, piece)]))}
              predicted
            />
          ) : (
            <ChainDrawing sheet={sheet} result={chosen.predicted.mean} unit={unit} swaps={then} />
          )}
        </section>
        {closed ? (
          <p className="plate p-4">The job is closed.</p>
        ) : (
          <Choose
            key={chosen.key}
            seat={seat}
            chosen={chosen}
            unit={unit}
            id={id}
            actionData={actionData}
            name={name}
          />
        )}
        {chosen.source.kind !== "fitted" && isPackSheet(sheet) && (
          <section className="plate px-3 pt-3" aria-label="The stack as it is now">
            <PackDrawing
              sheet={sheet}
              gap={now.estimate.mean}
              sameIn
              unit={unit}
              caption={`now, with ${fitted ? pieceText(fitted, unit) : "another"}`}
            />
          </section>
        )}
      </div>
    </div>
  );
}

/** What is in the seats of a figure once this one is in, and what is proposed for the others then. */
function piecesThen(
  sheet: Worksheet,
  { plan, piece }: SelectiveCandidate,
  seat: string,
  asked: Together,
): Map<string, Piece> {
  const others = sheet.seats.flatMap(({ link }): [string, Piece][] => {
    const put = plan?.seats.find((one) => one.seat === link.id);
    const offered = put?.offer && !put.kept ? asked.offers.get(put.offer.id) : undefined;
    return offered ? [[link.id, offered.piece]] : [];
  });
  return new Map([...others, [seat, piece]]);
}

const sizeOf = (sheet: Worksheet, seat: string, piece: Piece): Nm | null => {
  const link = sheet.seats.find((one) => one.link.id === seat)?.link;
  return link ? (thickness(piece, link.tolerance)?.value ?? null) : null;
};

const seatSign = (sheet: Worksheet, { link }: SeatState): string =>
  sheet.seats.find((one) => one.link.id === link.id)?.link.sign === 1 ? "+" : "−";

const namesOf = (seats: readonly string[], asked: Together): string =>
  seats
    .map((id) => {
      const seat = asked.seats.get(id);
      return seat?.link.seat ? seat.link.name : seat?.sheets[0] ? titleOf(seat.sheets[0]) : id;
    })
    .join(" and ");

/** What the other figures that a piece moves come to with it. */
function movedText(
  moved: readonly Worksheet[],
  { plan }: SelectiveCandidate,
  asked: Together,
  unit: LengthUnit,
): string {
  return moved
    .map((sheet) => {
      const { id } = sheet.applied.chain;
      const now = asked.sheets.get(id)?.now.mean;
      const then = plan?.chains.find(({ chain }) => chain === id)?.mean;
      if (now === undefined || then === undefined || then === null) return "not known";
      const { min, max } = ends(sheet.applied.spec);
      return `${roundedText(now, unit)} → ${roundedText(then, unit)}${then < min || then > max ? ", outside" : ""}`;
    })
    .join(", ");
}

function Line({
  candidate,
  picked,
  onPick,
  unit,
}: {
  candidate: SelectiveCandidate;
  picked: boolean;
  onPick: (key: string) => void;
  unit: LengthUnit;
}) {
  const { piece, source, predicted, verdict, chance, reason, key } = candidate;
  const size = piece.measured ?? piece.size;
  return (
    <tr className={`border-base-300 border-t ${picked ? "bg-base-200" : ""}`}>
      <td className="py-1 pr-2">
        <label className="touch flex cursor-pointer items-center gap-2">
          <input
            type="radio"
            name="candidate"
            className="radio radio-primary"
            checked={picked}
            onChange={() => onPick(key)}
          />
          <span className="leading-tight">
            <b className="text-lg whitespace-nowrap">{size === undefined ? "?" : lengthText(size, unit)}</b>
            <span className="quiet block text-sm">{piece.mark}</span>
          </span>
        </label>
      </td>
      <td className="pr-2 leading-tight">{sourceText(source)}</td>
      <td className="pr-2 text-right leading-tight whitespace-nowrap">
        <span className="inline-flex items-center gap-1">
          <Mark name={markOf(verdict)} size={22} /> {roundedText(predicted.mean, unit)}
        </span>
        <span className="quiet block text-sm">± {roundedText(predicted.expanded, unit)}</span>
      </td>
      <td className="text-right whitespace-nowrap">{percent(chance)}</td>
      <td className="pl-4 text-sm leading-tight">
        {reason}
        <span className="quiet block">{signedText(candidate.off, unit)} off target</span>
      </td>
    </tr>
  );
}

/** The decision: what goes in, what came out, why. */
function Choose({
  seat: { link, fit, fitted },
  chosen,
  unit,
  id,
  actionData,
  name,
}: Pick<Props, "seat" | "unit" | "id" | "actionData"> & { chosen: SelectiveCandidate; name: string }) {
  const { number } = useJobView();
  const { waiting } = useUnsent();
  const busy = useNavigation().state !== "idle";
  // The server chooses from the readings it has: those on their way must be there first.
  const sending = waiting.some(({ job, refused }) => job === number && refused === undefined);
  const sent =
    actionData?.intent === "choose" && actionData.typed?.key === chosen.key ? actionData : undefined;
  const refused =
    actionData?.intent === "choose" || actionData?.intent === "here" ? actionData.problems?.key : undefined;
  const problems = sent?.problems ?? {};
  const what = capital(selectiveWord(link));
  const keeps = chosen.source.kind === "fitted";
  if (chosen.source.kind === "order") {
    return (
      <section className="plate p-4 text-lg">
        {refused && <Refused problem={refused} />}
        This size is not on the shelf
        {chosen.source.days === undefined ? "" : `; ordered, it takes ${chosen.source.days} days`}. Once it is
        booked in under Shelf it can be chosen here. Meanwhile pick one that is in hand.
        {chosen.piece.part !== undefined && (
          <Form method="post" action="?show=choose" className="mt-3" preventScrollReset>
            <input type="hidden" name="intent" value="here" />
            <input type="hidden" name="id" value={id} />
            <input type="hidden" name="seat" value={link.id} />
            <input type="hidden" name="part" value={chosen.piece.part} />
            <button className="btn btn-lg touch w-full" disabled={busy}>
              It is here: {name} in my hand
            </button>
          </Form>
        )}
      </section>
    );
  }
  return (
    <Form method="post" action="?show=choose" className="plate p-4" preventScrollReset>
      {refused && <Refused problem={refused} />}
      <input type="hidden" name="intent" value="choose" />
      <input type="hidden" name="id" value={id} />
      <input type="hidden" name="seat" value={link.id} />
      <input type="hidden" name="key" value={chosen.key} />
      <input type="hidden" name="fit" value={fit} />
      <input type="hidden" name="unit" value={unit} />
      {!keeps && link.kind === "cut" && (
        <Field
          label="What is left of it, with which tool, who measured it"
          name="note"
          defaultValue={sent?.typed?.note}
          problem={problems.note}
        />
      )}
      {!keeps && isFromShelf(link) && (
        <div className="grid grid-cols-2 gap-3">
          <div>
            <Field
              label={`${what} out measures, ${unit}`}
              name="removed"
              inputMode="decimal"
              autoComplete="off"
              defaultValue={sent?.typed?.removed}
              problem={problems.removed}
            />
            {fitted?.part && (
              <label className="touch -mt-2 flex items-center gap-2">
                <input type="checkbox" className="checkbox" name="byMark" value="yes" /> back by its mark
              </label>
            )}
            <label className="touch -mt-2 flex items-center gap-2">
              <input type="checkbox" className="checkbox" name="scrap" value="yes" /> scrapped
            </label>
          </div>
          <Field
            label={`${what} in measures, ${unit}`}
            name="going"
            inputMode="decimal"
            autoComplete="off"
            defaultValue={sent?.typed?.going}
            problem={problems.going}
            hint="surer than its mark"
          />
        </div>
      )}
      <Field
        label="Why this one"
        name="reason"
        defaultValue={sent?.typed?.reason ?? chosen.reason.replace(/^Best: /, "")}
        problem={problems.reason}
      />
      <button className="btn btn-primary btn-lg touch w-full text-lg" disabled={busy || sending}>
        {sending ? "Waits for the server" : `${keeps ? "Keep" : FIT[link.kind]} ${name}`}
      </button>
      {!keeps && (
        <p className="quiet mt-2 text-sm">
          {link.seat?.screw
            ? screwWords(link.seat.screw)
            : link.seat?.cut
              ? cutWords(link.seat.cut, unit)
              : isSprung(link)
                ? "Spring load: use the compressor, cover your eyes, thumb over the ring. Then measure again."
                : "Lay it as the one that came out lay. Then measure again."}
        </p>
      )}
    </Form>
  );
}

/** What one does to have it in. */
const FIT: Readonly<Record<SeatKind, string>> = {
  "snap ring": "Fit",
  plate: "Fit",
  washer: "Fit",
  shim: "Fit",
  pin: "Fit",
  gear: "Fit",
  screw: "Set",
  cut: "Take off",
  groove: "Use",
};

const screwWords = ({ snug, lockNut }: NonNullable<Seat["screw"]>): string =>
  `Tighten it to ${measureText(snug)}, back it off by so many turns, hold it${
    lockNut ? ` and tighten the lock nut to ${measureText(lockNut)}` : ""
  }. Then measure again.`;

const cutWords = ({ tool, touches, relief }: NonNullable<Seat["cut"]>, unit: LengthUnit): string =>
  [
    `With ${tool}; eye protection, respirator, and nothing else of the unit near it.`,
    touches ? `Retracted it comes near ${touches}.` : "",
    relief ? `Then ${relief}.` : "",
    `Then measure again, in ${unit}.`,
  ]
    .filter(Boolean)
    .join(" ");

const Refused = ({ problem }: { problem: string }) => (
  <p role="alert" className="text-error mb-2 text-lg font-semibold">
    {problem}
  </p>
);
