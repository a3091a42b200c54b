import type { Fact, FactBody, FactKind } from "./fact";
import { aboutOf } from "./about";

/**
 * Facts in the order they were said, which is not the order they arrived: a tablet that was away sends later what it said earlier. A fact that
 * names the last one its speaker had seen (`after`) stands right behind that one; those that name none stand where they arrived. A fact never
 * comes before one its speaker had seen, since what was seen had been stored before.
 *
 * @param facts in the order stored; those still waiting in the browser come last.
 */
export function inOrder(facts: readonly Fact[]): readonly Fact[] {
  const places = placesOf(facts);
  if (places.every((place, i) => place === i - 1)) return facts;
  return facts
    .map((fact, i) => ({ fact, place: places[i] ?? i - 1, i }))
    .sort((a, b) => a.place - b.place || a.i - b.i)
    .map(({ fact }) => fact);
}

/** The index of the last fact each one's speaker had seen; −1 for none. */
function placesOf(facts: readonly Fact[]): number[] {
  if (!facts.some(({ after }) => after !== undefined)) return facts.map((_, i) => i - 1);
  const index = new Map(facts.map(({ id }, i) => [id, i]));
  return facts.map(({ after }, i) => {
    const seen = after === undefined ? undefined : index.get(after);
    // Named but not here, or here only later: nothing can be said but that it arrived now.
    return seen === undefined || seen >= i ? i - 1 : seen;
  });
}

/** Two or more words on the same thing whose speakers did not know of each other. */
export interface Disagreement {
  kind: FactKind;
  key: string;
  /** The one that holds until somebody says which: the last in the order said. */
  holds: Fact;
  others: Fact[];
}

/**
 * Where the last word is not one word: of the same thing different things were said by people who had not seen the other's. Whoever says it
 * once more, having seen both, ends it.
 *
 * @param facts in the order stored.
 */
export function disagreements(facts: readonly Fact[]): Disagreement[] {
  if (!facts.some(({ after }) => after !== undefined)) return [];
  const places = placesOf(facts);
  const groups = new Map<string, number[]>();
  facts.forEach(({ body }, i) => {
    for (const key of aboutOf(body)) {
      const name = `${body.kind} ${key}`;
      groups.set(name, [...(groups.get(name) ?? []), i]);
    }
  });
  return [...groups].flatMap(([name, group]): Disagreement[] => {
    const heads = group.filter((i) => !group.some((later) => later !== i && knew(facts, places, later, i)));
    const [kind = "", ...rest] = name.split(" ");
    if (heads.length < 2) return [];
    const ordered = [...heads].sort((a, b) => (places[a] ?? 0) - (places[b] ?? 0) || a - b);
    const said = ordered.flatMap((i) => facts[i] ?? []);
    const holds = said.at(-1);
    const others = said.filter((one) => one !== holds && holds && !sameWords(one.body, holds.body));
    return holds && others.length > 0 ? [{ kind: kind as FactKind, key: rest.join(" "), holds, others }] : [];
  });
}

/** Whether the speaker of one fact knew of another: it had been stored by then, or was their own. */
function knew(facts: readonly Fact[], places: readonly number[], one: number, other: number): boolean {
  if (other > one) return false;
  const [a, b] = [facts[one], facts[other]];
  return (places[one] ?? -1) >= other || a?.by === b?.by || a?.replaces === b?.id;
}

const sameWords = (a: FactBody, b: FactBody): boolean =>
  JSON.stringify(sorted(a)) === JSON.stringify(sorted(b));
const sorted = (body: FactBody): unknown => Object.entries(body).sort(([a], [b]) => (a < b ? -1 : 1));
