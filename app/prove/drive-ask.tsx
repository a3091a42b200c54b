import { useState, type FormEvent } from "react";
import { useSay } from "~/say/use-say";
import { useJobView } from "~/view/view";
import { IN_RANGE } from "~core/diagnose";
import { ON_DRIVE, OUTCOMES, type OnDrive } from "~core/fact";
import { slipRead, type DriveAsk } from "~core/prove";
import { askVehicle } from "./ask-vehicle";

/** One thing asked of whoever drives: how it is, and where a range is not right, what it does. */
export function DriveAskRow({
  ask,
  drive,
  said,
}: {
  ask: DriveAsk;
  drive: number;
  said: OnDrive | undefined;
}) {
  const { job, applied } = useJobView();
  const say = useSay();
  const [asking, setAsking] = useState(false);
  const { of, name, brought } = ask;
  const isRange = of.startsWith("range:");
  const answers: readonly OnDrive[] = brought ? ["cured", "better", "same"] : ["fine", "same", "new"];
  const outcome = job.driven.get(`${drive} ${of}`)?.body.outcome;
  const speeds = isRange ? job.driveSpeeds.get(`${drive} ${name}`)?.body : undefined;
  const tell = (one: OnDrive): void => {
    say({ kind: "driven", drive, of: [of], said: one, note: "" });
    setAsking(isRange && (one === "same" || one === "new"));
  };
  const slip = slipRead(job, applied, drive, of);
  return (
    <li
      className="border-base-300 flex flex-wrap items-center gap-2 border-t py-1"
      data-ask={of}
      data-said={said}
    >
      <span className="grow text-lg first-letter:uppercase">
        {isRange ? (
          <>
            Range <b>{name}</b>
          </>
        ) : (
          name
        )}
        {outcome && <b className="text-error ml-2">{OUTCOMES.words[outcome]}</b>}
        {speeds && (
          <span
            className={`block text-sm ${slip ? "text-error font-semibold" : "quiet"}`}
            data-slip={slip !== ""}
          >
            {speeds.input} rpm in, {speeds.output} out: {slip || "as listed"}
          </span>
        )}
      </span>
      {isRange && hasRatio(applied) && (
        <Speeds range={name} onRead={(read) => say({ kind: "drive-speeds", drive, range: name, ...read })} />
      )}
      {answers.map((one) => (
        <button
          key={one}
          type="button"
          aria-pressed={said === one}
          className={`btn touch ${said === one ? (one === "fine" || one === "cured" ? "btn-secondary" : "btn-error") : ""}`}
          onClick={() => tell(one)}
        >
          {ON_DRIVE.words[one]}
        </button>
      ))}
      {(asking || (isRange && (said === "same" || said === "new"))) && (
        <div className="flex w-full flex-wrap gap-2 pb-1" role="group" aria-label={`What it does in ${name}`}>
          {IN_RANGE.filter((one) => one !== "fine").map((code) => (
            <button
              key={code}
              type="button"
              aria-pressed={outcome === code}
              className={`btn touch ${outcome === code ? "btn-error" : ""}`}
              onClick={() =>
                say({
                  kind: "driven",
                  drive,
                  of: [of],
                  said: said ?? "new",
                  outcome: code,
                  note: "",
                })
              }
            >
              {OUTCOMES.words[code]}
            </button>
          ))}
        </div>
      )}
    </li>
  );
}

/** Between two pulleys the ratio moves: speeds say nothing of slip there. */
const hasRatio = ({ present }: ReturnType<typeof useJobView>["applied"]): boolean =>
  !present.gearSets.some(({ kind }) => kind === "pulley pair");

interface Turning {
  input: number;
  output: number;
}

/** Speeds of input and output in a range: typed as they are read, or told by the vehicle. */
function Speeds({ range: id, onRead }: { range: string; onRead: (read: Turning) => void }) {
  const { number, applied } = useJobView();
  const [problem, setProblem] = useState("");
  const ask = async (): Promise<void> => {
    const range = applied.present.ranges.find((one) => one.id === id);
    if (!range) return;
    const told = await askVehicle(number, {
      speeds: {
        ratio: range.ratio,
        elements: range.applied,
        of: applied.present.elements.filter(({ outside }) => !outside).map((one) => one.id),
      },
    });
    setProblem(told?.speeds ? "" : "The vehicle does not answer: type both speeds.");
    if (told?.speeds) onRead(told.speeds);
  };
  const typed = (event: FormEvent<HTMLFormElement>): void => {
    event.preventDefault();
    const form = event.currentTarget;
    const [input = NaN, output = NaN] = ["input", "output"].map((name) => {
      const field = form.elements.namedItem(name) as HTMLInputElement;
      return /^\d{1,5}$/.test(field.value.trim()) ? Number(field.value) : NaN;
    });
    const fits = input >= 1 && input <= MOST && output >= 0 && output <= MOST;
    setProblem(fits ? "" : "Two whole speeds in turns a minute, such as 1800 and 1275.");
    if (!fits) return;
    onRead({ input, output });
    form.reset();
  };
  return (
    <details className="max-sm:w-full">
      <summary className="touch flex cursor-pointer items-center px-2 underline underline-offset-4">
        Speeds
      </summary>
      <form
        onSubmit={typed}
        noValidate
        className="flex flex-wrap items-center gap-2 py-1"
        aria-label={`Speeds in ${id}`}
      >
        {(["input", "output"] as const).map((name) => (
          <label key={name} className="flex items-center gap-1">
            {name}
            <input name={name} inputMode="numeric" className="input touch w-24" autoComplete="off" />
          </label>
        ))}
        <button className="btn touch">Keep</button>
        <button type="button" className="btn touch" onClick={() => void ask()}>
          From the vehicle
        </button>
        {problem && (
          <p role="alert" className="text-error w-full font-semibold">
            {problem}
          </p>
        )}
      </form>
    </details>
  );
}

const MOST = 20_000;
