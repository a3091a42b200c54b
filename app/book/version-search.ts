import type { Book, Configuration } from "~core/book";

/** The part of a book page's address that says which version and scope it is for. */
export function versionSearch(
  book: Pick<Book, "unit">,
  configuration: Configuration,
  depths: readonly string[],
): URLSearchParams {
  const search = new URLSearchParams({ ...configuration, revision: `${book.unit.revision}` });
  for (const depth of depths) search.append("depth", depth);
  return search;
}
