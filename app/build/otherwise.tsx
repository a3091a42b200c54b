import { v7 as newId } from "uuid";
import { useState } from "react";
import { SayForm } from "~/say/say-form";
import { useSay } from "~/say/use-say";
import { useJobView } from "~/view/view";
import { signedAs, type BuildStep } from "~core/build";
import { SignsFor } from "./signing";

/** Not as the book has it: instead of something it asks, or besides, each with a reason; some things nothing stands for. */
export function Otherwise({ one }: { one: BuildStep }) {
  const { job } = useJobView();
  const say = useSay();
  const [own, anew] = useState(() => `own-${newId().slice(-8)}`);
  const may = [...one.waits, ...one.open].filter(({ bars }) => !bars);
  const signed = one.open.filter((asked) => asked.bars && signedAs(asked) !== null);
  return (
    <div className="grow">
      {one.otherwise.map((fact) => (
        <p key={fact.id} className="flex items-center gap-3" data-otherwise>
          <span className="grow">
            <b>Otherwise:</b> {fact.body.reason} ({fact.by})
          </span>
          {!job.closed && (
            <button
              type="button"
              className="btn btn-ghost touch"
              onClick={() => say({ ...fact.body, there: false })}
            >
              Take back
            </button>
          )}
        </p>
      ))}
      <details>
        <summary className="btn touch">Otherwise than the book …</summary>
        <SayForm
          kind="deviation"
          fixed={{ step: one.step.id }}
          className="mt-2 flex flex-wrap items-end gap-2"
          onSaid={() => anew(`own-${newId().slice(-8)}`)}
        >
          {(problems) => (
            <>
              <select
                name="instead"
                aria-label="What is otherwise"
                className="select touch w-72"
                defaultValue={own}
              >
                {may.map(({ key, name, words }) => (
                  <option key={key} value={key}>
                    {name}
                    {words && `: ${words}`}
                  </option>
                ))}
                <option value={own}>something else</option>
              </select>
              <input
                name="reason"
                aria-label="What was done, and why"
                className="input touch w-72"
                placeholder="what was done, and why"
              />
              <button className="btn touch">Keep</button>
              {problems.reason && (
                <p role="alert" className="text-error w-full font-semibold">
                  {problems.reason}
                </p>
              )}
            </>
          )}
        </SayForm>
        {signed.map((asked) => (
          <SignsFor
            key={asked.key}
            of={signedAs(asked)}
            summary={`${asked.name}, ${asked.words}: a lead signs`}
          />
        ))}
      </details>
    </div>
  );
}
