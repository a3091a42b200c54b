import type { Applied, Proof } from "../book";
import { isListed } from "../gears";
import {
  CHECKED,
  DROVE,
  LEARNED,
  questionWords,
  type Fact,
  type FactOf,
  type Job,
  type OnDrive,
} from "../fact";
import type { PartState } from "../inspect";
import { baseOf, kilometresOf, readDistance, toNumber } from "../quantity";
import { eventsOf, runOf } from "../procedure";
import { codesAt } from "./codes";
import { relearnsOf } from "./relearns";

/** What is proven in the vehicle, in the order it is done. */
export type ProveGroup = "before the engine" | "fill and level" | "first start" | "relearn" | "road";

/** Something that must be proven before the unit is handed over. */
export interface ProvingItem {
  /** The same as long as the thing is: what a lead’s signature names. */
  key: string;
  kind: "proof" | "procedure" | "relearn" | "drive";
  subject: string;
  name: string;
  group: ProveGroup;
  at: "open" | "going" | "not so" | "done";
  /** What of it is open, or what was answered, short. */
  words: string;
  /** Names of what comes first; empty where nothing does. */
  after: string[];
  fact: Fact | null;
  /** A lead answers for it as it is: what comes after it waits for it no longer. */
  signed: FactOf<"sign-off"> | null;
}

/** Whether nothing waits for it any more. */
export const isSettled = ({ at, signed }: Pick<ProvingItem, "at" | "signed">): boolean =>
  at === "done" || signed !== null;

/** How the proving stands. */
export interface Proving {
  items: ProvingItem[];
  /** Whether anything of it was begun. */
  begun: boolean;
}

/** How often a unit is driven before it is handed over: the second time by somebody else. */
export const DRIVES = 2;

/**
 * Everything a unit is to be proven by in the vehicle, as its book has it and as this job calls for it: proofs, procedures, routines learned anew, drives.
 * Nothing of a book that knows none.
 *
 * @param refit names of what is to be fitted before the engine may be started and is not.
 * @param states what becomes of each part.
 */
export function provingOf(
  job: Job,
  applied: Applied,
  states: readonly PartState[],
  refit: readonly string[],
): Proving {
  const { scoped } = applied;
  const proofs = (at: Proof["at"], group: ProveGroup): ProvingItem[] =>
    (scoped.proofs ?? []).filter((one) => one.at === at).map((one) => ofProof(one, group, job));
  const before = proofs("before the engine", "before the engine");
  const gates = [...refit, ...names(before)];
  const procedures = (scoped.procedures ?? []).map((one): ProvingItem => {
    const { at, run, behind } = runOf(one, eventsOf(job, one.id), {}, Infinity);
    const last = job.procedures.findLast(({ body }) => body.procedure === one.id) ?? null;
    return {
      ...item(job, "procedure", one.id, one.name, "fill and level"),
      at: at === "done" ? "done" : at === "going" ? "going" : at === "missed" ? "not so" : "open",
      words:
        at === "done"
          ? run > 1
            ? `done, begun ${run} times`
            : "done"
          : at === "missed"
            ? "the window passed: begin anew"
            : at === "stopped"
              ? "stopped"
              : at === "going"
                ? `turn ${behind + 1} of ${one.turns.length}`
                : "not begun",
      after: gates,
      fact: last,
    };
  });
  const filled = [...gates, ...names(procedures)];
  const first = proofs("first start", "first start").map((one) => ({ ...one, after: gates }));
  const relearns = relearnsOf(job, applied, states)
    .filter(({ calls }) => calls.length > 0)
    .reduce<ProvingItem[]>((list, { relearn, calls, fact }) => {
      const outcome = fact?.body.outcome;
      return [
        ...list,
        {
          ...item(job, "relearn", relearn.id, relearn.name, "relearn"),
          at: outcome === "done" ? "done" : outcome === "failed" ? "not so" : "open",
          words: outcome ? LEARNED.words[outcome] : calls.join("; "),
          after: [...filled, ...names(list)],
          fact,
        },
      ];
    }, []);
  const toRoad = [...filled, ...names(first)];
  const road = scoped.drives
    ? [
        ofDrive(1, "Road test", job, applied, toRoad),
        ...proofs("after the drive", "road"),
        ofDrive(2, "Second drive, by somebody else", job, applied, toRoad),
      ]
    : proofs("after the drive", "road");
  const firstDrive = road.find(({ kind }) => kind === "drive");
  const driven = firstDrive ? names([firstDrive]) : [];
  const items = [
    ...before,
    ...procedures,
    ...first,
    ...relearns,
    ...road.map((one) => (one === firstDrive ? one : { ...one, after: [...one.after, ...driven] })),
  ];
  return { items, begun: items.some(({ fact }) => fact !== null) };
}

const names = (items: readonly ProvingItem[]): string[] =>
  items.filter((one) => !isSettled(one)).map(({ name }) => name);

const item = (
  job: Job,
  kind: ProvingItem["kind"],
  subject: string,
  name: string,
  group: ProveGroup,
): Pick<ProvingItem, "key" | "kind" | "subject" | "name" | "group" | "signed"> => ({
  key: `${kind} ${subject}`,
  kind,
  subject,
  name,
  group,
  signed: job.signOffs.get(`${kind} ${subject}`) ?? null,
});

function ofProof({ id, what, no, codes }: Proof, group: ProveGroup, job: Job): ProvingItem {
  const fact = job.proofs.get(id) ?? null;
  const remembered = codes ? codesAt(job, id, no) : null;
  // What was read counts, and not what was said of it.
  if (remembered && (remembered.fact || !fact)) {
    const { at, words } = remembered;
    return { ...item(job, "proof", id, what, group), at, words, after: [], fact: remembered.fact };
  }
  const said = fact?.body.said;
  return {
    ...item(job, "proof", id, what, group),
    at: said === undefined ? "open" : said === "no" ? "not so" : "done",
    words:
      said === undefined
        ? "to be seen to"
        : said === "no"
          ? `not so${no ? `: ${no}` : ""}`
          : said === "cannot-see"
            ? `cannot be seen: ${fact?.body.note ?? ""}`
            : CHECKED.words[said],
    after: [],
    fact,
  };
}

/** Something asked of whoever drives it. */
export interface DriveAsk {
  /** As the fact names it. */
  of: string;
  name: string;
  /** A symptom it was brought with: it must be cured. */
  brought: boolean;
}

/** What was told that is not as it should be. */
export const symptomsOf = ({ answers }: Pick<Job, "answers">): readonly FactOf<"answer">[] =>
  answers.filter(({ body }) => !NOTHING_WRONG.has(body.outcome));

/** What is asked on a drive: each range, what it was brought with, and what the book asks besides. */
export function driveAsks(job: Job, { scoped, present }: Applied): DriveAsk[] {
  return [
    ...present.ranges.map(({ id }): DriveAsk => ({ of: `range:${id}`, name: id, brought: false })),
    ...symptomsOf(job).map(({ body: { question, outcome } }): DriveAsk => ({
      of: `symptom:${question}:${outcome}`.slice(0, 120),
      name: `${questionWords(question)}: ${outcome.replaceAll("-", " ")}`,
      brought: true,
    })),
    ...(scoped.drives?.items ?? []).map(({ id, what }): DriveAsk => ({
      of: `item:${id}`,
      name: what,
      brought: false,
    })),
  ];
}

const NOTHING_WRONG: ReadonlySet<string> = new Set([
  "fine",
  "nothing",
  "none",
  "in-its-limits",
  "clear",
  "stays",
]);

/** What is not right; better is not cured, and a lead answers for it or it is looked for. */
const WRONG: ReadonlySet<string> = new Set<OnDrive>(["better", "same", "new"]);

/** What the speeds read in a range say against it, in words; empty where none were read, or they are as listed. They count, and not what was said of it. */
export function slipRead(job: Job, { present }: Applied, drive: number, of: string): string {
  const speeds = job.driveSpeeds.get(`${drive} ${of.replace("range:", "")}`)?.body;
  const listed = present.ranges.find(({ id }) => of === `range:${id}`)?.ratio;
  // Between two pulleys the ratio moves: two speeds say nothing of slip there.
  if (!speeds || !listed || present.gearSets.some(({ kind }) => kind === "pulley pair")) return "";
  const { input, output } = speeds;
  if (output > 0 && isListed(input / output, listed)) return "";
  const lost = Math.round(input - Math.abs(listed) * output);
  return lost > 0 ? `slips: ${lost} of ${input} rpm` : `is not its ratio: ${(input / output).toFixed(2)}`;
}

/** Whether a drive came sooner after the one before than the book wants, and was not far enough to make up for it. */
function isTooSoon(first: FactOf<"drive">, second: FactOf<"drive">, { scoped }: Applied): boolean {
  const again = scoped.drives?.again;
  if (!again) return false;
  const waited = Date.parse(second.at) - Date.parse(first.at) >= toNumber(baseOf(again.time)) * 1000;
  const [ran, wanted] = [readDistance(second.body.distance), readDistance(again.distance)];
  return !waited && !(ran && wanted && kilometresOf(ran) >= kilometresOf(wanted));
}

function ofDrive(drive: number, name: string, job: Job, applied: Applied, after: string[]): ProvingItem {
  const fact = job.drives.get(`${drive}`) ?? null;
  const asks = driveAsks(job, applied);
  const answers = asks.map(({ of }) => job.driven.get(`${drive} ${of}`)?.body.said ?? null);
  const left = answers.filter((said) => said === null).length;
  const wrong = asks.flatMap(({ of, name: what }, i) => {
    const slip = slipRead(job, applied, drive, of);
    if (slip) return [`${what} ${slip}`];
    return WRONG.has(answers[i] ?? "fine")
      ? [answers[i] === "better" ? `${what}, better and not cured` : what]
      : [];
  });
  const first = drive > 1 ? (job.drives.get(`${drive - 1}`) ?? null) : null;
  const other = first?.body.driver;
  const isSame = fact !== null && fact.body.driver === other;
  const tooSoon = fact !== null && first !== null && isTooSoon(first, fact, applied);
  const isWrong = fact?.body.is === "wrong" || wrong.length > 0;
  const at = isWrong
    ? "not so"
    : fact && left === 0 && !isSame && !tooSoon
      ? "done"
      : fact || left < asks.length
        ? "going"
        : "open";
  return {
    ...item(job, "drive", `${drive}`, name, "road"),
    at,
    words: isWrong
      ? wrong.length > 0
        ? `not right: ${wrong.join(", ")}`
        : DROVE.words.wrong
      : isSame
        ? `driven by ${other ?? ""} again: somebody else drives`
        : tooSoon
          ? `too soon: ${applied.scoped.drives?.second ?? ""}`
          : left > 0
            ? `${asks.length - left} of ${asks.length} answered`
            : fact
              ? `${DROVE.words.right}, ${fact.body.driver}`
              : "who drove, and how far?",
    after,
    fact,
  };
}
