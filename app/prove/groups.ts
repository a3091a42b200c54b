import type { Build, BuildStep } from "~core/build";
import { isSettled, type Proving, type ProvingItem } from "~core/prove";

/** One line of what is to be proven. */
export type Line = { kind: "step"; step: BuildStep } | { kind: "item"; item: ProvingItem };

/** What is proven together, under its name. */
export interface Group {
  name: string;
  lines: Line[];
}

/** Everything, in the order it is done. */
export function groupsOf({ steps }: Build, { items }: Proving): Group[] {
  const stepsIn = (vehicle: "refit" | "first start"): Line[] =>
    steps.filter(({ step }) => step.vehicle === vehicle).map((step) => ({ kind: "step", step }));
  const itemsIn = (group: ProvingItem["group"]): Line[] =>
    items.filter((item) => item.group === group).map((item) => ({ kind: "item", item }));
  return [
    { name: "Refit", lines: stepsIn("refit") },
    { name: "Before the engine", lines: itemsIn("before the engine") },
    { name: "Fill and level", lines: itemsIn("fill and level") },
    { name: "First start", lines: [...stepsIn("first start"), ...itemsIn("first start")] },
    { name: "Relearn", lines: itemsIn("relearn") },
    { name: "Road", lines: itemsIn("road") },
  ].filter(({ lines }) => lines.length > 0);
}

/** As the address names it. */
export const lineKey = (line: Line): string =>
  line.kind === "step" ? `step-${line.step.step.id}` : `${line.item.kind}-${line.item.subject}`;

/** Whether it is behind one. */
export const isBehind = (line: Line): boolean =>
  line.kind === "step" ? line.step.at === "done" || line.step.at === "skipped" : isSettled(line.item);
