/**
 * A small language to say what a document must look like. A shape reads a value and collects every problem with the path of the
 * place and the remedy; the same shape gives the JSON Schema, so that the check and the schema cannot differ. What is named and what
 * is referred to is gathered on the way and held against each other by `reads`.
 */

export interface Problem {
  /** Where, as `packs[2].stack[0].thickness`. Empty for the document itself. */
  path: string;
  message: string;
  remedy: string;
  /** Something to look at that does not stop the document from being used. */
  warning?: true;
}

/** A condition met on the way: an entry that holds only for some configurations. */
export interface Condition {
  path: string;
  when: Readonly<Record<string, readonly string[]>>;
}

/** What one reading of a document gathers. */
export class Reading {
  /** What has lost its form. */
  readonly problems: Problem[] = [];
  /** Names that stand twice and references that lead nowhere. */
  readonly loose: Problem[] = [];
  readonly conditions: Condition[] = [];
  /** Kind of thing → id → where it was first named. */
  readonly named = new Map<string, Map<string, string>>();
  readonly referred: { kinds: readonly string[]; id: string; path: string }[] = [];

  say(path: string, message: string, remedy: string): void {
    this.problems.push({ path, message, remedy });
  }

  name(kind: string, id: string, path: string): void {
    const known = this.named.get(kind) ?? new Map<string, string>();
    this.named.set(kind, known);
    const first = known.get(id);
    if (first !== undefined)
      this.loose.push({
        path,
        message: `"${id}" stands twice`,
        remedy: `give each ${kind} its own id; the first is ${first}`,
      });
    else known.set(id, path);
  }

  /** Every reference must lead somewhere. */
  settle(): void {
    for (const { kinds, id, path } of this.referred) {
      if (kinds.some((kind) => this.named.get(kind)?.has(id))) continue;
      const known = kinds.flatMap((kind) => [...(this.named.get(kind)?.keys() ?? [])]);
      this.loose.push({ path, message: `no ${kinds.join(" or ")} "${id}"`, remedy: remedyFor(id, known) });
    }
  }
}

/** The nearest of the ids that exist, and the first few of the others. */
function remedyFor(id: string, known: readonly string[]): string {
  if (known.length === 0) return "there is none yet; add it, or take the reference out";
  const start = id.slice(0, 2);
  const near = known.filter((other) => other.startsWith(start));
  const shown = [...near, ...known.filter((other) => !near.includes(other))].slice(0, 12);
  return `use one of: ${shown.join(", ")}${known.length > shown.length ? " …" : ""}`;
}

export type JsonSchema = Readonly<Record<string, unknown>>;

/** What `read` returns is meaningful only while no problem was said. */
export interface Shape<T> {
  read(value: unknown, path: string, reading: Reading): T;
  schema: JsonSchema;
}
export type Read<S> = S extends Shape<infer T> ? T : never;

/** How a value looks in a message. */
function shown(value: unknown): string {
  if (value === undefined) return "nothing";
  const text = JSON.stringify(value) ?? typeof value;
  return text.length > 60 ? `${text.slice(0, 57)}…` : text;
}

function refuse<T>(reading: Reading, path: string, message: string, remedy: string): T {
  reading.say(path, message, remedy);
  return undefined as T;
}

export const text: Shape<string> = {
  read: (value, path, reading) =>
    typeof value === "string" && value.trim() !== ""
      ? value
      : refuse(reading, path, `expected words, got ${shown(value)}`, "write a text that is not empty"),
  schema: { type: "string", minLength: 1 },
};

const ID = /^[a-z0-9]+(-[a-z0-9]+)*$/;
export const id: Shape<string> = {
  read: (value, path, reading) =>
    typeof value === "string" && ID.test(value)
      ? value
      : refuse(
          reading,
          path,
          `${shown(value)} is not an id`,
          "use lower-case words with dashes, such as front-drum",
        ),
  schema: { type: "string", pattern: ID.source },
};

/** A day as 2026-05-04. */
export const day: Shape<string> = {
  read: (value, path, reading) =>
    typeof value === "string" && /^\d{4}-\d\d-\d\d$/.test(value) && !Number.isNaN(Date.parse(value))
      ? value
      : refuse(reading, path, `${shown(value)} is not a day`, "write it as 2026-05-04"),
  schema: { type: "string", format: "date" },
};

/** The value names a thing of this kind; twice is an error. */
export const names = (kind: string, shape: Shape<string> = id): Shape<string> => ({
  read: (value, path, reading) => {
    const read = shape.read(value, path, reading);
    if (typeof read === "string") reading.name(kind, read, path);
    return read;
  },
  schema: { ...shape.schema, description: `names a ${kind}` },
});

/** The value refers to a thing that is named elsewhere in the document. */
export const refersTo = (kinds: string | readonly string[], shape: Shape<string> = id): Shape<string> => {
  const list = typeof kinds === "string" ? [kinds] : kinds;
  return {
    read: (value, path, reading) => {
      const read = shape.read(value, path, reading);
      if (typeof read === "string") reading.referred.push({ kinds: list, id: read, path });
      return read;
    },
    schema: { ...shape.schema, description: `a ${list.join(" or ")}` },
  };
};

export const number = (least: number, most: number): Shape<number> => ({
  read: (value, path, reading) =>
    typeof value === "number" && Number.isFinite(value) && value >= least && value <= most
      ? value
      : refuse(reading, path, `expected a number, got ${shown(value)}`, `write one from ${least} to ${most}`),
  schema: { type: "number", minimum: least, maximum: most },
});

export const whole = (least: number, most: number): Shape<number> => ({
  read: (value, path, reading) =>
    typeof value === "number" && Number.isInteger(value) && value >= least && value <= most
      ? value
      : refuse(
          reading,
          path,
          `expected a whole number, got ${shown(value)}`,
          `write one from ${least} to ${most}`,
        ),
  schema: { type: "integer", minimum: least, maximum: most },
});

export const flag: Shape<boolean> = {
  read: (value, path, reading) =>
    typeof value === "boolean"
      ? value
      : refuse(
          reading,
          path,
          `expected true or false, got ${shown(value)}`,
          "write true or false, without quotes",
        ),
  schema: { type: "boolean" },
};

export const oneOf = <const T extends string>(...words: readonly T[]): Shape<T> => ({
  read: (value, path, reading) =>
    words.includes(value as T)
      ? (value as T)
      : refuse(reading, path, `${shown(value)} is not known here`, `use one of: ${words.join(", ")}`),
  schema: { enum: words },
});

/** A value written as a string with its unit, read by a throwing parser such as `lengthOf`. */
export const written = <T>(parse: (value: string) => T, example: string): Shape<T> => ({
  read: (value, path, reading) => {
    const remedy = `write it as "${example}"`;
    if (typeof value !== "string")
      return refuse(reading, path, `expected a text with its unit, got ${shown(value)}`, remedy);
    try {
      return parse(value);
    } catch (error) {
      return refuse(
        reading,
        path,
        error instanceof Error ? error.message : `${value} cannot be read`,
        remedy,
      );
    }
  },
  schema: { type: "string", examples: [example] },
});

export const list = <T>(item: Shape<T>, least = 0): Shape<T[]> => ({
  read: (value, path, reading) => {
    if (!Array.isArray(value))
      return refuse(reading, path, `expected a list, got ${shown(value)}`, "put it in [ ]");
    if (value.length < least) reading.say(path, "the list is empty", `give at least ${least}`);
    return value.map((entry, i) => item.read(entry, `${path}[${i}]`, reading));
  },
  schema: { type: "array", items: item.schema, ...(least > 0 ? { minItems: least } : {}) },
});

/** One, or several in a list; read as a list. */
export const oneOrMore = <T>(item: Shape<T>): Shape<T[]> => {
  const several = list(item, 1);
  return {
    read: (value, path, reading) =>
      Array.isArray(value) ? several.read(value, path, reading) : [item.read(value, path, reading)],
    schema: { anyOf: [item.schema, several.schema] },
  };
};

/** So many values in [ ]; those from `least` on may be left out. */
export const tuple = <const S extends readonly Shape<unknown>[]>(
  items: S,
  least: number = items.length,
): Shape<{ [K in keyof S]: Read<S[K]> }> => ({
  read: (value, path, reading) => {
    if (!Array.isArray(value) || value.length > items.length || value.length < least) {
      return refuse(
        reading,
        path,
        `expected ${items.length} values in [ ], got ${shown(value)}`,
        "see docs/formats.md",
      );
    }
    return value.map((entry, i) => items[i]?.read(entry, `${path}[${i}]`, reading)) as {
      [K in keyof S]: Read<S[K]>;
    };
  },
  schema: { type: "array", prefixItems: items.map(({ schema }) => schema), minItems: least, items: false },
});

/** A record from ids to values. */
export const map = <T>(item: Shape<T>): Shape<Record<string, T>> => ({
  read: (value, path, reading) => {
    if (!isRecord(value)) return refuse(reading, path, `expected { }, got ${shown(value)}`, "put it in { }");
    return Object.fromEntries(
      Object.entries(value).map(([key, entry]) => [key, item.read(entry, join(path, key), reading)]),
    );
  },
  schema: { type: "object", additionalProperties: item.schema },
});

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
export const object = <const K extends Keys>(keys: K): Shape<Obj<K>> => {
  const shapes = Object.entries(keys).map(
    ([key, shape]) => [key, "optional" in shape ? shape.optional : shape, "optional" in shape] as const,
  );
  return {
    read: (value, path, reading) => {
      if (!isRecord(value))
        return refuse(reading, path, `expected { }, got ${shown(value)}`, "put it in { }");
      for (const key of Object.keys(value)) {
        if (!Object.hasOwn(keys, key))
          reading.say(join(path, key), "unknown key", `known here: ${Object.keys(keys).join(", ")}`);
      }
      const result: Record<string, unknown> = {};
      for (const [key, shape, mayMiss] of shapes) {
        if (value[key] === undefined && mayMiss) continue;
        result[key] = shape.read(value[key], join(path, key), reading);
      }
      return result as Obj<K>;
    },
    schema: {
      type: "object",
      properties: Object.fromEntries(shapes.map(([key, { schema }]) => [key, schema])),
      required: shapes.filter(([, , mayMiss]) => !mayMiss).map(([key]) => key),
      additionalProperties: false,
    },
  };
};

export const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === "object" && value !== null && !Array.isArray(value);

export const join = (path: string, key: string): string => (path === "" ? key : `${path}.${key}`);
