import { aboutOf } from "./about";
import { isKind, type BodyOf, type Fact, type FactKind, type FactOf } from "./fact";

/** Facts of one kind, in the order said. */
export const ofKind = <K extends FactKind>(facts: readonly Fact[], kind: K): FactOf<K>[] =>
  facts.filter((fact): fact is FactOf<K> => isKind(fact, kind));

/** All facts by their kind, in the order said. */
export function byKind(facts: readonly Fact[]): ReadonlyMap<FactKind, readonly Fact[]> {
  const kinds = new Map<FactKind, Fact[]>();
  for (const fact of facts) {
    const those = kinds.get(fact.body.kind);
    if (those) those.push(fact);
    else kinds.set(fact.body.kind, [fact]);
  }
  return kinds;
}

/** The last fact of a kind about each thing, in the order the things were first spoken of. */
export function lastByKey<K extends FactKind>(facts: readonly Fact[], kind: K): Map<string, FactOf<K>> {
  const last = new Map<string, FactOf<K>>();
  for (const fact of ofKind(facts, kind)) for (const key of aboutOf(fact.body)) last.set(key, fact);
  return last;
}

type Takeable = { [K in FactKind]: BodyOf<K> extends { there: boolean } ? K : never }[FactKind];

/** Of the last ones those that were not taken back. */
export const standing = <K extends Takeable>(facts: readonly Fact[], kind: K): FactOf<K>[] =>
  [...lastByKey(facts, kind).values()].filter((fact) => (fact.body as { there: boolean }).there);
