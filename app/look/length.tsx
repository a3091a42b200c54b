import { lengthText, roundedText, type LengthUnit, type Nm } from "~core/quantity";

/** The other unit a bench may want beside the first. */
export const otherUnit = (unit: LengthUnit): LengthUnit => (unit === "mm" ? "in" : "mm");

/** A computed figure: rounded, no sign of it, since it is never exact. */
export const lengthWords = (length: Nm, unit: LengthUnit): string => roundedText(length, unit);

/** A length with its unit; the other unit small beside it when asked for. */
export function Length({
  nm: of,
  unit,
  both = false,
  exact = true,
}: {
  nm: Nm;
  unit: LengthUnit;
  both?: boolean;
  exact?: boolean;
}) {
  const write = exact ? lengthText : roundedText;
  return (
    <span className="whitespace-nowrap">
      <span className="figure">{write(of, unit)}</span>
      {both && <span className="quiet ml-2 text-[0.85em]">{write(of, otherUnit(unit))}</span>}
    </span>
  );
}
