import { codeFor, ID, isRecord } from "../shape";
import { OUTSIDE, REASONS, WEAR } from "./catalogue";

type Old = Record<string, unknown>;

/** What stands where a book does not say. */
export const NOT_KNOWN = { maker: "Maker not known", source: "source not told" };

/*
 * Books that were written before wear, reasons and answers had ids: their words stood there. A revision never changes, so the jobs pinned to one
 * read it through here; nothing of this file is needed for a book of today.
 */

/** A book document as it is written today; one of today is the very same. */
export function upcastBook(given: unknown): unknown {
  const document = withHead(given);
  if (!isRecord(document)) return document;
  const wears: Old[] = [];
  const reasons: Old[] = [];
  const changed: Old = {
    ...axisOf(document),
    ...trainOf(document),
    ...placesOf(document),
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

/**
 * A book document whose unit says everything it is known by: an id made of what it is called, a maker, a source and a revision where it has none. Lists
 * read these off the document as it is kept.
 */
export function withHead(document: unknown): unknown {
  if (!isRecord(document) || !isRecord(document.unit)) return document;
  const { unit } = document;
  const { id, maker, name, source, revision } = unit;
  if ([id, maker, source, revision].every((one) => one !== undefined) || typeof name !== "string")
    return document;
  const made = codeFor([maker, name].filter((one) => typeof one === "string").join(" "));
  return {
    ...document,
    unit: { id: made, maker: NOT_KNOWN.maker, source: NOT_KNOWN.source, revision: 1, ...unit },
  };
}

/** Where no train is written down its own three members stand beside those that are. */
const trainOf = ({ train, members }: Old): Old =>
  train === undefined && Array.isArray(members)
    ? { members: [...new Set([...(members as unknown[]), "input", "output", "case"])] }
    : {};

/** Where no station is written down the packs stand along a plain axis, in their order. */
function axisOf({ stations, packs, chains, parts, elements }: Old): Old {
  const all = listOf(packs).filter(isRecord);
  if (stations !== undefined || all.length === 0) return {};
  const wide = 100 / all.length;
  const placeOf = (element: unknown): string => `${String(element)}-place`;
  const placed = (section: string, entries: unknown, elementOf: (entry: Old) => unknown): Old =>
    entries === undefined
      ? {}
      : {
          [section]: listOf(entries).map((entry) => {
            const element = isRecord(entry) ? elementOf(entry) : undefined;
            return isRecord(entry) && element !== undefined ? { station: placeOf(element), ...entry } : entry;
          }),
        };
  return {
    stations: all.map(({ element, name }, i) => ({
      id: placeOf(element),
      name: name ?? element,
      kind: listOf(elements).some((one) => isRecord(one) && one.id === element && one.kind === "brake")
        ? "brake"
        : "drum",
      from: Math.round(wide * i * 10) / 10,
      to: Math.round(wide * (i + 0.9) * 10) / 10,
      reach: 70,
    })),
    packs: listOf(packs).map((pack) => (isRecord(pack) ? { station: placeOf(pack.element), ...pack } : pack)),
    ...placed("chains", chains, ({ of }) => all.find(({ element }) => element === of)?.element),
    ...placed(
      "parts",
      parts,
      ({ id }) =>
        all.find(({ stack }) => listOf(stack).some((one) => isRecord(one) && one.part === id))?.element,
    ),
  };
}

/** So many bolts stand in one row of a plain face. */
const IN_A_ROW = 10;

/** Bolts of which nobody has said where they sit stand in plain rows, so that each can be ticked; it is said that they do. */
function placesOf({ fasteners }: Old): Old {
  const all = listOf(fasteners);
  const isLoose = (group: unknown): group is Old & { count: number } =>
    isRecord(group) &&
    typeof group.count === "number" &&
    group.count > 0 &&
    group.count <= 80 &&
    listOf(group.places).length === 0;
  if (!all.some(isLoose)) return {};
  return {
    fasteners: all.map((group) => {
      if (!isLoose(group)) return group;
      const rows = Math.ceil(group.count / IN_A_ROW);
      const places = Array.from({ length: group.count }, (_, i) => ({
        at: [5 + 10 * (i % IN_A_ROW), Math.round((100 * (Math.floor(i / IN_A_ROW) + 0.5)) / rows)],
      }));
      return { note: "Where they sit is not known: drawn in plain rows.", ...group, places };
    }),
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
