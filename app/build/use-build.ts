import { useMemo } from "react";
import { useInside } from "~/door/inside";
import { useJobView } from "~/view/view";
import { buildOf, timersOf, type Build } from "~core/build";
import { houseOf } from "~core/measure";
import { useMoment } from "./use-moment";

/** The build of the job whose page it is, as it stands at this moment. */
export function useBuild(): Build {
  const { job, applied } = useJobView();
  const { house } = useInside();
  const timers = useMemo(() => timersOf(job, applied), [job, applied]);
  const now = useMoment(timers.flatMap(({ ready, latest }) => [ready ?? [], latest ?? []].flat()));
  return useMemo(() => buildOf(job, applied, houseOf(job, house), now), [job, applied, house, now]);
}
