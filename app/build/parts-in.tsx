import { useContext, useEffect } from "react";
import { FeatureDrawing } from "~/look/feature";
import { targetOf } from "~/scan/code";
import { onScan } from "~/scan/heard";
import { Undecided } from "~/choose/undecided";
import { useJobView } from "~/view/view";
import { useSay } from "~/say/use-say";
import { placeName } from "~/teardown/places";
import { partNameIn } from "~core/book";
import { IN_UNIT, ON_BENCH, type FactBody, type Job } from "~core/fact";
import type { PartState } from "~core/inspect";
import { piecesOf } from "~core/pack";
import type { Build, BuildStep } from "~core/build";
import { Supply, whereNew } from "./supply";

/** What goes in: where it lies, whether it is clean, new or used again; which way, on what, with what; its twin beside it. */
export function PartsIn({ one, build }: { one: BuildStep; build: Build }) {
  const { number, job } = useJobView();
  const say = useSay();
  // A part’s label read by the scanner puts it in, where it belongs in this step.
  useEffect(() =>
    onScan((code) => {
      const target = targetOf(code);
      if (target?.job !== number || target.kind !== "part" || job.closed) return false;
      const state = one.parts.find(({ part }) => part.id === target.part);
      if (!state) return false;
      for (const body of putIn(state, job)) say(body);
      return true;
    }),
  );
  if (one.parts.length === 0) return null;
  return (
    <ul className="mt-3" aria-label="What goes in">
      {one.parts.map((state) => (
        <PartIn key={state.part.id} state={state} one={one} build={build} />
      ))}
    </ul>
  );
}

/** A part that goes in, the new one where the old one is not used again. */
function putIn({ part, is }: Pick<PartState, "part" | "is">, job: Job): FactBody[] {
  const fresh = (is === "replace" || is === "upgrade") && !job.renewed.has(part.id);
  return [
    ...(fresh ? [{ kind: "renewed", parts: [part.id], there: true } satisfies FactBody] : []),
    { kind: "lies", things: [part.id], place: IN_UNIT },
  ];
}

function PartIn({ state: { part, is }, one, build }: { state: PartState; one: BuildStep; build: Build }) {
  const { job, applied } = useJobView();
  const say = useSay();
  const thing = build.bench.things.get(part.id);
  const fit = one.step.fit?.find((each) => each.part === part.id);
  const sat = thing?.howItSat;
  const isIn = thing?.place === IN_UNIT;
  const goes = is === "replace" || is === "upgrade";
  const isNew = job.renewed.has(part.id);
  const pieces = piecesOf(applied.present.packs, part);
  const fresh = whereNew(useContext(Supply), part.number);
  const lies = [
    goes ? (isNew ? "new" : ["new one to go in", fresh].filter(Boolean).join(", ")) : "used again",
    ...(thing && !isIn && !goes ? [placeName(job, thing.place)] : []),
    ...(thing && !isIn && !goes && thing.state !== "clean" && thing.state !== "bagged"
      ? ["not clean yet"]
      : []),
  ];
  return (
    <li
      className="border-base-300 flex items-center gap-3 border-t py-1.5"
      data-part={part.id}
      data-in={isIn}
    >
      <div className="grow leading-tight">
        <b className="text-lg">{part.name}</b>
        {pieces > 1 && <b> × {pieces}</b>}
        <Undecided entry={part} />
        <span className="quiet block text-sm">
          {part.number} · {lies.join(" · ")}
          {part.oneTime && " · never used again"}
        </span>
        {fit && (
          <p className="flex items-center gap-2 text-lg">
            {fit.shows && <FeatureDrawing shows={fit.shows} className="h-9 w-12" />}
            {[fit.round, fit.lube, fit.with && `with ${fit.with}`].filter(Boolean).join(" · ")}
          </p>
        )}
        {sat?.body.way && !fit?.round && (
          <p>
            Came out {sat.body.way} ({sat.by})
          </p>
        )}
        {fit?.round && sat?.body.way && sat.body.way !== fit.round && (
          <p className="text-warning font-semibold">
            Came out {sat.body.way} ({sat.by}); the book has it {fit.round}.
          </p>
        )}
        {(part.lookAlikes ?? []).map(({ part: other, tell }) => (
          <p key={other} className="text-sm">
            Not the {partNameIn(applied.book, other)}: {tell}.
          </p>
        ))}
      </div>
      {!job.closed && one.at !== "done" && one.at !== "skipped" && (
        <button
          type="button"
          aria-pressed={isIn}
          className={`btn touch min-w-16 ${isIn ? "btn-primary" : ""}`}
          onClick={() => {
            if (isIn) say({ kind: "lies", things: [part.id], place: ON_BENCH });
            else for (const body of putIn({ part, is }, job)) say(body);
          }}
        >
          In
        </button>
      )}
    </li>
  );
}
