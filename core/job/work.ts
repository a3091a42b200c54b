import type { Fact } from "./fact";
import { isKind, lastOf, ofKind, standing, type FactOf } from "./last";

/** What was said at the bench about taking down, cleaning and looking; where the same is said twice, the last word holds. */
export class Work {
  /** Facts of the bench in the order said: where a thing lies depends on what was said before. */
  constructor(readonly live: readonly Fact[]) {}

  /** The last word on each step. */
  get steps(): ReadonlyMap<string, FactOf<"step">> {
    return new Map(
      lastOf(ofKind(this.live, "step"), ({ step }) => step).map((fact) => [fact.body.step, fact]),
    );
  }
  get outs(): ReadonlyMap<string, FactOf<"out">> {
    return new Map(
      lastOf(ofKind(this.live, "out"), ({ group }) => group).map((fact) => [fact.body.group, fact]),
    );
  }
  get sat(): ReadonlyMap<string, FactOf<"sat">> {
    return new Map(
      lastOf(ofKind(this.live, "sat"), ({ part }) => part).map((fact) => [fact.body.part, fact]),
    );
  }
  get counts(): ReadonlyMap<string, FactOf<"count">> {
    return new Map(lastOf(ofKind(this.live, "count"), ({ of }) => of).map((fact) => [fact.body.of, fact]));
  }
  get balls(): FactOf<"balls"> | null {
    return ofKind(this.live, "balls").at(-1) ?? null;
  }
  /** What was found wrong and still stands. */
  get wrongs(): FactOf<"wrong">[] {
    return standing(ofKind(this.live, "wrong"), ({ what, of }) => `${what} ${of}`);
  }
  /** The last cleaning of each thing: a part, or a place where metal hides. */
  get cleaning(): ReadonlyMap<string, FactOf<"cleaning">> {
    const last = new Map<string, FactOf<"cleaning">>();
    for (const fact of ofKind(this.live, "cleaning"))
      for (const thing of fact.body.things) last.set(thing, fact);
    return last;
  }
  /** Parts looked at and in good order; a finding made later takes them off the list. */
  get good(): ReadonlyMap<string, FactOf<"good">> {
    const good = new Map<string, FactOf<"good">>();
    for (const fact of this.live) {
      if (isKind(fact, "good")) for (const part of fact.body.parts) good.set(part, fact);
      else if (isKind(fact, "finding") && fact.body.there) good.delete(fact.body.part);
    }
    return good;
  }
  /** What was found on parts and stands: not taken back, and the part not called good since. */
  get findings(): FactOf<"finding">[] {
    const found = new Map<string, FactOf<"finding">>();
    for (const fact of this.live) {
      if (isKind(fact, "good"))
        for (const [key, { body }] of found) if (fact.body.parts.includes(body.part)) found.delete(key);
      if (!isKind(fact, "finding")) continue;
      const key = `${fact.body.part} ${fact.body.wear}`;
      if (fact.body.there) found.set(key, fact);
      else found.delete(key);
    }
    return [...found.values()];
  }
  get dispositions(): ReadonlyMap<string, FactOf<"disposition">> {
    return new Map(
      lastOf(ofKind(this.live, "disposition"), ({ part }) => part).map((fact) => [fact.body.part, fact]),
    );
  }
  get weakPoints(): ReadonlyMap<string, FactOf<"weak-point">> {
    return new Map(
      lastOf(ofKind(this.live, "weak-point"), ({ point }) => point).map((fact) => [fact.body.point, fact]),
    );
  }
  get causes(): ReadonlyMap<string, FactOf<"cause">> {
    return new Map(lastOf(ofKind(this.live, "cause"), ({ of }) => of).map((fact) => [fact.body.of, fact]));
  }
  get offers(): ReadonlyMap<string, FactOf<"offer">> {
    return new Map(lastOf(ofKind(this.live, "offer"), ({ way }) => way).map((fact) => [fact.body.way, fact]));
  }
  get wayOn(): FactOf<"way-on"> | null {
    return ofKind(this.live, "way-on").at(-1) ?? null;
  }
}
