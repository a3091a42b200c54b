import { refOf } from "~/revision/text";
import { fold, type Fact, type Job } from "~core/fact";
import type { JobRecord } from "~store/jobs";

/**
 * What every page of a job is made from. Facts go as JSON text: a long job has thousands of values, and each would be encoded by itself on
 * its way to the page. The book goes by its name: a revision never changes, and the browser has it already or asks for it once.
 */
export const jobPage = ({
  id,
  number,
  opened,
  bookId,
  book,
  factsText,
  seq,
  houseValues,
  newer,
}: JobRecord) => ({
  id,
  number,
  opened,
  seq,
  houseValues,
  newer,
  facts: factsText,
  book: refOf(bookId, book),
});

/** What is made of a key, made once for each of the last so many. */
function remembering<T>(most: number): (key: string, make: () => T) => T {
  const known = new Map<string, T>();
  return (key, make) => {
    const made = known.get(key);
    if (made !== undefined) return made;
    if (known.size >= most) known.delete([...known.keys()][0] ?? "");
    const fresh = make();
    known.set(key, fresh);
    return fresh;
  };
}

const told = remembering<readonly Fact[]>(8);
/** The facts of a page; the same text gives the same facts. */
export const factsOfPage = (text: string): readonly Fact[] => told(text, () => JSON.parse(text) as Fact[]);

const folded = new WeakMap<readonly Fact[], Job>();
/** The job that facts of a page make; the same facts give the same job, so that what is worked out from it is worked out once. */
export function jobOfPage(facts: readonly Fact[]): Job {
  const known = folded.get(facts) ?? fold(facts);
  folded.set(facts, known);
  return known;
}
