import { depthsOf, jobWithBook, type Fact } from "~core/fact";
import { chosenSheets, houseOf, type Worksheet } from "~core/measure";
import type { RevisionRef } from "~/revision/kept-books";
import { jobOfPage } from "./job-page";
import { remembering } from "~/look/remembering";
import type { JobView } from "./view";

type JobWith = Parameters<typeof jobWithBook>;
type Told = Pick<JobView, "number" | "opened" | "book" | "unit" | "house">;
interface Of extends Told {
  ref: RevisionRef;
  houseValues: JobWith[2];
}
type Views = (facts: readonly Fact[]) => JobView;

/** Of so many jobs the views are kept. */
const MOST = 16;
const known = remembering<Views>(MOST);

/**
 * How a job is seen with these facts or those: worked out once for each list of them, whoever asks. On the server that is one page after
 * another: of a job that nothing was said of since, nothing is worked out again.
 */
export function viewsOf({ ref, ...of }: Of): Views {
  const { number, opened, unit, house, houseValues } = of;
  const key = JSON.stringify([ref.digest, number, opened, unit, house, houseValues]);
  return known(key, () => viewsMade(of));
}

function viewsMade({ houseValues, ...job }: Omit<Of, "ref">): Views {
  const made = new WeakMap<readonly Fact[], JobView>();
  return (facts) => {
    const known = made.get(facts);
    if (known) return known;
    const folded = jobWithBook(job.book, jobOfPage(facts), houseValues);
    const view = viewOf(job, folded);
    made.set(facts, view);
    return view;
  };
}

function viewOf(of: Told, { job, applied }: ReturnType<typeof jobWithBook>): JobView {
  let sheets: Worksheet[] | undefined;
  return {
    ...of,
    job,
    depths: depthsOf(of.book, job),
    applied,
    // Worked out when a page asks: those before the unit is opened show no pack.
    get sheets() {
      return (sheets ??= chosenSheets(job, applied, houseOf(job, of.house)));
    },
  };
}
