import { SayForm } from "~/say/say-form";
import { isKind, type Fact } from "~core/fact";

/** So, not so, or not to be seen: one of the three, never nothing. */
export function CheckButtons({
  kind = "check",
  fixed,
  said,
  small = false,
}: {
  kind?: "check" | "proof";
  /** What is answered: a step’s check, a proof. */
  fixed: Readonly<Record<string, string>>;
  said: Fact | null;
  small?: boolean;
}) {
  const is = said && (isKind(said, "check") || isKind(said, "proof")) ? said.body.said : null;
  const size = small ? "" : "btn-lg text-xl";
  return (
    <div className="flex flex-wrap items-start gap-2" role="group" aria-label="Answer">
      <SayForm kind={kind} fixed={fixed} className="flex gap-2" keep>
        {() => (
          <>
            <button
              name="said"
              value="yes"
              aria-pressed={is === "yes"}
              className={`btn touch ${size} ${small ? (is === "yes" ? "btn-secondary" : "") : "btn-primary"}`}
            >
              Yes {!small && <kbd className="key">d</kbd>}
            </button>
            <button
              name="said"
              value="no"
              aria-pressed={is === "no"}
              className={`btn touch ${size} ${is === "no" ? "btn-error" : ""}`}
            >
              No {!small && <kbd className="key">n</kbd>}
            </button>
          </>
        )}
      </SayForm>
      <details>
        <summary className={`btn touch ${size}`}>Cannot be seen …</summary>
        <SayForm kind={kind} fixed={{ ...fixed, said: "cannot-see" }} className="mt-2 flex flex-wrap gap-2">
          {(problems) => (
            <>
              <input
                name="note"
                aria-label="How it was made sure of instead"
                className="input touch w-72"
                placeholder="how it was made sure of instead"
              />
              <button className="btn touch">Keep</button>
              {problems.note && (
                <p role="alert" className="text-error w-full font-semibold">
                  {problems.note}
                </p>
              )}
            </>
          )}
        </SayForm>
      </details>
    </div>
  );
}
