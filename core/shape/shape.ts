import type { Nm } from "../quantity";

/**
 * What a value must look like, said once: books, facts, forms, price lists and imported files are all declared in shapes. A shape is plain
 * data that carries its TypeScript type; what checks a value (Joi), the JSON Schema and the words of a refusal are made from it, so that
 * they cannot differ. It knows nothing of Joi itself: a page that only folds facts does not carry the checker.
 */
export interface Shape<T> {
  readonly is: Node;
  /** What the value means, for the JSON Schema and docs/formats.md. */
  readonly about?: string;
  /** The type it stands for; never there at run time. */
  readonly type?: T;
}
/** What a shape reads to. */
export type Read<S> = S extends Shape<infer T> ? T : never;

/** A key that may be missing. */
export interface Optional<T> {
  readonly optional: Shape<T>;
}

/** What is asked of a value, and what is said where it is not so. */
export interface Rule {
  test: (value: never) => boolean;
  message: string;
  remedy: string;
  /** Where in an object it is told: the key to look at. */
  key?: string;
  /** Values that keep it, where few of those of the shape do. */
  examples?: readonly unknown[];
}

export type Node =
  | { kind: "text"; least: number; most: number }
  | { kind: "pattern"; pattern: RegExp; what: string; remedy: string; format?: string }
  | { kind: "day" }
  | { kind: "time" }
  | { kind: "number"; least: number; most: number }
  | { kind: "whole"; least: number; most: number }
  | { kind: "flag" }
  | { kind: "nothing" }
  | { kind: "one of"; words: readonly (string | number)[] }
  | { kind: "written"; parse: (value: string) => unknown; example: string }
  | { kind: "list"; item: Shape<unknown>; least: number; most: number; once: boolean }
  | { kind: "one or more"; item: Shape<unknown> }
  | { kind: "tuple"; items: readonly Shape<unknown>[]; least: number }
  | { kind: "map"; item: Shape<unknown> }
  | { kind: "object"; keys: Readonly<Record<string, Shape<unknown> | Optional<unknown>>> }
  | { kind: "choice"; by: string; among: Readonly<Record<string, Shape<unknown>>> }
  | { kind: "or nothing"; inner: Shape<unknown> }
  /** Where nothing is said, it is this. */
  | { kind: "usually"; inner: Shape<unknown>; instead: unknown }
  | { kind: "such that"; inner: Shape<unknown>; rule: Rule }
  /** Names a thing of a kind; an object may be named by one of its keys. */
  | { kind: "names"; thing: string; inner: Shape<unknown>; key?: string }
  | { kind: "refers to"; things: readonly string[]; inner: Shape<unknown> }
  /** An entry that holds only for some configurations. */
  | { kind: "condition"; inner: Shape<unknown> }
  | { kind: "any" };

const shape = /* @__NO_SIDE_EFFECTS__ */ <T>(is: Node): Shape<T> => ({ is });

/** What a database can keep as text: no NUL, no half of a pair. */
export const STORABLE = /^(?:[^\0\ud800-\udfff]|[\ud800-\udbff][\udc00-\udfff])*$/;

/** Words: not empty, and no more than `most` characters. */
export const words = /* @__NO_SIDE_EFFECTS__ */ (least: number, most: number): Shape<string> =>
  shape({ kind: "text", least, most });
/** A text of a document, which is not empty. */
export const text: Shape<string> = words(1, 20_000);
/** Words that may be left empty. */
export const maybeWords = /* @__NO_SIDE_EFFECTS__ */ (most: number): Shape<string> => words(0, most);

/** How ids are written: small letters and digits, parted by hyphens. */
export const ID = /^[a-z0-9]+(-[a-z0-9]+)*$/;
/** An id. */
export const id: Shape<string> = shape({
  kind: "pattern",
  pattern: ID,
  what: "an id",
  remedy: "use lower-case words with dashes, such as front-drum",
});
/** How the ids of facts and photos are written. */
export const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;
/** An id made by whoever says a thing, so that sending it twice stores it once. */
export const uuid: Shape<string> = shape({
  kind: "pattern",
  pattern: UUID,
  what: "an id of ours",
  remedy: "make one with UUID version 7",
  format: "uuid",
});

/** A text that follows a pattern. */
export const matching = /* @__NO_SIDE_EFFECTS__ */ (
  pattern: RegExp,
  what: string,
  remedy: string,
): Shape<string> => shape({ kind: "pattern", pattern, what, remedy });

/** A day that the calendar has. */
export function isDay(value: string): boolean {
  if (!/^\d{4}-\d\d-\d\d$/.test(value)) return false;
  const at = Date.parse(`${value}T00:00:00.000Z`);
  return !Number.isNaN(at) && new Date(at).toISOString().startsWith(value);
}

/** A day as 2026-05-04. */
export const day: Shape<string> = shape({ kind: "day" });
/** A moment as 2026-05-04T08:15:00.000Z. */
export const time: Shape<string> = shape({ kind: "time" });

/** A number between two, both allowed. */
export const number = /* @__NO_SIDE_EFFECTS__ */ (least: number, most: number): Shape<number> =>
  shape({ kind: "number", least, most });
/** A whole number between two, both allowed. */
export const whole = /* @__NO_SIDE_EFFECTS__ */ (least: number, most: number): Shape<number> =>
  shape({ kind: "whole", least, most });

/** Ten metres: nothing on a bench is longer. */
const LONGEST = 10_000_000_000;
/** A length in whole nanometres, as facts keep it. */
export const nanometres = /* @__NO_SIDE_EFFECTS__ */ (least = -LONGEST): Shape<Nm> =>
  shape({ kind: "whole", least, most: LONGEST });

/** Yes or no. */
export const flag: Shape<boolean> = shape({ kind: "flag" });
/** The value null. */
export const nothing: Shape<null> = shape({ kind: "nothing" });
/** The inner shape, or null. */
export const orNothing = /* @__NO_SIDE_EFFECTS__ */ <T>(inner: Shape<T>): Shape<T | null> =>
  shape({ kind: "or nothing", inner });
/** Anything at all: what is checked elsewhere. */
export const anything: Shape<unknown> = shape({ kind: "any" });

/** One of the words given, and nothing else. */
export const oneOf = /* @__NO_SIDE_EFFECTS__ */ <const T extends string | number>(
  ...words: readonly T[]
): Shape<T> => shape({ kind: "one of", words });

/** A value written as a string with its unit, read by a throwing parser such as `lengthOf`. */
export const written = /* @__NO_SIDE_EFFECTS__ */ <T>(
  parse: (value: string) => T,
  example: string,
): Shape<T> => shape({ kind: "written", parse, example });

/**
 * A list of an item.
 *
 * @param least how many there must be.
 * @param most how many there may be.
 */
export const list = /* @__NO_SIDE_EFFECTS__ */ <T>(item: Shape<T>, least = 0, most = 20_000): Shape<T[]> =>
  shape({ kind: "list", item, least, most, once: false });
/** A list in which nothing stands twice. */
export const listOnce = /* @__NO_SIDE_EFFECTS__ */ <T>(
  item: Shape<T>,
  least = 0,
  most = 20_000,
): Shape<T[]> => shape({ kind: "list", item, least, most, once: true });
/** One, or several in a list; read as a list. */
export const oneOrMore = /* @__NO_SIDE_EFFECTS__ */ <T>(item: Shape<T>): Shape<T[]> =>
  shape({ kind: "one or more", item });

/** So many values in [ ]; those from `least` on may be left out. */
export const tuple = /* @__NO_SIDE_EFFECTS__ */ <const S extends readonly Shape<unknown>[]>(
  items: S,
  least: number = items.length,
): Shape<{ [K in keyof S]: Read<S[K]> }> => shape({ kind: "tuple", items, least });

/** A record from ids to values. */
export const map = /* @__NO_SIDE_EFFECTS__ */ <T>(item: Shape<T>): Shape<Record<string, T>> =>
  shape({ kind: "map", item });

/** A key that may be left out. */
export const optional = /* @__NO_SIDE_EFFECTS__ */ <T>(of: Shape<T>): Optional<T> => ({ optional: of });

/** A key that may be left out, and then reads as something that claims nothing: an empty list, a name that says it is not known. */
export const usually = /* @__NO_SIDE_EFFECTS__ */ <T>(inner: Shape<T>, instead: T): Shape<T> =>
  shape({ kind: "usually", inner, instead });

/** The keys of an object with the shape of each. */
export type Keys = Record<string, Shape<unknown> | Optional<unknown>>;
/** What an object of such keys reads to. */
export type Obj<K extends Keys> = {
  -readonly [P in keyof K as K[P] extends Optional<unknown> ? never : P]: Read<K[P]>;
} & {
  -readonly [P in keyof K as K[P] extends Optional<unknown> ? P : never]?: K[P] extends Optional<infer T>
    ? T
    : never;
};

/** An object with exactly these keys: an unknown key is an error, so that a slip of the pen is found. */
export const object = /* @__NO_SIDE_EFFECTS__ */ <const K extends Keys>(keys: K): Shape<Obj<K>> =>
  shape({ kind: "object", keys });

/** Objects told apart by one of their keys: each has the keys of its own kind and no others. */
export const choice = /* @__NO_SIDE_EFFECTS__ */ <
  const B extends string,
  const C extends Record<string, Shape<unknown>>,
>(
  by: B,
  among: C,
): Shape<{ [K in keyof C]: Read<C[K]> & Record<B, K> }[keyof C]> => shape({ kind: "choice", by, among });

/** The value must be so besides; what is said where it is not. */
export const suchThat = /* @__NO_SIDE_EFFECTS__ */ <T>(
  inner: Shape<T>,
  rule: Omit<Rule, "test"> & { test: (value: T) => boolean },
): Shape<T> => shape({ kind: "such that", inner, rule });

/** The value names a thing of this kind; twice is an error. */
export const names = /* @__NO_SIDE_EFFECTS__ */ (thing: string, inner: Shape<string> = id): Shape<string> =>
  shape({ kind: "names", thing, inner });
/** An object that is named by one of its keys, which itself refers to something else. */
export const namedBy = /* @__NO_SIDE_EFFECTS__ */ <T>(
  thing: string,
  key: keyof T & string,
  inner: Shape<T>,
): Shape<T> => shape({ kind: "names", thing, inner, key });
/** The value refers to a thing that is named elsewhere: in the document itself, or in the book of a job. */
export const refersTo = /* @__NO_SIDE_EFFECTS__ */ (
  things: string | readonly string[],
  inner: Shape<string> = id,
): Shape<string> =>
  shape({ kind: "refers to", things: typeof things === "string" ? [things] : things, inner });
/** Trait → the values for which an entry holds. */
export const condition = /* @__NO_SIDE_EFFECTS__ */ (
  inner: Shape<Record<string, string[]>>,
): Shape<Record<string, string[]>> => shape({ kind: "condition", inner });

/** Says what a value means. */
/** Gives a shape its meaning, which reaches JSON Schema and the formats’ page. */
export function about<T>(meaning: string, of: Optional<T>): Optional<T>;
export function about<T>(meaning: string, of: Shape<T>): Shape<T>;
/* @__NO_SIDE_EFFECTS__ */ export function about<T>(
  meaning: string,
  of: Shape<T> | Optional<T>,
): Shape<T> | Optional<T> {
  return "optional" in of ? optional({ ...of.optional, about: meaning }) : { ...of, about: meaning };
}

/** The shape behind a key, and whether it may miss. */
export const ofKey = (key: Shape<unknown> | Optional<unknown>): [shape: Shape<unknown>, mayMiss: boolean] =>
  "optional" in key ? [key.optional, true] : [key, key.is.kind === "usually"];

/** Whether it is an object with keys: neither null nor a list. */
export const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === "object" && value !== null && !Array.isArray(value);
