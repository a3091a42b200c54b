import { difference, differenceText } from "../book";
import { LESSONS, type FactOf } from "../fact";
import { exactLength, type Nm } from "../quantity";
import { codeFor, isRecord } from "../shape";
import type { KeptPicture } from "./learn";

type Said = FactOf<"next-time">["body"];
type Entry = Record<string, unknown>;

/** What a job found out for next time, and where. */
export interface Proposal {
  /** The job’s number. */
  job: number;
  by: string;
  /** The day it was said. */
  day: string;
  said: Said;
  /** The picture that shows it, kept for the book. */
  picture: KeptPicture | null;
}

/** A proposal in words: what it is, and what it would change in a document. */
export interface Proposed {
  title: string;
  changes: string[];
}

const idOf = ({ is, lesson }: Said): string => `${is}-${codeFor(lesson)}`;
const listOf = (document: Entry, section: string): readonly Entry[] => {
  const known = document[section];
  return Array.isArray(known) ? (known as unknown[]).filter(isRecord) : [];
};
/** An entry under its id: over what it says in its place where it is there, else at the end. */
const put = (document: Entry, section: string, entry: Entry): Entry => {
  const list = listOf(document, section);
  const isThere = list.some(({ id }) => id === entry.id);
  return {
    ...document,
    [section]: isThere
      ? list.map((one) => (one.id === entry.id ? { ...one, ...entry } : one))
      : [...list, entry],
  };
};

/**
 * Writes what a job found out into a draft of its unit’s book, with the job as its source: a tip, a weak point, a tool, a limit.
 *
 * @param document the draft’s.
 * @returns the document with it; the same where it says so already, or has not what it is about.
 */
export function takeIn(document: unknown, { job, day, said, picture }: Proposal): unknown {
  if (!isRecord(document)) return document;
  const learnt = `job ${job}, ${day}`;
  const id = idOf(said);
  const isOf = (section: string): boolean => listOf(document, section).some((one) => one.id === said.of);
  const shown = picture ? { picture: id } : {};
  const base = picture
    ? put(document, "pictures", { id, name: said.name || said.text.slice(0, 60), ...picture })
    : document;
  switch (said.is) {
    case "tip":
      return put(base, "tips", {
        id,
        text: said.text,
        ...(said.of === undefined ? {} : { of: said.of }),
        ...shown,
        learnt,
      });
    case "weak-point":
      return put(base, "weakPoints", {
        id,
        name: said.name,
        complaint: said.text,
        ...(isOf("parts") ? { parts: [said.of] } : {}),
        ...(isOf("stations") ? { station: said.of } : {}),
        answers: [{ id: "done", name: said.done || "seen to", does: "look" }],
        ...shown,
        learnt,
      });
    case "tool": {
      const tool = { id, name: said.name, does: said.text, ...(said.not ? { limit: said.not } : {}) };
      return ["teardown", "build"].reduce<Entry>(
        (next, section) => usedIn(next, section, said.of, id),
        put(base, "tools", { ...tool, ...shown, learnt }),
      );
    }
    case "limit":
      return limited(base, said, { learnt, day });
  }
}

/** A tool stands at the step it was made for. */
function usedIn(document: Entry, section: string, step: string | undefined, tool: string): Entry {
  const list = listOf(document, section);
  if (!list.some(({ id }) => id === step)) return document;
  return {
    ...document,
    [section]: list.map((one) => {
      const tools = Array.isArray(one.tools) ? (one.tools as unknown[]) : [];
      return one.id === step && !tools.includes(tool) ? { ...one, tools: [...tools, tool] } : one;
    }),
  };
}

/** A limit in every spec of its chain, or the torque of its bolts: whose it is stands with it. */
function limited(document: Entry, said: Said, { learnt, day }: { learnt: string; day: string }): Entry {
  const { unit } = document;
  const lengthUnit = isRecord(unit) && unit.lengthUnit === "in" ? "in" : "mm";
  const length = (nm: Nm): string => {
    const { figure, unit: of } = exactLength(nm, lengthUnit);
    return `${figure} ${of}`;
  };
  const whose = { from: "measured on units here", source: `house, ${learnt}: ${said.text}`, checked: day };
  const own = {
    ...(said.min === undefined ? {} : { min: length(said.min) }),
    ...(said.max === undefined ? {} : { max: length(said.max) }),
  };
  const specOf = (spec: unknown): unknown =>
    Array.isArray(spec)
      ? (spec as unknown[]).map(specOf)
      : isRecord(spec) && Object.keys(own).length > 0
        ? { ...spec, ...own, ...whose }
        : spec;
  const isOwn = ({ id }: Entry): boolean => id === said.of;
  const next = { ...document };
  if (listOf(document, "chains").some(isOwn))
    next.chains = listOf(document, "chains").map((one) =>
      isOwn(one) ? { ...one, spec: specOf(one.spec ?? {}) } : one,
    );
  if (listOf(document, "fasteners").some(isOwn) && said.torque)
    next.fasteners = listOf(document, "fasteners").map((one) =>
      isOwn(one) ? { ...one, torque: said.torque, ...whose } : one,
    );
  return next;
}

/** Whether a draft lacks what a proposal would write: only what it touches is compared. */
const isNews = (document: Entry, next: Entry): boolean =>
  Object.keys(next).some(
    (section) =>
      next[section] !== document[section] &&
      JSON.stringify(next[section]) !== JSON.stringify(document[section]),
  );

/**
 * A proposal as it is shown to whoever decides on it: what it is, what it is about and what it changes.
 *
 * @returns null where the draft says so already.
 */
export function proposedIn(document: unknown, proposal: Proposal): Proposed | null {
  const next = takeIn(document, proposal);
  if (!isRecord(document) || !isRecord(next) || !isNews(document, next)) return null;
  const { is, name, text, of, done, not } = proposal.said;
  const about = ["teardown", "build", "parts", "chains", "measurements", "fasteners", "stations"]
    .flatMap((section) => listOf(document, section))
    .find(({ id }) => id === of)?.name;
  const limits =
    is === "limit"
      ? ["chains", "fasteners"].flatMap((section) =>
          next[section] === document[section]
            ? []
            : difference({ [section]: document[section] }, { [section]: next[section] }).map(differenceText),
        )
      : [];
  return {
    title: `${LESSONS.words[is]}: ${name ? `${name}. ` : ""}${text}`,
    changes: [
      ...(typeof about === "string" ? [`At: ${about}`] : []),
      ...(done ? [`What is done about it: ${done}`] : []),
      ...(not ? [`Never: ${not}`] : []),
      ...limits,
    ],
  };
}
