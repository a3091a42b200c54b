import { useEffect, useState } from "react";
import { useJobView, type JobView } from "~/view/view";
import { buildOf, type Build } from "~core/build";
import { houseOf } from "~core/measure";
import { whenCome } from "./use-moment";

const made = new WeakMap<JobView, { build: Build; from: number }>();

/** The build at a moment; what was worked out at an earlier one holds until time alone changes it. */
function buildAt(view: JobView, now: number): Build {
  const known = made.get(view);
  if (known && known.from <= now && now < known.build.until) return known.build;
  const { job, applied, house } = view;
  const build = buildOf(job, applied, houseOf(job, house), now);
  made.set(view, { build, from: now });
  return build;
}

/** The build of the job whose page it is, as it stands at this moment: what stands in fluid becomes ready by itself. */
export function useBuild(): Build {
  const view = useJobView();
  const [now, setNow] = useState(() => Date.now());
  const build = buildAt(view, now);
  const { until } = build;
  useEffect(() => whenCome(until, () => setNow(Date.now())), [until]);
  return build;
}
