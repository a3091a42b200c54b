import type { Applied } from "../book";
import type { Job } from "../fact";
import type { DecisionRule } from "../reading";
import { CAUSES, common } from "./causes";
import type { Failed } from "./failed";
import { Seen } from "./seen";

/** What speaks for a cause or against it, and by how much. */
export interface Evidence {
  words: string;
  /** How much likelier it makes the cause; below 1 it speaks against. */
  factor: number;
}

/** A candidate cause of a failure, with the evidence and what would settle it. */
export interface RankedCause {
  id: string;
  name: string;
  /** Share of all candidates’ weight; they add up to one. */
  chance: number;
  evidence: Evidence[];
  /** Looked at or measured, each would confirm or clear it. */
  checks: string[];
}

/**
 * Candidate causes of one failure, likeliest first: from symptoms, findings, what was found wrong, air checks and figures together.
 *
 * @returns chances that add up to one; the last is that it is none of these.
 */
export function candidateCauses(job: Job, applied: Applied, rule: DecisionRule, of: Failed): RankedCause[] {
  const seen = new Seen(job, applied, rule, of);
  const causes = [...CAUSES[of.kind](seen), ...common(seen)];
  const weighed = causes.map(({ id, name, weight, tests }) => {
    const known = tests.filter((test) => test.known !== null);
    const evidence = known.map(({ known: is, yes, no, weigh }): Evidence => ({
      words: is ? yes : no,
      factor: is ? weigh[0] : weigh[1],
    }));
    const checks = tests.filter((test) => test.known === null).map(({ check }) => check);
    return {
      id,
      name,
      evidence,
      checks: [...new Set(checks)].filter(Boolean),
      chance: evidence.reduce((all, { factor }) => all * factor, weight),
    };
  });
  const all = [...weighed, { id: "unknown", name: "None of these", chance: 0.4, evidence: [], checks: [] }];
  const sum = all.reduce((total, { chance }) => total + chance, 0);
  return all.map((one) => ({ ...one, chance: one.chance / sum })).sort((a, b) => b.chance - a.chance);
}
