import { useMemo } from "react";
import { useBuild } from "~/build/use-build";
import { useInside } from "~/door/inside";
import { useJobView } from "~/view/view";
import type { Build } from "~core/build";
import { houseOf } from "~core/measure";
import { madeOf, type Made } from "~core/stage";

/** Everything this unit is proven by in the vehicle, as it stands: steps of the build that are done there, and what the book asks besides. */
export function useProving(): { build: Build; made: Made } {
  const { job, applied } = useJobView();
  const { house } = useInside();
  const build = useBuild();
  const made = useMemo(() => madeOf(job, applied, houseOf(job, house)), [job, applied, house]);
  return { build, made };
}
