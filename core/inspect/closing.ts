import type { Applied } from "../book";
import type { Job } from "../fact";
import { weakPoints } from "./disposition";
import { failed } from "./failed";

/** What must be answered before the unit is closed. */
export interface Unanswered {
  /** Closing with a cause that was not found needs the lead’s name. */
  kind: "weak point" | "cause" | "not found";
  name: string;
  /** The weak point, element or part it is of. */
  subject: string;
}

/** @returns what stands in the way of closing; empty when nothing does. */
export function unanswered(job: Job, applied: Pick<Applied, "present" | "scoped">): Unanswered[] {
  const points = weakPoints(job, applied)
    .filter(({ fact }) => fact === null)
    .map(({ point: { id, name } }): Unanswered => ({ kind: "weak point", name, subject: id }));
  const causes = failed(job, applied).flatMap(({ id, name, cause }): Unanswered[] => {
    if (!cause) return [{ kind: "cause", name, subject: id }];
    return cause.body.standing === "not-found" ? [{ kind: "not found", name, subject: id }] : [];
  });
  return [...points, ...causes];
}
