import { statedIn, type Applied, type AppliedChain, type Measurement } from "../book";
import { compareMeasures, lengthOf, measureOf } from "../quantity";
import { assess, type Assessment, type DecisionRule } from "../reading";
import { chainFacts, type FactOf, type Job, type JobReading } from "./job";

/** A figure the book wants before the unit is opened, with what was found. */
export type AsFound =
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
export function asFound(job: Job, applied: Applied, rule: DecisionRule): AsFound[] {
  const chains = applied.chains
    .filter(({ chain, inScope }) => chain.asFound && inScope)
    .map((one): AsFound => {
      const { readings } = chainFacts(job, one.chain.id);
      const found = readings.filter(({ fact }) => fact.body.phase === "found");
      // Facings and fluid have no say in an end play: the reading is in the state the spec is stated in.
      const taken = found.map(({ fact: { body }, out }) => ({
        ...{ reading: body.reading, state: one.spec.state, resolution: body.resolution, out: out !== null },
      }));
      const assessment = assess(taken, one.spec, rule, one.allowances);
      const said = job.intake.figure("chain", one.chain.id);
      return { kind: "chain", id: one.chain.id, applied: one, readings: found, assessment, said };
    });
  const figures = (applied.work.measurements ?? [])
    .filter((measurement) => measurement.asFound)
    .map((measurement): AsFound => {
      const said = job.intake.figure("measurement", measurement.id);
      const text = said?.body.text;
      return {
        kind: "measurement",
        id: measurement.id,
        measurement,
        said,
        verdict: text ? judged(measurement, text) : null,
      };
    });
  return [...chains, ...figures];
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
