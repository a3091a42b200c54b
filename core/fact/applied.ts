import { resolve, type Applied, type Book, type Configuration, type HouseValue } from "../book";
import { asAssembled } from "./assembled";
import type { Job } from "./job";

/** How deep the work on a job goes; until somebody says, the book's first depth, which is the least of it. */
export const depthsOf = (book: Book, { depths }: Pick<Job, "depths">): readonly string[] =>
  depths ?? book.depths.slice(0, 1);

/** Whether a scope is less than what was agreed, of a unit that is being taken apart: that is a lead’s to decide. */
export function isLessThanAgreed(
  book: Book,
  job: Pick<Job, "depths" | "steps">,
  scope: readonly string[],
): boolean {
  const begun = [...job.steps.values()].some(({ body }) => body.did === "done");
  return begun && depthsOf(book, job).some((depth) => !scope.includes(depth));
}

/** What the unit is once what goes in is in: later parts change its traits, of two that change the same the last word holds. */
export const becomes = (
  book: Book,
  { configuration, later = [] }: Pick<Job, "configuration"> & Partial<Pick<Job, "later">>,
): Configuration =>
  // Without a prototype, as the configuration itself.
  Object.assign(
    Object.create(null) as Record<string, string>,
    configuration,
    Object.fromEntries(
      later.flatMap(({ body }) =>
        Object.entries(book.parts.find(({ number }) => number === body.number)?.sets ?? {}),
      ),
    ),
  );

const MOST = 100;
const remembered = new WeakMap<Book, Map<string, Applied>>();

/**
 * What of its book applies to a job. The same book, configuration, scope and house values give the very same object, so that what
 * is worked out from it is worked out once: a page of a job asks on every fact.
 *
 * @param house the shop's own values for this unit.
 */
export function appliedTo(
  book: Book,
  job: Pick<Job, "configuration" | "depths"> & Partial<Pick<Job, "stronger" | "later">>,
  house: readonly HouseValue[],
): Applied {
  const known = remembered.get(book) ?? new Map<string, Applied>();
  remembered.set(book, known);
  const depths = depthsOf(book, job);
  const then = becomes(book, job);
  const key = JSON.stringify([job.configuration, then, depths, house, job.stronger?.id]);
  const found = known.get(key);
  if (found) return found;
  if (known.size >= MOST) known.clear();
  const applied = resolve(book, job.configuration, depths, house, {
    stronger: job.stronger?.body ?? null,
    becomes: then,
  });
  known.set(key, applied);
  return applied;
}

/**
 * A job with its book: what applies to it, and of what was said that which still says something of what is assembled now.
 *
 * @param job as folded.
 * @param house the shop's own values for this unit.
 */
export function jobWithBook(
  book: Book,
  job: Job,
  house: readonly HouseValue[],
): { job: Job; applied: Applied } {
  const applied = appliedTo(book, job, house);
  return { job: asAssembled(job, applied), applied };
}
