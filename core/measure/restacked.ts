import type { AppliedChain } from "../book";
import type { Fact, FactOf, Job } from "../fact";

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
  return since === undefined ? () => true : (fact) => job.live.indexOf(fact) > since;
}
