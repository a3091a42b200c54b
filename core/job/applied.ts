import { resolve, type Applied, type Book, type HouseValue } from "../book";
import type { Job } from "./job";

/** The depth of work a job is done to; until one is chosen the book's first, which is the whole of it. */
export const depthOf = (book: Book, { depth }: Pick<Job, "depth">): string => depth ?? book.depths[0] ?? "";

const MOST = 100;
const remembered = new WeakMap<Book, Map<string, Applied>>();

/**
 * What of its book applies to a job. The same book, configuration, depth and house values give the very same object, so that what
 * is worked out from it is worked out once: a page of a job asks on every fact.
 *
 * @param house the shop's own values for this unit.
 */
export function appliedTo(
  book: Book,
  job: Pick<Job, "configuration" | "depth">,
  house: readonly HouseValue[],
): Applied {
  const known = remembered.get(book) ?? new Map<string, Applied>();
  remembered.set(book, known);
  const depth = depthOf(book, job);
  const key = JSON.stringify([job.configuration, depth, house]);
  const found = known.get(key);
  if (found) return found;
  if (known.size >= MOST) known.clear();
  const applied = resolve(book, job.configuration, depth, house);
  known.set(key, applied);
  return applied;
}
