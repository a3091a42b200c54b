import { statedIn, type Applied, type AppliedChain, type Measurement } from "../book";
import { compareMeasures, lengthOf, measureOf } from "../quantity";
import { assess, type Assessment, type DecisionRule } from "../reading";
import type { Phase } from "./fact";
import { chainFacts, type FactOf, type Job, type JobReading } from "./job";

/** A figure of the book with what was measured: a chain’s readings, or a measurement in its own unit. */
export type Figure =
  | {
      kind: "chain";
      id: string;
      applied: AppliedChain;
      readings: JobReading[];
      assessment: Assessment;
      /** Said instead of a reading: felt only, gauge not here yet. */
      said: FactOf<"figure"> | null;
    }
  | {
      kind: "measurement";
      id: string;
      measurement: Measurement;
      said: FactOf<"figure"> | null;
      verdict: "inside" | "outside" | "not stated" | null;
    };

/** Everything the book wants as found from this unit, in its order: chains first. Packs have worksheets of their own. */
export const asFound = (job: Job, applied: Applied, rule: DecisionRule): Figure[] =>
  figures(job, applied, rule, "found").filter((one) =>
    one.kind === "chain" ? one.applied.chain.asFound : one.measurement.asFound,
  );

/**
 * Every chain and measurement in scope but the clearances of packs, which have worksheets of their own.
 *
 * @param phase as the unit came apart, or with what stays in.
 */
export function figures(job: Job, applied: Applied, rule: DecisionRule, phase: Phase): Figure[] {
  const packs = new Set(applied.packs.map(({ chain }) => chain.id));
  const chains = applied.chains
    .filter(({ chain, inScope }) => inScope && !packs.has(chain.id))
    .map((one): Figure => {
      const { readings } = chainFacts(job, one.chain.id);
      const found = readings.filter(({ fact }) => fact.body.phase === phase);
      // Facings and fluid have no say in an end play: the reading is in the state the spec is stated in.
      const taken = found.map(({ fact: { body }, out }) => ({
        ...{ reading: body.reading, state: one.spec.state, resolution: body.resolution, out: out !== null },
      }));
      const assessment = assess(taken, one.spec, rule, one.allowances);
      const said = job.intake.figure("chain", one.chain.id, phase);
      return { kind: "chain", id: one.chain.id, applied: one, readings: found, assessment, said };
    });
  const measured = (applied.work.measurements ?? []).map((measurement): Figure => {
    const said = job.intake.figure("measurement", measurement.id, phase);
    const text = said?.body.text;
    const verdict = text ? judged(measurement, text) : null;
    return { kind: "measurement", id: measurement.id, measurement, said, verdict };
  });
  return [...chains, ...measured];
}

function judged(measurement: Measurement, text: string): "inside" | "outside" | "not stated" {
  const quantity = statedIn(measurement.kind);
  const { min, max } = measurement;
  if (!quantity || (min === undefined && max === undefined)) return "not stated";
  const against = (limit: string): number =>
    quantity === "length"
      ? lengthOf(text) - lengthOf(limit)
      : compareMeasures(measureOf(text, quantity), measureOf(limit, quantity));
  const under = min !== undefined && against(min) < 0;
  const over = max !== undefined && against(max) > 0;
  return under || over ? "outside" : "inside";
}
