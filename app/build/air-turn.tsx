import { FaceMap } from "~/look/face-map";
import { SayForm } from "~/say/say-form";
import { useSay } from "~/say/use-say";
import { useJobView } from "~/view/view";
import { AIR, isKind, wordsOf, type AirResult } from "~core/fact";
import { measureText, parseMeasure, pascalsOf } from "~core/quantity";
import { airResult, type Asked } from "~core/build";
import type { AirCheck } from "~core/book";
import { askBench } from "~/gauge/bench";
import { useState } from "react";
import { Large, useGo } from "./large";

/** An element tried with air at its port: heard, or read as pressure lost over seconds. */
export function AirTurn({ turn }: { turn: Asked }) {
  const { applied, job } = useJobView();
  const say = useSay();
  const check = applied.scoped.airChecks?.find(({ element }) => element === turn.subject);
  const mate = applied.present.parts.find(({ id }) => id === check?.needs);
  const pressure = check ? measureText(check.pressure) : "";
  useGo(
    () => say({ kind: "air", element: turn.subject, result: "holds", pressure, how: "heard", note: "" }),
    {
      n: () => say({ kind: "air", element: turn.subject, result: "leaks", pressure, how: "heard", note: "" }),
    },
  );
  if (!check) return null;
  const { lost } = check;
  return (
    <>
      <span className="stamp quiet">Air, {pressure}, hands off the piston</span>
      <Large>
        {turn.subject.toUpperCase()}: {check.port}
      </Large>
      <p className="text-2xl">
        Wanted: {check.expect}
        {check.hiss && `; ${check.hiss} belongs there`}
      </p>
      {check.at && (
        <div className="max-w-72">
          <FaceMap
            group={{ name: check.port, places: [{ at: check.at }] }}
            next={0}
            isOn={() => false}
            isFull={() => true}
            isDashed={() => false}
            words={() => `, ${check.port}`}
            sign={() => "air"}
          />
        </div>
      )}
      {mate && <p className="text-lg font-semibold">Only counts with the {mate.name} on it.</p>}
      {turn.answer === "not so" && (
        <p role="alert" className="text-error text-2xl font-semibold">
          It {turn.words}. {turn.remedy}
        </p>
      )}
      <SayForm
        kind="air"
        fixed={{ element: turn.subject, pressure, how: "heard" }}
        className="mt-3 flex flex-wrap gap-2"
      >
        {() =>
          wordsOf(AIR).map(([code, words]) => (
            <button
              key={code}
              name="result"
              value={code}
              className={`btn btn-lg touch ${code === "holds" ? "btn-primary" : ""}`}
            >
              {words[0]?.toUpperCase()}
              {words.slice(1)}
              {code === "holds" && <kbd className="key">d</kbd>}
              {code === "leaks" && <kbd className="key">n</kbd>}
            </button>
          ))
        }
      </SayForm>
      {lost && (
        <SayForm
          kind="air"
          fixed={{ element: turn.subject, pressure, how: "read", over: measureText(lost.over) }}
          className="mt-3 flex flex-wrap items-end gap-2"
        >
          {(problems) => (
            <>
              <label className="flex items-center gap-2 text-lg">
                Lost in {measureText(lost.over)}
                <input
                  name="lost"
                  className={`input touch w-36 text-xl ${problems.lost ? "input-error" : ""}`}
                  aria-label={`Lost in ${measureText(lost.over)}`}
                  placeholder={lost.pressure.unit}
                  inputMode="decimal"
                />
              </label>
              <button className="btn touch">Keep</button>
              <Rig check={check} tries={job.live.filter((fact) => isKind(fact, "air")).length} />
              <span className="quiet self-center">at most {measureText(lost.pressure)}</span>
              {problems.lost && (
                <p role="alert" className="text-error w-full font-semibold">
                  {problems.lost}
                </p>
              )}
            </>
          )}
        </SayForm>
      )}
    </>
  );
}

/** The bench’s simulated rig: a regulator, a gauge and a stopwatch. What was wrong may be mended the next time it is tried. */
function Rig({ check, tries }: { check: AirCheck; tries: number }) {
  const { number } = useJobView();
  const say = useSay();
  const [problem, setProblem] = useState("");
  const { element, lost } = check;
  if (!lost) return null;
  const ask = async (): Promise<void> => {
    const tried = await askBench<{ result: AirResult; lost: number }>("air", {
      what: `${number} ${element} ${tries}`,
      pressure: pascalsOf(check.pressure),
      allowed: pascalsOf(lost.pressure),
    });
    setProblem(tried ? "" : "The simulated rig does not answer; type what yours says.");
    if (!tried) return;
    const read = parseMeasure(`${Math.round(tried.lost / 1000)} kPa`, "pressure");
    if (!read.ok) return;
    const told = { result: tried.result, lost: measureText(read.measure), over: measureText(lost.over) };
    const pressure = measureText(check.pressure);
    say({ kind: "air", element, ...told, result: airResult(check, told), pressure, how: "read", note: "" });
  };
  return (
    <>
      <button type="button" className="btn touch" onClick={() => void ask()}>
        Simulated rig
      </button>
      {problem && (
        <p role="alert" className="text-error w-full font-semibold">
          {problem}
        </p>
      )}
    </>
  );
}
