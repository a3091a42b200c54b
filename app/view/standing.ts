import { useInside } from "~/door/inside";
import { houseOf } from "~core/measure";
import { standingOf, type Standing } from "~core/stage";
import type { JobView } from "./view";

const made = new WeakMap<JobView, Standing>();

/** How the stages of a job stand and what is next, worked out once for all who show it. */
export function useStanding(view: JobView): Standing {
  const { house } = useInside();
  const known = made.get(view) ?? standingOf(view.job, view.applied, houseOf(view.job, house));
  made.set(view, known);
  return known;
}
