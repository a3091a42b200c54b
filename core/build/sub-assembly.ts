import type { Reopened } from "../fact";
import { codeFor } from "../shape";
import type { Build } from "./plan";

/** A part of the unit that is put together by itself: what it leaves the bench with, as its label has it. */
export interface SubAssembly {
  id: string;
  name: string;
  /** Steps that are done, or passed over with a reason, of so many. */
  done: number;
  steps: number;
  isBuilt: boolean;
  /** Opened again after it was built: its checks are void, and it counts as dirty. */
  opened: Reopened | null;
  /** The step one is led to: the first that is open, or the first of all. */
  step: string;
  /** Clearances and air as they were found. */
  proven: string[];
  /** Who built it, and when the last step was done; empty while nobody has. */
  by: string[];
  at: string;
}

/** @returns the sub-assemblies of a build in the book’s order, with what is proven of each; what is done in the vehicle is none. */
export function subAssembliesOf({ steps }: Pick<Build, "steps">): SubAssembly[] {
  const names = new Set(steps.flatMap(({ step: { sub, vehicle } }) => (sub && !vehicle ? [sub] : [])));
  return [...names].map((name) => {
    const own = steps.filter(({ step }) => step.sub === name && !step.vehicle);
    const isSettled = ({ at }: (typeof own)[number]): boolean => at === "done" || at === "skipped";
    const facts = own.flatMap(({ fact }) => fact ?? []);
    const proven = own.flatMap(({ asked }) =>
      asked.flatMap(({ kind, name: what, words, answer, fact }) =>
        (kind === "figure" || kind === "air") && fact && answer !== "open" ? [`${what}: ${words}`] : [],
      ),
    );
    const done = own.filter(isSettled).length;
    return {
      id: codeFor(name),
      name,
      done,
      steps: own.length,
      isBuilt: done === own.length,
      opened: own.find((one) => !isSettled(one) && one.reopened)?.reopened ?? null,
      step: (own.find((one) => !isSettled(one)) ?? own[0])?.step.id ?? "",
      proven: [...new Set(proven)],
      by: [...new Set(facts.map(({ by }) => by))],
      at: facts.reduce((latest, { at }) => (at > latest ? at : latest), ""),
    };
  });
}
