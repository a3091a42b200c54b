import type { Applied } from "../book";
import type { Job } from "../fact";
import { weakPoints } from "./disposition";
import { failed } from "./failed";

/** What must be answered before the unit is closed. */
export type Unanswered =
  | { kind: "weak point"; name: string }
  | { kind: "cause"; name: string }
  /** Closing with this needs the lead’s name. */
  | { kind: "not found"; name: string };

/** @returns what stands in the way of closing; empty when nothing does. */
export function unanswered(job: Job, applied: Pick<Applied, "unit" | "work">): Unanswered[] {
  const points = weakPoints(job, applied)
    .filter(({ fact }) => fact === null)
    .map(({ point: { name } }): Unanswered => ({ kind: "weak point", name }));
  const causes = failed(job, applied).flatMap(({ name, cause }): Unanswered[] => {
    if (!cause) return [{ kind: "cause", name }];
    return cause.body.standing === "not-found" ? [{ kind: "not found", name }] : [];
  });
  return [...points, ...causes];
}
