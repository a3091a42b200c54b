import { limitWords, originWords } from "~core/book";
import type { AppliedChain } from "~core/book";
import { roundedText, signedText, type LengthUnit, type Nm } from "~core/quantity";
import type { Assessment, Component, DecisionRule, Estimate } from "~core/reading";

const SOURCE: Record<Component["name"], string> = {
  scatter: "scatter of the readings, s/√n",
  resolution: "gauge step, half of it, rectangular",
  zero: "return to zero, rectangular",
  blades: "half the gap between the blades, rectangular",
  links: "the links measured one by one, root sum of squares",
  soaking: "soaking allowance, rectangular",
  bedding: "bedding allowance, rectangular",
  wave: "wave allowance, rectangular",
  "part in": "thickness of the ring going in",
  "part out": "thickness of the ring coming out",
};

/** The way from readings to verdict, every number in place. */
export function Working({
  applied,
  assessment,
  rule,
  unit,
  source,
}: {
  applied: AppliedChain;
  assessment: Assessment;
  rule: DecisionRule;
  unit: LengthUnit;
  /** Where the unit’s figures are from, where this one does not say. */
  source: string;
}) {
  const { spec, book, house } = applied;
  const { estimate, marks } = assessment;
  const used = marks.filter(({ use }) => use === "used");
  return (
    <details className="mt-2">
      <summary className="touch quiet flex cursor-pointer items-center font-semibold underline underline-offset-4">
        Working
      </summary>
      <div className="text-base leading-relaxed">
        <p>
          Spec {limitWords(spec, unit)}, stated {spec.state.soak}
          {spec.state.facings ? `, facings ${spec.state.facings}` : ""}
          {spec.state.wave ? `, wave ${spec.state.wave}` : ""};{" "}
          {house ? "the house’s" : `the book’s${checkedWords(book)}`}
          {`, ${book.from ? `${originWords(book.from)}, ` : ""}${book.source ?? source}`}: not a maker’s
          specification.
        </p>
        {house && (
          <p>
            House value by {house.by}: {house.reason}. The book says {limitWords(book, unit)}
            {checkedWords(book)}.
          </p>
        )}
        {assessment.corrections.map(({ name, amount, within }) => (
          <p key={name}>
            Brought to that state: {name} {signedText(amount, unit)} ± {roundedText(within, unit)}.
          </p>
        ))}
        {assessment.missing && <p className="font-semibold">Not comparable: {assessment.missing}.</p>}
        {estimate && (
          <>
            <p>
              Mean of {estimate.count}: ({used.map(({ low, high }) => figureOf(low, high, unit)).join(" + ")})
              ÷ {estimate.count} = <b>{roundedText(estimate.mean, unit)}</b>
              {estimate.spread !== null && (
                <>; spread s = {roundedText(Math.round(estimate.spread) as Nm, unit, FINE[unit])}</>
              )}
            </p>
            <Budget estimate={estimate} unit={unit} />
            <p>
              {rule === "proven"
                ? "House rule: proven. Inside only if mean − U and mean + U both lie within the limits (ISO 14253-1)."
                : "House rule: plain. The mean alone is held against the limits."}
            </p>
          </>
        )}
      </div>
    </details>
  );
}

const FINE: Record<LengthUnit, number> = { mm: 4, in: 5, thou: 2, µm: 1 };

const figureOf = (low: Nm | undefined, high: Nm | undefined, unit: LengthUnit): string => {
  const show = (length: Nm): string => roundedText(length, unit).replace(/ .*/, "");
  if (low === undefined || high === undefined) return "open";
  return low === high ? show(low) : `[${show(low)}–${show(high)}]`;
};

/** Standard uncertainties and how they combine (GUM). */
export function Budget({ estimate, unit }: { estimate: Estimate; unit: LengthUnit }) {
  const fine = (u: number): string => roundedText(Math.round(u) as Nm, unit, FINE[unit]);
  return (
    <table className="my-1">
      <caption className="sr-only">Uncertainty budget</caption>
      <tbody>
        {estimate.components.map(({ name, u }) => (
          <tr key={name}>
            <th scope="row" className="pr-4 text-left font-normal">
              {SOURCE[name]}
            </th>
            <td className="text-right">{fine(u)}</td>
          </tr>
        ))}
        <tr className="border-base-content border-t">
          <th scope="row" className="pr-4 text-left font-normal">
            combined u (root sum of squares)
          </th>
          <td className="text-right">{fine(estimate.u)}</td>
        </tr>
        <tr>
          <th scope="row" className="pr-4 text-left font-normal">
            U = k·u, 95 %, k = {estimate.k.toFixed(2)} (Student,{" "}
            {estimate.dof === Infinity ? "∞" : estimate.dof.toFixed(1)} degrees of freedom)
          </th>
          <td className="text-right font-bold">{fine(estimate.expanded)}</td>
        </tr>
      </tbody>
    </table>
  );
}

const checkedWords = ({ checked }: { checked?: string | undefined }): string =>
  checked ? `, checked ${checked}` : "";
