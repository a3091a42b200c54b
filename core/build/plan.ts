import { behindOf, checksOf, type Applied, type CheckBall, type Step } from "../book";
import { isBuilding, type Fact, type FactOf, type Job, type Reopened } from "../fact";
import { dispositions, otherUnit, type PartState, type Schools } from "../inspect";
import { ruleOf, specLines, type House, type SpecLine } from "../measure";
import { Bench } from "../steps";
import {
  asks,
  ofAir,
  ofBalls,
  ofBeginning,
  ofCheck,
  ofFace,
  ofFigure,
  ofPart,
  ofPlates,
  ofPutting,
  ofSoak,
  partsBeside,
  platesIn,
  type Asked,
  type Looking,
  type StepPlates,
} from "./asks";
import { faceOf, type Face } from "./face";
import { timersOf, type Timer } from "./timers";

/** A build step as this job stands. */
export interface BuildStep {
  step: Step;
  /** `unproven`: said to be done, and something of it open. */
  at: "done" | "skipped" | "unproven" | "next" | "waits" | "ahead";
  fact: FactOf<"step"> | null;
  /** Said to be done, and laid open again since. */
  reopened: Reopened | null;
  parts: PartState[];
  /** Those of its parts that are plates, pack by pack, as they go in. */
  plates: StepPlates[];
  /** Check balls it lays into their places. */
  balls: readonly CheckBall[];
  faces: Face[];
  asked: Asked[];
  /** What is still to be answered in it, without what it waits for. */
  open: Asked[];
  /** What it waits for before it begins. */
  waits: Asked[];
  /** What is done next in it: what it waits for, then what it asks, in the order of the work; null once it can be ticked. */
  turn: Asked | null;
  /** What was done otherwise, not in place of something the book asks. */
  otherwise: FactOf<"deviation">[];
}

/** The build as it stands. */
export interface Build {
  steps: BuildStep[];
  bench: Bench;
  timers: Timer[];
  next: BuildStep | null;
  /** The step last ticked, whoever did it. */
  last: BuildStep | null;
  done: number;
  /** Of what is not done, by the book. */
  minutesLeft: number;
  /** The next moment, in milliseconds, at which it stands otherwise though nothing was said; without end where there is none. */
  until: number;
}

/** What whoever asks may have worked out already. */
interface Known {
  parts?: readonly PartState[];
  lines?: readonly SpecLine[];
}

/**
 * The build of this unit: the book's steps for what it becomes, those that hang on a disposition only where it is so, each with everything it asks for and
 * what of it is answered. A step counts as done when it was said so and nothing of it is open; what was laid open since asks again.
 *
 * @param now in milliseconds: what stands in fluid becomes ready by itself; without end, once it has.
 */
export function buildOf(
  job: Job,
  applied: Applied,
  house: House & Schools,
  now: number,
  {
    parts = dispositions(job, applied, house, ruleOf(job, house)),
    lines: rows = specLines(job, applied, house, applied.present.unit.lengthUnit),
  }: Known = {},
): Build {
  const states = new Map(parts.map((state) => [state.part.id, state]));
  const lines = new Map(rows.map((line) => [line.id, line]));
  const timers = timersOf(job, applied);
  const bench = new Bench(job, applied);
  const looking: Looking = { job, applied, states, lines, timers, bench, now };
  const { direct } = behindOf(applied.scoped);
  const planned = plannedIn(job, applied, states);
  const names = new Map(planned.map(({ id, name }) => [id, name]));
  const settled = new Set<string>();
  const steps = planned.map((step): BuildStep => {
    const behind = (direct.get(step.id) ?? []).filter((id) => names.has(id) && !settled.has(id));
    const one = stepOf(step, behind, names, looking);
    if (one.at === "done" || one.at === "skipped") settled.add(step.id);
    return one;
  });
  const next =
    steps.find(({ at }) => at === "unproven") ??
    steps.find(({ at }) => at === "ahead") ??
    steps.find(({ at }) => at === "waits") ??
    null;
  if (next?.at === "ahead") next.at = "next";
  const places = new Map<Fact, number>(job.live.map((fact, i) => [fact, i]));
  const placeOf = ({ fact }: BuildStep): number => (fact ? (places.get(fact) ?? -1) : -1);
  const last = steps.reduce<BuildStep | null>(
    (latest, one) => (one.fact && (!latest || placeOf(one) > placeOf(latest)) ? one : latest),
    null,
  );
  const left = steps.filter(({ step }) => !settled.has(step.id));
  return {
    steps,
    bench,
    timers,
    next,
    last,
    done: steps.length - left.length,
    minutesLeft: left.reduce((sum, { step }) => sum + (step.minutes ?? 0), 0),
    until: Math.min(...momentsOf(timers, steps).filter((moment) => moment > now)),
  };
}

/** The moments at which what stands in fluid, or what was tightened and rests, stands otherwise by itself. */
const momentsOf = (timers: readonly Timer[], steps: readonly BuildStep[]): number[] => [
  ...timers.flatMap(({ ready, latest }) => [ready ?? [], latest === null ? [] : latest + 1].flat()),
  ...steps.flatMap(({ faces }) => faces.flatMap(({ until }) => until ?? [])),
];

/** The steps of this version and scope; those that hang on what becomes of a part only where it is so. */
const plannedIn = (job: Job, { scoped }: Applied, states: ReadonlyMap<string, PartState>): Step[] =>
  (scoped.build ?? []).filter(
    ({ onlyIf, vehicle }) =>
      // Where another unit goes in, this one is not built: the other is fitted and started.
      (vehicle !== undefined || !otherUnit(job)) && (!onlyIf || states.get(onlyIf.part)?.is === onlyIf.is),
  );

function stepOf(
  step: Step,
  behind: readonly string[],
  names: ReadonlyMap<string, string>,
  looking: Looking,
): BuildStep {
  const { job, applied, states } = looking;
  const said = job.steps.get(step.id) ?? null;
  const ticked = said && said.body.did !== "undone" ? said : null;
  const { build = [] } = applied.scoped;
  const { fasteners = [] } = applied.present;
  const facesOf = (ids: readonly string[], isUndisturbed: boolean): Face[] =>
    ids.flatMap((id) => {
      const group = fasteners.find((one) => one.id === id);
      return group ? faceOf(job, group, applied.house, isUndisturbed) : [];
    });
  const fastened = facesOf(step.fasteners ?? [], false);
  // What this scope undoes is tightened in its own step.
  const undisturbed = facesOf(
    (step.verifies ?? []).filter((id) => !build.some((one) => one.fasteners?.includes(id))),
    true,
  );
  const parts = (step.parts ?? []).flatMap((id) => states.get(id) ?? []);
  // Of another unit only what is renewed on it is asked for.
  const ofParts = otherUnit(job) ? [] : parts.flatMap((state) => ofPart(state, job));
  const own = platesIn(applied, step);
  const balls = step.balls ? (applied.scoped.checkBalls ?? []) : [];
  const checks = checksOf(applied.scoped, step).map((check) => ofCheck(step, check, job));
  const asked = [
    ...behind.map((id): Asked => ({
      ...asks("behind", id, names.get(id) ?? id),
      words: "comes first",
      waits: true,
    })),
    ...ofParts.filter(({ waits }) => waits),
    ...(step.waits ?? []).flatMap((id) => ofSoak(id, looking)),
    ...checks.filter(({ bars }) => bars),
    // Before anything goes on over them.
    ...undisturbed.map(ofFace(looking.now)),
    ...ofPutting(step, partsBeside(parts, own), ticked !== null, looking),
    ...own.map((one) => ofPlates(one, step, ticked !== null, looking)),
    ...ofBalls(step, balls, job),
    ...ofParts.filter(({ waits }) => !waits),
    ...(step.starts ?? []).flatMap((id) => ofBeginning(step, id, looking)),
    ...fastened.map(ofFace(looking.now)),
    ...checks.filter(({ bars }) => !bars),
    ...(step.airChecks ?? []).flatMap((id) => ofAir(id, looking)),
    ...[...(step.chains ?? []), ...(step.measurements ?? [])].flatMap((id) => ofFigure(id, looking)),
  ].map((one) => otherwise(one, step, job));
  const stands = (one: Asked): boolean => one.answer === "open" || one.answer === "not so";
  const open = asked.filter((one) => stands(one) && !one.waits);
  const waits = asked.filter((one) => stands(one) && one.waits);
  const at =
    ticked?.body.did === "skipped"
      ? "skipped"
      : ticked
        ? open.length + waits.length === 0
          ? "done"
          : "unproven"
        : waits.length > 0
          ? "waits"
          : "ahead";
  const keys = new Set(asked.map(({ key }) => key));
  return {
    step,
    at,
    fact: ticked,
    reopened: ticked ? null : (job.reopened.get(step.id) ?? null),
    parts,
    plates: own,
    balls,
    faces: [...undisturbed, ...fastened],
    asked,
    open,
    waits,
    turn: waits[0] ?? open[0] ?? null,
    otherwise: [...job.deviations.values()].filter(
      (fact) => fact.body.step === step.id && fact.body.there && !keys.has(fact.body.instead),
    ),
  };
}

/** What was done otherwise, with a reason, answers for what the book asks; not where nothing may stand for it. */
function otherwise(one: Asked, step: Step, job: Job): Asked {
  if (one.answer === "answered" || one.bars) return one;
  const fact = job.deviations.get(`${step.id} ${one.key}`);
  if (!fact?.body.there) return one;
  return { ...one, answer: "otherwise", words: fact.body.reason, fact };
}

/** How far a build is, for whoever asks no more. */
export interface BuildStanding {
  /** Steps that are not done, or that something of is open, in words; figures are open for themselves. */
  left: readonly { step: Step; words: string }[];
  next: Step | null;
  done: number;
  total: number;
  minutesLeft: number;
}

const NOT_DONE = "not done, and not passed over with a reason";

/** @returns how far a build is; of one that nobody began its steps alone are looked at. Soaks that were begun count as over. */
export function buildStanding(
  job: Job,
  applied: Applied,
  house: House & Schools,
  known: Required<Known>,
): BuildStanding {
  if (!isBuilding(job, applied.present.build)) {
    const steps = plannedIn(job, applied, new Map(known.parts.map((state) => [state.part.id, state])));
    return {
      left: steps.map((step) => ({ step, words: NOT_DONE })),
      next: steps[0] ?? null,
      done: 0,
      total: steps.length,
      minutesLeft: steps.reduce((sum, { minutes = 0 }) => sum + minutes, 0),
    };
  }
  const { steps, next, done, minutesLeft } = buildOf(job, applied, house, Infinity, known);
  const left = steps.flatMap(({ step, at, fact, open }) => {
    if (at === "done" || at === "skipped") return [];
    const asked = open.filter(({ kind }) => kind !== "figure");
    if (fact && asked.length === 0) return [];
    const words = asked.map(({ name, words: why }) => (why ? `${name}: ${why}` : name)).join("; ");
    return [{ step, words: fact ? words : NOT_DONE }];
  });
  return { left, next: next?.step ?? null, done, total: steps.length, minutesLeft };
}

/** What a step undone would lay open: the steps behind which it stands that something was said of, in the order of the book. */
export function wouldOpen({ scoped }: Pick<Applied, "scoped">, build: Build, step: string): BuildStep[] {
  const { all } = behindOf(scoped);
  return build.steps.filter(
    ({ step: one, fact, asked }) =>
      all.get(one.id)?.has(step) === true &&
      (fact !== null || asked.some(({ kind, fact: said }) => OF_THE_STEP.has(kind) && said !== null)),
  );
}

/** What is said of a step itself; a part is answered for elsewhere. */
const OF_THE_STEP: ReadonlySet<Asked["kind"]> = new Set([
  "plates",
  "balls",
  "check",
  "begin",
  "bolts",
  "air",
  "figure",
]);

/** What a piece exchanged for a figure would lay open: what stands on the steps that read it and are done, those steps’ own bolts, air and last checks with it. */
export function exchangeOpens(applied: Pick<Applied, "scoped">, build: Build, chain: string): BuildStep[] {
  const read = build.steps.filter(
    ({ step, fact }) => step.chains?.includes(chain) === true && fact?.body.did === "done",
  );
  const open = new Set([...read, ...read.flatMap(({ step }) => wouldOpen(applied, build, step.id))]);
  return build.steps.filter((one) => open.has(one));
}
