import type { Configuration } from "../book";
import type { Fact, FactKind, ReadingBody } from "./fact";
import { Intake } from "./intake";
import { isKind, ofKind, type FactOf } from "./last";
import { Work } from "./work";

export type { FactOf };

/** A reading with the last word on whether it counts. */
export interface JobReading {
  fact: Fact<ReadingBody>;
  out: FactOf<"leave-out"> | null;
}

/** What the facts say about one chain, in the order said. */
export interface ChainFacts {
  readings: JobReading[];
  fittings: FactOf<"fitting">[];
  choices: FactOf<"choice">[];
  waiver: FactOf<"waiver"> | null;
}

/** A job as its facts tell it now. Where several say the same kind of thing, the last one holds. */
export interface Job {
  booking: FactOf<"booking"> | null;
  configuration: Configuration;
  depth: string | null;
  holder: FactOf<"holder"> | null;
  chains: ReadonlyMap<string, ChainFacts>;
  intake: Intake;
  work: Work;
  /** The last visit of this very unit before this one. */
  earlier: FactOf<"earlier-visit"> | null;
  closed: FactOf<"closed"> | null;
}

const noFacts: ChainFacts = { readings: [], fittings: [], choices: [], waiver: null };

/** @returns the facts about one chain; empty ones where none was said. */
export const chainFacts = (job: Job, chain: string): ChainFacts => job.chains.get(chain) ?? noFacts;

/**
 * Facts → job. Pure, so that server and bench always agree; facts that were sent twice count once.
 *
 * @param facts in the order they were stored; those still waiting in the browser come last.
 */
export function fold(facts: readonly Fact[]): Job {
  const seen = new Set<string>();
  const replaced = new Set(facts.flatMap(({ replaces }) => (replaces ? [replaces] : [])));
  const live = facts.filter((fact) => !replaced.has(fact.id) && !seen.has(fact.id) && seen.add(fact.id));

  const last = <K extends FactKind>(kind: K): FactOf<K> | null => ofKind(live, kind).at(-1) ?? null;
  const configuration: Record<string, string> = {};
  const chains = new Map<string, ChainFacts>();
  const outs = new Map<string, FactOf<"leave-out">>();
  const of = (chain: string): ChainFacts => {
    const known = chains.get(chain) ?? { readings: [], fittings: [], choices: [], waiver: null };
    chains.set(chain, known);
    return known;
  };
  for (const fact of live) {
    if (isKind(fact, "configuration")) Object.assign(configuration, fact.body.traits);
    else if (isKind(fact, "leave-out")) outs.set(fact.body.reading, fact);
    else if (isKind(fact, "reading")) of(fact.body.chain).readings.push({ fact, out: null });
    else if (isKind(fact, "fitting")) of(fact.body.chain).fittings.push(fact);
    else if (isKind(fact, "choice")) of(fact.body.chain).choices.push(fact);
    else if (isKind(fact, "waiver")) of(fact.body.chain).waiver = fact;
  }
  for (const { readings } of chains.values()) {
    for (const reading of readings) {
      const out = outs.get(reading.fact.id);
      reading.out = out?.body.out ? out : null;
    }
  }
  return {
    booking: last("booking"),
    configuration,
    depth: last("scope")?.body.depth ?? null,
    holder: last("holder"),
    chains,
    intake: new Intake(live),
    work: new Work(live),
    earlier: last("earlier-visit"),
    closed: last("closed"),
  };
}
