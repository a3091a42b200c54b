import {
  behindOf,
  checksOf,
  measurementWords,
  type Applied,
  type Part,
  type Step,
  type StepCheck,
} from "../book";
import { AIR, isBuilding, isKind, type Fact, type FactOf, type Job, type Reopened } from "../fact";
import { dispositions, type PartState, type Schools } from "../inspect";
import { ruleOf, specLines, type House, type SpecLine } from "../measure";
import { Bench } from "../steps";
import { airResult } from "./air";
import { faceOf, type Face } from "./face";
import { isReady, isTooSoon, timersOf, type Timer } from "./timers";

/** What a lead’s name stands for, of what a step asks: as the rule for closing calls it; null for what nobody signs for. */
export const signedAs = ({ kind, subject }: Pick<Asked, "kind" | "subject">): string | null =>
  kind === "part" ? `renew ${subject}` : kind === "figure" ? `figure ${subject}` : null;

/** What a step asks for before it is done. */
export interface Asked {
  /** The same as long as the thing is: what a deviation names. */
  key: string;
  kind: "behind" | "part" | "soak" | "check" | "put" | "begin" | "bolts" | "air" | "figure";
  /** The step, part, soak, check, group, element or figure; of what is put in together, the step. */
  subject: string;
  name: string;
  /** What is missing, or what was answered, short. */
  words: string;
  /** What is done about it. */
  remedy: string;
  /** `otherwise`: not as the book has it, with a reason. */
  answer: "open" | "not so" | "answered" | "otherwise";
  /** Whether it holds the step up before it begins. */
  waits: boolean;
  /** Whether no reason stands for it: it is answered, or the step is not done. */
  bars: boolean;
  fact: Fact | null;
}

/** A build step as this job stands. */
export interface BuildStep {
  step: Step;
  /** `unproven`: said to be done, and something of it open. */
  at: "done" | "skipped" | "unproven" | "next" | "waits" | "ahead";
  fact: FactOf<"step"> | null;
  /** Said to be done, and laid open again since. */
  reopened: Reopened | null;
  parts: PartState[];
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
}

interface Looking {
  job: Job;
  applied: Applied;
  states: ReadonlyMap<string, PartState>;
  lines: ReadonlyMap<string, SpecLine>;
  timers: readonly Timer[];
  bench: Bench;
  now: number;
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
  const planned = plannedIn(applied, states);
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
  };
}

/** The steps of this version and scope; those that hang on what becomes of a part only where it is so. */
const plannedIn = ({ scoped }: Applied, states: ReadonlyMap<string, PartState>): Step[] =>
  (scoped.build ?? []).filter(({ onlyIf }) => !onlyIf || states.get(onlyIf.part)?.is === onlyIf.is);

function stepOf(
  step: Step,
  behind: readonly string[],
  names: ReadonlyMap<string, string>,
  looking: Looking,
): BuildStep {
  const { job, applied, states } = looking;
  const said = job.steps.get(step.id) ?? null;
  const ticked = said && said.body.did !== "undone" ? said : null;
  const groups = (step.fasteners ?? []).flatMap(
    (id) => (applied.scoped.fasteners ?? []).find((group) => group.id === id) ?? [],
  );
  const faces = groups.map((group) => faceOf(job, group, applied.house));
  const parts = (step.parts ?? []).flatMap((id) => states.get(id) ?? []);
  const ofParts = parts.flatMap((state) => ofPart(state, job));
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
    ...ofPutting(step, parts, ticked !== null, looking),
    ...ofParts.filter(({ waits }) => !waits),
    ...(step.starts ?? []).flatMap((id) => ofBeginning(step, id, looking)),
    ...faces.map(ofFace(looking.now)),
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
    faces,
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

const asks = (kind: Asked["kind"], subject: string, name: string): Asked => ({
  key: `${kind} ${subject}`,
  kind,
  subject,
  name,
  words: "",
  remedy: "",
  answer: "open",
  waits: false,
  bars: false,
  fact: null,
});

/** A part that is not answered for, or whose new one is not in: the step waits for it. */
function ofPart({ part, is }: PartState, job: Job): Asked[] {
  const one: Asked = { ...asks("part", part.id, part.name), waits: true };
  const question = job.partQuestions.get(part.id)?.body;
  if (question && !question.answer && question.waits)
    return [{ ...one, words: `open: ${question.asks}`, remedy: "Answer it where the part is looked at." }];
  if (is === null) return [{ ...one, words: "nobody has looked at it", remedy: "Look at it first." }];
  if (is === "measure-first") return [{ ...one, words: "to be measured first", remedy: "Measure it first." }];
  if (is !== "replace" && is !== "upgrade") return [];
  const source = job.sources.get(part.id)?.body;
  if (source?.here === false)
    return [{ ...one, words: "not here yet", remedy: "What comes is counted in under Parts." }];
  const fact = job.renewed.get(part.id) ?? null;
  const signed = job.signOffs.get(`renew ${part.id}`) ?? null;
  return [
    {
      ...one,
      waits: false,
      // Used again only with a lead's name.
      bars: part.oneTime === true,
      words: fact
        ? "the new one"
        : signed
          ? `signed by ${signed.body.signedBy}`
          : part.oneTime
            ? "never goes in twice"
            : "a new one goes in",
      remedy: part.oneTime ? "Only a lead signs for the old one." : "",
      answer: fact || signed ? "answered" : "open",
      fact: fact ?? signed,
    },
  ];
}

/** What goes in: still to be put there, until the step is ticked or each lies in the unit. */
function ofPutting(step: Step, parts: readonly PartState[], ticked: boolean, { bench }: Looking): Asked[] {
  if (parts.length === 0) return [];
  const out = parts.filter(({ part }) => bench.isOff(part.id));
  return [
    {
      ...asks("put", step.id, parts.length === 1 ? (parts[0]?.part.name ?? "") : `${parts.length} parts`),
      words: ticked || out.length === 0 ? "in" : `${out.length} of ${parts.length} to go in`,
      answer: ticked || out.length === 0 ? "answered" : "open",
    },
  ];
}

/** A soak that begins with the step. */
function ofBeginning(step: Step, id: string, { timers }: Looking): Asked[] {
  const timer = timers.find((one) => one.step.id === step.id && one.soak.id === id);
  if (!timer) return [];
  return [
    {
      ...asks("begin", id, timer.soak.what),
      words: isTooSoon(timer) ? "taken out too soon" : timer.started ? "begun" : "",
      answer: timer.started && !isTooSoon(timer) ? "answered" : "open",
      fact: timer.started,
    },
  ];
}

function ofSoak(id: string, { timers, applied, now }: Looking): Asked[] {
  const soak = applied.scoped.soaks?.find((one) => one.id === id);
  if (!soak) return [];
  const own = timers.filter((timer) => timer.soak.id === id);
  const ready = own.length > 0 && own.every((timer) => isReady(timer, now));
  const begun = own.length > 0 && own.every((timer) => timer.started !== null && !isTooSoon(timer));
  return [
    {
      ...asks("soak", id, soak.what),
      waits: true,
      words: ready
        ? "long enough"
        : begun
          ? "still in it"
          : own.some(isTooSoon)
            ? "taken out too soon"
            : "not begun",
      remedy: begun ? "" : `Begin it: ${own.map(({ step }) => step.name).join(", ")}.`,
      answer: ready ? "answered" : "open",
      fact: own.find(({ started }) => started)?.started ?? null,
    },
  ];
}

function ofCheck(step: Step, check: StepCheck, job: Job): Asked {
  const fact = job.checks.get(`${step.id} ${check.id}`) ?? null;
  const is = fact?.body.said;
  return {
    ...asks("check", check.id, check.what),
    bars: check.first === true,
    words:
      is === "cannot-see"
        ? `cannot be seen: ${fact?.body.note ?? ""}`
        : is === "no"
          ? "not so"
          : is
            ? "so"
            : "",
    remedy: check.no ?? "",
    answer: is === undefined ? "open" : is === "no" ? "not so" : "answered",
    fact,
  };
}

function ofAir(element: string, { job, applied, states }: Looking): Asked[] {
  const check = applied.scoped.airChecks?.find((one) => one.element === element);
  if (!check) return [];
  const fact = job.airs.get(element) ?? null;
  const result = fact && airResult(check, fact.body);
  const holds = result === "holds";
  const suspects = (check.order ?? []).map((id) => states.get(id)?.part.name ?? nameOf(applied, id));
  return [
    {
      ...asks("air", element, `${element.toUpperCase()} with air`),
      words: result ? (holds ? "holds" : AIR.words[result]) : "",
      remedy: suspects.length > 0 ? `Look, as it was put together, at: ${suspects.join(", ")}.` : "",
      answer: !fact ? "open" : holds ? "answered" : "not so",
      fact,
    },
  ];
}

const nameOf = ({ present }: Applied, id: string): string =>
  present.parts.find((part: Part) => part.id === id)?.name ?? id;

const ofFace =
  (now: number) =>
  (face: Face): Asked => {
    const { group, round, left } = face;
    const missing = round ? (left.get(round.id) ?? []) : [];
    const wait = round?.kind === "again" && face.again !== null && now < face.again;
    return {
      ...asks("bolts", group.id, group.name),
      words: face.done
        ? "tight"
        : wait
          ? "waits, then once more"
          : missing.length === group.places.length
            ? "not tight"
            : `${missing.length === 1 ? "place" : "places"} ${missing.map((place) => place + 1).join(", ")} missing`,
      answer: face.done ? "answered" : "open",
      fact: face.last,
    };
  };

/** A figure the step reads: as built, or a lead answers for it. */
function ofFigure(id: string, { job, applied, lines }: Looking): Asked[] {
  const line = lines.get(id);
  if (!line) return [];
  const measurement = applied.scoped.measurements?.find((one) => one.id === id);
  const waiver = job.chains.get(id)?.waiver ?? job.signOffs.get(`figure ${id}`) ?? null;
  const missing = waiver ? "" : figureMissing(line);
  return [
    {
      ...asks("figure", id, line.name),
      bars: true,
      words: waiver ? `signed by ${waiver.body.signedBy}` : missing || line.built.text || "read",
      remedy: measurement ? measurementWords(measurement, applied.present.unit.lengthUnit) : line.spec,
      answer: missing === "" ? "answered" : line.built.standing === "outside" ? "not so" : "open",
      fact: line.built.readings.at(-1)?.fact ?? saidBuilt(job, id) ?? waiver,
    },
  ];
}

/** A figure said, and not read: the last word on any of what it is taken of. */
const saidBuilt = (job: Job, id: string): Fact | undefined =>
  job.live.findLast((fact) => isKind(fact, "figure") && fact.body.id === id && fact.body.phase === "built");

/** What is missing of a figure before it is one the unit can leave with; empty where nothing is. */
export function figureMissing({ subject, sheet, built }: SpecLine): string {
  if (sheet && (subject === "pack" || sheet.seats.length > 0)) {
    const { at } = sheet.stage;
    if (at === "done" || at === "signed" || at === "quiet") return "";
    if (at === "out") return "its piece is out";
    if (at === "astray") return "not as predicted";
    if (subject === "pack") return "not proven as built";
  }
  switch (built.standing) {
    case "inside":
    case "said":
    case "not stated":
      return "";
    case "outside":
      return "outside as built";
    case "not yet":
      return "not read as built";
    case "too close":
      return "too close to call";
    case "creeping":
    case "too few":
      return "not read often enough";
    case "conditions not said":
      return "its conditions are not said";
  }
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
    const steps = plannedIn(applied, new Map(known.parts.map((state) => [state.part.id, state])));
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
const OF_THE_STEP: ReadonlySet<Asked["kind"]> = new Set(["check", "begin", "bolts", "air", "figure"]);

/** What a piece exchanged for a figure would lay open: what stands on the steps that read it and are done, those steps’ own bolts, air and last checks with it. */
export function exchangeOpens(applied: Pick<Applied, "scoped">, build: Build, chain: string): BuildStep[] {
  const read = build.steps.filter(
    ({ step, fact }) => step.chains?.includes(chain) === true && fact?.body.did === "done",
  );
  const open = new Set([...read, ...read.flatMap(({ step }) => wouldOpen(applied, build, step.id))]);
  return build.steps.filter((one) => open.has(one));
}
