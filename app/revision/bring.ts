import { keep, kept } from "~/offline/kept";
import { KEPT } from "~/offline/keys";
import type { Book } from "~core/book";
import { bookHere, haveBook, revisionPath, type RevisionRef } from "./kept-books";

/**
 * Brings a revision to this browser: at hand, kept, or from the server, which says it need never be asked again.
 *
 * @throws when it is neither here nor to be had.
 */
export async function bringBook(ref: RevisionRef): Promise<Book> {
  const here = bookHere(ref) ?? (await kept<Book>(KEPT.book(ref.digest)));
  if (here) return haveBook(ref, here);
  const answer = await fetch(revisionPath(ref));
  if (!answer.ok) throw new Response("", { status: answer.status });
  const book = (await answer.json()) as Book;
  void keep(KEPT.book(ref.digest), book);
  return haveBook(ref, book);
}
