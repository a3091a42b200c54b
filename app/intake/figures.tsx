import { figuresFrom } from "~/look/source";
import { useInside } from "~/door/inside";
import { GaugeBar } from "~/gauge/soon";
import { useJobView } from "~/view/view";
import { Readings } from "~/reading/readings";
import { Field } from "~/look/field";
import { VerdictMark } from "~/look/mark";
import { fieldWaits } from "~/measure/entry";
import { measurementWords, specWords } from "~core/book";
import { asFound, ruleOf, type Figure as OneFigure } from "~core/measure";
import { wordsOf, CANNOT } from "~core/fact";
import { lengthText, plusMinusText, roundedText } from "~core/quantity";
import { isEnough, isSpread } from "~core/reading";
import { SayForm } from "~/say/say-form";

/** The figures the book wants before the unit is opened; they are what the work is held against afterwards. */
export function Figures() {
  const { job, applied } = useJobView();
  const { house } = useInside();
  const wanted = asFound(job, applied, ruleOf(job, house));
  const done = wanted.filter(isTaken);
  const next = wanted.find((one) => !done.includes(one));
  return (
    <section className="plate p-4" aria-label="As found">
      <h2 className="text-xl font-bold">
        As found <span className="quiet text-base font-normal">{`${done.length} of ${wanted.length}`}</span>
      </h2>
      {!job.closed && wanted.some(({ kind }) => kind === "chain") && <GaugeBar />}
      {wanted.length === 0 && <p>The book wants no figure from this depth of work before opening.</p>}
      <ul>
        {wanted.map((one) => (
          <Figure key={`${one.kind} ${one.id}`} one={one} open={one === next} />
        ))}
      </ul>
      <p className="quiet mt-2 text-sm">
        {figuresFrom(applied.book)}. Line pressure with the engine running on a lift: follow the lift’s and
        the vehicle’s procedure, stall at most as long as the book says, nobody in front.
      </p>
    </section>
  );
}

/** A figure is taken when it was said, or read as often as a verdict wants. */
const isTaken = (one: OneFigure): boolean =>
  one.said !== null || (one.kind === "chain" && one.readings.length > 0 && isEnough(one.assessment));

export function Figure({ one, open }: { one: OneFigure; open: boolean }) {
  const { job, unit } = useJobView();
  const isChain = one.kind === "chain";
  const name = isChain ? one.applied.chain.name : one.measurement.name;
  const condition = isChain ? one.applied.chain.read.how : one.measurement.condition;
  const spec = isChain ? specWords(one.applied, unit) : measurementWords(one.measurement, unit);
  return (
    <li className="border-base-300 border-t py-2" data-figure={one.id} data-taken={isTaken(one)}>
      <details open={open}>
        <summary className="flex min-h-[46px] cursor-pointer flex-wrap items-center gap-x-3">
          <span className="grow leading-tight">
            <b className="text-lg">{name}</b>
            <span className="quiet block text-sm">
              {spec}
              {condition && `; ${condition}`}
            </span>
          </span>
          <Found one={one} />
        </summary>
        {isChain && (
          <Readings
            readings={one.readings}
            marks={one.assessment.marks}
            unit={unit}
            closed={job.closed !== null}
          />
        )}
        {!job.closed && (isChain ? <ReadChain one={one} /> : <Say one={one} />)}
      </details>
    </li>
  );
}

/** What was found, as a mark and words: inside, outside, said instead, or nothing yet. */
function Found({ one }: { one: OneFigure }) {
  const { unit } = useJobView();
  if (one.kind === "chain" && one.readings.length > 0) {
    const { estimate, verdict } = one.assessment;
    const text = estimate
      ? isSpread(estimate)
        ? plusMinusText(estimate.mean, estimate.expanded, unit)
        : roundedText(estimate.mean, unit)
      : one.readings
          .map(({ fact: { body } }) =>
            body.reading.kind === "single" ? lengthText(body.reading.value, unit) : "",
          )
          .join(", ");
    return (
      <span className="flex items-center gap-2 text-lg" data-found>
        <b>{text}</b> <VerdictMark verdict={verdict} unit={unit} />
      </span>
    );
  }
  const said = one.said?.body;
  if (!said) return <span className="quiet">not yet</span>;
  const verdict = one.kind === "measurement" ? one.verdict : null;
  return (
    <span className="text-lg" data-found>
      <b>{said.text ?? CANNOT.words[said.cannot]}</b>
      {verdict && verdict !== "not stated" && (
        <span className={verdict === "outside" ? "text-error font-bold" : "text-success font-bold"}>
          {" "}
          {verdict === "outside" ? "✕ outside" : "✓ inside"}
        </span>
      )}
    </span>
  );
}

function ReadChain({ one }: { one: Extract<OneFigure, { kind: "chain" }> }) {
  const { unit, applied } = useJobView();
  const { chain } = one.applied;
  return (
    <>
      <SayForm
        kind="reading"
        fixed={{ chain: chain.id, unit, method: chain.read.with[0] ?? "dial" }}
        className="flex items-start gap-3"
      >
        {(problems) => (
          <>
            <div className="w-44">
              <Field
                label={`Reading, ${unit}`}
                name="value"
                inputMode="decimal"
                autoComplete="off"
                problem={problems.value}
                {...fieldWaits(chain, undefined, undefined, applied)}
              />
            </div>
            <button className="btn touch mt-6">Take</button>
            <span className="quiet mt-6 text-sm">
              with {chain.read.with.join(", ")}
              {chain.read.places && `; ${chain.read.places.join(", ")}`}
            </span>
          </>
        )}
      </SayForm>
      <Cannot of="chain" id={one.id} />
    </>
  );
}

function Say({ one }: { one: Extract<OneFigure, { kind: "measurement" }> }) {
  return (
    <>
      <SayForm kind="figure" fixed={{ of: "measurement", id: one.id }} className="flex items-start gap-3">
        {(problems) => (
          <>
            <div className="w-44">
              <Field label="Found" name="text" autoComplete="off" problem={problems.text} />
            </div>
            <button className="btn touch mt-6">Keep</button>
          </>
        )}
      </SayForm>
      <Cannot of="measurement" id={one.id} />
    </>
  );
}

/** Why there is no figure: recorded as what it is. */
function Cannot({ of, id }: { of: "chain" | "measurement"; id: string }) {
  return (
    <details>
      <summary className="touch quiet flex cursor-pointer items-center underline underline-offset-4">
        No figure can be taken
      </summary>
      <SayForm kind="figure" fixed={{ of, id }} className="flex flex-wrap gap-2 pb-2">
        {() =>
          wordsOf(CANNOT).map(([why, words]) => (
            <button key={why} name="cannot" value={why} className="btn touch">
              {words}
            </button>
          ))
        }
      </SayForm>
    </details>
  );
}
