import { middleOf } from "~core/reading";
import { Grid3x3 } from "lucide-react";
import { useRef, useState, type FormEvent } from "react";
import { Form } from "react-router";
import { GaugeBar } from "~/gauge/soon";
import { Pad } from "~/look/pad";
import type { Phase, ReadingBody } from "~core/fact";
import type { Worksheet } from "~core/measure";
import { lengthText, type LengthUnit, type Nm } from "~core/quantity";
import type { Meaning } from "~core/reading";
import type { FormAnswer } from "~/view/form-answer";
import { Question } from "./question";
import { readTyped, whatIsRead, type Conditions } from "./typed";

interface Props {
  sheet: Worksheet;
  phase: Phase;
  unit: LengthUnit;
  conditions: Conditions;
  /** For the form that works before the script has loaded. */
  readingId: string;
  actionData: FormAnswer | undefined;
  onStore: (body: ReadingBody) => void;
}

/** A reading typed, or sent by a gauge that types into the field that waits and ends with Enter. */
export function TypedEntry({ sheet, phase, unit, conditions, readingId, actionData, onStore }: Props) {
  // What is typed stays in the field alone: nothing is drawn for a digit.
  const field = useRef<HTMLInputElement>(null);
  const typed = (): string => field.current?.value ?? "";
  const sent = actionData?.intent === "read" ? actionData : undefined;
  const [problem, setProblem] = useState(sent?.problems?.value ?? "");
  const [asked, setAsked] = useState<{ length: Nm; meanings: Meaning[] } | null>(null);
  const [pad, setPad] = useState(false);
  /** What was stored as something else than its digits say. */
  const [taken, setTaken] = useState("");
  const changed = (): void => {
    setTaken("");
    setProblem("");
    setAsked(null);
  };
  const put = (text: string): void => {
    if (field.current) field.current.value = text;
    // To ask for what is there already has the page laid out first.
    if (document.activeElement !== field.current) field.current?.focus();
    changed();
  };
  const stored = (body: ReadingBody): void => {
    const digits = typed().trim();
    onStore(body);
    put("");
    if (body.unit === "thou" && /^\d+$/.test(digits) && body.reading.kind === "single")
      setTaken(`${digits} is taken as ${lengthText(body.reading.value, "in")}.`);
  };
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    const read = readTyped(typed(), unit, sheet, phase, false, conditions);
    if (read.ok) return stored(read.body);
    setProblem(read.asked ? "" : read.problem);
    setAsked(read.asked ?? null);
  };
  return (
    <Form method="post" onSubmit={submit} noValidate>
      <input type="hidden" name="intent" value="read" />
      <input type="hidden" name="id" value={readingId} />
      <input type="hidden" name="phase" value={phase} />
      <input type="hidden" name="unit" value={unit} />
      <label htmlFor="reading-value" className="stamp mb-1 block">
        Reading in {unit}
      </label>
      <div className="flex gap-2">
        <input
          id="reading-value"
          ref={field}
          name="value"
          autoFocus
          autoComplete="off"
          inputMode="decimal"
          placeholder={unit === "mm" ? "1.09" : ".043"}
          defaultValue={sent?.typed?.value ?? ""}
          onChange={changed}
          data-nominal={middleOf(sheet.applied.spec) ?? undefined}
          data-awaits
          className={`input h-16 min-w-0 grow text-3xl font-bold ${problem ? "input-error" : ""}`}
          aria-invalid={problem ? true : undefined}
          aria-describedby={problem ? "reading-problem" : undefined}
        />
        <button
          type="button"
          className="btn h-16 w-14 px-0"
          aria-pressed={pad}
          aria-label="Number pad"
          onClick={() => setPad(!pad)}
        >
          <Grid3x3 size={26} />
        </button>
        <button className="btn btn-primary h-16 text-xl">
          Store <kbd className="key">Enter</kbd>
        </button>
      </div>
      <div className="mt-2">
        <GaugeBar only="serial" />
      </div>
      {pad && <Pad onKey={(key) => put(typed() + key)} onDelete={() => put(typed().slice(0, -1))} />}
      {problem && (
        <p id="reading-problem" role="alert" className="text-error mt-1 font-semibold">
          {problem}
        </p>
      )}
      {taken && (
        <p role="status" className="mt-1" data-taken>
          {taken}
        </p>
      )}
      {asked && (
        <Question
          what={whatIsRead(sheet)}
          length={asked.length}
          unit={unit}
          meanings={asked.meanings}
          onAnswer={(meant, meantIn) => {
            const read = readTyped(typed(), unit, sheet, phase, true, conditions);
            if (read.ok) stored({ ...read.body, reading: { kind: "single", value: meant }, unit: meantIn });
          }}
        />
      )}
    </Form>
  );
}
