import type { AppliedChain } from "../book";
import { seatFacts, type Fact, type FactOf, type Job, type SeatFacts } from "../fact";

const known = new WeakMap<Job, ReadonlyMap<string, number>>();

/** By pack: where in the job’s facts its stack was last changed by a decision to make it stronger, or by taking that back. */
function changesOf(job: Job): ReadonlyMap<string, number> {
  const found = known.get(job);
  if (found) return found;
  const changed = new Map<string, number>();
  let before = new Map<string, string>();
  job.live.forEach((fact, i) => {
    if (fact.body.kind !== "stronger") return;
    const now = new Map(fact.body.packs.map((pack) => [pack.element, stackOf(pack)]));
    for (const element of new Set([...before.keys(), ...now.keys()]))
      if (before.get(element) !== now.get(element)) changed.set(element, i);
    before = now;
  });
  known.set(job, changed);
  return changed;
}

/** Plates by what they come to; metal that comes off is in what it was predicted from. */
const stackOf = ({ plates, predicted }: FactOf<"stronger">["body"]["packs"][number]): string =>
  JSON.stringify([
    plates.map(({ role, part, thickness, count }) => [role, part, thickness, count]),
    predicted,
  ]);

/**
 * Whether something was said of the stack that is planned now: readings with other plates in, and pieces chosen from them, say nothing of it.
 *
 * @returns a question to ask of the chain’s facts.
 */
export function ofStackNow(job: Job, { chain }: Pick<AppliedChain, "chain">): (fact: Fact) => boolean {
  const since = chain.of === undefined ? undefined : changesOf(job).get(chain.of);
  return since === undefined
    ? () => true
    : (fact) => job.live.indexOf(fact) > since && knew(job, fact, since);
}

/**
 * Whether who said something had heard of what stands at a place by then: a bench that was away reads the plates that lie before it. What was said
 * by itself there since is seen through; where nobody noted what was seen, what came later was said knowing.
 */
function knew(job: Pick<Job, "live">, fact: Fact, place: number): boolean {
  const { live } = job;
  const seen = fact.after === undefined ? -1 : live.findIndex(({ id }) => id === fact.after);
  const last = live[seen];
  if (!last) return true;
  if (seen < place) return false;
  return seen === place || last.by !== fact.by || knew(job, last, place);
}

/** The last word on the piece that is in: whether it is out, and the fact from which on readings are of what is assembled now. */
export interface Refit {
  /** Null where it is in. */
  out: FactOf<"taken-out"> | null;
  /** Null where it never came out. */
  since: FactOf<"taken-out"> | null;
}

/**
 * Whether the piece of one fitting came out since, and went in again. Somebody who finds that it was in all along takes back what was said last.
 *
 * @param fit which fitting of the seat.
 */
export function refitOf({ outs }: Pick<SeatFacts, "outs">, fit: number): Refit {
  let now: Refit = { out: null, since: null };
  let before = now;
  for (const fact of outs) {
    if (fact.body.fit !== fit) continue;
    const { was } = fact.body;
    if (was === "not-out") now = before;
    // Of two who say the same the second has nothing new.
    else if ((was === "out") !== (now.out !== null)) {
      if (was === "out") before = now;
      now = { out: was === "out" ? fact : null, since: fact };
    }
  }
  return now;
}

/**
 * Whether something was said of what is assembled now: with the plates that are planned, and since the piece that is in was last taken out. What
 * was read with an earlier piece is asked only for the plates.
 *
 * @param fit how often the pieces of the chain’s seats were changed so far.
 * @returns a question to ask of the chain’s readings and conditions.
 */
export function ofAssemblyNow(
  job: Job,
  applied: Pick<AppliedChain, "chain" | "seats">,
  fit: number,
): (fact: FactOf<"reading" | "conditions">) => boolean {
  const ofStack = ofStackNow(job, applied);
  const refits = applied.seats.map(({ id }) => {
    const facts = seatFacts(job, id);
    return refitOf(facts, lastFit(facts));
  });
  const isOut = refits.some(({ out }) => out !== null);
  const since = refits.reduce(
    (last, one) => (one.since ? Math.max(last, job.live.indexOf(one.since)) : last),
    -1,
  );
  return (fact) =>
    ofStack(fact) && (since < 0 || fact.body.fit < fit || (!isOut && job.live.indexOf(fact) > since));
}

/** The fitting of a seat that is in now. */
export const lastFit = ({ fittings }: Pick<SeatFacts, "fittings">): number =>
  Math.max(0, ...fittings.map(({ body }) => body.fit));
