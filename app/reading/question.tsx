import { useEffect, useRef } from "react";
import { lengthText, type LengthUnit, type Nm } from "~core/quantity";
import type { Meaning, Single } from "~core/reading";

/** Questions a value that cannot be: the likely meanings are one touch away, and the builder may still insist. */
export function Question({
  length,
  unit,
  what,
  meanings,
  onAnswer,
}: {
  length: Nm;
  /** What it was typed for. */
  what: string;
  unit: LengthUnit;
  meanings: Meaning[];
  onAnswer: (meant: Nm, unit: LengthUnit) => void;
}) {
  const first = useRef<HTMLButtonElement>(null);
  useEffect(() => first.current?.focus(), []);
  return (
    <div className="border-warning mt-2 rounded border-2 p-3" role="alert">
      <p className="mb-2 text-lg font-semibold">
        {lengthText(length, unit)} cannot be {what}.
        {meanings.length > 0 ? " Did you mean" : " Check the unit and the decimal point."}
      </p>
      <div className="flex flex-wrap gap-2">
        {meanings.map((meaning, i) => (
          <button
            key={meaning.length}
            ref={i === 0 ? first : undefined}
            type="button"
            className={`btn touch text-lg ${i === 0 ? "btn-primary" : ""}`}
            title={meaning.why}
            onClick={() => onAnswer(meaning.length, meaning.unit)}
          >
            {lengthText(meaning.length, meaning.unit)}
            {meaning.unit !== unit && (
              <span className="text-sm opacity-85">= {lengthText(meaning.length, unit)}</span>
            )}
          </button>
        ))}
        <button type="button" className="btn touch" onClick={() => onAnswer(length, unit)}>
          Store {lengthText(length, unit)} all the same
        </button>
      </div>
    </div>
  );
}

/** A take that cannot be this pack: no unit to mistake, so it is the set-up that is in doubt. */
export function Doubt({
  reading,
  unit,
  onAnswer,
}: {
  reading: Single;
  unit: LengthUnit;
  onAnswer: (sure: boolean) => void;
}) {
  return (
    <div className="border-warning mt-2 rounded border-2 p-3" role="alert">
      <p className="mb-2 text-lg font-semibold">
        {lengthText(reading.value, unit)} cannot be this pack’s clearance. Does the air reach the piston, does
        the indicator stand on the plate?
      </p>
      <div className="flex flex-wrap gap-2">
        <button type="button" className="btn btn-primary touch" onClick={() => onAnswer(false)}>
          Take it again
        </button>
        <button type="button" className="btn touch" onClick={() => onAnswer(true)}>
          Store it all the same
        </button>
      </div>
    </div>
  );
}
