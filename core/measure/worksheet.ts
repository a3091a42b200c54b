import { isDecided, usualIn, type Applied, type AppliedChain, type PackChain, type SeatLink } from "../book";
import { basisOf, isEnough, isSettled, type DecisionRule, type Estimate } from "../reading";
import { astray, target, thickness, type Target, type TargetSchool, type Astray } from "../select";
import { predict, type Piece, type Swap } from "../chain";
import {
  chainFacts,
  seatFacts,
  type ChainFacts,
  type Fact,
  type FactOf,
  type Job,
  type Phase,
  type SeatFacts,
} from "../fact";
import { CLOCKING, itemsOfChain } from "./items";
import { lastFit, ofAssemblyNow, ofStackNow, refitOf } from "./restacked";
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
  /** What was in was taken out again: it goes in, or another does, before anything is read. */
  | { at: "out" }
  /** Inside, but not where it was predicted: what is wrong is asked before it counts. */
  | { at: "astray" }
  /** Inside; or read, where no limit is known. */
  | { at: "done"; unlimited?: true }
  | { at: "signed" };

/** One seat of a chain: what is in it now, and what was decided for it. */
export interface SeatState {
  link: SeatLink;
  /** The fitting that is in now: 0 is what was found. */
  fit: number;
  /** Null while nobody has said what was in. */
  fitted: Piece | null;
  /** Whether it is a piece to read with, which does not stay. */
  isTrial: boolean;
  /** Said instead: what was found in it nobody saw. */
  unseen: FactOf<"unseen"> | null;
  /** What was decided for what is in now. */
  choice: FactOf<"choice"> | null;
  /** Said last: that it was taken out again. Null while it is in. */
  out: FactOf<"taken-out"> | null;
}

/** One chain of one job, a pack's clearance as an end play or a preload: everything its page shows, computed from facts. */
export interface Worksheet<A extends AppliedChain = AppliedChain> {
  applied: A;
  stage: Stage;
  /** Where something is chosen that moves it, in the order of its links. */
  seats: SeatState[];
  /** How often the pieces of its seats were changed: what a reading taken now is taken with. */
  fit: number;
  found: ReadingSet;
  trial: ReadingSet;
  /** Readings after every seat was chosen; empty until then. */
  built: ReadingSet;
  /** Whether a piece was decided on for every seat, and the last of these decisions. */
  choice: FactOf<"choice"> | null;
  /** Whether what was decided left everything as it was. */
  kept: boolean;
  /** What was expected of it when the last piece was decided on. */
  prediction: Prediction | null;
  /** How far it came out from what was predicted, beyond what both are unsure of. */
  astray: Astray | null;
  explained: FactOf<"explained"> | null;
  waiver: FactOf<"waiver"> | null;
  target: Target;
  /** Conditions of the book that nobody has said are kept in what is assembled now. */
  conditions: { missing: string[]; said: FactOf<"conditions"> | null };
}

/** What was expected of a figure. */
export type Prediction = FactOf<"choice">["body"]["predictions"][number];

/** The clearance of a pack at the bench. */
export type PackSheet = Worksheet<PackChain>;
/** Whether a worksheet is a pack’s. */
export const isPackSheet = (sheet: Worksheet): sheet is PackSheet => isPackChain(sheet.applied);

/** What a figure is called for short: a pack by its element. */
export const titleOf = ({ applied }: Worksheet): string =>
  isPackChain(applied) ? applied.pack.element.toUpperCase() : applied.chain.name;

/**
 * The readings a figure leaves with: as built, and where nothing was chosen those of the trial, as nothing was put in after them. A pack is proven
 * by what was read once its piece was decided on.
 */
export const leavesWith = (sheet: Worksheet): ReadingSet =>
  sheet.choice || isPackSheet(sheet) ? sheet.built : sheet.trial;

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
  seats: readonly SeatFacts[];
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
  const seats = applied.seats.map(({ id }) => seatFacts(job, id));
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
    sameFacts(known.facts, facts) &&
    known.seats.every((seat, i) => sameSeat(seat, seats[i]))
  )
    // What is kept under a chain was made of it.
    return known.sheet as Worksheet<A>;
  const sheet = worksheetOf(job, applied, house, facts);
  made.set(applied, { facts, seats, said, rule, school, closed, apart, sheet });
  return sheet;
}

/** Whether its plates are out: what was not read as found by then can no longer be. */
const isApart = (job: Job, applied: AppliedChain): boolean =>
  isPackChain(applied) && applied.apartBy.some((step) => job.steps.get(step)?.body.did === "done");

/** What was said of a chain instead of reading it, how a part of it is turned, and whether its stack was changed. */
const saidOf = (job: Job, applied: AppliedChain): (Fact | null)[] => [
  job.lastStronger,
  ...(["found", "built"] as const).flatMap((phase) =>
    [undefined, CLOCKING, ...itemsOfChain(applied).map(({ name }) => name)].map((item) =>
      job.figure("chain", applied.chain.id, phase, item),
    ),
  ),
];

const same = (one: readonly unknown[], other: readonly unknown[]): boolean =>
  one.length === other.length && one.every((each, i) => each === other[i]);

/** Whether the very same facts say something of a chain: a fact never changes. */
function sameFacts(a: ChainFacts, b: ChainFacts): boolean {
  const read = ({ readings }: ChainFacts): unknown[] =>
    readings.flatMap(({ fact, leftOut }) => [fact, leftOut]);
  return (
    a.waiver === b.waiver &&
    same(read(a), read(b)) &&
    same(a.conditions, b.conditions) &&
    same(a.explained, b.explained)
  );
}

const sameSeat = (a: SeatFacts, b: SeatFacts | undefined): boolean =>
  b !== undefined &&
  a.unseen === b.unseen &&
  same(a.outs, b.outs) &&
  same(a.fittings, b.fittings) &&
  same(a.choices, b.choices);

/** What is in a seat now, and what was decided for it. */
function seatState(job: Job, link: SeatLink, isOfNow: (fact: Fact) => boolean): SeatState {
  const facts = seatFacts(job, link.id);
  const { fittings, choices, unseen } = facts;
  const fit = lastFit(facts);
  const { out, since } = refitOf(facts, fit);
  return {
    link,
    fit,
    fitted: remeasured(pieceAt(fittings, link, fit), since),
    isTrial: fittings.filter(({ body }) => body.fit === fit).at(-1)?.body.origin === "trial",
    unseen: fit === 0 ? unseen : null,
    choice: choices.filter((fact) => fact.body.fit === fit && isOfNow(fact)).at(-1) ?? null,
    out,
  };
}

/** A piece that was out is what the micrometer said of it then. */
const remeasured = (piece: Piece | null, since: FactOf<"taken-out"> | null): Piece | null =>
  piece && since?.body.measured !== undefined ? { ...piece, measured: since.body.measured } : piece;

/** How often the pieces of a chain’s seats were changed so far. */
export const fitOf = (job: Job, { seats }: Pick<AppliedChain, "seats">): number =>
  seats.reduce((sum, { id }) => sum + lastFit(seatFacts(job, id)), 0);

/** What was in a seat at one of its fittings. */
export const pieceAt = (fittings: SeatFacts["fittings"], link: SeatLink, fit: number): Piece | null =>
  fittings.filter(({ body }) => body.fit === fit).at(-1)?.body.piece ?? (fit === 0 ? usualPiece(link) : null);

function usualPiece(link: SeatLink): Piece | null {
  const usual = usualIn(link);
  if (!usual) return null;
  const { part, mark, size } = usual;
  return { ...(part === undefined ? {} : { part }), mark, size };
}

function worksheetOf<A extends AppliedChain>(
  job: Job,
  applied: A,
  house: House,
  facts: ChainFacts,
): Worksheet<A> {
  const isOfNow = ofStackNow(job, applied);
  const seats = applied.seats.map((link) => seatState(job, link, isOfNow));
  const fit = seats.reduce((sum, seat) => sum + seat.fit, 0);
  const choices = seats.flatMap(({ choice }) => choice ?? []);
  // A seat that nothing was decided for leaves the figure open; without a seat there is nothing to decide.
  const isChosen =
    choices.length > 0 && seats.every(({ link, choice }) => choice !== null || !isDecided(link));
  const choice = isChosen ? lastSaid(job, choices) : null;
  const kept = choices.every(({ body }) => body.kept);
  const pack = isPackChain(applied) ? applied : null;
  const isAsAssembled = ofAssemblyNow(job, applied, fit);
  const read = facts.readings.filter(({ fact }) => fact.body.phase === "found" || isAsAssembled(fact));
  const of = (phase: Phase, wanted: (fitOfReading: number) => boolean): ReadingSet => {
    const readings = read.filter(({ fact: { body } }) => body.phase === phase && wanted(body.fit));
    return readingSet(job, applied, ruleOf(job, house), phase, readings);
  };
  const found = of("found", () => true);
  // Before a choice the trial readings are the last ones taken with what is in or was before; after it, those that led to the choice.
  const latest = isChosen && !kept ? fit - 1 : fit;
  const tried = read.flatMap(({ fact: { body } }) =>
    body.phase === "built" && body.fit <= latest ? [body.fit] : [],
  );
  const trialFit = tried.length > 0 ? Math.max(...tried) : latest;
  const trial = of("built", (n) => n === trialFit);
  const built = isChosen || seats.length === 0 ? of("built", (n) => n === fit) : of("built", () => false);
  const prediction =
    choice && !kept
      ? (lastSaid(
          job,
          choices.filter(({ body }) => !body.kept),
        )?.body.predictions.find(({ chain }) => chain === applied.chain.id) ?? null)
      : null;
  const measured = basisOf(built.assessment);
  const off =
    prediction && measured ? astray(prediction, measured, seats, pack?.stack ?? [], pack?.strangers) : null;
  const explained = facts.explained.filter(({ body }) => body.fit === fit).at(-1) ?? null;
  // Said of what was assembled when it was read.
  const asRead = isChosen && !kept ? fit : trialFit;
  const said =
    facts.conditions
      .filter((fact) => fact.body.phase === "built" && fact.body.fit === asRead && isAsAssembled(fact))
      .at(-1) ?? null;
  // A closed job says what it said.
  const missing = job.closed ? [] : applied.conditions.filter((one) => !said?.body.met.includes(one));
  return {
    applied,
    seats,
    fit,
    choice,
    kept,
    prediction,
    astray: off,
    explained,
    found,
    trial,
    built,
    waiver: facts.waiver,
    conditions: { missing, said },
    // A house limit has its own middle; the book’s target belongs to the book’s limits.
    target: target(
      applied.spec,
      pack?.pack.duty ?? "shifting",
      house.target,
      applied.house ? undefined : applied.book.target,
    ),
    stage: stageOf({
      inScope: applied.inScope,
      isPack: pack !== null,
      found,
      trial,
      built,
      out: seats.some(({ out }) => out !== null),
      chosen: isChosen,
      stale: trialFit < fit,
      seats: seats.length,
      signed: facts.waiver !== null,
      isAstray: off !== null && explained === null && job.closed === null,
      apart: isApart(job, applied),
      conditioned: missing.length === 0,
    }),
  };
}

/** The one of these facts that was said last. */
const lastSaid = <F extends Fact>(job: Job, facts: readonly F[]): F | null =>
  facts.length < 2
    ? (facts[0] ?? null)
    : facts.reduce((a, b) => (job.live.indexOf(b) > job.live.indexOf(a) ? b : a));

/** The worksheets of all packs that apply, in the book's order. */
export const worksheets = (job: Job, applied: Applied, house: House): PackSheet[] =>
  applied.packs.map((chain) => worksheet(job, chain, house));

/** Those of all chains that something is chosen for: packs first, then end plays, preloads and what else has a seat, in the book’s order. */
export const chosenSheets = (job: Job, applied: Applied, house: House): Worksheet[] => {
  const packs = new Set(applied.packs.map(({ chain }) => chain.id));
  return [
    ...worksheets(job, applied, house),
    ...applied.chains
      .filter(({ chain, seats }) => seats.length > 0 && !packs.has(chain.id))
      .map((chain) => worksheet(job, chain, house)),
  ];
};

interface Stands {
  inScope: boolean;
  isPack: boolean;
  found: ReadingSet;
  trial: ReadingSet;
  built: ReadingSet;
  /** Whether a piece that was in is out. */
  out: boolean;
  chosen: boolean;
  /** A piece was changed for another figure’s sake since it was read: it is chosen for from what it comes to now. */
  stale: boolean;
  seats: number;
  signed: boolean;
  isAstray: boolean;
  apart: boolean;
  /** Whether all conditions of what is assembled now were said to be kept. */
  conditioned: boolean;
}

function stageOf(stands: Stands): Stage {
  const {
    inScope,
    isPack,
    found,
    trial,
    built,
    out,
    chosen,
    stale,
    seats,
    signed,
    isAstray,
    apart,
    conditioned,
  } = stands;
  const isInside = ({ assessment }: ReadingSet): boolean => isSettled(assessment.verdict);
  if (!inScope) return { at: "quiet" };
  if (signed) return { at: "signed" };
  if (out) return { at: "out" };
  // Outside too: before another piece is bought for it, it is asked what is wrong.
  if (chosen && isAstray && conditioned && settledEnough(built)) return { at: "astray" };
  if (chosen)
    return isInside(built) && conditioned ? doneAs(built) : { at: "read", begun: built.readings.length > 0 };
  if (trial.readings.length > 0) {
    if (!settledEnough(trial) || !conditioned) return { at: "trial", begun: true };
    // What is inside needs no choice where nothing is chosen, and none where nobody has put anything new in.
    return (seats === 0 || !isPack) && isInside(trial) && !stale ? doneAs(trial) : { at: "choose" };
  }
  const isFound = found.readings.length > 0 && settledEnough(found);
  if (isFound && !isPack && isInside(found)) return doneAs(found);
  if (apart || isFound || (found.said && found.readings.length === 0)) return { at: "trial", begun: false };
  return { at: "found", begun: found.readings.length > 0 };
}

const doneAs = ({ assessment }: ReadingSet): Stage =>
  assessment.verdict.kind === "inside" ? { at: "done" } : { at: "done", unlimited: true };

const settledEnough = ({ assessment }: ReadingSet): boolean => isEnough(assessment);

/**
 * The readings a choice is made from: the last ones taken with a known piece in and the parts that stay. Null right after every seat was decided and
 * something was changed: it is read with that in first.
 */
export function basis({ choice, kept, built, trial, conditions }: Worksheet): ReadingSet | null {
  if (conditions.missing.length > 0) return null;
  if (!choice || kept) return trial;
  return built.readings.length > 0 ? built : null;
}

/** What a chain measures now: its readings, and what was put in since they were taken. */
export interface Now {
  set: ReadingSet;
  estimate: Estimate;
}

/**
 * What a chain comes to with what is in now, where its readings are enough for a verdict: a prediction from fewer would pretend. Pieces changed since,
 * for another chain’s sake, are reckoned in.
 *
 * @returns null too where a piece changed since is not known.
 */
export function standsNow(job: Job, sheet: Worksheet): Now | null {
  const set = basis(sheet);
  const measured = set && basisOf(set.assessment);
  if (!measured) return null;
  const at = set.readings[0]?.fact.body.fit ?? sheet.fit;
  const own = new Set(sheet.seats.map(({ link }) => link.id));
  const changed = job.changes.filter(({ body }) => own.has(body.seat)).slice(at);
  const swaps = sheet.seats.flatMap(({ link, fit }): (Swap | null)[] => {
    const since = changed.filter(({ body }) => body.seat === link.id).length;
    if (since === 0) return [];
    const { fittings } = seatFacts(job, link.id);
    const [removed, fitted] = [fit - since, fit].map((n) => {
      const piece = pieceAt(fittings, link, n);
      return piece && thickness(piece, link.tolerance);
    });
    return [removed && fitted ? { sign: link.sign, removed, fitted } : null];
  });
  if (swaps.includes(null)) return null;
  return { set, estimate: predict(measured, swaps as Swap[]) };
}

/** Everyone who took part in a set of readings, in order of appearance. */
export const readers = (set: ReadingSet): string[] => [...new Set(set.readings.map(({ fact }) => fact.by))];

/** When the last reading of a set was taken. */
export const lastAt = (set: ReadingSet): string | null => set.readings.at(-1)?.fact.at ?? null;
