import type { Applied, AppliedChain, Measurement } from "../book";
import { chainFacts, type Job, type JobReading, type Phase } from "../fact";
import type { DecisionRule } from "../reading";
import { itemsOf, judgement, type Item, type Judgement } from "./items";
import { readingSet, type MeasurementItem, type ReadingSet } from "./reading-set";
import { ofAssemblyNow } from "./restacked";
import { fitOf } from "./worksheet";

/** A figure of the book with what was measured: a chain’s readings, or a measurement in its own unit. */
export type Figure =
  | (ReadingSet & { kind: "chain"; id: string; applied: AppliedChain })
  | (Omit<MeasurementItem, "item"> & {
      kind: "measurement";
      id: string;
      measurement: Measurement;
      items: MeasurementItem[];
    });

/** Everything the book wants as found from this unit, in its order: chains first. Packs have worksheets of their own. */
export const asFound = (job: Job, applied: Applied, rule: DecisionRule): Figure[] =>
  figures(job, applied, rule, "found").filter((one) =>
    one.kind === "chain" ? one.applied.chain.asFound : one.measurement.asFound,
  );

interface Made {
  applied: Applied;
  rule: DecisionRule;
  figures: readonly Figure[];
}
const made = new WeakMap<Job, Partial<Record<Phase, Made>>>();

/**
 * Every chain and measurement in scope but the clearances of packs, which have worksheets of their own. A job never changes, so what it says is
 * judged once: where it stands, its parts and its sheet all ask.
 *
 * @param phase as the unit came apart, or with what stays in.
 */
export function figures(job: Job, applied: Applied, rule: DecisionRule, phase: Phase): readonly Figure[] {
  const phases = made.get(job) ?? {};
  made.set(job, phases);
  const known = phases[phase];
  if (known?.applied === applied && known.rule === rule) return known.figures;
  const judged = figuresOf(job, applied, rule, phase);
  phases[phase] = { applied, rule, figures: judged };
  return judged;
}

function figuresOf(job: Job, applied: Applied, rule: DecisionRule, phase: Phase): Figure[] {
  const packs = new Set(applied.packs.map(({ chain }) => chain.id));
  const chains = applied.chains
    .filter(({ chain, inScope }) => inScope && !packs.has(chain.id))
    .map((one): Figure => ({
      kind: "chain",
      id: one.chain.id,
      applied: one,
      ...readingSet(job, one, rule, phase, inPhase(job, one, phase)),
    }));
  const measured = (applied.scoped.measurements ?? []).map((measurement): Figure => {
    const of = (item?: Item): Omit<MeasurementItem, "item"> => {
      const said = job.figure("measurement", measurement.id, phase, item?.name);
      const text = said?.body.text;
      return { said, verdict: text ? judgement(measurement, text, item) : null };
    };
    const items = itemsOf(measurement, applied).map((item) => ({ item, ...of(item) }));
    return { kind: "measurement", id: measurement.id, measurement, ...of(), ...whole(items), items };
  });
  return [...chains, ...measured];
}

/** Those taken with an earlier piece or other plates in count no longer as built. */
const inPhase = (job: Job, applied: AppliedChain, phase: Phase): JobReading[] => {
  const fit = fitOf(job, applied);
  const isOfNow = ofAssemblyNow(job, applied, fit);
  return chainFacts(job, applied.chain.id).readings.filter(
    ({ fact }) =>
      fact.body.phase === phase && (phase === "found" || (fact.body.fit === fit && isOfNow(fact))),
  );
};

const GRAVEST: readonly (Judgement | null)[] = ["outside", "too close", null, "inside", "not stated"];

/** Of several things the worst is the figure’s own verdict and word; none before one is said. */
function whole(items: readonly MeasurementItem[]): Partial<Omit<MeasurementItem, "item">> {
  const said = items.filter((one) => one.said !== null);
  const of = ({ said: by, verdict }: MeasurementItem): number =>
    // What could not be taken is no open question any more.
    by?.body.cannot ? GRAVEST.indexOf("not stated") : GRAVEST.indexOf(verdict);
  const [first, ...others] = said;
  if (!first) return {};
  const worst = others.reduce((a, b) => (of(b) < of(a) ? b : a), first);
  const done = said.length === items.length || worst.verdict === "outside" || worst.verdict === "too close";
  return { said: worst.said, verdict: done ? worst.verdict : null };
}
