import type { JobView } from "./view";

/**
 * Something worked out of a job, once for each state of it, whoever asks: several parts of a page, and on the server one page after another.
 *
 * @param make has no other source than the job.
 */
export function workedOut<T extends object>(make: (view: JobView) => T): (view: JobView) => T {
  const made = new WeakMap<JobView, T>();
  return (view) => {
    const known = made.get(view) ?? make(view);
    made.set(view, known);
    return known;
  };
}
