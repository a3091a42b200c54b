import { SayForm } from "~/say/say-form";

const REASONS = ["already off", "not needed here", "left together on purpose"];

/** A step passed over for a reason. */
export function Skip({ step, onSaid }: { step: string; onSaid: () => void }) {
  return (
    <details>
      <summary className="btn touch">Skip …</summary>
      <SayForm
        kind="step"
        fixed={{ step, did: "skipped" }}
        onSaid={onSaid}
        className="mt-2 flex flex-wrap gap-2"
      >
        {(problems) => (
          <>
            <input
              name="reason"
              aria-label="Why it is skipped"
              className="input touch w-64"
              placeholder="why"
              list="skip-reasons"
            />
            <datalist id="skip-reasons">
              {REASONS.map((reason) => (
                <option key={reason} value={reason} />
              ))}
            </datalist>
            <button className="btn touch">Skip it</button>
            {problems.reason && (
              <p role="alert" className="text-error w-full font-semibold">
                {problems.reason}
              </p>
            )}
          </>
        )}
      </SayForm>
    </details>
  );
}
