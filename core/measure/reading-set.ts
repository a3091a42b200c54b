import type { AppliedChain, PackChain } from "../book";
import type { FactOf, Job, JobReading, Phase } from "../fact";
import {
  assess,
  isSettled,
  READINGS_NEEDED,
  type Assessment,
  type DecisionRule,
  type TakenReading,
} from "../reading";
import { alone, answered, CLOCKING, itemsOfChain, type Item, type Judgement } from "./items";

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

/** Readings of one chain taken with the same parts in, and what they say. */
export interface ReadingSet extends Omit<ChainItem, "item"> {
  /** Each of the things it is read of; empty where it is one figure. Of several, the gravest is the chain’s own verdict. */
  items: ChainItem[];
  /** How a pressed-in part is turned; null where the book says nothing of it. */
  clocking: MeasurementItem | null;
}

/** Whether a chain is the clearance of a pack. */
export const isPackChain = (applied: AppliedChain): applied is PackChain => "pack" in applied;

/** What a chain is held against: as found, what it was built to. */
export const specIn = (
  { spec, asFound }: Pick<AppliedChain, "spec" | "asFound">,
  phase: Phase,
): AppliedChain["spec"] => (phase === "found" ? (asFound ?? spec) : spec);

/**
 * What was read and said of a chain in one phase, held against its spec.
 *
 * @param all readings of the chain that belong together: one phase, the same parts in.
 */
export function readingSet(
  job: Job,
  applied: AppliedChain,
  rule: DecisionRule,
  phase: Phase,
  all: JobReading[],
): ReadingSet {
  const { chain, allowances } = applied;
  const spec = specIn(applied, phase);
  const judged = (
    readings: JobReading[],
    as: (taken: TakenReading) => TakenReading = (taken) => taken,
  ): Assessment =>
    assess(
      readings.map(({ fact: { body }, leftOut }) =>
        as({
          reading: body.reading,
          // Facings and fluid have no say in an end play: it is read in the state its spec is stated in.
          state: isPackChain(applied) ? (body.state ?? spec.state) : spec.state,
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
    return { item, readings, assessment: judged(readings, alone), said };
  });
  // Readings from before anybody said which: a job of an older page, or one taken quickly.
  const loose = items.length > 0 ? all.filter(({ fact }) => fact.body.item === undefined) : [];
  if (loose.length > 0)
    items.push({
      item: { name: "not told apart" },
      readings: loose,
      assessment: judged(loose),
      said: null,
    });
  return {
    readings: all,
    assessment: items.length === 0 ? ofFew(applied, all, judged) : gravest(items),
    said: job.figure("chain", chain.id, phase),
    items,
    clocking: chain.clocking ? clockingOf(job, chain.id, phase) : null,
  };
}

/** How many readings of a chain are asked for: as the book counts, and of a pack never fewer than tell how far readings scatter. */
export const readingsAsked = (applied: AppliedChain): number => {
  const { points = READINGS_NEEDED.single } = applied.chain.read;
  return isPackChain(applied) ? Math.max(READINGS_NEEDED.single, points) : points;
};

/**
 * A figure that the book wants read fewer times than tell how far readings scatter: what its gauge is known to scatter, a step of it, is taken
 * for the rest, as where a thing is read once.
 */
function ofFew(
  applied: AppliedChain,
  all: JobReading[],
  judged: (readings: JobReading[], as?: (taken: TakenReading) => TakenReading) => Assessment,
): Assessment {
  const asked = readingsAsked(applied);
  const counted = all.filter(({ leftOut }) => leftOut === null).length;
  if (counted === 0 || Math.max(asked, counted) >= READINGS_NEEDED.single) return judged(all);
  return counted < asked
    ? { ...judged(all), verdict: { kind: "too few", more: asked - counted } }
    : judged(all, alone);
}

function clockingOf(job: Job, id: string, phase: Phase): MeasurementItem {
  const said = job.figure("chain", id, phase, CLOCKING);
  return { item: { name: CLOCKING }, said, verdict: said ? answered(CLOCKING, said.body.text ?? "") : null };
}

const GRAVITY: readonly Assessment["verdict"]["kind"][] = [
  "outside",
  "too close",
  "creeping",
  "too few",
  "inside",
  "not stated",
];

/** The verdict on several things is that on the worst; nothing is inside before all of them are read. */
function gravest(items: readonly ChainItem[]): Assessment {
  const read = items.filter(({ readings }) => readings.length > 0);
  const gravity = (one: ChainItem): number => GRAVITY.indexOf(one.assessment.verdict.kind);
  const [first = items[0], ...others] = read;
  if (!first) throw new RangeError("a chain of no things");
  const worst = others.reduce((a, b) => (gravity(b) < gravity(a) ? b : a), first).assessment;
  const open = items.filter(({ readings, said }) => readings.length === 0 && !said).length;
  return isSettled(worst.verdict) && open > 0
    ? { ...worst, verdict: { kind: "too few", more: open } }
    : worst;
}
