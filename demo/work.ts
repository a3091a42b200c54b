import type { Applied } from "../core/book";
import { fold, type FactBody } from "../core/job";
import { counts, waysOf } from "../core/teardown";

const TRAYS = ["Front end", "Drums and packs", "Rear end"];
const trayId = (i: number): string => `tray-${i + 1}`;

/**
 * A unit taken down so far, as a careful builder leaves it: bolts out, parts in trays, plates counted, ways noted.
 *
 * @param share of the book's steps, 1 for all.
 */
export function tornDown(applied: Pick<Applied, "unit" | "work">, share: number): FactBody[] {
  if (share === 0) return [];
  const steps = applied.work.teardown ?? [];
  const groups = new Map((applied.work.fasteners ?? []).map((group) => [group.id, group]));
  const parts = new Map(applied.work.parts.map((part) => [part.id, part]));
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
        facts.push({ kind: "sat", part: id, way, mark: "needs none", note: "" });
      const one = counted.find(({ of }) => of === id);
      if (one) facts.push({ kind: "count", of: id, found: one.expected });
    }
    const to = trayId(Math.floor((n / steps.length) * TRAYS.length));
    facts.push({ kind: "step", step: step.id, did: "done", reason: "", to });
  }
  return facts;
}
