import type { Worksheet } from "~core/measure";
import { nm, roundedText, signedText, type LengthUnit } from "~core/quantity";
import { capital, selectiveWord } from "~core/book";
import { pieceText } from "./piece-text";

/** What was expected against what came: kept apart, so that a prediction is never taken for a measurement. */
export function Outcome({ sheet, unit }: { sheet: Worksheet; unit: LengthUnit }) {
  const { choice, built, fitted } = sheet;
  if (!choice) return null;
  const { prediction, kept, reason } = choice.body;
  const measured = built.assessment.estimate;
  return (
    <p className="mt-2">
      <span className="quiet">
        {capital(selectiveWord(sheet.applied.series))} {kept ? "kept" : "chosen"}:
      </span>{" "}
      <b>{fitted && pieceText(fitted, unit)}</b>
      {reason && ` (${reason})`}.{" "}
      {!kept && (
        <>
          <span className="quiet">Predicted</span> {roundedText(prediction.mean, unit)} ±{" "}
          {roundedText(prediction.expanded, unit)}
          {measured && (
            <>
              , <span className="quiet">came out</span>{" "}
              {signedText(nm(measured.mean - prediction.mean), unit)} from that
            </>
          )}
          .
        </>
      )}
    </p>
  );
}
