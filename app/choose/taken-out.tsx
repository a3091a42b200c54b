import { useState } from "react";
import { useWhen } from "~/door/when";
import { useSay } from "~/say/use-say";
import { capital, isFromShelf, selectiveWord } from "~core/book";
import type { ReadingSet, SeatState, Worksheet } from "~core/measure";
import type { LengthUnit } from "~core/quantity";
import { parseReading } from "~core/reading";
import { agrees } from "~core/select";
import { Micrometer } from "./micrometer";
import { pieceText } from "./piece-text";

/** Pieces that were in and came out again: what was read before is of another assembly. */
export const TakenOut = ({ sheet, unit }: { sheet: Worksheet; unit: LengthUnit }) =>
  sheet.seats.map((seat) => seat.out && <IsOut key={seat.link.id} seat={seat} unit={unit} />);

/** The pieces that are in, once something was read with them: each may come out again. */
export const In = ({ sheet, set, unit }: { sheet: Worksheet; set: ReadingSet; unit: LengthUnit }) =>
  sheet.seats.map(
    (seat) =>
      seat.fitted &&
      !seat.out &&
      set.readings.length > 0 && <IsIn key={seat.link.id} seat={seat} unit={unit} />,
  );

function IsIn({ seat, unit }: { seat: SeatState; unit: LengthUnit }) {
  const say = useSay();
  const { link, fit, fitted } = seat;
  return (
    <p className="plate flex items-center gap-3 px-4 py-1" data-in={link.id}>
      <span className="grow">
        In: <b>{fitted && pieceText(fitted, unit)}</b>
      </span>
      <button
        type="button"
        className="btn touch"
        onClick={() => say({ kind: "taken-out", seat: link.id, fit, was: "out" })}
      >
        Taken out again
      </button>
    </p>
  );
}

function IsOut({ seat: { link, fit, fitted, out }, unit }: { seat: SeatState; unit: LengthUnit }) {
  const say = useSay();
  const { clock } = useWhen();
  const [text, setText] = useState("");
  const [problem, setProblem] = useState("");
  const back = (): void => {
    const parsed = text.trim() === "" ? null : parseReading(text, unit);
    if (parsed && !parsed.ok) return setProblem(`${parsed.problem}; ${parsed.remedy}`);
    if (parsed && !agrees(fitted?.size, parsed.length, link.tolerance))
      return setProblem("That is far from its mark: measure again, or it is another one.");
    const measured = parsed ? { measured: parsed.length } : {};
    say({ kind: "taken-out", seat: link.id, fit, was: "in-again", ...measured });
  };
  return (
    <form
      className="plate border-warning border-l-4 px-4 py-2"
      data-out={link.id}
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        back();
      }}
    >
      <p className="mb-2 text-lg leading-snug">
        {capital(selectiveWord(link))} <b>{fitted && pieceText(fitted, unit)}</b> is out
        {out && `, said ${out.by} at ${clock(out.at)}`}. What was read with it counts no longer.
      </p>
      {isFromShelf(link) && (
        <Micrometer
          label={`By micrometer, ${unit}, if it was measured`}
          value={text}
          onType={(typed) => {
            setText(typed);
            setProblem("");
          }}
          problem={problem}
        />
      )}
      <div className="flex gap-2">
        <button className="btn btn-primary touch grow">It is in again</button>
        <button
          type="button"
          className="btn touch"
          onClick={() => say({ kind: "taken-out", seat: link.id, fit, was: "not-out" })}
        >
          It never came out
        </button>
      </div>
    </form>
  );
}
