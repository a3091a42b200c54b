import { AlertTriangle, Ban } from "lucide-react";
import { useRef, useState } from "react";
import { Link } from "react-router";
import { useGo } from "~/build/large";
import { clockWords } from "~/build/use-moment";
import { useSay } from "~/say/use-say";
import { useJobView } from "~/view/view";
import type { Procedure } from "~core/book";
import type { Happened } from "~core/fact";
import type { Run } from "~core/procedure";
import { limitsText, parseMeasure } from "~core/quantity";
import type { Side } from "~store/here";
import { Lines } from "./lines";

interface Props {
  procedure: Procedure;
  run: Run;
  side: Side;
  /** Whether what is due is this end’s to do. */
  mine: boolean;
  now: number;
  /** Names of what must be proven before the engine may be started. */
  first: readonly string[];
  /** Why it waits for the other end; empty where it does not. */
  alone: string;
  /** The server is not reached: what is said goes there later, and the other end does not see it. */
  away: boolean;
  /** Nobody tells but whoever stands there. */
  byHand: boolean;
  onTell: (did: Happened) => void;
}

/** What this end does now, or waits for: one line that is read from two metres, and one button. */
export function RunNow(props: Props) {
  const { run, alone, away } = props;
  const { job } = useJobView();
  if (job.closed) return <p className="plate p-5 text-xl">The job is closed.</p>;
  return (
    <>
      {(alone || away) && (
        <p role="alert" className="border-error bg-base-100 border-l-8 p-3 text-2xl font-bold">
          {away
            ? "This tablet does not reach the server: the other end does not see what is said here."
            : alone}
        </p>
      )}
      {run.at === "going" ? run.over ? <Over {...props} /> : <Turn {...props} /> : <Beginning {...props} />}
    </>
  );
}

const BUTTON = "btn btn-primary touch mt-4 h-20 w-full text-3xl";
const BOX = "rounded border-4 p-5";

/** Before it is begun, after it was stopped, missed or done. */
function Beginning({ procedure, run, first, onTell }: Props) {
  const { number } = useJobView();
  const may = run.at !== "done" && run.may && first.length === 0;
  useGo(may ? () => onTell("begun") : undefined);
  if (run.at === "done")
    return (
      <section aria-label="Now" className={`${BOX} border-success`}>
        <p className="figure text-[2.8rem] leading-tight">Done</p>
        <p className="text-xl">
          {run.counted.length} answers kept{run.run > 1 && `, begun ${run.run} times`}.
        </p>
        <Link to={`/jobs/${number}/prove`} className={BUTTON}>
          To what is next
        </Link>
        <button type="button" className="btn touch mt-2" onClick={() => onTell("begun")}>
          Run it again
        </button>
      </section>
    );
  return (
    <section
      aria-label="Now"
      aria-live="polite"
      className={`${BOX} ${may ? "border-primary" : "border-warning"}`}
    >
      <span className="stamp quiet">
        {run.at === "missed"
          ? "The window passed: begin anew"
          : run.at === "stopped"
            ? "Stopped: begin anew"
            : "Before it begins"}
      </span>
      <p className="figure text-[2.6rem] leading-tight">
        {first.length > 0
          ? "Not yet"
          : run.at === "missed"
            ? (procedure.missed ?? "Let it cool")
            : "Ready to begin?"}
      </p>
      {first.length > 0 && (
        <p className="text-xl" data-comes-first={first.length}>
          Comes first: {first.slice(0, 4).join(" · ")}
          {first.length > 4 && ` and ${first.length - 4} more`}
        </p>
      )}
      <Lines lines={run.lines} />
      {run.why && (
        <p className="mt-2 text-xl font-semibold first-letter:uppercase" data-why>
          {run.why}.
        </p>
      )}
      <button type="button" className={BUTTON} disabled={!may} onClick={() => onTell("begun")}>
        Begin <kbd className="key">d</kbd>
      </button>
    </section>
  );
}

/** The fluid is warmer than it may be. */
function Over({ procedure, onTell }: Props) {
  useGo(() => onTell("missed"));
  return (
    <section aria-label="Now" role="alert" className={`${BOX} border-error`}>
      <span className="stamp text-error">The window has passed</span>
      <p className="figure text-[2.8rem] leading-tight">{procedure.missed ?? "Let it cool, begin anew."}</p>
      {procedure.window && (
        <p className="text-2xl">Wanted: {limitsText(procedure.window.from, procedure.window.to)}.</p>
      )}
      <button type="button" className={BUTTON} onClick={() => onTell("missed")}>
        Done so, begin anew <kbd className="key">d</kbd>
      </button>
    </section>
  );
}

function Turn(props: Props) {
  const { procedure, run, side, mine, now } = props;
  const { turn, behind } = run;
  if (!turn) return null;
  if (mine) return <Mine key={turn.id} {...props} />;
  const next = procedure.turns.slice(behind + 1).find(({ who }) => who === side);
  return (
    <section
      aria-label="Now"
      aria-live="polite"
      className={`${BOX} border-base-300`}
      data-waits-for={turn.who}
    >
      <span className="stamp quiet">{turn.who === "seat" ? "The seat now" : "The lift now"}</span>
      <p className="quiet text-[2rem] leading-tight">{turn.say}</p>
      {run.until !== null && (
        <p className="figure mt-2 text-[4.5rem] leading-none" data-clock suppressHydrationWarning>
          {clockWords(run.until - now)}
        </p>
      )}
      <span className="stamp quiet mt-4 block">{next ? "Then you" : "Nothing more for you"}</span>
      <p className="figure text-[2.4rem] leading-tight">{next?.say}</p>
    </section>
  );
}

/** What this end does now. */
function Mine({ procedure, run, now, alone, byHand, onTell }: Props) {
  const { applied } = useJobView();
  const say = useSay();
  const { turn, until } = run;
  const [amount, setAmount] = useState("");
  const [problem, setProblem] = useState("");
  const field = useRef<HTMLInputElement>(null);
  const holds = turn?.hold !== undefined && run.held === null;
  const may = run.may && alone === "";
  const done = (): void => {
    if (turn?.amount && amount.trim()) {
      const read = parseMeasure(amount, "volume", applied.scoped.fluid?.fills[0]?.amount.unit);
      if (!read.ok) {
        setProblem(`${read.problem}: ${read.remedy}.`);
        field.current?.focus();
        return;
      }
      const out = read.measure.figure.startsWith("-");
      const figure = read.measure.figure.replace("-", "");
      say({
        kind: "filled",
        amount: `${figure} ${read.measure.unit}`,
        way: out ? "out" : "in",
        when: procedure.name,
      });
    }
    onTell("done");
  };
  useGo(may ? done : undefined);
  if (!turn) return null;
  const caution = applied.present.cautions?.find(({ id }) => id === turn.caution);
  return (
    <section
      aria-label="Now"
      aria-live="polite"
      className={`${BOX} ${may ? "border-primary" : "border-warning"}`}
      data-mine={turn.id}
    >
      <span className="stamp quiet">{turn.who === "seat" ? "You, in the seat" : "You, under the lift"}</span>
      <p className="figure text-[2.8rem] leading-tight">{turn.say}</p>
      {turn.not && (
        <p className="mt-1 flex items-center gap-2 text-2xl font-semibold">
          <Ban size={28} aria-hidden="true" className="text-error shrink-0" /> Not: {turn.not}
        </p>
      )}
      {caution && (
        <p className="mt-1 flex items-center gap-2 text-xl font-semibold">
          <AlertTriangle size={26} aria-hidden="true" className="text-warning shrink-0" /> {caution.text}
        </p>
      )}
      <Lines lines={run.lines} />
      {until !== null && (
        <p className="figure mt-2 text-[5rem] leading-none" data-clock suppressHydrationWarning>
          {clockWords(until - now)}
        </p>
      )}
      {run.why && until === null && (
        <p className="mt-2 text-xl font-semibold first-letter:uppercase" data-why>
          {run.why}.
        </p>
      )}
      {turn.amount && (
        <label className="mt-3 flex items-center gap-3 text-xl">
          How much went in
          <input
            ref={field}
            className={`input touch w-36 text-2xl ${problem ? "input-error" : ""}`}
            value={amount}
            onChange={({ currentTarget }) => setAmount(currentTarget.value)}
            placeholder={applied.scoped.fluid?.fills[0]?.amount.unit ?? "l"}
            inputMode="decimal"
            aria-label="How much went in"
            aria-invalid={problem ? true : undefined}
          />
          <span className="quiet text-base">out with a minus; empty if none</span>
        </label>
      )}
      {problem && (
        <p role="alert" className="text-error text-xl font-semibold">
          {problem}
        </p>
      )}
      {holds && byHand ? (
        <button
          type="button"
          className={BUTTON}
          disabled={run.lines.some(
            ({ is, of }) => is === "unmet" || (is === "unknown" && (of === "revs" || of === "fluid")),
          )}
          onClick={() => onTell("held")}
        >
          Held from now
        </button>
      ) : (
        <button type="button" className={BUTTON} disabled={!may} onClick={done}>
          Done <kbd className="key">d</kbd>
        </button>
      )}
      {run.held !== null && byHand && (
        <button type="button" className="btn touch mt-2" onClick={() => onTell("broke")}>
          It was not held: from the beginning
        </button>
      )}
    </section>
  );
}
