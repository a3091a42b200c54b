import { Form, useNavigation } from "react-router";
import { Field } from "~/look/field";
import { Mark, markOf } from "~/look/mark";
import { Rule } from "~/look/rule";
import { Stack } from "~/look/stack";
import { Budget, Working } from "~/look/working";
import { useInside } from "~/door/inside";
import { basis, type Worksheet } from "~core/measure";
import type { Plate } from "~core/pack";
import { lengthText, roundedText, signedText, type LengthUnit } from "~core/quantity";
import { capital, isSprung, selectiveWord } from "~core/book";
import { thickness, type SelectiveCandidate } from "~core/select";
import { useOutbox } from "~/outbox/use-outbox";
import type { FormAnswer } from "~/view/form-answer";
import { useJobView } from "~/view/view";
import { pieceText } from "./piece-text";
import { ringIn } from "~/reading/ring-in";
import { percent, sourceText } from "./ring-words";

interface Props {
  sheet: Worksheet;
  candidates: SelectiveCandidate[];
  chosen: SelectiveCandidate;
  onPick: (key: string) => void;
  unit: LengthUnit;
  closed: boolean;
  id: string;
  plates: Plate[];
  actionData: FormAnswer | undefined;
}

/** Every ring of the series against this pack, best first; the picked one shown in place. */
export function Ring({ sheet, candidates, chosen, onPick, unit, closed, id, plates, actionData }: Props) {
  const { house } = useInside();
  const { applied, fitted } = sheet;
  const measured = basis(sheet);
  if (!measured) return null;
  const tolerance = applied.series?.tolerance;
  const into = tolerance === undefined ? null : thickness(chosen.piece, tolerance);
  const name = pieceText(chosen.piece, unit);
  return (
    <div className="grid grid-cols-[minmax(0,29fr)_minmax(0,20fr)] gap-3">
      <section className="plate px-4 py-3" aria-label="Candidates">
        <h2 className="stamp quiet">
          From {measured.readings.length} readings with {fitted && pieceText(fitted, unit)} in
        </h2>
        <Rule
          spec={applied.spec}
          target={sheet.target}
          assessment={measured.assessment}
          unit={unit}
          predicted={[
            { label: `predicted ${roundedText(chosen.predicted.mean, unit)}`, estimate: chosen.predicted },
          ]}
        />
        <table className="w-full">
          <thead>
            <tr className="stamp text-left">
              <th className="pb-1 font-semibold">{capital(selectiveWord(applied.series))}</th>
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
            result′ = result − (new − old) ={" "}
            {measured.assessment.estimate && roundedText(measured.assessment.estimate.mean, unit)} − (
            {into && roundedText(into.value, unit)} − {fittedText(sheet, unit)}) ={" "}
            <b>{roundedText(chosen.predicted.mean, unit)}</b>. Everything that stays in cancels; only the two
            pieces’ uncertainties are added. Chance of being inside {percent(chosen.chance)} from Student’s
            distribution with {chosen.predicted.dof === Infinity ? "∞" : chosen.predicted.dof.toFixed(1)}{" "}
            degrees of freedom.
          </p>
          <Budget estimate={chosen.predicted} unit={unit} />
        </details>
        <Working applied={applied} assessment={measured.assessment} rule={house.rule} unit={unit} />
      </section>
      <div className="grid content-start gap-3">
        <section className="plate px-3 pt-3" aria-label="The stack with this one">
          <Stack
            plates={plates}
            gap={chosen.predicted.mean}
            ring={into?.value ?? null}
            unit={unit}
            caption={`with ${name}`}
            selective={selectiveWord(applied.series)}
            predicted
          />
        </section>
        {closed ? (
          <p className="plate p-4">The job is closed.</p>
        ) : (
          <Choose
            key={chosen.key}
            sheet={sheet}
            chosen={chosen}
            unit={unit}
            id={id}
            actionData={actionData}
            name={name}
          />
        )}
        {chosen.source.kind !== "fitted" && (
          <section className="plate px-3 pt-3" aria-label="The stack as it is now">
            <Stack
              plates={plates}
              gap={measured.assessment.estimate?.mean ?? null}
              ring={ringIn(sheet)}
              unit={unit}
              caption={`now, with ${fitted ? pieceText(fitted, unit) : "another"}`}
              selective={selectiveWord(applied.series)}
            />
          </section>
        )}
      </div>
    </div>
  );
}

function fittedText({ fitted, applied: { series } }: Worksheet, unit: LengthUnit): string {
  const old = fitted && series ? thickness(fitted, series.tolerance) : null;
  return old ? roundedText(old.value, unit) : "?";
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
  sheet,
  chosen,
  unit,
  id,
  actionData,
  name,
}: Pick<Props, "sheet" | "chosen" | "unit" | "id" | "actionData"> & { name: string }) {
  const { number } = useJobView();
  const { waiting } = useOutbox();
  const busy = useNavigation().state !== "idle";
  // The server chooses from the readings it has: those on their way must be there first.
  const sending = waiting.some(({ job, refused }) => job === number && refused === undefined);
  const sent =
    actionData?.intent === "choose" && actionData.typed?.key === chosen.key ? actionData : undefined;
  const refused = actionData?.intent === "choose" ? actionData.problems?.key : undefined;
  const problems = sent?.problems ?? {};
  const what = capital(selectiveWord(sheet.applied.series));
  const keeps = chosen.source.kind === "fitted";
  if (chosen.source.kind === "order") {
    return (
      <section className="plate p-4 text-lg">
        {refused && <Refused problem={refused} />}
        This size is not on the shelf
        {chosen.source.days === undefined ? "" : `; ordered, it takes ${chosen.source.days} days`}. Once it is
        booked in under Shelf it can be chosen here. Meanwhile pick one that is in hand.
      </section>
    );
  }
  return (
    <Form method="post" action="?show=ring" className="plate p-4" preventScrollReset>
      {refused && <Refused problem={refused} />}
      <input type="hidden" name="intent" value="choose" />
      <input type="hidden" name="id" value={id} />
      <input type="hidden" name="key" value={chosen.key} />
      <input type="hidden" name="fit" value={sheet.fit} />
      <input type="hidden" name="unit" value={unit} />
      {!keeps && (
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
            {sheet.fitted?.part && (
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
        {sending ? "Waits for the server" : keeps ? `Keep ${name}` : `Fit ${name}`}
      </button>
      {!keeps && (
        <p className="quiet mt-2 text-sm">
          {isSprung(sheet.applied.series)
            ? "Spring load: use the compressor, cover your eyes, thumb over the ring. Then measure again."
            : "Lay it as the one that came out lay. Then measure again."}
        </p>
      )}
    </Form>
  );
}

const Refused = ({ problem }: { problem: string }) => (
  <p role="alert" className="text-error mb-2 text-lg font-semibold">
    {problem}
  </p>
);
