import type { Book } from "~core/book";

/** Names one revision by what it says: another text has another digest, so that what is kept under it never gets old. */
export interface RevisionRef {
  id: string;
  digest: string;
}

/** Jobs of more revisions than these are not open at once. */
const MOST = 60;
const books = new Map<string, Book>();

/** Keeps a revision at hand, for every page of every job of it. */
export function haveBook({ digest }: RevisionRef, book: Book): Book {
  const known = books.get(digest);
  if (known) return known;
  if (books.size >= MOST) books.delete([...books.keys()][0] ?? "");
  books.set(digest, book);
  return book;
}

export const bookHere = ({ digest }: RevisionRef): Book | undefined => books.get(digest);

/**
 * The book of a page that is being drawn: whoever asked for the page has brought it. The same revision is the same object, so that what is
 * worked out from it is worked out once.
 *
 * @throws when nobody has.
 */
export function bookAt(ref: RevisionRef): Book {
  const book = bookHere(ref);
  if (!book) throw new Error("the book of this page has not come");
  return book;
}

export const revisionPath = ({ id, digest }: RevisionRef): string => `/revisions/${id}/${digest}`;
