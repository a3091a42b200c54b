import {
  measurementWords,
  partNameIn,
  type Applied,
  type CheckBall,
  type Step,
  type StepCheck,
} from "../book";
import { AIR, IN_UNIT, isKind, LAID, type CodeOf, type Fact, type Job } from "../fact";
import type { PartState } from "../inspect";
import { isBeyondStop, type SpecLine } from "../measure";
import { plates as platesOfStack, type Plate } from "../pack";
import { VERIFY } from "../torque";
import type { Bench } from "../steps";
import { airResult } from "./air";
import type { Face } from "./face";
import { isReady, isTooSoon, type Timer } from "./timers";

/** What a lead’s name stands for, of what a step asks: as the rule for closing calls it; null for what nobody signs for. */
export const signedAs = ({ kind, subject }: Pick<Asked, "kind" | "subject">): string | null =>
  kind === "part" ? `renew ${subject}` : kind === "figure" ? `figure ${subject}` : null;

/** What a step asks for before it is done. */
export interface Asked {
  /** The same as long as the thing is: what a deviation names. */
  key: string;
  kind:
    "behind" | "part" | "soak" | "check" | "put" | "plates" | "balls" | "begin" | "bolts" | "air" | "figure";
  /** The step, part, soak, check, group, element or figure; of what is put in together, the step; of plates, their element; of check balls, the round. */
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

/** What a step is looked at with. */
export interface Looking {
  job: Job;
  applied: Applied;
  states: ReadonlyMap<string, PartState>;
  lines: ReadonlyMap<string, SpecLine>;
  timers: readonly Timer[];
  bench: Bench;
  now: number;
}

/** One thing asked, nothing of it answered yet. */
export const asks = (kind: Asked["kind"], subject: string, name: string): Asked => ({
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
export function ofPart({ part, is }: PartState, job: Job): Asked[] {
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
export function ofPutting(
  step: Step,
  parts: readonly PartState[],
  ticked: boolean,
  { bench }: Looking,
): Asked[] {
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

/** The plates of one pack that a step puts in, in the order they go in. */
export interface StepPlates {
  element: string;
  list: readonly Plate[];
}

/** The plates a step puts in, pack by pack; those of a pack of which it is not known which it has are put in as parts. */
export function platesIn({ packs }: Pick<Applied, "packs">, { parts = [] }: Step): StepPlates[] {
  const own = new Set(parts);
  return packs.flatMap(({ pack: { element }, stack }) => {
    const list = platesOfStack(stack).filter(({ role, part }) => role !== "piston" && own.has(part));
    return list.length > 0 ? [{ element, list }] : [];
  });
}

/** What of the parts is no plate. */
export const partsBeside = (parts: readonly PartState[], plates: readonly StepPlates[]): PartState[] => {
  const lie = new Set(plates.flatMap(({ list }) => list.map(({ part }) => part)));
  return parts.filter(({ part }) => !lie.has(part.id));
};

/** Plates, one after another. Without a word of them those count as in that were laid in by their labels, and those of a step that was ticked. */
export function ofPlates(
  { element, list }: StepPlates,
  step: Step,
  ticked: boolean,
  { job, bench }: Looking,
): Asked {
  const fact = job.plates.get(`${step.id} ${element}`) ?? null;
  const isLaidIn = ({ part }: Plate): boolean => {
    const { place, moved } = bench.things.get(part) ?? {};
    return place === IN_UNIT && moved?.body.kind === "lies";
  };
  const known = ticked || list.every(isLaidIn) ? list.length : 0;
  const there = fact ? Math.min(fact.body.in, list.length) : known;
  return {
    ...asks(
      "plates",
      element,
      `${element.toUpperCase()}, ${list.length === 1 ? "one plate" : `${list.length} plates`}`,
    ),
    words: there === list.length ? "in" : `${there} of ${list.length} in`,
    answer: there === list.length ? "answered" : "open",
    fact,
  };
}

/** Check balls into their places: as they are laid, and again once it is turned over. */
export function ofBalls(step: Step, expected: readonly CheckBall[], job: Job): Asked[] {
  if (expected.length === 0) return [];
  const rounds: readonly CodeOf<typeof LAID>[] = step.balls === "laid" ? ["laid"] : ["laid", "turned-over"];
  return rounds.map((round) => {
    const fact = job.laid.get(`${step.id} ${round}`) ?? null;
    const there = new Set(fact?.body.balls);
    const missing = expected.filter(({ id }) => !there.has(id));
    return {
      ...asks("balls", round, `Check balls, ${LAID.words[round]}`),
      words: fact
        ? missing.length === 0
          ? `${expected.length} in their places`
          : `missing: ${missing.map(({ id, name }) => name ?? id).join(", ")}`
        : "",
      answer: missing.length === 0 ? "answered" : "open",
      fact,
    };
  });
}

/** A soak that begins with the step. */
export function ofBeginning(step: Step, id: string, { timers }: Looking): Asked[] {
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

export function ofSoak(id: string, { timers, applied, now }: Looking): Asked[] {
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

export function ofCheck(step: Step, check: StepCheck, job: Job): Asked {
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

export function ofAir(element: string, { job, applied, states }: Looking): Asked[] {
  const check = applied.scoped.airChecks?.find((one) => one.element === element);
  if (!check) return [];
  const fact = job.airs.get(element) ?? null;
  const result = fact && airResult(check, fact.body);
  const holds = result === "holds";
  const suspects = (check.order ?? []).map(
    (id) => states.get(id)?.part.name ?? partNameIn(applied.present, id),
  );
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

export const ofFace =
  (now: number) =>
  (face: Face): Asked => {
    const { group, round, left, isUndisturbed } = face;
    const missing = round ? (left.get(round.id) ?? []) : [];
    const moved = missing.flatMap((place) =>
      isUndisturbed && face.said(VERIFY.id, place)?.body.did === "moved" ? [place + 1] : [],
    );
    const wait = face.until !== null && now < face.until;
    return {
      ...asks("bolts", group.id, group.name),
      words: face.done
        ? isUndisturbed
          ? "holds"
          : "tight"
        : wait
          ? round?.kind === "again"
            ? "waits, then once more"
            : "waits, then full"
          : missing.length === group.places.length
            ? isUndisturbed
              ? "not undone: hold each against its torque"
              : "not tight"
            : `${missing.length === 1 ? "place" : "places"} ${missing.map((place) => place + 1).join(", ")} missing`,
      remedy: moved.length > 0 ? `It moved at ${moved.join(", ")}: tighten it, and hold it once more.` : "",
      answer: face.done ? "answered" : "open",
      fact: face.last,
    };
  };

/** A figure the step reads: as built, or a lead answers for it. */
export function ofFigure(id: string, { job, applied, lines }: Looking): Asked[] {
  const line = lines.get(id);
  if (!line) return [];
  const measurement = applied.scoped.measurements?.find((one) => one.id === id);
  const waiver = job.chains.get(id)?.waiver ?? job.signOffs.get(`figure ${id}`) ?? null;
  const missing = waiver ? "" : figureMissing(line);
  return [
    {
      ...asks("figure", id, line.name),
      bars: true,
      words: waiver
        ? `signed by ${waiver.body.signedBy}`
        : measurement && isBeyondStop(measurement, line)
          ? `${line.built.text}: engine off at once`
          : missing || line.built.text || "read",
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
