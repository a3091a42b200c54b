import type { Applied, Step } from "../book";
import type { Job } from "../fact";
import type { Stage } from "../measure";

/** How far the unit is taken down: the step that is next, how many are behind it. */
export interface StepsDone {
  next: Step | null;
  /** Neither done nor passed over with a reason. */
  left: readonly Step[];
  done: number;
  total: number;
}

/** The steps of this version and depth as they are ticked; the next is the first after the last one ticked, else the first left. */
export function stepsDone(job: Job, { scoped }: Pick<Applied, "scoped">): StepsDone {
  const steps = scoped.teardown ?? [];
  const did = steps.map(({ id }) => (job.steps.get(id)?.body.did ?? "undone") !== "undone");
  const last = did.lastIndexOf(true);
  const next = steps.find((_, i) => i > last && !did[i]) ?? steps.find((_, i) => !did[i]) ?? null;
  const left = steps.filter((_, i) => !did[i]);
  return { next, left, done: steps.length - left.length, total: steps.length };
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
      return "choose its size";
    case "read":
      return stage.begun ? "as built, not proven" : "read as built";
    case "out":
      return "taken out, to go in again";
    case "astray":
      return "not as predicted";
    case "done":
      return stage.unlimited ? "read, no limit known" : "inside";
    case "signed":
      return "signed off";
  }
}
