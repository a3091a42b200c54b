import { depthsOf, jobWithBook, type Fact } from "~core/fact";
import { chosenSheets, type Worksheet } from "~core/measure";
import { jobOfPage } from "./job-page";
import type { JobView } from "./view";

type JobWith = Parameters<typeof jobWithBook>;
type Of = Pick<JobView, "number" | "opened" | "book" | "unit"> & {
  house: Parameters<typeof chosenSheets>[2];
  houseValues: JobWith[2];
};

/** How a job is seen with these facts or those: worked out once for each list of them, whoever asks. */
export function viewsOf({ house, houseValues, ...job }: Of): (facts: readonly Fact[]) => JobView {
  const made = new WeakMap<readonly Fact[], JobView>();
  return (facts) => {
    const known = made.get(facts);
    if (known) return known;
    const folded = jobWithBook(job.book, jobOfPage(facts), houseValues);
    const view = viewOf(job, folded, house);
    made.set(facts, view);
    return view;
  };
}

function viewOf(
  of: Pick<JobView, "number" | "opened" | "book" | "unit">,
  { job, applied }: ReturnType<typeof jobWithBook>,
  house: Of["house"],
): JobView {
  let sheets: Worksheet[] | undefined;
  return {
    ...of,
    job,
    depths: depthsOf(of.book, job),
    applied,
    // Worked out when a page asks: those before the unit is opened show no pack.
    get sheets() {
      return (sheets ??= chosenSheets(job, applied, house));
    },
  };
}
