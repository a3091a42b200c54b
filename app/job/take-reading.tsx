import { Grid3x3 } from "lucide-react";
import { useEffect, useRef, useState, type FormEvent } from "react";
import { Form } from "react-router";
import { useInside } from "~/door/inside";
import { Choice } from "~/look/field";
import { Pad } from "~/look/pad";
import { evaluate } from "~core/chain";
import type { MeasuredLink, Phase, ReadingBody, ReadingSet, Worksheet } from "~core/job";
import { plausible } from "~core/pack";
import {
  lengthText,
  nm,
  parseLength,
  parsePressure,
  pressureText,
  type LengthUnit,
  type Nm,
} from "~core/quantity";
import { question, type Meaning, type Reading, type Single } from "~core/reading";
import { MICROMETER_U } from "~core/select";
import { GaugeDock } from "./gauge-dock";
import { inField } from "./job";
import { useSay } from "./say";
import { dialStep, readTyped, usualConditions, type Conditions } from "./typed";

type Way = "gauge" | "type" | "feeler" | "numbers";
const WAYS: { way: Way; words: string; key: string }[] = [
  { way: "gauge", words: "Gauge", key: "g" },
  { way: "type", words: "Type", key: "t" },
  { way: "feeler", words: "Feeler", key: "f" },
  { way: "numbers", words: "Numbers", key: "n" },
];

interface Props {
  sheet: Worksheet;
  phase: Phase;
  set: ReadingSet;
  unit: LengthUnit;
  /** For the form that works before the script has loaded. */
  readingId: string;
  actionData:
    { intent?: string; problems?: Record<string, string>; typed?: Record<string, string> } | undefined;
}

/** Where a reading gets in: by gauge, by typing or a gauge that types, by feeler blades, or by the numbers. */
export function TakeReading({ sheet, phase, set, unit, readingId, actionData }: Props) {
  const { gauge } = useInside();
  const say = useSay();
  const [way, setWay] = useState<Way>("type");
  const [doubt, setDoubt] = useState<{ reading: Single; resolution: Nm } | null>(null);
  const [changed, setChanged] = useState<Partial<Conditions>>({});
  const usual = usualConditions(sheet, phase, set);
  const conditions: Conditions = {
    ...usual,
    ...changed,
    method: methodOf(way, changed.method ?? usual.method),
  };

  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const found = WAYS.find(({ key }) => key === event.key);
      if (!found || inField(event) || event.ctrlKey || event.altKey || event.metaKey) return;
      event.preventDefault();
      if (found.way !== "gauge" || gauge) setWay(found.way);
    };
    document.addEventListener("keydown", onKey);
    return () => document.removeEventListener("keydown", onKey);
  }, [gauge]);

  const store = (reading: Reading, more: Partial<ReadingBody> = {}): void => {
    const { method, state, air } = conditions;
    say({
      kind: "reading",
      chain: sheet.applied.chain.id,
      phase,
      fit: sheet.fit,
      method,
      state,
      reading,
      resolution: dialStep(unit),
      unit,
      ...(method === "air and dial" && air ? { air } : {}),
      ...more,
    });
  };

  return (
    <section className="plate p-3" aria-label="Take a reading">
      <div className="mb-2 flex gap-1" role="group" aria-label="How it is read">
        {WAYS.filter(({ way: one }) => one !== "gauge" || gauge).map(({ way: one, words, key }) => (
          <button
            key={one}
            type="button"
            aria-pressed={one === way}
            className={`btn touch flex-1 px-2 ${one === way ? "btn-secondary" : ""}`}
            onClick={() => setWay(one)}
          >
            {words} <kbd className="key">{key}</kbd>
          </button>
        ))}
      </div>
      {way === "type" && (
        <Typed {...{ sheet, phase, unit, conditions, readingId, actionData }} onStore={(body) => say(body)} />
      )}
      {way === "gauge" && (
        <GaugeDock
          sheet={sheet}
          phase={phase}
          unit={unit}
          onTake={(reading, resolution) => {
            const meanings = question(reading.value, "mm", plausible(sheet.applied));
            if (meanings) setDoubt({ reading, resolution });
            else store(reading, { resolution, unit: "mm" });
          }}
        />
      )}
      {way === "gauge" && doubt && (
        <Doubt
          reading={doubt.reading}
          unit={unit}
          onAnswer={(sure) => {
            if (sure) store(doubt.reading, { resolution: doubt.resolution, unit: "mm" });
            setDoubt(null);
          }}
        />
      )}
      {way === "feeler" && (
        <Feeler sheet={sheet} unit={unit} onStore={(reading, typed) => store(reading, { typed })} />
      )}
      {way === "numbers" && (
        <Numbers sheet={sheet} unit={unit} onStore={(reading, links) => store(reading, { links })} />
      )}
      <ConditionsLine conditions={conditions} onChange={(change) => setChanged({ ...changed, ...change })} />
    </section>
  );
}

function methodOf(way: Way, dial: Conditions["method"]): Conditions["method"] {
  if (way === "feeler") return "feeler";
  if (way === "numbers") return "by the numbers";
  return dial === "hand and dial" ? dial : "air and dial";
}

/** Questions a value that cannot be: the likely meanings are one touch away, and the builder may still insist. */
function Question({
  length,
  unit,
  meanings,
  onAnswer,
}: {
  length: Nm;
  unit: LengthUnit;
  meanings: Meaning[];
  onAnswer: (meant: Nm, unit: LengthUnit) => void;
}) {
  const first = useRef<HTMLButtonElement>(null);
  useEffect(() => first.current?.focus(), []);
  return (
    <div className="border-warning mt-2 rounded border-2 p-3" role="alert">
      <p className="mb-2 text-lg font-semibold">
        {lengthText(length, unit)} cannot be this pack’s clearance.
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
function Doubt({
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

function Typed({
  sheet,
  phase,
  unit,
  conditions,
  readingId,
  actionData,
  onStore,
}: Omit<Props, "set"> & { conditions: Conditions; onStore: (body: ReadingBody) => void }) {
  const field = useRef<HTMLInputElement>(null);
  const sent = actionData?.intent === "read" ? actionData : undefined;
  const [value, setValue] = useState(sent?.typed?.value ?? "");
  const [problem, setProblem] = useState(sent?.problems?.value ?? "");
  const [asked, setAsked] = useState<{ length: Nm; meanings: Meaning[] } | null>(null);
  const [pad, setPad] = useState(false);
  const change = (text: string): void => {
    setValue(text);
    setProblem("");
    setAsked(null);
  };
  const stored = (body: ReadingBody): void => {
    onStore(body);
    setValue("");
    setProblem("");
    setAsked(null);
    field.current?.focus();
  };
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    const read = readTyped(value, unit, sheet, phase, false, conditions);
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
          value={value}
          onChange={(event) => change(event.target.value)}
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
      {pad && (
        <Pad
          onKey={(key) => {
            change(value + key);
            field.current?.focus();
          }}
          onDelete={() => change(value.slice(0, -1))}
        />
      )}
      {problem && (
        <p id="reading-problem" role="alert" className="text-error mt-1 font-semibold">
          {problem}
        </p>
      )}
      {asked && (
        <Question
          length={asked.length}
          unit={unit}
          meanings={asked.meanings}
          onAnswer={(meant, meantIn) => {
            const read = readTyped(value, unit, sheet, phase, true, conditions);
            if (read.ok) stored({ ...read.body, reading: { kind: "single", value: meant }, unit: meantIn });
          }}
        />
      )}
    </Form>
  );
}

/** The thickest blade that passes and the thinnest that does not; one of them may be missing. */
function Feeler({
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
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    const found: typeof problems = {};
    const values: { passes?: Nm; refuses?: Nm } = {};
    const range = plausible(sheet.applied);
    for (const side of ["passes", "refuses"] as const) {
      if (typed[side].trim() === "") continue;
      const parsed = parseLength(typed[side], unit);
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
        ref={name === "passes" ? first : undefined}
        autoFocus={name === "passes"}
        autoComplete="off"
        inputMode="decimal"
        className={`input h-16 w-full text-2xl font-bold ${problems[name] ? "input-error" : ""}`}
        value={typed[name]}
        onChange={(event) => setTyped({ ...typed, [name]: event.target.value })}
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

/** Depth gauges read to a hundredth here: half-width 10 µm, rectangular. */
const DEPTH_U = 10_000 / Math.sqrt(3);

/** Depth to the ring groove, every plate, and the ring, measured one by one. */
function Numbers({
  sheet,
  unit,
  onStore,
}: {
  sheet: Worksheet;
  unit: LengthUnit;
  onStore: (reading: Reading, links: MeasuredLink[]) => void;
}) {
  const groups = [
    {
      id: "depth",
      words: "Depth, piston seated to loaded groove face",
      count: 1,
      sign: 1 as const,
      u: DEPTH_U,
    },
    ...sheet.applied.stack
      .filter(({ role }) => role !== "piston")
      .map((entry, i) => ({
        id: `plate-${i}`,
        words: `${entry.role}${(entry.count ?? 1) > 1 ? `s, all ${entry.count}` : ""}`,
        count: entry.count ?? 1,
        sign: -1 as const,
        u: MICROMETER_U,
      })),
    ...(sheet.applied.series
      ? [{ id: "ring", words: "Snap ring", count: 1, sign: -1 as const, u: MICROMETER_U }]
      : []),
  ];
  const [typed, setTyped] = useState<Record<string, string>>({});
  const [problems, setProblems] = useState<Record<string, string>>({});
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    const found: Record<string, string> = {};
    const links: MeasuredLink[] = [];
    for (const { id, words, count, sign, u } of groups) {
      const values = (typed[id] ?? "").trim().split(/[\s;]+(?=[\d.,])/);
      if (values.length !== count) {
        found[id] =
          count === 1
            ? "measure it"
            : `${count} values with spaces between, got ${values[0] === "" ? 0 : values.length}`;
        continue;
      }
      for (const value of values) {
        const parsed = parseLength(value, unit);
        if (!parsed.ok) found[id] = `${parsed.problem}; ${parsed.remedy}`;
        else links.push({ name: words, sign, value: parsed.length, uncertainty: nm(Math.ceil(u)) });
      }
    }
    if (Object.keys(found).length === 0) {
      const reading = evaluate(links);
      if (question(reading.value, unit, plausible(sheet.applied))) {
        found.depth = `these make ${lengthText(reading.value, unit)}, which cannot be; one of them is off`;
      } else {
        onStore(reading, links);
        setTyped({});
      }
    }
    setProblems(found);
  };
  return (
    <form onSubmit={submit} noValidate className="grid grid-cols-2 gap-x-3 gap-y-2">
      {groups.map(({ id, words }, i) => (
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

/** What belongs to every reading besides its figure; one line that opens. */
function ConditionsLine({
  conditions,
  onChange,
}: {
  conditions: Conditions;
  onChange: (change: Partial<Conditions>) => void;
}) {
  const { method, state, air } = conditions;
  const [typedAir, setTypedAir] = useState<string | null>(null);
  const parsed = typedAir === null ? null : parsePressure(typedAir, "bar");
  const airProblem = parsed && !parsed.ok ? `${parsed.problem}; ${parsed.remedy}` : "";
  const dial = method === "air and dial" || method === "hand and dial";
  const words = [
    method,
    method === "air and dial" && air ? pressureText(air, "bar") : "",
    state.soak,
    `facings ${state.facings}`,
    state.wave ? `wave ${state.wave}` : "",
  ];
  return (
    <details className="mt-1">
      <summary className="touch flex cursor-pointer items-center">
        <span>
          <span className="quiet">Read</span> <b>{words.filter(Boolean).join(" · ")}</b>
        </span>
      </summary>
      <div className="grid grid-cols-2 gap-x-4">
        {dial && (
          <Choice
            label="Lifted by"
            name="method"
            value={method}
            onChange={(value) => onChange({ method: value })}
            options={[
              { value: "air and dial", words: "Air" },
              { value: "hand and dial", words: "Hand" },
            ]}
          />
        )}
        {method === "air and dial" && (
          <div>
            <label htmlFor="air" className="stamp mb-1 block">
              Air
            </label>
            <input
              id="air"
              className={`input touch w-full ${airProblem ? "input-error" : ""}`}
              value={typedAir ?? (air ? pressureText(air, "bar") : "")}
              onChange={(event) => {
                setTypedAir(event.target.value);
                const read = parsePressure(event.target.value, "bar");
                if (read.ok) onChange({ air: read.pressure });
              }}
              aria-describedby="air-hint"
            />
            <p id="air-hint" className={`mb-2 text-sm ${airProblem ? "text-error font-semibold" : "quiet"}`}>
              {airProblem || "Regulated; hands off the piston’s path, eyes covered."}
            </p>
          </div>
        )}
        <Choice
          label="Facings hold"
          name="soak"
          value={state.soak}
          onChange={(soak) => onChange({ state: { ...state, soak } })}
          options={[
            { value: "dry", words: "Dry" },
            { value: "soaked", words: "Soaked" },
          ]}
        />
        <Choice
          label="Facings are"
          name="facings"
          value={state.facings}
          onChange={(facings) => onChange({ state: { ...state, facings } })}
          options={[
            { value: "new", words: "New" },
            { value: "run-in", words: "Run in" },
          ]}
        />
        {state.wave && (
          <Choice
            label="Waved plate"
            name="wave"
            value={state.wave}
            onChange={(wave) => onChange({ state: { ...state, wave } })}
            options={[
              { value: "free", words: "Free" },
              { value: "flat", words: "Pressed flat" },
            ]}
          />
        )}
      </div>
    </details>
  );
}
