import { useState } from "react";
import { useJobView } from "~/view/view";
import { useSay } from "~/say/use-say";
import { wordsOf, CLEANING_STEPS, SCRAPPED, type Cleanliness, type CleaningStep } from "~core/fact";
import type { Thing } from "~core/steps";

/** What is done with the parts picked: laid somewhere, cleaned, bagged. */
export function Actions({
  picked,
  places,
  told,
  bench,
  onMove,
  onDone,
}: {
  picked: readonly string[];
  places: readonly { id: string; name: string }[];
  told: string;
  bench: { things: ReadonlyMap<string, Thing> };
  onMove: (things: readonly string[], place: string) => void;
  onDone: () => void;
}) {
  const { job } = useJobView();
  const say = useSay();
  const [did, setDid] = useState<readonly CleaningStep[]>(["washed", "blown", "dried"]);
  if (job.closed) return null;
  if (picked.length === 0)
    return (
      <p className="mb-2 text-lg" role="status">
        {told ||
          "Touch parts to pick them, then where they go. Or drag one, or scan its label and then the tray’s."}
      </p>
    );
  const clean = (state: Cleanliness): void => {
    say({ kind: "cleaning", things: [...picked], state, did: state === "clean" ? [...did] : [] });
    onDone();
  };
  const names = picked.map((id) => bench.things.get(id)?.part.name ?? id);
  return (
    <section className="plate border-primary sticky top-0 z-10 mb-2 border-2 px-3 py-2" aria-label="Picked">
      <p className="text-lg font-bold">
        {names.slice(0, 4).join(", ")}
        {names.length > 4 && ` and ${names.length - 4} more`}
      </p>
      <div className="flex flex-wrap items-center gap-2 py-1" role="group" aria-label="Lay down">
        <span className="stamp quiet">Lay down</span>
        {places.map(({ id, name }) => (
          <button key={id} type="button" className="btn touch" onClick={() => onMove(picked, id)}>
            {name}
          </button>
        ))}
        <button type="button" className="btn touch" onClick={() => onMove(picked, SCRAPPED)}>
          Out of circulation
        </button>
      </div>
      <div className="flex flex-wrap items-center gap-2 py-1" role="group" aria-label="Cleaning">
        <span className="stamp quiet">Cleaning</span>
        {wordsOf(CLEANING_STEPS).map(([one, words]) => (
          <button
            key={one}
            type="button"
            role="checkbox"
            aria-checked={did.includes(one)}
            className={`btn touch px-3 ${did.includes(one) ? "btn-secondary" : ""}`}
            onClick={() => setDid(did.includes(one) ? did.filter((each) => each !== one) : [...did, one])}
          >
            {words}
          </button>
        ))}
        <button
          type="button"
          className="btn btn-primary touch"
          disabled={did.length === 0}
          onClick={() => clean("clean")}
        >
          Clean now
        </button>
        {(["masked", "bagged", "opened"] as const).map((state) => (
          <button key={state} type="button" className="btn touch" onClick={() => clean(state)}>
            {state}
          </button>
        ))}
        <span className="grow" />
        <button type="button" className="btn btn-ghost touch" onClick={onDone}>
          Let go
        </button>
      </div>
    </section>
  );
}
