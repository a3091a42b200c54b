import { useState, type FormEvent } from "react";
import { Choice } from "~/look/field";
import { seatFacts } from "~core/fact";
import type { SeatState, Worksheet } from "~core/measure";
import { type LengthUnit } from "~core/quantity";
import { parseReading } from "~core/reading";
import { capital, isFromShelf, seatWord, selectiveWord, type SeatSize } from "~core/book";
import { sizeNear } from "~core/select";
import type { Piece } from "~core/chain";
import { useJobView } from "~/view/view";
import { Micrometer } from "./micrometer";
import { pieceText } from "./piece-text";
import { useSay } from "~/say/use-say";

/** The value of a mark in its list. */
const keyOf = ({ part, mark }: { part?: string; mark?: string }): string => part ?? mark ?? "";

/** A size as one tells it in the hand: by its mark, its size, its colour. */
const toldBy = (size: SeatSize, unit: LengthUnit): string =>
  [pieceText(size, unit), size.colour].filter(Boolean).join(", ");

/** What came with the unit in one seat: by its mark, by micrometer, or both; or that nobody saw it. */
function FoundPiece({ seat, unit }: { seat: SeatState; unit: LengthUnit }) {
  const { link, fitted, unseen } = seat;
  const what = selectiveWord(link);
  const { job } = useJobView();
  const say = useSay();
  const [key, setKey] = useState(fitted ? keyOf(fitted) : "");
  const [measured, setMeasured] = useState("");
  const [problem, setProblem] = useState("");
  const [again, setAgain] = useState(false);
  if (link.sizes.length === 0) return null;
  const before = seatFacts(job, link.id).fittings.find(({ body }) => body.fit === 0);
  // A pack has one seat that needs no name; of others it is said which.
  const name = seatWord(link);
  const correct = (
    <button type="button" className="btn touch" onClick={() => setAgain(true)}>
      Correct
    </button>
  );
  if (!before && !unseen && fitted && !again)
    return (
      <p className="plate flex items-center gap-3 px-4 py-2" data-found={link.id}>
        <span className="grow">
          {capital(name)}: <b>{pieceText(fitted, unit)}</b>, <span className="quiet">as usual</span>
        </span>
        {correct}
      </p>
    );
  if (before && !again)
    return (
      <p className="plate flex items-center gap-3 px-4 py-2" data-found={link.id}>
        <span className="grow">
          {capital(name)} found: <b>{pieceText(before.body.piece, unit)}</b>
        </span>
        {correct}
      </p>
    );
  if (unseen && !again)
    return (
      <p className="plate flex items-center gap-3 px-4 py-2" data-found={link.id}>
        <span className="grow">
          {capital(name)}: <b>not seen</b>, {unseen.body.reason}
        </span>
        {correct}
      </p>
    );
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    const parsed = measured.trim() === "" ? null : parseReading(measured, unit);
    if (parsed && !parsed.ok) return setProblem(`${parsed.problem}; ${parsed.remedy}`);
    if (parsed && (parsed.length < 200_000 || parsed.length > 40_000_000))
      return setProblem(`no ${what} is that thick; check the unit`);
    const size =
      link.sizes.find((one) => keyOf(one) === key) ?? (parsed ? sizeNear(link, parsed.length) : null);
    if (!size && !parsed)
      return setProblem(isFromShelf(link) ? "Choose its mark, or measure it." : "Choose it.");
    const { part, mark, size: marked } = size ?? {};
    const piece: Piece = {
      ...(part === undefined ? {} : { part }),
      ...(mark === undefined ? {} : { mark }),
      ...(marked === undefined ? {} : { size: marked }),
      ...(parsed ? { measured: parsed.length } : {}),
    };
    say({ kind: "fitting", seat: link.id, fit: 0, origin: "found", piece }, { replaces: before?.id });
    setAgain(false);
  };
  return (
    <form className="plate p-3" onSubmit={submit} noValidate data-found={link.id}>
      <h2 className="mb-1 text-lg font-bold">
        {link.kind === "screw" ? "How many turns was it backed off?" : `Which ${name} was in?`}
      </h2>
      {link.seat?.beside && (
        <p className="border-warning mb-2 border-l-4 pl-3 text-sm">
          Not to be confused with {link.seat.beside}.
        </p>
      )}
      {link.sizes.length > 9 ? (
        <label className="mb-3 block">
          <span className="stamp mb-1 block">{isFromShelf(link) ? "By its mark" : "Turns"}</span>
          <select
            className="select touch w-full text-lg"
            value={key}
            onChange={(event) => setKey(event.target.value)}
          >
            <option value="">–</option>
            {link.sizes.map((size) => (
              <option key={keyOf(size)} value={keyOf(size)}>
                {toldBy(size, unit)}
              </option>
            ))}
          </select>
        </label>
      ) : (
        <Choice
          label="By its mark"
          name={`found-${link.id}`}
          value={key}
          onChange={setKey}
          options={link.sizes.map((size) => ({ value: keyOf(size), words: toldBy(size, unit) }))}
          size="text-base"
        />
      )}
      {isFromShelf(link) ? (
        <Micrometer
          label={`By micrometer, ${unit}`}
          value={measured}
          onType={(typed) => {
            setMeasured(typed);
            setProblem("");
          }}
          problem={problem}
        />
      ) : (
        problem && (
          <p role="alert" className="text-error mb-2 font-semibold">
            {problem}
          </p>
        )
      )}
      <div className="flex gap-2">
        <button className="btn touch grow">Keep</button>
        <button
          type="button"
          className="btn touch"
          onClick={() => {
            say({ kind: "unseen", seat: link.id, reason: "off before anybody looked" });
            setAgain(false);
          }}
        >
          Not seen
        </button>
      </div>
    </form>
  );
}

/** What was found in each of its seats that nobody has changed yet. */
export const FoundPieces = ({ sheet, unit }: { sheet: Worksheet; unit: LengthUnit }) =>
  sheet.seats
    .filter(({ fit, link }) => fit === 0 && link.kind !== "cut")
    .map((seat) => <FoundPiece key={seat.link.id} seat={seat} unit={unit} />);
