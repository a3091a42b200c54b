import type { Book } from "~core/book";

/**
 * A book without what no page of a job reads: steps, parts and the rest are a good two thirds of it, and every job page would carry
 * them. Who asks for more, as the find does, fetches the whole revision.
 */
export function benchBook(book: Book): Book {
  const {
    format,
    unit,
    traits,
    depths,
    stations,
    train,
    members,
    gearSets,
    elements,
    ranges,
    series,
    packs,
    chains,
  } = book;
  return {
    ...{
      format,
      unit,
      traits,
      depths,
      stations,
      train,
      members,
      gearSets,
      elements,
      ranges,
      series,
      packs,
      chains,
    },
    parts: [],
  };
}
