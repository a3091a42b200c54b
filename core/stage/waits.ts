import type { Applied, Step } from "../book";
import type { Job } from "../fact";
import type { Stage, Worksheet } from "../measure";

/** Whether nothing more is needed of any pack in scope. */
export const readyToLeave = (sheets: readonly Worksheet[]): boolean =>
  sheets.every(({ stage }) => stage.at === "quiet" || stage.at === "done" || stage.at === "signed");

/** How far the unit is taken down: the step that is next, how many are behind it. */
export interface StepsDone {
  next: Step | null;
  done: number;
  of: number;
}

/** The steps of this version and depth as they are ticked; the next is the first after the last one ticked, else the first left. */
export function stepsDone(job: Job, { work }: Pick<Applied, "work">): StepsDone {
  const steps = work.teardown ?? [];
  const did = steps.map(({ id }) => (job.steps.get(id)?.body.did ?? "undone") !== "undone");
  const last = did.lastIndexOf(true);
  const next = steps.find((_, i) => i > last && !did[i]) ?? steps.find((_, i) => !did[i]) ?? null;
  return { next, done: did.filter(Boolean).length, of: steps.length };
}

/**
 * What a job waits for, in the trade's words: the step that is next while the unit comes apart, then the first pack that is not done and what
 * it needs. A unit whose packs are read already without a step ticked is taken as it is.
 */
export function waitsFor(job: Job, sheets: readonly Worksheet[], steps: StepsDone): string {
  if (job.closed) return "nothing, closed";
  if (steps.next && (steps.done > 0 || job.chains.size === 0))
    return `${steps.done > 0 ? "" : "tear down: "}${steps.next.name}, step ${steps.done + 1} of ${steps.of}`;
  const next = sheets.find(
    ({ stage }) => stage.at !== "quiet" && stage.at !== "done" && stage.at !== "signed",
  );
  if (!next)
    return sheets.some(({ stage }) => stage.at !== "quiet")
      ? "build sheet and closing"
      : "no pack in this scope";
  const left = sheets.filter(
    ({ stage }) => stage.at !== "quiet" && stage.at !== "done" && stage.at !== "signed",
  ).length;
  const name = next.applied.pack.element.toUpperCase();
  const rest = left > 1 ? `, ${left} packs to go` : "";
  return `${name}: ${stageWords(next.stage)}${rest}`;
}

/** A stage in three or four words, as the station mark and the job list say it. */
export function stageWords(stage: Stage): string {
  switch (stage.at) {
    case "quiet":
      return "out of scope";
    case "found":
      return stage.begun ? "as found, more readings" : "read as found";
    case "trial":
      return stage.begun ? "trial, more readings" : "trial reading";
    case "choose":
      return "choose a ring";
    case "read":
      return stage.begun ? "as built, not proven" : "read as built";
    case "done":
      return "inside";
    case "signed":
      return "signed off";
  }
}
