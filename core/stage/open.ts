import type { Applied } from "../book";
import { buildStanding, type BuildStanding } from "../build";
import type { FactOf, Job } from "../fact";
import {
  dispositions,
  otherUnit,
  unanswered,
  type OtherUnit,
  type PartState,
  type Schools,
} from "../inspect";
import { asFound, specLines, wrongOrders, ruleOf, type House, type SpecLine, type Stage } from "../measure";
import { provingOf, type Proving, type ProvingItem } from "../prove";
import { stepsDone } from "./steps-done";

/** The stages of the work, in its order. */
export const STAGES = [
  ...([
    "book in",
    "take down",
    "inspect",
    "measure",
    "choose",
    "parts",
    "build",
    "prove",
    "hand over",
  ] as const),
] as const;
/** A stage of the work. */
export type StageId = (typeof STAGES)[number];

/** Something in scope that nobody has answered. */
export interface Open {
  /** What a lead’s signature names: the same as long as the thing is. */
  key: string;
  kind:
    | ("trait" | "step" | "part" | "question" | "renew" | "figure" | "cause" | "weak point")
    | ("build" | "disagreement")
    | ProvingItem["kind"];
  /** The stage of the work in which it is answered. */
  stage: StageId;
  /** The step, part, figure, pack, failure, weak point or trait it is about. */
  subject: string;
  name: string;
  /** What would answer it, short. */
  words: string;
  /** A lead answers for it is. */
  signed: FactOf<"sign-off"> | null;
}

/** What the rule for closing looks at besides the job. */
export type Rule = House & Schools;

/** What a job comes to, part by part, figure by figure and step by step: worked out once for all who ask. */
export interface Made {
  states: readonly PartState[];
  rows: readonly SpecLine[];
  build: BuildStanding;
  proving: Proving;
}

/** @returns what a job comes to; soaks that were begun count as over. */
export function madeOf(job: Job, applied: Applied, house: Rule): Made {
  const states = dispositions(job, applied, house, house.rule);
  const rows = specLines(job, applied, house, applied.present.unit.lengthUnit);
  const build = buildStanding(job, applied, house, { parts: states, lines: rows });
  const refit = build.left.flatMap(({ step }) =>
    step.vehicle === "first start" || job.signOffs.has(`build ${step.id}`) ? [] : [step.name],
  );
  return { states, rows, build, proving: provingOf(job, applied, states, refit) };
}

/**
 * Everything in scope that must be answered before a job is closed, in the order of the work: traits nobody has seen, steps, parts nobody has
 * looked at or that are to be measured, new ones not in yet, figures outside or not taken, causes, weak points, and words that contradict each
 * other. The one rule for closing: pages and doors ask here.
 */
export function openOf(
  job: Job,
  applied: Applied,
  house: Rule,
  made: Made = madeOf(job, applied, house),
): Open[] {
  const other = otherUnit(job);
  const list = [
    ...traits(applied),
    ...(other
      ? // The one that was here is not built: what remains is why it failed, what is renewed on the other, and that the other one is proven.
        [
          ...renewedOn(other, job, applied),
          ...building(made),
          ...causes(job, applied).filter(({ kind }) => kind === "cause"),
          ...proving(made),
        ]
      : [
          ...steps(job, applied),
          ...questions(job, applied, true),
          ...parts(job, made),
          ...figures(job, applied, house, made),
          ...building(made),
          ...causes(job, applied),
          ...proving(made),
          ...questions(job, applied, false),
        ]),
    ...job.disagreements.map(({ kind, key, holds }): Unsigned => ({
      key: `disagreement ${kind} ${key}`,
      kind: "disagreement",
      stage: "hand over",
      subject: key,
      name: key,
      words: `two said different things; ${holds.by}’s holds for now`,
    })),
  ];
  return list.map((one) => ({ ...one, signed: job.signOffs.get(one.key) ?? null }));
}

/** @returns what still stands in the way of closing: everything open that no lead has signed. */
export const hinders = (job: Job, applied: Applied, house: Rule): Open[] =>
  openOf(job, applied, house).filter(({ signed }) => signed === null);

/**
 * Whether a job may end because the fault is not in this unit.
 *
 * @returns what stands against it, in words; empty when nothing does.
 */
export function hindersElsewhere(job: Job): string {
  if (job.conclusion?.body.fault !== "elsewhere") return "Say first that the fault lies elsewhere, and why.";
  const opened = [...job.steps.values()].some(({ body }) => body.did === "done");
  if (job.changes.length > 0 || job.renewed.size > 0)
    return "Parts were fitted: what was built is answered for on the build sheet.";
  return opened ? "The unit was opened: it is closed on the build sheet." : "";
}

type Unsigned = Omit<Open, "signed">;

const traits = ({ unseen }: Applied): Unsigned[] =>
  unseen.map(({ id, name }) => ({
    key: `trait ${id}`,
    kind: "trait",
    stage: "book in",
    subject: id,
    name,
    words: "nobody has seen which version it is",
  }));

const steps = (job: Job, applied: Applied): Unsigned[] =>
  stepsDone(job, applied).left.map(({ id, name }) => ({
    key: `step ${id}`,
    kind: "step",
    stage: "take down",
    subject: id,
    name,
    words: "not done, and not passed over with a reason",
  }));

function parts(job: Job, { states }: Made): Unsigned[] {
  return states.flatMap((state): Unsigned[] => {
    const { id, name } = state.part;
    const one = (kind: "part" | "renew", words: string): Unsigned[] => [
      {
        key: `${kind} ${id}`,
        kind,
        stage: kind === "renew" ? "parts" : "inspect",
        subject: id,
        name,
        words,
      },
    ];
    if (state.is === null) return one("part", "nobody has looked at it");
    if (state.is === "measure-first") return one("part", whyMeasured(state));
    const goes = state.is === "replace" || state.is === "upgrade";
    return goes && !job.renewed.has(id) ? one("renew", "a new one is not in yet") : [];
  });
}

/** Build steps that are not done, or that something of is open; a figure is open for itself. */
const building = ({ build }: Made): Unsigned[] =>
  build.left.map(({ step: { id, name, vehicle }, words }) => ({
    key: `build ${id}`,
    kind: "build",
    stage: vehicle ? "prove" : "build",
    subject: id,
    name,
    words,
  }));

/** What is to be proven in the vehicle and is not. */
const proving = ({ proving: { items } }: Made): Unsigned[] =>
  items
    .filter(({ at }) => at !== "done")
    .map(({ key, kind, subject, name, words }) => ({ key, kind, stage: "prove", subject, name, words }));

const renewedOn = ({ renew }: OtherUnit, job: Job, { scoped }: Applied): Unsigned[] =>
  scoped.parts
    .filter(({ id }) => renew.includes(id) && !job.renewed.has(id))
    .map(({ id, name }) => ({
      key: `renew ${id}`,
      kind: "renew",
      stage: "parts",
      subject: id,
      name,
      words: "a new one is not in yet",
    }));

const whyMeasured = ({ because }: PartState): string =>
  `to be measured: ${because.find(({ is }) => is === "measure-first")?.words ?? "decided so"}`;

/** What the unit leaves with: as built, else as found where nothing was built anew. */
function figures(job: Job, applied: Applied, house: Rule, { rows }: Made): Unsigned[] {
  const before = new Set(asFound(job, applied, ruleOf(job, house)).map(({ id }) => id));
  const inVehicle = new Set(
    (applied.scoped.build ?? []).flatMap(({ vehicle, chains = [], measurements = [] }) =>
      vehicle ? [...chains, ...measurements] : [],
    ),
  );
  const figuresOf = rows.flatMap((row): Unsigned[] => {
    const words = figureWords(row);
    const isChosen =
      row.subject === "pack" || (row.sheet !== null && CHOSEN[row.sheet.stage.at] !== undefined);
    const stage = inVehicle.has(row.id)
      ? before.has(row.id) && row.found.standing === "not yet"
        ? "book in"
        : "prove"
      : isChosen
        ? "choose"
        : before.has(row.id)
          ? "book in"
          : "measure";
    return words && !job.chains.get(row.id)?.waiver
      ? [{ key: `figure ${row.id}`, kind: "figure", stage, subject: row.id, name: row.name, words }]
      : [];
  });
  return [...figuresOf, ...orders(applied, rows)];
}

/** Results that stand in the wrong order. */
const orders = (applied: Applied, rows: readonly SpecLine[]): Unsigned[] =>
  wrongOrders(rows, applied, (row) => leftAt(row).mean).map(([low, high]) => ({
    key: `order ${low.id} ${high.id}`,
    kind: "figure",
    stage: "choose",
    subject: low.id,
    name: low.name,
    words: `in the wrong order: above ${high.name}`,
  }));

/** As built, else as found. */
const leftAt = ({ found, built }: SpecLine): SpecLine["found"] =>
  built.standing === "not yet" ? found : built;

/** Of an end play or another figure that a piece moves: what is open once something is to be chosen for it. */
const CHOSEN: Readonly<Partial<Record<Stage["at"], string>>> = {
  choose: "outside: another piece to be chosen",
  read: "chosen, not proven as built",
  out: "its piece is out",
  astray: "not as predicted",
};

function figureWords(row: SpecLine): string {
  const { sheet, built } = row;
  if (row.subject === "pack")
    return sheet?.stage.at === "done" || sheet?.stage.at === "signed" ? "" : "not proven as built";
  if (built.standing === "conditions not said")
    return `its conditions are not said: ${sheet?.conditions.missing.join(", ") ?? ""}`;
  const chosen = sheet && CHOSEN[sheet.stage.at];
  if (chosen) return chosen;
  switch (leftAt(row).standing) {
    case "inside":
    case "said":
    case "not stated":
    case "conditions not said":
      return "";
    case "outside":
      return built.standing === "not yet" ? "outside as found, not read as built" : "outside as built";
    case "not yet":
      return "not taken";
    case "too close":
      return "too close to call";
    case "creeping":
    case "too few":
      return "not read often enough";
  }
}

/** Questions about parts in scope that nobody has answered; what the build does not wait for is answered before the unit leaves. */
const questions = (job: Job, { scoped }: Applied, waits: boolean): Unsigned[] =>
  scoped.parts.flatMap(({ id, name }): Unsigned[] => {
    const asked = job.partQuestions.get(id)?.body;
    if (!asked || asked.answer || asked.waits !== waits) return [];
    const words = `open: ${asked.asks}${asked.until ? ` By ${asked.until}.` : ""}`;
    return [
      {
        key: `question ${id}`,
        kind: "question",
        stage: waits ? "inspect" : "hand over",
        subject: id,
        name,
        words,
      },
    ];
  });

const causes = (job: Job, applied: Applied): Unsigned[] =>
  unanswered(job, applied).map(({ kind, name, subject }) => ({
    key: `${kind} ${subject}`,
    kind: kind === "weak point" ? "weak point" : "cause",
    stage: "inspect",
    subject,
    name,
    words:
      kind === "weak point"
        ? "a known weak point, not answered"
        : kind === "cause"
          ? "no cause yet: it would fail again"
          : "the cause was not found",
  }));
