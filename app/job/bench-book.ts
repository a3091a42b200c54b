import { partsOf, type Book } from "~core/book";

/** The sections that the pages of a job read. */
const READ = [
  ...(["format", "unit", "traits", "depths", "stations", "train", "members"] as const),
  ...(["gearSets", "elements", "ranges", "series", "packs", "chains"] as const),
  ...(["measurements", "airChecks", "pressureTaps", "readOuts", "tools"] as const),
];

/**
 * A book without what no page of a job reads: how the steps are done and all about the parts is a good half of it, and every job page would
 * carry it. The steps’ names and what they take off stay, to say what is next and what lies dirty on the bench. Who asks for more, as the
 * find does, fetches the whole revision.
 */
export function benchBook(book: Book): Book {
  const read = Object.fromEntries(READ.map((key) => [key, book[key]])) as Pick<Book, (typeof READ)[number]>;
  const inPacks = new Set(book.packs.flatMap((pack) => partsOf(book.parts, pack)));
  const wholes = new Set([...inPacks].flatMap(({ of }) => of ?? []));
  const parts = book.parts.filter((part) => inPacks.has(part) || wholes.has(part.id));
  const kept = new Set(parts.map(({ id }) => id));
  return {
    ...read,
    parts: parts.map(({ id, name, of, station, oneTime, when, depth }) => ({
      id,
      name,
      number: "",
      of,
      station,
      oneTime,
      when,
      depth,
    })),
    teardown: book.teardown?.map(({ id, name, parts: off, when, depth }) => ({
      id,
      name,
      parts: off?.filter((part) => kept.has(part)),
      when,
      depth,
    })),
  };
}
