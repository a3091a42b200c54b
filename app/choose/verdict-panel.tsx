import { Length, otherUnit } from "~/look/length";
import { isSpread, type DecisionRule, isStated } from "~core/reading";
import { adviceWords, VerdictMark } from "~/look/mark";
import { capital, originWords } from "~core/book";
import { isPackSheet, type ReadingSet, type Worksheet } from "~core/measure";
import { roundedText, signedText, type LengthUnit } from "~core/quantity";

/** What is measured, and when: the clearance of a pack, an end play, a preload. */
function titleFor(sheet: Worksheet, tab: Tab): string {
  const what = isPackSheet(sheet) ? "clearance" : sheet.applied.chain.kind;
  return tab === "trial" ? `Trial ${what}` : `${capital(what)} as ${tab}`;
}
type Tab = "found" | "trial" | "built";

/** The figure, its uncertainty, the verdict, and what to do next: readable from where the drum stands. */
export function VerdictPanel({
  sheet,
  set: { assessment, readings, said },
  unit,
  rule,
  tab,
}: {
  sheet: Worksheet;
  set: ReadingSet;
  unit: LengthUnit;
  rule: DecisionRule;
  tab: Tab;
}) {
  const { stage, choice, conditions, applied } = sheet;
  const isAstray = stage.at === "astray" && tab === "built";
  const unmet = tab !== "found" && readings.length > 0 && conditions.missing.length > 0;
  const { estimate, verdict, drift } = assessment;
  return (
    <div
      className="flex items-start justify-between gap-x-6 max-[1100px]:flex-wrap"
      data-verdict={verdict.kind}
    >
      <div>
        <h2 className="stamp quiet">{titleFor(sheet, tab)}</h2>
        {estimate ? (
          <p className="text-5xl leading-tight">
            <Length nm={estimate.mean} unit={unit} exact={false} />
          </p>
        ) : (
          <p className="text-5xl leading-tight">—</p>
        )}
        {estimate && (
          <>
            <p className="text-xl">
              {isSpread(estimate) ? `± ${roundedText(estimate.expanded, unit)}` : "one reading"}
              <span className="quiet ml-3 text-base">{roundedText(estimate.mean, otherUnit(unit))}</span>
            </p>
            {assessment.corrections.map(({ name, amount }) => (
              <p key={name} className="quiet text-sm">
                {name} {signedText(amount, unit)} brings it to the spec’s state
              </p>
            ))}
          </>
        )}
      </div>
      <div className="ml-auto max-w-100 text-right" role="status" aria-live="polite">
        <div className="flex justify-end">
          {unmet ? (
            <b className="text-warning text-[1.4rem]">Conditions not said</b>
          ) : stage.at === "out" && tab !== "found" ? (
            <b className="text-warning text-[1.4rem]">Taken out</b>
          ) : isAstray && verdict.kind === "inside" ? (
            <b className="text-warning text-[1.4rem]">Not as predicted</b>
          ) : (
            <VerdictMark verdict={verdict} unit={unit} large />
          )}
        </div>
        <p className="mt-1 text-lg leading-snug">
          {unmet
            ? `It counts only with ${conditions.missing.join(", ")}.`
            : readings.length === 0
              ? said
                ? "No figure, and said so: it proves nothing yet."
                : emptyWords(sheet, tab, choice !== null)
              : isAstray
                ? "Find out why before another piece is chosen for it."
                : adviceWords(verdict, unit)}
          {drift.kind === "settled" &&
            ` The first ${drift.from} rose while it settled; the later ones count.`}
          {stage.at === "signed" && " A lead has signed for it."}
        </p>
        <p className="quiet text-sm">
          {limitsOf(applied)}, house rule: {rule} · {assessment.estimate?.count ?? 0} of {readings.length}{" "}
          count
        </p>
      </div>
    </div>
  );
}

/** Whose the limits are that a figure is held against. */
function limitsOf({ house, spec, book }: Worksheet["applied"]) {
  if (house) return <b>the house’s limits</b>;
  if (!isStated(spec)) return <b>no limit known</b>;
  return book.from === undefined ? (
    "the book’s limits"
  ) : (
    <b data-from={book.from}>
      {originWords(book.from)}
      {book.checked && `, ${book.checked}`}
    </b>
  );
}

function emptyWords(sheet: Worksheet, tab: Tab, chosen: boolean): string {
  if (sheet.stage.at === "out" && tab !== "found") return "Put it in again, then read it.";
  if (tab === "found") return "Log what it has before anything is changed.";
  if (tab === "trial")
    return isPackSheet(sheet)
      ? "With the new frictions and steels in, take three readings."
      : "Assembled with what will stay in: read it.";
  return chosen ? "Read it again with the chosen one in." : "Choose its size first.";
}
