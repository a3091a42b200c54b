import type { Worksheet } from "~core/measure";
import { nm, roundedText, signedText, type LengthUnit } from "~core/quantity";
import { capital, selectiveWord } from "~core/book";
import { pieceText } from "./piece-text";

/** What was expected against what came: kept apart, so that a prediction is never taken for a measurement. */
export function Outcome({ sheet, unit }: { sheet: Worksheet; unit: LengthUnit }) {
  const { choice, built, seats, kept, prediction } = sheet;
  if (!choice) return null;
  const { reason } = choice.body;
  const fitted = seats.flatMap((seat) => (seat.fitted ? [pieceText(seat.fitted, unit)] : []));
  const measured = built.assessment.estimate;
  return (
    <p className="mt-2">
      <span className="quiet">
        {capital(selectiveWord(seats.length === 1 ? seats[0]?.link : null))} {kept ? "kept" : "chosen"}:
      </span>{" "}
      <b>{fitted.join(" and ")}</b>
      {reason && ` (${reason})`}.{" "}
      {prediction && (
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
