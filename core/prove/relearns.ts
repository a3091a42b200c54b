import { partNameIn, type Applied, type Relearn } from "../book";
import { WAYS_ON, type FactOf, type Job } from "../fact";
import { otherUnit, type PartState } from "../inspect";

/** A routine by which the control unit learns anew, and whether this job calls for it. */
export interface RelearnState {
  relearn: Relearn;
  /** What of this job calls for it, in words; empty where nothing does. */
  calls: string[];
  /** Why it is not to be run, where the book has it for another version; empty where it may be. */
  not: string;
  fact: FactOf<"relearned"> | null;
}

/**
 * Every routine of the book, in the order they are run: those this job calls for by what was opened, renewed, and its state, and those it does not, each
 * with why.
 *
 * @param states what becomes of each part.
 */
export function relearnsOf(job: Job, applied: Applied, states: readonly PartState[]): RelearnState[] {
  const { book, present, scoped } = applied;
  const inScope = new Set((scoped.relearns ?? []).map(({ id }) => id));
  const holds = new Set((present.relearns ?? []).map(({ id }) => id));
  const known = new Map(states.map((state) => [state.part.id, state]));
  const out = outOf(job, applied);
  const frictions = new Set(
    present.packs.flatMap(({ stack }) =>
      stack.flatMap(({ role, part }) => (role === "friction" && part !== undefined ? [part] : [])),
    ),
  );
  const called: string[] = [];
  const other = otherUnit(job);
  return [...(book.relearns ?? [])]
    .sort((a, b) => a.order - b.order)
    .map((relearn): RelearnState => {
      const fact = job.relearned.get(relearn.id) ?? null;
      if (!holds.has(relearn.id)) return { relearn, calls: [], not: otherVersion(relearn, applied), fact };
      if (other) {
        const state = other.way === "used" ? "used" : "new";
        const calls = relearn.after.some((one) => one.state === state || one.state === "either");
        return {
          relearn,
          calls: calls ? [`another unit went in: ${WAYS_ON.words[other.way]}`] : [],
          not: calls ? "" : `not after one that is ${WAYS_ON.words[other.way]}`,
          fact,
        };
      }
      // Within the scope or not: what was renewed calls for it.
      const ofParts = relearn.after.flatMap(({ part, any, what, state, out: isOut }) => {
        const parts = any ? [...frictions] : part === undefined ? [] : [part];
        return parts.filter((id) => callsFor(id, state, isOut === true)).map((id) => words(book, what, id));
      });
      const isOfAny = relearn.after.some(({ part, any }) => part === undefined && any === undefined);
      const calls =
        ofParts.length > 0 ? ofParts : isOfAny && called.length > 0 ? [`after: ${called.join(", ")}`] : [];
      if (calls.length > 0) called.push(relearn.name);
      return {
        relearn,
        calls,
        not: calls.length > 0 || inScope.has(relearn.id) ? "" : "nothing of it was opened at this depth",
        fact,
      };
    });

  /** Whether what became of a part calls for a routine. */
  function callsFor(id: string, state: "new" | "used" | "either", isOut: boolean): boolean {
    const renewed = job.renewed.has(id);
    const used = job.sources.get(id)?.body.from === "donor";
    const is = known.get(id)?.is ?? null;
    const back = !renewed && (is === "reuse" || is === "clean") && out.has(id);
    if (state === "new") return renewed && !used;
    if (state === "used") return (renewed && used) || back;
    return renewed || (isOut && out.has(id));
  }
}

const words = (book: Applied["book"], what: string, id: string): string => {
  const name = partNameIn(book, id);
  return what.includes(name) ? what : `${what}: ${name}`;
};

/** Parts that steps done took out of the unit. */
function outOf(job: Job, { scoped }: Applied): Set<string> {
  return new Set(
    (scoped.teardown ?? [])
      .filter(({ id }) => job.steps.get(id)?.body.did === "done")
      .flatMap(({ parts = [] }) => parts),
  );
}

/** Which version it is for, in words. */
function otherVersion({ when = {} }: Relearn, { book }: Applied): string {
  const [trait, values] = Object.entries(when)[0] ?? ["", []];
  const found = book.traits.find(({ id }) => id === trait);
  if (!found) return "not for this version";
  return `only for ${found.name}: ${values.map((value) => found.values[value]?.name ?? value).join(", ")}`;
}
