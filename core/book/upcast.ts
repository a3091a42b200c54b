import { codeFor, ID, isRecord } from "../shape";
import { OUTSIDE, REASONS, WEAR } from "./catalogue";

type Old = Record<string, unknown>;

/*
 * Books that were written before wear, reasons and answers had ids: their words stood there. A revision never changes, so the jobs pinned to one
 * read it through here; nothing of this file is needed for a book of today.
 */

/** A book document as it is written today; one of today is the very same. */
export function upcastBook(document: unknown): unknown {
  if (!isRecord(document)) return document;
  const wears: Old[] = [];
  const reasons: Old[] = [];
  const changed: Old = {
    ...partsOf(document, wears, reasons),
    ...pointsOf(document),
    ...elementsOf(document),
    ...stepsOf("teardown", document),
    ...stepsOf("build", document),
  };
  if (Object.keys(changed).length === 0) return document;
  return {
    ...document,
    ...changed,
    ...(wears.length > 0 ? { wears: [...listOf(document.wears), ...wears] } : {}),
    ...(reasons.length > 0 ? { reasons: [...listOf(document.reasons), ...reasons] } : {}),
  };
}

const listOf = (value: unknown): unknown[] => (Array.isArray(value) ? (value as unknown[]) : []);
/** Words, where an id belongs. */
const isWords = (value: unknown): value is string => typeof value === "string" && /[^a-z0-9-]/.test(value);

function partsOf({ parts }: Old, wears: Old[], reasons: Old[]): Old {
  const list = listOf(parts);
  const now = list.map((part) => {
    if (!isRecord(part)) return part;
    const wear = listOf(part.wear);
    const worded = wear.some(isWords);
    if (!worded && !isWords(part.always)) return part;
    return {
      ...part,
      ...(worded ? { wear: wear.map((one) => (isWords(one) ? wearId(one, wears) : one)) } : {}),
      ...(isWords(part.always) ? { always: reasonId(part.always, reasons) } : {}),
    };
  });
  return now.every((one, i) => one === list[i]) ? {} : { parts: now };
}

function wearId(words: string, wears: Old[]): string {
  const id = codeFor(words);
  if (!Object.hasOwn(WEAR, id) && !wears.some((one) => one.id === id))
    wears.push({ id, name: words, look: "other" });
  return id;
}

function reasonId(words: string, reasons: Old[]): string {
  const known = Object.entries(REASONS).find(([, reason]) => reason.words === words)?.[0];
  if (known) return known;
  const id = codeFor(words);
  if (!reasons.some((one) => one.id === id))
    reasons.push({
      id,
      words,
      ...(/^after /.test(words)
        ? { only: "after-metal" }
        : /^with /.test(words)
          ? { only: "with-its-set" }
          : {}),
    });
  return id;
}

function pointsOf({ weakPoints }: Old): Old {
  const list = listOf(weakPoints);
  const now = list.map((point) => {
    const answers = isRecord(point) ? listOf(point.answers) : [];
    if (!isRecord(point) || !answers.some((one) => typeof one === "string")) return point;
    return { ...point, answers: answers.map((one) => (typeof one === "string" ? answerOf(one) : one)) };
  });
  return now.every((one, i) => one === list[i]) ? {} : { weakPoints: now };
}

/** What an answer did was told from its words. */
const answerOf = (name: string): Old => ({
  id: codeFor(name),
  name,
  does: /replace|new|another|sleeve/i.test(name) ? "replace" : "look",
});

function elementsOf({ elements }: Old): Old {
  const list = listOf(elements);
  const now = list.map((element) => {
    if (!isRecord(element) || !isWords(element.outside)) return element;
    const words = element.outside;
    const known = Object.entries(OUTSIDE).find(([, one]) => one === words)?.[0];
    return { ...element, outside: known ?? (/converter/i.test(words) ? "converter" : "second-axle") };
  });
  return now.every((one, i) => one === list[i]) ? {} : { elements: now };
}

/** What a step records, and what is seen to in it, was told by its words. */
function stepsOf(phase: "teardown" | "build", document: Old): Old {
  const list = listOf(document[phase]);
  const now = list.map((step) => {
    if (!isRecord(step)) return step;
    const record = worded(step.record, (what) => ({ id: codeFor(`${String(step.id)} ${what}`), what }));
    const seen = worded(step.check, checkOf);
    return record || seen
      ? { ...step, ...(record ? { record } : {}), ...(seen ? { check: seen } : {}) }
      : step;
  });
  return now.every((one, i) => one === list[i]) ? {} : { [phase]: now };
}

/** A list that has words in it as it is written today; null where it has none. */
function worded(value: unknown, of: (words: string, i: number) => Old): unknown[] | null {
  const list = listOf(value);
  return list.some((one) => typeof one === "string")
    ? // The same words twice in one step ask for the same thing.
      [...new Set(list)].map((one, i) => (typeof one === "string" ? of(one, i) : one))
    : null;
}

/** No fact names longer ones. */
const LONGEST = 100;

/** What is seen to in a step, of words alone: those that make no id are counted. */
export const checkOf = (what: string, i: number): { id: string; what: string } => {
  const id = codeFor(what).slice(0, LONGEST).replace(/-$/, "");
  return { id: ID.test(id) ? id : `check-${i + 1}`, what };
};
