import type { Fact, FactBody, FactKind } from "./fact";

/** Facts of one kind, with their bodies narrowed. */
export type FactOf<K extends FactKind> = Fact<Extract<FactBody, { kind: K }>>;

export const isKind = <K extends FactKind>(fact: Fact, kind: K): fact is FactOf<K> => fact.body.kind === kind;

/** @returns the facts of one kind, in the order said. */
export const ofKind = <K extends FactKind>(facts: readonly Fact[], kind: K): FactOf<K>[] =>
  facts.filter((fact): fact is FactOf<K> => isKind(fact, kind));

/** The last fact for each key, in the order the keys were first said. */
export function lastOf<F extends Fact>(facts: readonly F[], keyOf: (body: F["body"]) => string): F[] {
  const last = new Map<string, F>();
  for (const fact of facts) last.set(keyOf(fact.body), fact);
  return [...last.values()];
}

/** Of the last ones those that were not taken back. */
export const standing = <F extends Fact<Extract<FactBody, { there: boolean }>>>(
  facts: readonly F[],
  keyOf: (body: F["body"]) => string,
): F[] => lastOf(facts, keyOf).filter(({ body }) => body.there);
