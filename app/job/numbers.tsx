import { useState, type FormEvent } from "react";
import type { MeasuredLink, Worksheet } from "~core/job";
import type { LengthUnit } from "~core/quantity";
import type { Reading } from "~core/reading";
import { linkGroups, readLinks } from "./links";

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
    const read = readLinks(sheet.applied, typed, unit);
    setProblems(read.ok ? {} : read.problems);
    if (!read.ok) return;
    onStore(read.reading, read.links);
    setTyped({});
  };
  return (
    <form onSubmit={submit} noValidate className="grid grid-cols-2 gap-x-3 gap-y-2">
      {linkGroups(sheet.applied).map(({ id, words }, i) => (
        <div key={id} className={i === 0 ? "col-span-2" : ""}>
          <label htmlFor={`link-${id}`} className="stamp block">
            {words}
          </label>
          <input
            id={`link-${id}`}
            autoFocus={i === 0}
            autoComplete="off"
            className={`input touch w-full text-lg ${problems[id] ? "input-error" : ""}`}
            value={typed[id] ?? ""}
            onChange={(event) => setTyped({ ...typed, [id]: event.target.value })}
            aria-invalid={problems[id] ? true : undefined}
            aria-describedby={problems[id] ? `link-${id}-problem` : undefined}
          />
          {problems[id] && (
            <p id={`link-${id}-problem`} role="alert" className="text-error text-sm font-semibold">
              {problems[id]}
            </p>
          )}
        </div>
      ))}
      <button className="btn btn-primary touch col-span-2 text-lg">Work it out and store</button>
    </form>
  );
}
