import { Link } from "react-router";
import type { Weak } from "~core/prove";

const SHOWN = 8;

/** Where a build was proven least, each with the chance that it is at fault, the check that costs least, and the way to its step. */
export const WeakRows = ({
  weak,
  number,
  by,
  opens,
}: {
  weak: readonly Weak[];
  /** The job whose build it is. */
  number: number;
  /** By what the chance is, in words. */
  by: string;
  /** How many steps are laid open to reach a step. */
  opens?: (step: string) => number;
}) => (
  <>
    <ol>
      {weak.slice(0, SHOWN).map(({ key, step, what, why, stepName, chance, check }) => (
        <li key={key} className="border-base-300 border-t py-1.5 leading-tight" data-weak={key}>
          <Link to={`/jobs/${number}/build?step=${step}`} className="touch block">
            <b className="first-letter:uppercase">{what}</b>: {why}
            {chance >= 0.01 && (
              <span className="text-error font-semibold">
                {" "}
                · {Math.round(chance * 100)} % {by}
              </span>
            )}
            <span className="quiet block text-sm">
              {stepName} · cheapest: {check}
              {opens && ` · to reach it ${opens(step)} steps are laid open`}
            </span>
          </Link>
        </li>
      ))}
    </ol>
    {weak.length > SHOWN && <p className="quiet">and {weak.length - SHOWN} more on the record</p>}
  </>
);
