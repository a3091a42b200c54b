import { Length, otherUnit } from "~/look/length";
import { isSpread, type DecisionRule } from "~core/reading";
import { adviceWords, VerdictMark } from "~/look/mark";
import type { FactOf } from "~core/fact";
import type { ReadingSet, Stage } from "~core/measure";
import { roundedText, signedText, type LengthUnit } from "~core/quantity";

const TITLE = { found: "Clearance as found", trial: "Trial clearance", built: "Clearance as built" } as const;

/** The figure, its uncertainty, the verdict, and what to do next: readable from where the drum stands. */
export function VerdictPanel({
  set: { assessment, readings },
  unit,
  rule,
  stage,
  tab,
  choice,
  house,
}: {
  set: ReadingSet;
  unit: LengthUnit;
  rule: DecisionRule;
  stage: Stage;
  tab: keyof typeof TITLE;
  choice: FactOf<"choice"> | null;
  /** Whether the shop’s own limits stand in for the book’s. */
  house: boolean;
}) {
  const { estimate, verdict, drift } = assessment;
  return (
    <div className="flex items-start justify-between gap-6" data-verdict={verdict.kind}>
      <div>
        <h2 className="stamp quiet">{TITLE[tab]}</h2>
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
      <div className="max-w-100 text-right" role="status" aria-live="polite">
        <div className="flex justify-end">
          {stage.at === "astray" && tab === "built" ? (
            <b className="text-warning text-[1.4rem]">Not as predicted</b>
          ) : (
            <VerdictMark verdict={verdict} unit={unit} large />
          )}
        </div>
        <p className="mt-1 text-lg leading-snug">
          {readings.length === 0 ? emptyWords(tab, choice !== null) : adviceWords(verdict, unit)}
          {drift.kind === "settled" &&
            ` The first ${drift.from} rose while it settled; the later ones count.`}
          {stage.at === "signed" && " A lead has signed for this pack."}
        </p>
        <p className="quiet text-sm">
          {house ? <b>the house’s limits</b> : "the book’s limits"}, house rule: {rule} ·{" "}
          {assessment.estimate?.count ?? 0} of {readings.length} count
        </p>
      </div>
    </div>
  );
}

function emptyWords(tab: keyof typeof TITLE, chosen: boolean): string {
  if (tab === "found") return "Log what it has before anything is changed.";
  if (tab === "trial") return "With the new frictions and steels in, take three readings.";
  return chosen ? "Read it again with the chosen one in." : "Choose its size first.";
}
