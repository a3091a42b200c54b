import { LOOKED_AT } from "../core/inspect";
import type { Applied } from "../core/book";
import { type CauseStanding, fold, type FactBody } from "../core/fact";
import { counts, waysOf } from "../core/steps";

const TRAYS = ["Front end", "Drums and packs", "Rear end"];
const trayId = (i: number): string => `tray-${i + 1}`;

/** What went wrong in one of the demo's units: an element's facings burnt, what was found behind it, and what else is beyond use. */
export interface Story {
  element?: string;
  /** Parts with the wear that shows the cause, or that condemns them. */
  beyond?: [part: string, wear: string][];
  cause?: { id: string; standing: CauseStanding; note: string };
}

/** A unit looked at part by part: good but for its story, its weak points answered. */
export function inspected({ scoped }: Pick<Applied, "scoped">, story?: Story): FactBody[] {
  const facts: FactBody[] = [{ kind: "good", parts: scoped.parts.map(({ id }) => id) }];
  for (const { id, answers } of scoped.weakPoints ?? [])
    facts.push({ kind: "weak-point", point: id, answer: answers[0]?.id ?? LOOKED_AT, note: "" });
  if (!story) return facts;
  const found = (part: string, wear: string): FactBody => ({
    kind: "finding",
    part,
    wear,
    severity: "beyond-use",
    sure: true,
    note: "",
    there: true,
  });
  const friction = scoped.packs
    .find(({ element }) => element === story.element)
    ?.stack.find(({ role }) => role === "friction")?.part;
  if (friction) facts.push(found(friction, "burnt"));
  for (const one of story.beyond ?? []) facts.push(found(...one));
  if (story.cause && story.element) {
    const { id, standing, note } = story.cause;
    facts.push({ kind: "cause", of: story.element, cause: id, standing, note, after: "" });
  }
  return facts;
}

/**
 * A unit taken down so far, as a careful builder leaves it: bolts out, parts in trays, plates counted, ways noted.
 *
 * @param share of the book's steps, 1 for all.
 */
export function tornDown(applied: Pick<Applied, "present" | "scoped" | "unseen">, share: number): FactBody[] {
  if (share === 0) return [];
  const steps = applied.scoped.teardown ?? [];
  const groups = new Map((applied.scoped.fasteners ?? []).map((group) => [group.id, group]));
  const parts = new Map(applied.scoped.parts.map((part) => [part.id, part]));
  const counted = counts(fold([]), applied);
  const facts: FactBody[] = TRAYS.map((name, i): FactBody => ({
    kind: "place",
    place: trayId(i),
    sort: "tray",
    name,
  }));
  const until = Math.round(steps.length * share);
  for (const [n, step] of steps.slice(0, until).entries()) {
    for (const id of step.fasteners ?? []) {
      const count = groups.get(id)?.count ?? 0;
      facts.push({ kind: "out", group: id, places: Array.from({ length: count }, (_, i) => i) });
    }
    for (const id of step.parts ?? []) {
      const part = parts.get(id);
      const way = part && waysOf(part)[0];
      if (way && part.of === undefined)
        facts.push({ kind: "sat", part: id, way, mark: "needs-none", note: "" });
      const one = counted.find(({ id: of }) => of === id);
      if (one) facts.push({ kind: "count", of: id, found: one.expected });
    }
    const to = trayId(Math.floor((n / steps.length) * TRAYS.length));
    facts.push({ kind: "step", step: step.id, did: "done", reason: "", to });
  }
  return facts;
}
