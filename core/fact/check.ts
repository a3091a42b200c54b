import { type Book, namesOfBook } from "../book";
import {
  about,
  anything,
  check,
  isRecord,
  list,
  nearest,
  object,
  optional,
  time,
  uuid,
  words,
  type Problem,
} from "../shape";
import { kindOf } from "./about";
import type { Fact, FactBody, FactKind } from "./fact";
import { KINDS } from "./kinds";
import type { Role } from "./kind";
import { upcastBody } from "./upcast";

/** Where a fact comes in: from the bench, or with a whole job that is taken in. */
export interface Door {
  /** Bench facts are held against the book of their job and the role of who says them; a job's own have been. */
  from: "bench" | "document";
  most: number;
}
/** The door of the bench: facts said by who is signed in, as many as one sending holds. */
export const BENCH: Door = { from: "bench", most: 200 };
/** The door of a job document: all facts of a job at once. */
export const DOCUMENT: Door = { from: "document", most: 20_000 };

/** Facts that may be stored, or every problem with its place and remedy. */
export type CheckedFacts = { ok: true; facts: Fact[] } | { ok: false; problems: Problem[] };

/** What every fact has around what it says. */
export const envelope = object({
  id: uuid,
  at: time,
  by: about("Who said it; of an imported one also who brought it in.", words(1, 200)),
  replaces: optional(uuid),
  after: optional(uuid),
  body: anything,
});

/**
 * Facts as they come in: each is held against the declaration of its kind. What an earlier Yard Key said in its words is taken as today's.
 *
 * @param given what was sent, as JSON has it.
 * @param at where it stands in what was sent.
 * @returns the facts, or every problem with its place, what is wrong and what to do.
 */
export function checkFacts(given: unknown, door: Door, at = ""): CheckedFacts {
  const whole = check(list(envelope, door.from === "bench" ? 1 : 0, door.most), given, at);
  if (whole.problems.length > 0) return { ok: false, problems: whole.problems };
  const problems: Problem[] = [];
  const first = new Map<string, number>();
  const facts = whole.value.map((fact, i): Fact => {
    const before = first.get(fact.id);
    if (before === undefined) first.set(fact.id, i);
    // The very same one twice is one.
    else if (JSON.stringify(fact) !== JSON.stringify(whole.value[before]))
      problems.push({
        path: `${at}[${i}].id`,
        message: `another fact, at ${at}[${before}], has this id`,
        remedy: "two facts are two ids: make one anew, or leave one of them out",
      });
    const read = checkBody(fact.body, `${at}[${i}].body`, door);
    problems.push(...read.problems);
    return { ...fact, body: read.body };
  });
  return problems.length === 0 ? { ok: true, facts } : { ok: false, problems };
}

function checkBody(given: unknown, at: string, door: Door): { body: FactBody; problems: Problem[] } {
  const named = isRecord(given) && Object.hasOwn(given, "kind") ? given.kind : undefined;
  if (!isRecord(given) || typeof named !== "string" || !Object.hasOwn(KINDS, named)) {
    const message = `${JSON.stringify(named) ?? "nothing"} is no kind of fact`;
    const remedy = nearest(String(named), Object.keys(KINDS));
    return { body: given as never, problems: [{ path: `${at}.kind`, message, remedy }] };
  }
  const kind = kindOf(named as FactKind);
  const fields = withoutKind(upcastBody(given as FactBody));
  const { value, problems } = check(kind.shape, fields, at);
  const body = { kind: named, ...(value as object) } as FactBody;
  const open = typeof kind.bench === "function" ? problems.length === 0 && kind.bench(body) : kind.bench;
  if (door.from === "bench" && problems.length === 0 && !open)
    problems.push({
      path: `${at}.kind`,
      message: `${named} is not said from the bench`,
      remedy: "it has a page of its own, which checks it",
    });
  return { body, problems };
}

/**
 * Holds what facts speak of against the book of their job: a step, chain, part or depth that does not exist is refused with its nearest
 * neighbours.
 */
export function againstBook(facts: readonly Fact[], book: Book, at = ""): Problem[] {
  const known = namesOfBook(book);
  return facts.flatMap(({ body }, i) => {
    const { shape, against } = kindOf(body.kind);
    const place = `${at}[${i}].body`;
    const astray = check(shape, withoutKind(body), place).gathered.astray(known);
    const more = (against?.(body, book) ?? []).map((one) => ({ ...one, path: `${place}.${one.path}` }));
    return [...astray, ...more];
  });
}

/** A body as its declaration has it: what kind it is has been read. */
const withoutKind = (body: FactBody): object =>
  Object.fromEntries(Object.entries(body).filter(([key]) => key !== "kind"));

/** The first of these facts that this role may not say; null when it may say them all. */
export function notAllowed(facts: readonly Fact[], role: Role): FactKind | null {
  const found = facts.find(({ body }) => {
    const { who } = kindOf(body.kind);
    return who !== undefined && !who.includes(role);
  });
  return found?.body.kind ?? null;
}

/** A problem as one line. */
export const problemText = ({ path, message, remedy }: Problem): string =>
  `${path ? `${path}: ` : ""}${message}; ${remedy}`;
