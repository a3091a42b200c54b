import { remembering } from "~/look/remembering";
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

/** Of so many jobs what their pages are made from is kept: those that are worked on at a time. */
const MOST = 16;

const told = remembering<readonly Fact[]>(MOST);
/** The facts of a page; the same text gives the same facts. */
export const factsOfPage = (text: string): readonly Fact[] => told(text, () => JSON.parse(text) as Fact[]);

const folded = new WeakMap<readonly Fact[], Job>();
/** The job that facts of a page make; the same facts give the same job, so that what is worked out from it is worked out once. */
export function jobOfPage(facts: readonly Fact[]): Job {
  const known = folded.get(facts) ?? fold(facts);
  folded.set(facts, known);
  return known;
}
