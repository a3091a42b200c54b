import { CANNOT, type Cannot, type FactOf, type Phase } from "~core/fact";
import type { Worksheet } from "~core/measure";
import { useSay } from "~/say/use-say";

/** What can be said of a figure that is moved by a piece, instead of a reading. */
const SAID: readonly Cannot[] = [
  "felt-only-in-order",
  "felt-only-not-in-order",
  "seen-only",
  "gauge-not-here-yet",
  "cannot-be-reached",
];

/** No figure can be taken: said as what it is. It is an honest answer and no number, so nothing is chosen from it. */
export function NoFigure({
  sheet,
  phase,
  said,
}: {
  sheet: Worksheet;
  phase: Phase;
  said: FactOf<"figure"> | null;
}) {
  const say = useSay();
  const { id } = sheet.applied.chain;
  if (said?.body.cannot)
    return (
      <p className="plate px-4 py-2" data-said={said.body.cannot}>
        <b>{CANNOT.words[said.body.cannot]}</b>, said by {said.by}.{" "}
        {phase === "found"
          ? "Measure it on trial before anything is chosen."
          : "That proves nothing: measure it, or a lead signs for it."}
      </p>
    );
  return (
    <details className="plate px-4">
      <summary className="touch quiet flex cursor-pointer items-center underline underline-offset-4">
        No figure can be taken?
      </summary>
      <div className="flex flex-wrap gap-2 pb-2">
        {SAID.map((cannot) => (
          <button
            key={cannot}
            type="button"
            className="btn touch"
            onClick={() => say({ kind: "figure", of: "chain", id, phase, cannot, note: "" })}
          >
            {CANNOT.words[cannot]}
          </button>
        ))}
      </div>
    </details>
  );
}
