import type { Book } from "~core/book";

/** The sections that the pages of a job read. */
const READ = [
  ...(["format", "unit", "traits", "depths", "stations", "train", "members"] as const),
  ...(["gearSets", "elements", "ranges", "series", "packs", "chains"] as const),
  ...(["measurements", "airChecks", "pressureTaps", "readOuts", "tools"] as const),
];

/**
 * A book without what no page of a job reads: steps, parts and the rest are a good two thirds of it, and every job page would carry
 * them. Who asks for more, as the find does, fetches the whole revision.
 */
export function benchBook(book: Book): Book {
  const read = Object.fromEntries(READ.map((key) => [key, book[key]])) as Pick<Book, (typeof READ)[number]>;
  return { ...read, parts: [] };
}
