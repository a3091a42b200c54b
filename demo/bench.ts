import { buildOf, type Build, type BuildStep } from "../core/build";
import type { Applied } from "../core/book";
import { fold, jobWithBook, type Fact, type FactBody, type Job } from "../core/fact";
import { USUAL_SCHOOLS } from "../core/inspect";
import { good, unitOf } from "./testing";
import { type UnitId } from "./units";
import { stepBuilt } from "./work";

export const HOUSE = { rule: "proven", target: "middle", ...USUAL_SCHOOLS } as const;
export const START = Date.UTC(2026, 4, 4, 8);
export const HOURS = 3_600_000;

/** A bench where time goes on: each fact a minute after the last. */
export class Bench {
  readonly facts: Fact[] = [];
  now = START;
  constructor(
    readonly applied: Applied,
    depths: readonly string[] = applied.book.depths.slice(-1),
  ) {
    this.say(
      { kind: "configuration", traits: { ...traitsOf(applied) } },
      { kind: "scope", depths: [...depths] },
      good(...applied.scoped.parts.map(({ id }) => id)),
    );
    // What a lead signs for is not what is tried here: figures have tests of their own.
    const figures = (applied.scoped.build ?? []).flatMap(({ chains = [], measurements = [] }) => [
      ...chains,
      ...measurements,
    ]);
    this.say({
      kind: "sign-off",
      of: [...new Set(figures)].map((id) => `figure ${id}`),
      reason: "not tried here",
      signedBy: "Edda L.",
    });
  }
  say(...bodies: FactBody[]): void {
    for (const body of bodies) {
      this.now += 60_000;
      this.facts.push({
        id: `f${this.facts.length}`,
        by: "Mira K.",
        at: new Date(this.now).toISOString(),
        body,
      });
    }
  }
  get job(): Job {
    return jobWithBook(this.applied.book, fold(this.facts), []).job;
  }
  /** Worked out once for what was said and the time it is asked at: a test asks for one step after another. */
  get build(): Build {
    const { now } = this;
    const last = this.facts.at(-1);
    if (this.made?.last !== last || this.made?.now !== now)
      this.made = { last, now, build: buildOf(this.job, this.applied, HOUSE, now) };
    return this.made.build;
  }
  private made: { last: Fact | undefined; now: number; build: Build } | null = null;
  step(id: string): BuildStep {
    const found = this.build.steps.find(({ step }) => step.id === id);
    if (!found) throw new Error(`no step ${id}`);
    return found;
  }
  /** A step with everything it asks, whatever it waits for. */
  do(id: string): void {
    this.say(...stepBuilt(this.step(id)));
    // What is tightened once more is so after its wait.
    this.now += HOURS;
    for (const { group, left } of this.step(id).faces)
      for (const [round, places] of left)
        if (places.length > 0)
          this.say({ kind: "tightened", group: group.id, round, places: [...places], did: "tight" });
  }
  undo(id: string): void {
    this.say({ kind: "step", step: id, did: "undone", reason: "" });
  }
}

const traitsOf = ({ book }: Applied): Record<string, string> =>
  Object.fromEntries(book.traits.map(({ id, values }) => [id, Object.keys(values).at(-1) ?? ""]));
const units = new Map<UnitId, Applied>();
/** A unit with the last value of each trait, resolved once. */
export function usual(id: UnitId): Applied {
  const known = units.get(id) ?? unitOf(id);
  units.set(id, known);
  return known;
}
/** A bench with one of the units on it. */
export const bench = (id: UnitId): Bench => new Bench(usual(id));
