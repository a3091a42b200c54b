import type { Fact, FactKind } from "./fact";
import { isKind, ofKind, standing, type FactOf } from "./last";

type Last<K extends FactKind> = ReadonlyMap<string, FactOf<K>>;

/**
 * What was said at the bench about taking down, cleaning and looking; where the same is said twice, the last word holds. Each answer looks through
 * every fact of the job, and pages ask once a part or a step: it is made once.
 */
export class Work {
  private readonly known = new Map<string, unknown>();

  /** Facts of the bench in the order said: where a thing lies depends on what was said before. */
  constructor(readonly live: readonly Fact[]) {}

  /** The last word on each step. */
  get steps(): Last<"step"> {
    return this.last("step", ({ step }) => step);
  }
  get outs(): Last<"out"> {
    return this.last("out", ({ group }) => group);
  }
  get sat(): Last<"sat"> {
    return this.last("sat", ({ part }) => part);
  }
  get counts(): Last<"count"> {
    return this.last("count", ({ of }) => of);
  }
  get balls(): FactOf<"balls"> | null {
    return this.once("balls", () => ofKind(this.live, "balls").at(-1) ?? null);
  }
  /** What was found wrong and still stands. */
  get wrongs(): readonly FactOf<"wrong">[] {
    return this.once("wrongs", () => standing(ofKind(this.live, "wrong"), ({ what, of }) => `${what} ${of}`));
  }
  /** The last cleaning of each thing: a part, or a place where metal hides. */
  get cleaning(): Last<"cleaning"> {
    return this.once(
      "cleaning",
      () =>
        new Map(
          ofKind(this.live, "cleaning").flatMap((fact) =>
            fact.body.things.map((thing): [string, FactOf<"cleaning">] => [thing, fact]),
          ),
        ),
    );
  }
  /** Parts looked at and in good order; a finding made later takes them off the list. */
  get good(): Last<"good"> {
    return this.once("good", () => {
      const good = new Map<string, FactOf<"good">>();
      for (const fact of this.live) {
        if (isKind(fact, "good")) for (const part of fact.body.parts) good.set(part, fact);
        else if (isKind(fact, "finding") && fact.body.there) good.delete(fact.body.part);
      }
      return good;
    });
  }
  /**
   * What was found on parts and stands: not taken back, and the part not called good since. A word on some pieces leaves what was said of the
   * others; a word on all of them replaces it.
   */
  get findings(): readonly FactOf<"finding">[] {
    return this.once("findings", () => {
      const found = new Map<string, FactOf<"finding">[]>();
      for (const fact of this.live) {
        if (isKind(fact, "good"))
          for (const [key, [one]] of found)
            if (one && fact.body.parts.includes(one.body.part)) found.delete(key);
        if (!isKind(fact, "finding")) continue;
        const { part, wear, pieces, there } = fact.body;
        const key = `${part} ${wear}`;
        const others = pieces ? (found.get(key) ?? []).flatMap((one) => without(one, pieces)) : [];
        found.set(key, there ? [...others, fact] : others);
      }
      return [...found.values()].flat();
    });
  }
  get dispositions(): Last<"disposition"> {
    return this.last("disposition", ({ part }) => part);
  }
  get weakPoints(): Last<"weak-point"> {
    return this.last("weak-point", ({ point }) => point);
  }
  get causes(): Last<"cause"> {
    return this.last("cause", ({ of }) => of);
  }
  get offers(): Last<"offer"> {
    return this.last("offer", ({ way }) => way);
  }
  get wayOn(): FactOf<"way-on"> | null {
    return this.once("way-on", () => ofKind(this.live, "way-on").at(-1) ?? null);
  }

  /** The last fact of a kind for each key, in the order the keys were first said. */
  private last<K extends FactKind>(kind: K, keyOf: (body: FactOf<K>["body"]) => string): Last<K> {
    return this.once(kind, () => new Map(ofKind(this.live, kind).map((fact) => [keyOf(fact.body), fact])));
  }
  private once<T>(name: string, make: () => T): T {
    if (!this.known.has(name)) this.known.set(name, make());
    return this.known.get(name) as T;
  }
}

/** A finding without the pieces that something else was said of since; one of all pieces stays, with them as its exceptions. */
function without(one: FactOf<"finding">, pieces: readonly number[]): FactOf<"finding">[] {
  if (!one.body.pieces) return [one];
  const left = one.body.pieces.filter((piece) => !pieces.includes(piece));
  return left.length > 0 ? [{ ...one, body: { ...one.body, pieces: left } }] : [];
}
