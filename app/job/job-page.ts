import type { Book } from "~core/book";
import { fold, type Fact, type Job } from "~core/job";
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
  ...{ id, number, opened, seq, houseValues, newer },
  facts: factsText,
  book: benchText(bookId, book),
});

// A revision never changes, so remembering its text cannot differ between processes.
const texts = new Map<string, string>();
function benchText(id: string, book: Book): string {
  const known = texts.get(id);
  if (known) return known;
  if (texts.size > 200) texts.clear();
  const text = JSON.stringify(benchBook(book));
  texts.set(id, text);
  return text;
}

const wholes = new Map<string, string>();
/** The whole book of a job, as JSON text. */
export function wholeText({ bookId, book }: Pick<JobRecord, "bookId" | "book">): string {
  const known = wholes.get(bookId);
  if (known) return known;
  if (wholes.size > 200) wholes.clear();
  const text = JSON.stringify(book);
  wholes.set(bookId, text);
  return text;
}

const books = new Map<string, Book>();
/** The book of a page; the same text gives the same book, so that what is worked out from it is worked out once. */
export function bookOfPage(text: string): Book {
  const known = books.get(text);
  if (known) return known;
  if (books.size > 200) books.clear();
  const book = JSON.parse(text) as Book;
  books.set(text, book);
  return book;
}

const told = new Map<string, readonly Fact[]>();
/** The facts of a page; the same text gives the same facts. */
export function factsOfPage(text: string): readonly Fact[] {
  const known = told.get(text);
  if (known) return known;
  if (told.size >= 8) told.delete([...told.keys()][0] ?? "");
  const facts = JSON.parse(text) as Fact[];
  told.set(text, facts);
  return facts;
}

const folded = new WeakMap<readonly Fact[], Job>();
/** The job that facts of a page make; the same facts give the same job, so that what is worked out from it is worked out once. */
export function jobOfPage(facts: readonly Fact[]): Job {
  const known = folded.get(facts) ?? fold(facts);
  folded.set(facts, known);
  return known;
}
