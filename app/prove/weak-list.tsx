import { useMemo } from "react";
import { useJobView } from "~/view/view";
import { wouldOpen } from "~core/build";
import { Diagnostician } from "~core/diagnose";
import { isBuilding } from "~core/fact";
import { toldInVehicle, weakestOf } from "~core/prove";
import { useProving } from "./use-proving";
import { WeakRows } from "./weak-rows";

/** Where this very build was proven least, those first that what was told in the vehicle points at; each with the check that costs least. */
export function WeakList() {
  const { job, applied, number } = useJobView();
  const { build, made } = useProving();
  const weak = useMemo(() => {
    const told = toldInVehicle(job, applied, made.rows);
    const suspects = told.length > 0 ? new Diagnostician(applied.present).diagnose(told).suspects : [];
    return weakestOf(job, applied, build, made.rows, suspects);
  }, [job, applied, build, made]);
  return (
    <section aria-label="Suspects of this build" className="border-error mt-4 border-l-4 pl-3">
      <h3 className="text-xl font-bold">Where this build was proven least</h3>
      {weak.length === 0 ? (
        <p>
          {isBuilding(job, applied.present.build)
            ? "Everything was read and answered at once: look outside the unit first, then at what the diagnosis suspects."
            : "It was not kept step by step: nobody knows how it was proven."}
        </p>
      ) : (
        <WeakRows
          weak={weak}
          number={number}
          by="by what was told"
          opens={(step) => wouldOpen(applied, build, step).length + 1}
        />
      )}
    </section>
  );
}
