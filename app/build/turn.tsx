import { Link } from "react-router";
import { FeatureDrawing } from "~/look/feature";
import { SayForm } from "~/say/say-form";
import { useSay } from "~/say/use-say";
import { useJobView } from "~/view/view";
import { IN_UNIT, type FactBody } from "~core/fact";
import { measureText } from "~core/quantity";
import { signedAs, type Asked, type Build, type BuildStep } from "~core/build";
import { AirTurn } from "./air-turn";
import { BallsTurn } from "./balls-turn";
import { CheckButtons } from "./check-buttons";
import { FaceTurn } from "./face-turn";
import { Large, useGo } from "./large";
import { FigureTurn } from "./figure-turn";
import { figurePlace } from "./places";
import { PlatesTurn } from "./plates-turn";
import { SignsFor } from "./signing";
import { clockWords, useSeconds } from "./use-moment";

/** What it waits for, so many at once; the rest is counted. */
const SHOWN = 4;

interface Props {
  one: BuildStep;
  build: Build;
  onDone: () => void;
}

/** What is done now, readable from where the unit stands: the one thing, and what says that it is done. */
export function Turn({ one, build, onDone }: Props) {
  if (one.at === "done") return null;
  const { turn } = one;
  return (
    <section
      aria-label="Now"
      aria-live="polite"
      className={`mt-3 rounded border-4 p-4 ${turn?.answer === "not so" ? "border-error" : turn?.waits ? "border-warning" : "border-primary"}`}
      data-turn={turn?.key ?? "done"}
      data-words={turn?.words}
    >
      {turn ? <Now key={turn.key} turn={turn} one={one} build={build} /> : <Done one={one} onDone={onDone} />}
    </section>
  );
}

function Now({ turn, one, build }: { turn: Asked } & Omit<Props, "onDone">) {
  switch (turn.kind) {
    case "put":
      return <Put one={one} build={build} />;
    case "plates":
      return <PlatesTurn turn={turn} one={one} build={build} />;
    case "balls":
      return <BallsTurn turn={turn} one={one} />;
    case "begin":
      return <Begin turn={turn} one={one} />;
    case "bolts": {
      const face = one.faces.find(({ group }) => group.id === turn.subject);
      return face ? <FaceTurn face={face} /> : null;
    }
    case "check":
      return <Check turn={turn} one={one} />;
    case "air":
      return <AirTurn turn={turn} />;
    case "part":
      return turn.waits ? <Waits one={one} build={build} /> : <NewOne turn={turn} />;
    case "figure":
      return <Figure turn={turn} />;
    case "behind":
    case "soak":
      return <Waits one={one} build={build} />;
  }
}

/** What it waits for; what does not wait goes on meanwhile. */
function Waits({ one: { waits }, build }: Omit<Props, "onDone">) {
  const { number } = useJobView();
  const soaking = build.timers.filter(
    ({ started, soak }) => started && waits.some((one) => one.kind === "soak" && one.subject === soak.id),
  );
  /** The step that begins what nobody has begun. */
  const beginsAt = (soak: string): string | undefined =>
    build.timers.find((timer) => timer.soak.id === soak && !timer.started)?.step.id;
  const ready = Math.max(...soaking.map((timer) => timer.ready ?? 0));
  const now = useSeconds(soaking.length > 0);
  return (
    <>
      <span className="stamp quiet">Waits for</span>
      <ul>
        {waits.slice(0, SHOWN).map(({ key, kind, subject, name, words, remedy }) => (
          <li key={key} className="flex flex-wrap items-center gap-3 py-1" data-waits={key}>
            <span className="grow leading-tight">
              <b className="text-[1.7rem] first-letter:uppercase">{name}</b>
              {kind === "soak" && ready > now && (
                <b className="figure ml-3 text-[2rem]" suppressHydrationWarning>
                  {clockWords(ready - now)}
                </b>
              )}
              <span className="quiet block">{[words, remedy].filter(Boolean).join(". ")}</span>
            </span>
            {kind === "behind" && (
              <Link className="btn touch" to={`?step=${subject}`} replace>
                To that step
              </Link>
            )}
            {kind === "soak" && beginsAt(subject) && (
              <Link className="btn touch" to={`?step=${beginsAt(subject)}`} replace>
                To that step
              </Link>
            )}
            {kind === "part" && (
              <Link className="btn touch" to={`/jobs/${number}/inspect?part=${subject}`}>
                To that part
              </Link>
            )}
          </li>
        ))}
      </ul>
      {waits.length > SHOWN && <p className="quiet text-lg">and {waits.length - SHOWN} more</p>}
    </>
  );
}

function Put({ one, build }: Omit<Props, "onDone">) {
  const say = useSay();
  const plates = new Set(one.plates.flatMap(({ list }) => list.map(({ part }) => part)));
  const out = one.parts.filter(({ part }) => !plates.has(part.id) && build.bench.isOff(part.id));
  const fresh = one.asked.filter(
    ({ kind, subject, answer, waits }) =>
      kind === "part" && answer === "open" && !waits && !plates.has(subject),
  );
  const go = (): void => {
    if (fresh.length > 0) say({ kind: "renewed", parts: fresh.map(({ subject }) => subject), there: true });
    say({ kind: "lies", things: out.map(({ part }) => part.id), place: IN_UNIT });
  };
  useGo(go);
  const next = out[0];
  const fit = next && one.step.fit?.find(({ part }) => part === next.part.id);
  return (
    <>
      <span className="stamp quiet">
        {out.length === 1 ? "Goes in" : `Goes in, ${out.length} parts; first`}
      </span>
      <Large>{next?.part.name}</Large>
      {fit && (
        <p className="flex items-center gap-3 text-2xl">
          {fit.shows && <FeatureDrawing shows={fit.shows} />}
          {[fit.round, fit.lube, fit.with && `with ${fit.with}`].filter(Boolean).join(" · ")}
        </p>
      )}
      <button type="button" className="btn btn-primary btn-lg touch mt-3 w-full text-xl" onClick={go}>
        {out.length === 1 ? "It is in" : `All ${out.length} are in`}
        {fresh.length > 0 && (out.length === 1 ? ", a new one" : `, ${fresh.length} of them new`)}{" "}
        <kbd className="key">d</kbd>
      </button>
    </>
  );
}

function Begin({ turn, one }: { turn: Asked; one: BuildStep }) {
  const say = useSay();
  const { applied } = useJobView();
  const soak = applied.scoped.soaks?.find(({ id }) => id === turn.subject);
  const body: FactBody = { kind: "timer", step: one.step.id, soak: turn.subject, did: "started" };
  useGo(() => say(body));
  return (
    <>
      <span className="stamp quiet">Begin</span>
      <Large>
        {turn.name}
        {soak && <>, {measureText(soak.time)}</>}
      </Large>
      <SayForm
        kind="timer"
        fixed={{ step: one.step.id, soak: turn.subject, did: "started" }}
        className="mt-3"
      >
        {() => (
          <button className="btn btn-primary btn-lg touch w-full text-xl">
            It is in, from now <kbd className="key">d</kbd>
          </button>
        )}
      </SayForm>
    </>
  );
}

function Check({ turn, one }: { turn: Asked; one: BuildStep }) {
  const say = useSay();
  const tell = (said: "yes" | "no") => (): void =>
    say({ kind: "check", step: one.step.id, check: turn.subject, said, note: "" });
  useGo(tell("yes"), { n: tell("no") });
  return (
    <>
      <span className="stamp quiet">{turn.bars ? "Before the work begins" : "See to it"}</span>
      <Large>{turn.name}</Large>
      {turn.answer === "not so" && (
        <p role="alert" className="text-error text-2xl font-semibold">
          Not so. {turn.remedy}
        </p>
      )}
      <div className="mt-3">
        <CheckButtons fixed={{ step: one.step.id, check: turn.subject }} said={turn.fact} />
      </div>
    </>
  );
}

/** A part of which the old one is not used again. */
function NewOne({ turn }: { turn: Asked }) {
  const say = useSay();
  const go = (): void => say({ kind: "renewed", parts: [turn.subject], there: true });
  useGo(go);
  return (
    <>
      <span className="stamp quiet">{turn.words}</span>
      <Large>{turn.name}</Large>
      {turn.remedy && <p className="text-lg">{turn.remedy}</p>}
      <button type="button" className="btn btn-primary btn-lg touch mt-3 w-full text-xl" onClick={go}>
        The new one is in <kbd className="key">d</kbd>
      </button>
    </>
  );
}

function Figure({ turn }: { turn: Asked }) {
  const { number, sheets, applied } = useJobView();
  const measurement = applied.scoped.measurements?.find(({ id }) => id === turn.subject);
  return (
    <>
      <span className="stamp quiet">Read as built</span>
      <Large>{turn.name}</Large>
      <p className={turn.answer === "not so" ? "text-error text-2xl font-semibold" : "text-2xl"}>
        {[turn.remedy, turn.words].filter(Boolean).join(": ")}
      </p>
      {measurement ? (
        <FigureTurn turn={turn} measurement={measurement} />
      ) : (
        <Link
          to={`/jobs/${number}/${figurePlace(sheets, turn.subject)}`}
          className="btn btn-primary btn-lg touch mt-3 w-full text-xl"
        >
          Read it
        </Link>
      )}
      <SignsFor of={signedAs(turn)} summary="Go on without it: a lead signs" />
    </>
  );
}

/** Everything it asks is answered: one large target. */
function Done({ one, onDone }: { one: BuildStep; onDone: () => void }) {
  const say = useSay();
  const go = (): void => {
    say({ kind: "step", step: one.step.id, did: "done", reason: "" });
    onDone();
  };
  useGo(go);
  return (
    <>
      <Large>{one.asked.length > 0 ? "Everything it asks is answered" : one.step.name}</Large>
      <SayForm kind="step" fixed={{ step: one.step.id, did: "done" }} onSaid={onDone} className="mt-3">
        {() => (
          <button className="btn btn-primary btn-lg touch w-full text-xl">
            Done <kbd className="key">d</kbd>
          </button>
        )}
      </SayForm>
    </>
  );
}
