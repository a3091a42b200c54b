import { useRef, useState, type FormEvent } from "react";
import type { Worksheet } from "~core/measure";
import { plausible } from "~core/pack";
import { nm, type LengthUnit, type Nm } from "~core/quantity";
import { question, type Reading, parseReading } from "~core/reading";

/** The thickest blade that passes and the thinnest that does not; one of them may be missing. */
export function Feeler({
  sheet,
  unit,
  onStore,
}: {
  sheet: Worksheet;
  unit: LengthUnit;
  onStore: (reading: Reading, typed: string) => void;
}) {
  const [typed, setTyped] = useState({ passes: "", refuses: "" });
  const [problems, setProblems] = useState<{ passes?: string; refuses?: string }>({});
  const first = useRef<HTMLInputElement>(null);
  const second = useRef<HTMLInputElement>(null);
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    const found: typeof problems = {};
    const values: { passes?: Nm; refuses?: Nm } = {};
    const range = plausible(sheet.applied);
    for (const side of ["passes", "refuses"] as const) {
      if (typed[side].trim() === "") continue;
      const parsed = parseReading(typed[side], unit);
      if (!parsed.ok) found[side] = `${parsed.problem}; ${parsed.remedy}`;
      else if (question(parsed.length, parsed.unit, { min: nm(0), max: range.max }))
        found[side] = "no such blade fits here; check the unit";
      else values[side] = parsed.length;
    }
    const { passes, refuses } = values;
    if (passes === undefined && refuses === undefined && !found.passes && !found.refuses)
      found.passes = "give at least one blade";
    if (passes !== undefined && refuses !== undefined && refuses <= passes)
      found.refuses = "this blade must be the thicker one";
    setProblems(found);
    if (found.passes ?? found.refuses) return;
    onStore({ kind: "bracket", passes, refuses } as Reading, `${typed.passes} / ${typed.refuses}`);
    setTyped({ passes: "", refuses: "" });
    first.current?.focus();
  };
  const side = (name: "passes" | "refuses", words: string) => (
    <div className="min-w-0 flex-1">
      <label htmlFor={`blade-${name}`} className="stamp mb-1 block">
        {words}
      </label>
      <input
        id={`blade-${name}`}
        ref={name === "passes" ? first : second}
        autoFocus={name === "passes"}
        autoComplete="off"
        inputMode="decimal"
        data-awaits
        className={`input h-16 w-full text-2xl font-bold ${problems[name] ? "input-error" : ""}`}
        value={typed[name]}
        onChange={(event) => setTyped({ ...typed, [name]: event.target.value })}
        onKeyDown={(event) => {
          // From the first blade on to the second; from the second the pair is stored.
          if (event.key !== "Enter" || name !== "passes") return;
          event.preventDefault();
          second.current?.focus();
        }}
        aria-invalid={problems[name] ? true : undefined}
        aria-describedby={problems[name] ? `blade-${name}-problem` : undefined}
      />
      {problems[name] && (
        <p id={`blade-${name}-problem`} role="alert" className="text-error mt-1 font-semibold">
          {problems[name]}
        </p>
      )}
    </div>
  );
  return (
    <form onSubmit={submit} noValidate>
      <div className="flex items-start gap-2">
        {side("passes", `Passes, ${unit}`)}
        {side("refuses", `Does not, ${unit}`)}
        <button className="btn btn-primary mt-6 h-16 text-xl">Store</button>
      </div>
      <p className="quiet mt-1 text-sm">Two or three places round the ring, each its own pair.</p>
    </form>
  );
}
