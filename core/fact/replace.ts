import { aboutOf, kindOf } from "./about";
import { isKind, type Fact, type FactBody } from "./fact";

/**
 * Whether one fact may stand in another's place: of the same kind, about the same thing, and of a kind that is said at the bench. A signature, a
 * decision, a choice or a closing is never taken away by saying something else.
 */
export function mayReplace(fact: Fact, old: Fact): boolean {
  if (fact.body.kind !== old.body.kind || !isOfBench(fact.body) || !isOfBench(old.body)) return false;
  const [now, before] = [thingsOf(fact), thingsOf(old)];
  return now.length === before.length && now.every((thing) => before.includes(thing));
}

function isOfBench(body: FactBody): boolean {
  const { bench, who } = kindOf(body.kind);
  return who === undefined && (typeof bench === "function" ? bench(body) : bench);
}

/** What a fact is about; a reading, which stands for itself, is of its chain. */
const thingsOf = (fact: Fact): readonly string[] =>
  isKind(fact, "reading")
    ? [fact.body.chain, fact.body.phase, fact.body.item ?? ""].map((part, i) => `${i} ${part}`)
    : aboutOf(fact.body);

/** The ids of facts that others of the list rightly stand in the place of. */
export function replacedIn(facts: readonly Fact[]): Set<string> {
  const replacing = facts.filter(({ replaces }) => replaces !== undefined);
  if (replacing.length === 0) return new Set();
  const byId = new Map(facts.map((fact) => [fact.id, fact]));
  return new Set(
    replacing.flatMap((fact) => {
      const old = byId.get(fact.replaces ?? "");
      return old && mayReplace(fact, old) ? [old.id] : [];
    }),
  );
}
