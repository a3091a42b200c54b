import { SayForm } from "~/say/say-form";
import { useJobView } from "~/view/view";
import { useSay } from "~/say/use-say";
import { Field } from "~/look/field";
import { readSpeeds } from "~core/diagnose";
import { outcomeWords } from "~core/fact";

/** Input and output speed as a scan tool shows them: what they say of the range, and how fast which element slips. */
export function SpeedsForm() {
  const { job, applied } = useJobView();
  const say = useSay();
  const { present } = applied;
  return (
    <section className="plate mt-3 p-3" aria-label="Speeds read off">
      <h2 className="stamp quiet mb-1">Slip from speeds read off while driving</h2>
      {!job.closed && (
        <SayForm kind="speeds" className="flex flex-wrap items-start gap-3">
          {(problems) => (
            <>
              <div>
                <label htmlFor="speeds-range" className="stamp mb-1 block">
                  Range
                </label>
                <select id="speeds-range" name="range" className="select touch w-24 text-lg" defaultValue="">
                  <option value="" disabled>
                    …
                  </option>
                  {present.ranges.map(({ id }) => (
                    <option key={id}>{id}</option>
                  ))}
                </select>
                {problems.range && (
                  <p role="alert" className="text-error font-semibold">
                    {problems.range}
                  </p>
                )}
              </div>
              <div className="w-40">
                <Field label="Input, rpm" name="input" inputMode="numeric" problem={problems.input} />
              </div>
              <div className="w-40">
                <Field label="Output, rpm" name="output" inputMode="numeric" problem={problems.output} />
              </div>
              <button className="btn touch mt-6">Keep</button>
            </>
          )}
        </SayForm>
      )}
      <ul>
        {job.speeds.map(({ id, body }) => {
          const read = readSpeeds(present, body);
          return (
            <li
              key={id}
              className="border-base-300 flex items-center gap-3 border-t py-1"
              data-speeds={body.range}
            >
              <span className="text-lg font-bold">{body.range}</span>
              <span className="grow leading-snug">
                {body.input} in, {body.output} out: ratio {read?.ratio?.toFixed(3) ?? "none"}, listed{" "}
                {read?.listed.toFixed(3)}.{" "}
                <b>{read?.told ? outcomeWords(read.told.outcome) : "cannot be judged"}</b>
                {read?.told?.outcome === "slips" && (
                  <>
                    : {read.slip} rpm too many at the input. If it is one alone:{" "}
                    {read.elements.map(({ name, slip }) => `${name} passes ${slip} rpm`).join(", ")}.
                  </>
                )}
              </span>
              {!job.closed && (
                <button type="button" className="btn touch" onClick={() => say({ ...body, there: false })}>
                  Take back
                </button>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
