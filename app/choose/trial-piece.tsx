import { Form } from "react-router";
import { capital } from "~core/book";
import type { SeatState } from "~core/measure";
import type { LengthUnit } from "~core/quantity";
import type { FormAnswer } from "~/view/form-answer";
import { pieceText } from "./piece-text";

/** A figure that is read with a piece of known size, which does not stay: puts it in. */
export function TrialPiece({
  seat: { link, fit, fitted, isTrial },
  id,
  unit,
  actionData,
}: {
  seat: SeatState;
  id: string;
  unit: LengthUnit;
  actionData: FormAnswer | undefined;
}) {
  const trial = link.seat?.trial;
  if (!trial) return null;
  if (isTrial)
    return (
      <p className="plate px-4 py-2" data-trial="in">
        Read with the <b>{pieceText(trial, unit)}</b> in. It comes out again once the {link.name} is chosen.
      </p>
    );
  const problem = actionData?.intent === "trial" ? actionData.problems?.key : undefined;
  return (
    <Form
      method="post"
      preventScrollReset
      className="plate border-accent border-l-4 px-4 py-2"
      data-trial="out"
    >
      <input type="hidden" name="intent" value="trial" />
      <input type="hidden" name="id" value={id} />
      <input type="hidden" name="seat" value={link.id} />
      <input type="hidden" name="fit" value={fit} />
      <p className="mb-1">
        {capital(link.name)}: read it with the <b>{pieceText(trial, unit)}</b>, which does not stay.
      </p>
      {fitted?.part && (
        <label className="touch flex items-center gap-2">
          <input type="checkbox" className="checkbox" name="byMark" value="yes" />
          {pieceText(fitted, unit)} goes back onto the shelf
        </label>
      )}
      {problem && (
        <p role="alert" className="text-error font-semibold">
          {problem}
        </p>
      )}
      <button className="btn btn-primary touch w-full">It is in</button>
    </Form>
  );
}
