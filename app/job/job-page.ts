import type { Book } from "~core/book";
import { fold, type Fact, type Job } from "~core/fact";
import type { JobRecord } from "~store/jobs";
import { benchBook } from "./bench-book";

/**
 * What every page of a job is made from. Book and facts go as JSON text: a long job has thousands of values, and each would be
 * encoded by itself on its way to the page.
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
  book: benchText(bookId, book),
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

// A revision never changes, so remembering its text cannot differ between processes.
const texts = remembering<string>(200);
const benchText = (id: string, book: Book): string => texts(id, () => JSON.stringify(benchBook(book)));

const wholes = remembering<string>(200);
/** The whole book of a job, as JSON text. */
export const wholeText = ({ bookId, book }: Pick<JobRecord, "bookId" | "book">): string =>
  wholes(bookId, () => JSON.stringify(book));

const books = remembering<Book>(200);
/** The book of a page; the same text gives the same book, so that what is worked out from it is worked out once. */
export const bookOfPage = (text: string): Book => books(text, () => JSON.parse(text) as Book);

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
