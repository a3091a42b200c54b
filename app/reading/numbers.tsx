import { useState, type FormEvent, type KeyboardEvent } from "react";
import type { MeasuredLink } from "~core/fact";
import { pieceText } from "~/choose/piece-text";
import { isPackSheet, type Worksheet } from "~core/measure";
import type { LengthUnit } from "~core/quantity";
import type { Reading } from "~core/reading";
import { capital, seatWord } from "~core/book";
import { linkGroups, readLinks, valuesOf, type LinkGroup } from "./links";

/** Depth to the ring groove, every plate, and the ring, measured one by one. */
export function Numbers({
  sheet,
  unit,
  onStore,
}: {
  sheet: Worksheet;
  unit: LengthUnit;
  onStore: (reading: Reading, links: MeasuredLink[]) => void;
}) {
  const [typed, setTyped] = useState<Record<string, string>>({});
  const [problems, setProblems] = useState<Record<string, string>>({});
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    const read = readLinks(sheet, typed, unit);
    setProblems(read.ok ? {} : read.problems);
    if (!read.ok) return;
    onStore(read.reading, read.links);
    setTyped({});
  };
  // A gauge that types ends each value with Enter: it stays in a group until that is full, then goes on to the next one.
  const onEnter = (event: KeyboardEvent<HTMLInputElement>, { id, count }: LinkGroup): void => {
    if (event.key !== "Enter") return;
    const have = valuesOf(typed[id]).length;
    if (have > 0 && have < count) {
      event.preventDefault();
      setTyped({ ...typed, [id]: `${typed[id]?.trim()} ` });
      return;
    }
    const inputs = [...(event.currentTarget.form?.querySelectorAll("input") ?? [])];
    const next = inputs[inputs.indexOf(event.currentTarget) + 1];
    if (!next) return;
    event.preventDefault();
    next.focus();
  };
  return (
    <form onSubmit={submit} noValidate className="grid grid-cols-2 gap-x-3 gap-y-2">
      {linkGroups(sheet.applied).map((group, i) => {
        const { id, words } = group;
        return (
          <div key={id} className={i === 0 ? "col-span-2" : ""}>
            <label htmlFor={`link-${id}`} className="stamp block">
              {words}
            </label>
            <input
              data-awaits
              id={`link-${id}`}
              autoFocus={i === 0}
              autoComplete="off"
              className={`input touch w-full text-lg ${problems[id] ? "input-error" : ""}`}
              value={typed[id] ?? ""}
              onChange={(event) => setTyped({ ...typed, [id]: event.target.value })}
              onKeyDown={(event) => onEnter(event, group)}
              aria-invalid={problems[id] ? true : undefined}
              aria-describedby={problems[id] ? `link-${id}-problem` : undefined}
            />
            {problems[id] && (
              <p id={`link-${id}-problem`} role="alert" className="text-error text-sm font-semibold">
                {problems[id]}
              </p>
            )}
          </div>
        );
      })}
      {!isPackSheet(sheet) &&
        sheet.seats.map(({ link, fitted }) => (
          <p key={link.id} className="col-span-2">
            <span className="quiet">{capital(seatWord(link))} in:</span>{" "}
            <b>{fitted ? pieceText(fitted, unit) : "not said yet"}</b>
          </p>
        ))}
      <p className="quiet col-span-2 text-sm">Enter after each value; several of a kind go into one field.</p>
      <button className="btn btn-primary touch col-span-2 text-lg">Work it out and store</button>
    </form>
  );
}
