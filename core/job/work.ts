import type { Fact } from "./fact";
import { lastOf, ofKind, standing, type FactOf } from "./last";

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
}
