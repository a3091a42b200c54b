import { createHash } from "node:crypto";
import type { Book } from "~core/book";
import { haveBook, type RevisionRef } from "./kept-books";

const written = new WeakMap<Book, { text: string; ref: RevisionRef }>();

/** A revision never changes: it is written and its digest taken once. */
function write(id: string, book: Book): { text: string; ref: RevisionRef } {
  const known = written.get(book);
  if (known) return known;
  const text = JSON.stringify(book);
  const digest = createHash("sha256").update(text).digest("base64url").slice(0, 22);
  const made = { text, ref: { id, digest } };
  written.set(book, made);
  return made;
}

export const textOf = (id: string, book: Book): string => write(id, book).text;

/** What names a revision to a page; the book is at hand from then on, for drawing that page here. */
export function refOf(id: string, book: Book): RevisionRef {
  const { ref } = write(id, book);
  haveBook(ref, book);
  return ref;
}
