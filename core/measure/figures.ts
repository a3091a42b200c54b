import type { Applied, AppliedChain, Measurement } from "../book";
import { chainFacts, type FactOf, type Job, type JobReading, type Phase } from "../fact";
import { assess, type Assessment, type DecisionRule, type TakenReading } from "../reading";
import {
  alone,
  answered,
  CLOCKING,
  itemsOf,
  itemsOfChain,
  judgement,
  type Item,
  type Judgement,
} from "./items";

/** What was read of a chain, or of one of the things it is read of. */
export interface ChainItem {
  item: Item;
  readings: JobReading[];
  assessment: Assessment;
  /** Said instead of a reading: felt only, gauge not here yet. */
  said: FactOf<"figure"> | null;
}

/** What was said of one of the things a measurement is taken of. */
export interface MeasurementItem {
  item: Item;
  said: FactOf<"figure"> | null;
  verdict: Judgement | null;
}

/** A figure of the book with what was measured: a chain’s readings, or a measurement in its own unit. */
export type Figure =
  | (Omit<ChainItem, "item"> & {
      kind: "chain";
      id: string;
      applied: AppliedChain;
      /** Each of the things it is read of; empty where it is one figure. Of several, the gravest is the chain’s own verdict. */
      items: ChainItem[];
      /** How a pressed-in part is turned; null where the book says nothing of it. */
      clocking: MeasurementItem | null;
    })
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

/**
 * Every chain and measurement in scope but the clearances of packs, which have worksheets of their own.
 *
 * @param phase as the unit came apart, or with what stays in.
 */
export function figures(job: Job, applied: Applied, rule: DecisionRule, phase: Phase): Figure[] {
  const packs = new Set(applied.packs.map(({ chain }) => chain.id));
  const chains = applied.chains
    .filter(({ chain, inScope }) => inScope && !packs.has(chain.id))
    .map((one) => chainFigure(job, one, rule, phase));
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

function chainFigure(job: Job, applied: AppliedChain, rule: DecisionRule, phase: Phase): Figure {
  const { chain, spec, allowances } = applied;
  const all = chainFacts(job, chain.id).readings.filter(({ fact }) => fact.body.phase === phase);
  const of = (readings: JobReading[], as: (taken: TakenReading) => TakenReading): ChainItem["assessment"] =>
    // Facings and fluid have no say in an end play: the reading is in the state the spec is stated in.
    assess(
      readings.map(({ fact: { body }, leftOut }) =>
        as({
          reading: body.reading,
          state: spec.state,
          resolution: body.resolution,
          leftOut: leftOut !== null,
        }),
      ),
      spec,
      rule,
      allowances,
    );
  const items = itemsOfChain(applied).map((item): ChainItem => {
    const readings = all.filter(({ fact }) => fact.body.item === item.name);
    const said = job.figure("chain", chain.id, phase, item.name);
    return { item, readings, assessment: of(readings, alone), said };
  });
  // Readings from before anybody said which: a job of an older page, or one taken quickly.
  const loose = items.length > 0 ? all.filter(({ fact }) => fact.body.item === undefined) : [];
  if (loose.length > 0)
    items.push({
      item: { name: "not told apart" },
      readings: loose,
      assessment: of(loose, (taken) => taken),
      said: null,
    });
  const said = job.figure("chain", chain.id, phase);
  const assessment = items.length === 0 ? of(all, (taken) => taken) : gravest(items);
  const turned = chain.clocking ? job.figure("chain", chain.id, phase, CLOCKING) : null;
  const clocking = chain.clocking
    ? {
        item: { name: CLOCKING },
        said: turned,
        verdict: turned ? answered(CLOCKING, turned.body.text ?? "") : null,
      }
    : null;
  return { kind: "chain", id: chain.id, applied, readings: all, assessment, said, items, clocking };
}

const GRAVITY: readonly Assessment["verdict"]["kind"][] = [
  "outside",
  "too close",
  "creeping",
  "too few",
  "inside",
];

/** The verdict on several things is that on the worst; nothing is inside before all of them are read. */
function gravest(items: readonly ChainItem[]): Assessment {
  const read = items.filter(({ readings }) => readings.length > 0);
  const of = (one: ChainItem): number => GRAVITY.indexOf(one.assessment.verdict.kind);
  const [first = items[0], ...others] = read;
  if (!first) throw new RangeError("a chain of no things");
  const worst = others.reduce((a, b) => (of(b) < of(a) ? b : a), first).assessment;
  const open = items.filter(({ readings, said }) => readings.length === 0 && !said).length;
  return worst.verdict.kind === "inside" && open > 0
    ? { ...worst, verdict: { kind: "too few", more: open } }
    : worst;
}

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
