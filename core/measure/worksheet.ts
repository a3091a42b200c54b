import type { Applied, AppliedChain, PackChain } from "../book";
import { basisOf, isEnough, type DecisionRule } from "../reading";
import {
  astray,
  candidates,
  target,
  type SelectiveCandidate,
  type Stock,
  type Target,
  type TargetSchool,
  type Astray,
} from "../select";
import type { Piece } from "../chain";
import { chainFacts, type ChainFacts, type Fact, type FactOf, type Job, type Phase } from "../fact";
import { CLOCKING, itemsOfChain } from "./items";
import { isPackChain, readingSet, type ReadingSet } from "./reading-set";

/** What the house has chosen where practice differs. */
export interface House {
  rule: DecisionRule;
  target: TargetSchool;
}

/**
 * Where a chain stands. `found` and `trial` are about readings before the choice, `read` after it; `done`, `signed` and
 * `quiet` (out of scope) need nothing more.
 */
export type Stage =
  | { at: "quiet" }
  | { at: "found"; begun: boolean }
  | { at: "trial"; begun: boolean }
  | { at: "choose" }
  | { at: "read"; begun: boolean }
  /** Inside, but not where it was predicted: what is wrong is asked before it counts. */
  | { at: "astray" }
  | { at: "done" }
  | { at: "signed" };

/** One chain of one job, a pack's clearance as an end play or a preload: everything its page shows, computed from facts. */
export interface Worksheet<A extends AppliedChain = PackChain> {
  applied: A;
  stage: Stage;
  /** The fitting that is in now: 0 is what was found. */
  fit: number;
  fitted: Piece | null;
  found: ReadingSet;
  trial: ReadingSet;
  /** Readings after the choice; empty until there is one. */
  built: ReadingSet;
  choice: FactOf<"choice"> | null;
  /** How far it came out from what was predicted, beyond what both are unsure of. */
  astray: Astray | null;
  explained: FactOf<"explained"> | null;
  waiver: FactOf<"waiver"> | null;
  target: Target;
}

/** The house's choices a job is looked at with: those of the day, and for a closed job those it was closed with. */
export const houseOf = <H extends House>(job: Job, house: H): H => ({
  ...house,
  rule: ruleOf(job, house),
  ...job.closed?.body.house,
});

/** The rule a job is judged by: the house's of the day, and for a closed job the one it was closed under. */
export const ruleOf = (job: Job, house: House): DecisionRule => job.closed?.body.rule ?? house.rule;

interface Made {
  facts: ChainFacts;
  said: readonly (Fact | null)[];
  rule: DecisionRule;
  school: TargetSchool;
  closed: boolean;
  apart: boolean;
  sheet: Worksheet<AppliedChain>;
}
const made = new WeakMap<AppliedChain, Made>();

/** @returns the worksheet of one chain; the very same one as long as nothing new was said of the chain. */
export function worksheet<A extends AppliedChain>(job: Job, applied: A, house: House): Worksheet<A> {
  const facts = chainFacts(job, applied.chain.id);
  const [rule, school, closed] = [ruleOf(job, house), house.target, job.closed !== null];
  const apart = isApart(job, applied);
  const said = saidOf(job, applied);
  const known = made.get(applied);
  if (
    known?.rule === rule &&
    known.school === school &&
    known.closed === closed &&
    known.apart === apart &&
    same(known.said, said) &&
    sameFacts(known.facts, facts)
  )
    // What is kept under a chain was made of it.
    return known.sheet as Worksheet<A>;
  const sheet = worksheetOf(job, applied, house, facts);
  made.set(applied, { facts, said, rule, school, closed, apart, sheet });
  return sheet;
}

/** Whether its plates are out: what was not read as found by then can no longer be. */
const isApart = (job: Job, applied: AppliedChain): boolean =>
  isPackChain(applied) && applied.apartBy.some((step) => job.steps.get(step)?.body.did === "done");

/** What was said of a chain instead of reading it, and how a part of it is turned. */
const saidOf = (job: Job, applied: AppliedChain): (Fact | null)[] =>
  (["found", "built"] as const).flatMap((phase) =>
    [undefined, CLOCKING, ...itemsOfChain(applied).map(({ name }) => name)].map((item) =>
      job.figure("chain", applied.chain.id, phase, item),
    ),
  );

const same = (one: readonly unknown[], other: readonly unknown[]): boolean =>
  one.length === other.length && one.every((each, i) => each === other[i]);

/** Whether the very same facts say something of a chain: a fact never changes. */
function sameFacts(a: ChainFacts, b: ChainFacts): boolean {
  const read = ({ readings }: ChainFacts): unknown[] =>
    readings.flatMap(({ fact, leftOut }) => [fact, leftOut]);
  return (
    a.waiver === b.waiver &&
    same(read(a), read(b)) &&
    same(a.fittings, b.fittings) &&
    same(a.choices, b.choices) &&
    same(a.explained, b.explained)
  );
}

function worksheetOf<A extends AppliedChain>(
  job: Job,
  applied: A,
  house: House,
  facts: ChainFacts,
): Worksheet<A> {
  const fit = Math.max(0, ...facts.fittings.map(({ body }) => body.fit));
  const choice = facts.choices.filter(({ body }) => body.fit === fit).at(-1) ?? null;
  const pack = isPackChain(applied) ? applied : null;
  const of = (phase: Phase, wanted: (fitOfReading: number) => boolean): ReadingSet => {
    const readings = facts.readings.filter(({ fact: { body } }) => body.phase === phase && wanted(body.fit));
    return readingSet(job, applied, ruleOf(job, house), phase, readings);
  };
  const found = of("found", () => true);
  // Before a choice the trial readings are those with the ring now in; after it, those that led to the choice.
  const trialFit = choice && !choice.body.kept ? fit - 1 : fit;
  const trial = of("built", (n) => n === trialFit);
  const built = choice ? of("built", (n) => n === fit) : of("built", () => false);
  const fitted = fittedPiece(facts, fit);
  const measured = basisOf(built.assessment);
  const off =
    choice && !choice.body.kept && measured
      ? astray(choice.body.prediction, measured, fitted, applied.series, pack?.stack ?? [])
      : null;
  const explained = facts.explained.filter(({ body }) => body.fit === fit).at(-1) ?? null;
  return {
    applied,
    fit,
    fitted,
    astray: off,
    explained,
    found,
    trial,
    built,
    choice,
    waiver: facts.waiver,
    // A house limit has its own middle; the book’s target belongs to the book’s limits.
    target: target(
      applied.spec,
      pack?.pack.duty ?? "shifting",
      house.target,
      applied.house ? undefined : applied.book.target,
    ),
    stage: stageOf(
      applied.inScope,
      found,
      trial,
      built,
      choice !== null,
      facts.waiver !== null,
      // A closed job says what it said.
      off !== null && explained === null && job.closed === null,
      isApart(job, applied),
    ),
  };
}

/** The worksheets of all packs that apply, in the book's order. */
export const worksheets = (job: Job, applied: Applied, house: House): Worksheet[] =>
  applied.packs.map((chain) => worksheet(job, chain, house));

const fittedPiece = (facts: ChainFacts, fit: number): Piece | null =>
  facts.fittings.filter(({ body }) => body.fit === fit).at(-1)?.body.piece ?? null;

function stageOf(
  inScope: boolean,
  found: ReadingSet,
  trial: ReadingSet,
  built: ReadingSet,
  chosen: boolean,
  signed: boolean,
  isAstray: boolean,
  apart: boolean,
): Stage {
  if (!inScope) return { at: "quiet" };
  if (signed) return { at: "signed" };
  if (chosen)
    return built.assessment.verdict.kind !== "inside"
      ? { at: "read", begun: built.readings.length > 0 }
      : { at: isAstray ? "astray" : "done" };
  if (trial.readings.length > 0)
    return settledEnough(trial) ? { at: "choose" } : { at: "trial", begun: true };
  if (apart || (found.readings.length > 0 && settledEnough(found))) return { at: "trial", begun: false };
  return { at: "found", begun: found.readings.length > 0 };
}

const settledEnough = ({ assessment }: ReadingSet): boolean => isEnough(assessment);

/**
 * The readings a choice is made from: those taken with the ring that is in now and the parts that stay. Null right after a
 * change of ring: nothing has been read with it yet, and readings with another one in would predict wrongly.
 */
export function basis({ choice, built, trial }: Worksheet<AppliedChain>): ReadingSet | null {
  if (!choice || choice.body.kept) return trial;
  return built.readings.length > 0 ? built : null;
}

/**
 * The candidates for a worksheet's selective, best first. Empty without a series, without a known ring in, or before the readings are enough
 * for a verdict: a prediction from fewer would pretend.
 */
export function worksheetCandidates(
  sheet: Worksheet<AppliedChain>,
  stock: readonly Stock[],
  rule: DecisionRule,
): SelectiveCandidate[] {
  const from = basis(sheet)?.assessment;
  const { series, spec } = sheet.applied;
  const measured = from && basisOf(from);
  if (!series || !sheet.fitted || !measured) return [];
  return candidates({ measured, fitted: sheet.fitted, series, stock, spec, rule, target: sheet.target });
}

/** Everyone who took part in a set of readings, in order of appearance. */
export const readers = (set: ReadingSet): string[] => [...new Set(set.readings.map(({ fact }) => fact.by))];

/** When the last reading of a set was taken. */
export const lastAt = (set: ReadingSet): string | null => set.readings.at(-1)?.fact.at ?? null;
