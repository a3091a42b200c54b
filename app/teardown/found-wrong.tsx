import { SayForm } from "~/say/say-form";
import { useJobView } from "~/view/view";
import { useSay } from "~/say/use-say";
import { wordsOf, FOUND_WRONG } from "~core/fact";
import { versionsOfLookAlikes, type StepState } from "~core/steps";
import { VersionHint } from "./version-hint";

/** What an earlier builder did, or another version left: it can be the cause. */
export function FoundWrong({ state: { parts } }: { state: StepState }) {
  const { job, book } = useJobView();
  const say = useSay();
  if (parts.length === 0) return null;
  const ids = new Set(parts.map(({ id }) => id));
  const noted = job.wrongs.filter(({ body }) => ids.has(body.of));
  return (
    <div className="mt-2">
      {noted.map((fact) => (
        <div key={fact.id} data-wrong={fact.body.what}>
          <p className="flex items-center gap-3 font-semibold">
            <span className="text-error">Found wrong:</span>{" "}
            {parts.find((part) => part.id === fact.body.of)?.name} {FOUND_WRONG.words[fact.body.what]}
            {fact.body.note && `, ${fact.body.note}`} ({fact.by})
            <button
              type="button"
              className="btn btn-ghost touch"
              onClick={() => say({ ...fact.body, there: false })}
            >
              Take back
            </button>
          </p>
          {fact.body.what === "another-versions-part" &&
            versionsOfLookAlikes(
              book,
              parts.find((part) => part.id === fact.body.of) ?? {},
              job.configuration,
            ).map((version) => (
              <VersionHint key={`${version.trait} ${version.value}`} version={version}>
                Its look-alike belongs to:
              </VersionHint>
            ))}
        </div>
      ))}
      <details>
        <summary className="touch quiet flex cursor-pointer items-center underline underline-offset-4">
          Something is wrong here
        </summary>
        <SayForm kind="wrong" className="flex flex-wrap items-end gap-2">
          {(problems) => (
            <>
              <select
                name="of"
                aria-label="Which part"
                className="select touch w-56"
                defaultValue={parts[0]?.id}
              >
                {parts.map(({ id, name }) => (
                  <option key={id} value={id}>
                    {name}
                  </option>
                ))}
              </select>
              <input name="note" aria-label="Note" className="input touch w-56" placeholder="note" />
              {wordsOf(FOUND_WRONG).map(([what, words]) => (
                <button key={what} name="what" value={what} className="btn touch">
                  {words}
                </button>
              ))}
              {problems.what && (
                <p role="alert" className="text-error font-semibold">
                  {problems.what}
                </p>
              )}
            </>
          )}
        </SayForm>
      </details>
    </div>
  );
}
