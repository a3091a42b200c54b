import { isKind, type Fact, type FactOf } from "./fact";

/** Parts looked at and in good order; a finding made later takes them off the list. */
export function goodOf(live: readonly Fact[]): Map<string, FactOf<"good">> {
  const good = new Map<string, FactOf<"good">>();
  for (const fact of live) {
    if (isKind(fact, "good")) for (const part of fact.body.parts) good.set(part, fact);
    else if (isKind(fact, "finding") && fact.body.there) good.delete(fact.body.part);
  }
  return good;
}

/**
 * What was found on parts and stands: not taken back, and the part not called good since. A word on some pieces leaves what was said of the
 * others; a word on all of them replaces it.
 */
export function findingsOf(live: readonly Fact[]): FactOf<"finding">[] {
  const found = new Map<string, FactOf<"finding">[]>();
  for (const fact of live) {
    if (isKind(fact, "good"))
      for (const [key, [one]] of found) if (one && fact.body.parts.includes(one.body.part)) found.delete(key);
    if (!isKind(fact, "finding")) continue;
    const { part, wear, pieces, there } = fact.body;
    const key = `${part} ${wear}`;
    const others = pieces ? (found.get(key) ?? []).flatMap((one) => without(one, pieces)) : [];
    found.set(key, there ? [...others, fact] : others);
  }
  return [...found.values()].flat();
}

/** A finding without the pieces that something else was said of since; one of all pieces stays, with them as its exceptions. */
function without(one: FactOf<"finding">, pieces: readonly number[]): FactOf<"finding">[] {
  if (!one.body.pieces) return [one];
  const left = one.body.pieces.filter((piece) => !pieces.includes(piece));
  return left.length > 0 ? [{ ...one, body: { ...one.body, pieces: left } }] : [];
}
