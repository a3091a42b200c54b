/**
 * A small language to say what a document must look like. Reading a value with a shape collects every problem with the
 * path of the place and the remedy, and returns the value only when there was none.
 */

export interface Problem {
  /** Where, as `packs[2].stack[0].thickness`. Empty for the document itself. */
  path: string;
  message: string;
  remedy: string;
}

/** Reads an unknown value; what it returns is meaningful only while `problems` stayed empty. */
export type Shape<T> = (value: unknown, path: string, problems: Problem[]) => T;
export type Read<S> = S extends Shape<infer T> ? T : never;

/** How a value looks in a message. */
function shown(value: unknown): string {
  if (value === undefined) return "nothing";
  const text = JSON.stringify(value) ?? typeof value;
  return text.length > 60 ? `${text.slice(0, 57)}…` : text;
}

function refuse<T>(problems: Problem[], path: string, message: string, remedy: string): T {
  problems.push({ path, message, remedy });
  return undefined as T;
}

export const text: Shape<string> = (value, path, problems) =>
  typeof value === "string" && value.trim() !== ""
    ? value
    : refuse(problems, path, `expected words, got ${shown(value)}`, "write a text that is not empty");

const ID = /^[a-z0-9]+(-[a-z0-9]+)*$/;
export const id: Shape<string> = (value, path, problems) =>
  typeof value === "string" && ID.test(value)
    ? value
    : refuse(
        problems,
        path,
        `${shown(value)} is not an id`,
        "use lower-case words with dashes, such as front-drum",
      );

export const whole =
  (least: number, most: number): Shape<number> =>
  (value, path, problems) =>
    typeof value === "number" && Number.isInteger(value) && value >= least && value <= most
      ? value
      : refuse(
          problems,
          path,
          `expected a whole number, got ${shown(value)}`,
          `write one from ${least} to ${most}`,
        );

export const number =
  (least: number, most: number): Shape<number> =>
  (value, path, problems) =>
    typeof value === "number" && Number.isFinite(value) && value >= least && value <= most
      ? value
      : refuse(
          problems,
          path,
          `expected a number, got ${shown(value)}`,
          `write one from ${least} to ${most}`,
        );

export const flag: Shape<boolean> = (value, path, problems) =>
  typeof value === "boolean"
    ? value
    : refuse(
        problems,
        path,
        `expected true or false, got ${shown(value)}`,
        "write true or false, without quotes",
      );

export const oneOf =
  <const T extends string>(...words: readonly T[]): Shape<T> =>
  (value, path, problems) =>
    words.includes(value as T)
      ? (value as T)
      : refuse(problems, path, `${shown(value)} is not known here`, `use one of: ${words.join(", ")}`);

/** A value written as a string with its unit, read by a throwing parser such as `lengthOf`. */
export const written =
  <T>(parse: (value: string) => T, example: string): Shape<T> =>
  (value, path, problems) => {
    if (typeof value !== "string") {
      return refuse(
        problems,
        path,
        `expected a text with its unit, got ${shown(value)}`,
        `write it as "${example}"`,
      );
    }
    try {
      return parse(value);
    } catch (error) {
      return refuse(
        problems,
        path,
        error instanceof Error ? error.message : `${value} cannot be read`,
        `write it as "${example}"`,
      );
    }
  };

export const list =
  <T>(item: Shape<T>, least = 0): Shape<T[]> =>
  (value, path, problems) => {
    if (!Array.isArray(value))
      return refuse(problems, path, `expected a list, got ${shown(value)}`, "put it in [ ]");
    if (value.length < least) refuse(problems, path, "the list is empty", `give at least ${least}`);
    return value.map((entry, i) => item(entry, `${path}[${i}]`, problems));
  };

export const tuple =
  <const S extends readonly Shape<unknown>[]>(...items: S): Shape<{ [K in keyof S]: Read<S[K]> }> =>
  (value, path, problems) => {
    if (!Array.isArray(value) || value.length !== items.length) {
      return refuse(
        problems,
        path,
        `expected ${items.length} values in [ ], got ${shown(value)}`,
        "see docs/formats.md",
      );
    }
    return items.map((item, i) => item(value[i], `${path}[${i}]`, problems)) as {
      [K in keyof S]: Read<S[K]>;
    };
  };

/** A record from ids to values. */
export const map =
  <T>(item: Shape<T>): Shape<Record<string, T>> =>
  (value, path, problems) => {
    if (!isRecord(value)) return refuse(problems, path, `expected { }, got ${shown(value)}`, "put it in { }");
    return Object.fromEntries(
      Object.entries(value).map(([key, entry]) => [key, item(entry, join(path, key), problems)]),
    );
  };

/** A key that may be missing. */
export interface Optional<T> {
  optional: Shape<T>;
}
export const optional = <T>(shape: Shape<T>): Optional<T> => ({ optional: shape });

type Keys = Record<string, Shape<unknown> | Optional<unknown>>;
type Obj<K extends Keys> = {
  -readonly [P in keyof K as K[P] extends Optional<unknown> ? never : P]: Read<K[P]>;
} & {
  -readonly [P in keyof K as K[P] extends Optional<unknown> ? P : never]?: K[P] extends Optional<infer T>
    ? T
    : never;
};

/** An object with exactly these keys: an unknown key is an error, so that a slip of the pen is found. */
export const object =
  <const K extends Keys>(keys: K): Shape<Obj<K>> =>
  (value, path, problems) => {
    if (!isRecord(value)) return refuse(problems, path, `expected { }, got ${shown(value)}`, "put it in { }");
    for (const key of Object.keys(value)) {
      if (!(key in keys))
        refuse(problems, join(path, key), "unknown key", `known here: ${Object.keys(keys).join(", ")}`);
    }
    const result: Record<string, unknown> = {};
    for (const [key, shape] of Object.entries(keys)) {
      if (typeof shape === "function") result[key] = shape(value[key], join(path, key), problems);
      else if (value[key] !== undefined) result[key] = shape.optional(value[key], join(path, key), problems);
    }
    return result as Obj<K>;
  };

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === "object" && value !== null && !Array.isArray(value);

const join = (path: string, key: string): string => (path === "" ? key : `${path}.${key}`);
