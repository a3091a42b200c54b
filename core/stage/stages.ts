import type { Applied } from "../book";
import type { BuildStanding } from "../build";
import { isBuilding, type Job } from "../fact";
import { otherUnit } from "../inspect";
import { chosenSheets, isPackSheet, titleOf, type Worksheet } from "../measure";
import { isSettled, type Proving } from "../prove";
import { madeOf, openOf, STAGES, type Made, type Open, type Rule, type StageId } from "./open";
import { stageWords, stepsDone } from "./steps-done";

/** How one stage of the work stands. */
export interface JobStage {
  id: StageId;
  /** Waiting: nothing was done in it, and a stage before it is not done. By hand: the book has no steps for it, and what is done is said instead. */
  state: "done" | "open" | "waits" | "by hand" | "out of scope";
  /** Answers that are still to come. */
  open: number;
}

/** The one thing to do next, and why. */
export interface Next {
  stage: StageId;
  what: "symptoms" | "pack" | "close" | Open["kind"];
  /** What it is about: a step, a pack's chain, a part; empty where it is the job. */
  subject: string;
  name: string;
  /** Why it is next, short; in the trade's words. */
  words: string;
}

/** Where a job stands: every stage of the work, and what is next; null once it is closed. */
export interface Standing {
  stages: JobStage[];
  next: Next | null;
  /** Everything that a closing would still wait for. */
  open: Open[];
  /** Of the steps that are left, down and up, by the book. */
  minutesLeft: number;
}

/**
 * Where a job stands, by the rule for closing it: what nobody has answered is open in the stage that answers it. What is next follows the order
 * of the work, but what was begun comes first: steps while the unit comes apart, then the pack that has readings and is not done.
 */
export function standingOf(job: Job, applied: Applied, house: Rule): Standing {
  const made = madeOf(job, applied, house);
  const open = openOf(job, applied, house, made).filter(({ signed }) => signed === null);
  const sheets = chosenSheets(job, applied, house);
  const packs = sheets.filter(isPackSheet);
  const steps = stepsDone(job, applied);
  const inVehicle = (applied.scoped.build ?? []).filter(({ vehicle }) => vehicle);
  const begun: Readonly<Record<StageId, boolean>> = {
    "book in": true,
    "take down": steps.done > 0,
    inspect: job.findings.length + job.good.size > 0,
    measure:
      job.live.some(({ body }) => body.kind === "figure") ||
      [...job.chains.keys()].some((id) => !packs.some(({ applied: { chain } }) => chain.id === id)),
    choose:
      packs.some(isBegun) || sheets.some(({ choice, stage }) => choice !== null || CHOOSING.has(stage.at)),
    parts: job.renewed.size > 0,
    build: isBuilding(job, applied.present.build),
    prove: made.proving.begun || inVehicle.some(({ id }) => job.steps.has(id)),
    "hand over": job.closed !== null,
  };
  const left = (id: StageId): number => open.filter(({ stage }) => stage === id).length;
  let waits = false;
  const stages = STAGES.map((id): JobStage => {
    const count = left(id);
    const nothingInScope =
      (id === "choose" && sheets.every(({ stage }) => stage.at === "quiet")) ||
      (id === "take down" && steps.total === 0 && !isByHand(applied)) ||
      (id === "build" && otherUnit(job) !== null) ||
      (id === "build" && (applied.scoped.build ?? []).length === inVehicle.length) ||
      (id === "prove" && made.proving.items.length + inVehicle.length === 0);
    const done = job.closed !== null || (id === "hand over" ? false : count === 0);
    if (id === "take down" && isByHand(applied)) return { id, state: "by hand", open: 0 };
    const state = nothingInScope ? "out of scope" : done ? "done" : waits && !begun[id] ? "waits" : "open";
    // What is looked at outside does not hold the work up.
    if (!done && !nothingInScope && id !== "book in") waits = true;
    return { id, state, open: job.closed ? 0 : count };
  });
  const down = steps.left.reduce((sum, { minutes = 0 }) => sum + minutes, 0);
  return {
    stages,
    next: job.closed ? null : nextOf(job, applied, sheets, open, made),
    open,
    minutesLeft: job.closed ? 0 : (otherUnit(job) ? 0 : down) + made.build.minutesLeft,
  };
}

/** Whether the book of this unit has no step at all for taking it down. */
const isByHand = ({ present }: Applied): boolean => (present.teardown ?? []).length === 0;

const isBegun = (sheet: Worksheet): boolean =>
  sheet.found.readings.length + sheet.trial.readings.length + sheet.built.readings.length > 0;

function nextOf(
  job: Job,
  applied: Applied,
  sheets: readonly Worksheet[],
  open: readonly Open[],
  { build, proving }: Pick<Made, "build" | "proving">,
): Next {
  const untouched =
    job.chains.size === 0 && [...job.steps.values()].every(({ body }) => body.did === "undone");
  if (untouched && job.answers.length === 0 && applied.present.ranges.length > 0)
    return {
      stage: "book in",
      what: "symptoms",
      subject: "",
      name: "Tell the symptoms",
      words: "before a wrench is put to it",
    };
  const steps = stepsDone(job, applied);
  const comesApart = !otherUnit(job) && steps.next !== null && (steps.done > 0 || job.chains.size === 0);
  const before = untouched
    ? open.find(({ kind, stage }) => kind === "figure" && stage === "book in")
    : undefined;
  if (before) return of(before, "before the unit is opened");
  if (comesApart && steps.next)
    return {
      stage: "take down",
      what: "step",
      subject: steps.next.id,
      name: steps.next.name,
      words: `step ${steps.done + 1} of ${steps.total}`,
    };
  if (isByHand(applied) && untouched && job.cameOff.length === 0 && !otherUnit(job))
    return {
      stage: "take down",
      what: "step",
      subject: "",
      name: "Take it down",
      words: "say what comes off: the book has no steps",
    };
  const unproven = new Set(open.flatMap(({ kind, subject: id }) => (kind === "figure" ? [id] : [])));
  const packs = sheets.filter(
    (sheet) => unproven.has(sheet.applied.chain.id) && (isPackSheet(sheet) || CHOOSING.has(sheet.stage.at)),
  );
  // Read without a step ticked, the unit is taken as it is.
  const pack = packs.find(isBegun) ?? (steps.done === 0 && job.chains.size > 0 ? packs[0] : undefined);
  if (pack) return ofPack(pack, packs.length);
  const building = open.some(({ kind }) => kind === "build") ? ofBuild(build, proving) : null;
  if (building && isBuilding(job, applied.present.build)) return building;
  for (const stage of STAGES) {
    // A trait, and what was to be read before opening, can be answered at any time.
    if (stage === "book in" || stage === "take down" || stage === "hand over") continue;
    const [first, ...more] = open.filter((one) => one.stage === stage);
    if (!first) continue;
    if (building?.stage === stage) return building;
    if (stage === "choose" && packs[0]) return ofPack(packs[0], packs.length);
    return of(first, more.length > 0 ? `${first.words}, ${more.length + 1} to answer` : first.words);
  }
  const [rest, ...more] = open;
  if (rest) return of(rest, more.length > 0 ? `${rest.words}, ${more.length + 1} to answer` : rest.words);
  return {
    stage: "hand over",
    what: "close",
    subject: "",
    name: "Build sheet and closing",
    words: "everything in scope is answered",
  };
}

const of = ({ stage, kind, subject: about, name }: Open, words: string): Next => ({
  stage,
  what: kind,
  subject: about,
  name,
  words,
});

/** The engine is not started before what comes first of it is proven. */
function ofBuild({ next, done, total }: BuildStanding, { items }: Proving): Next | null {
  if (!next) return null;
  const first =
    next.vehicle === "first start"
      ? items.find(
          (one) => !isSettled(one) && (one.group === "before the engine" || one.group === "fill and level"),
        )
      : undefined;
  if (first) {
    const { kind, subject, name, words } = first;
    return { stage: "prove", what: kind, subject, name, words };
  }
  return {
    stage: next.vehicle ? "prove" : "build",
    what: "build",
    subject: next.id,
    name: next.name,
    words: `step ${done + 1} of ${total}`,
  };
}

/** A figure that is no pack’s is worked on with the packs once a piece is to be chosen for it. */
const CHOOSING: ReadonlySet<string> = new Set(["choose", "read", "out", "astray"]);

function ofPack(sheet: Worksheet, left: number): Next {
  const { applied, stage } = sheet;
  return {
    stage: "choose",
    what: "pack",
    subject: applied.chain.id,
    name: titleOf(sheet),
    words: `${stageWords(stage)}${left > 1 ? `, ${left} to go` : ""}`,
  };
}

/** What a job waits for, in one line, as a list of jobs says it. */
export function waitsFor({ next }: Pick<Standing, "next">): string {
  if (!next) return "nothing, closed";
  return next.what === "symptoms" || next.what === "close" ? next.name : `${next.name}: ${next.words}`;
}
