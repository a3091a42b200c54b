import { join, type Problem } from "./place";
import { chosen } from "./refusal";
import { isRecord, ofKey, type Node, type Shape } from "./shape";

/** A condition met on the way: an entry that holds only for some configurations. */
export interface Condition {
  path: string;
  when: Readonly<Record<string, readonly string[]>>;
}

/** Ids by what they name. */
export type Names = ReadonlyMap<string, ReadonlyMap<string, string>>;

/** What a value names and refers to. */
export class Gathered {
  readonly conditions: Condition[] = [];
  /** Kind of thing → id → where it was first named. */
  readonly named = new Map<string, Map<string, string>>();
  readonly referred: { things: readonly string[]; id: string; path: string }[] = [];
  /** Names that stand twice. */
  readonly twice: Problem[] = [];

  name(thing: string, id: string, path: string): void {
    const known = this.named.get(thing) ?? new Map<string, string>();
    this.named.set(thing, known);
    const first = known.get(id);
    if (first === undefined) known.set(id, path);
    else
      this.twice.push({
        path,
        message: `"${id}" stands twice`,
        remedy: `give each ${thing} its own id; the first is ${first}`,
      });
  }

  /**
   * References that lead nowhere.
   *
   * @param among what there is; what the value itself names, unless told otherwise.
   */
  astray(among: Names = this.named): Problem[] {
    return this.referred.flatMap(({ things, id, path }): Problem[] => {
      if (things.some((thing) => among.get(thing)?.has(id))) return [];
      const known = things.flatMap((thing) => [...(among.get(thing)?.keys() ?? [])]);
      return [{ path, message: `no ${things.join(" or ")} "${id}"`, remedy: nearest(id, known) }];
    });
  }
}

/** The nearest of the ids that exist, and the first few of the others. */
export function nearest(id: string, known: readonly string[]): string {
  if (known.length === 0) return "there is none yet; add it, or take the reference out";
  const near = known
    .map((other) => ({ other, apart: apart(id, other) }))
    .filter(({ other, apart: by }) => by <= 2 || other.startsWith(id.slice(0, 2)))
    .sort((a, b) => a.apart - b.apart)
    .map(({ other }) => other);
  const shown = [...near, ...known.filter((other) => !near.includes(other))].slice(0, 12);
  return `use one of: ${shown.join(", ")}${known.length > shown.length ? " …" : ""}`;
}

/** How many letters must be put in, taken out or changed (Levenshtein 1966); at most a few hundred ids of some twenty letters. */
function apart(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, i) => i);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++)
      next[j] = Math.min(
        (row[j] ?? 0) + 1,
        (next[j - 1] ?? 0) + 1,
        (row[j - 1] ?? 0) + (a[i - 1] === b[j - 1] ? 0 : 1),
      );
    row = next;
  }
  return row.at(-1) ?? 0;
}

/** Everything a value of this shape names, refers to and puts under a condition. What is missing is passed over. */
export function gather(shape: Shape<unknown>, value: unknown, at = ""): Gathered {
  const gathered = new Gathered();
  walk(shape, value, at, gathered);
  return gathered;
}

const names = new WeakMap<Node, boolean>();
/** Whether a shape names or refers to anything at all: what does not is not walked through. */
function speaks({ is }: Shape<unknown>): boolean {
  const known = names.get(is);
  if (known !== undefined) return known;
  const says =
    is.kind === "names" || is.kind === "refers to" || is.kind === "condition" || innerOf(is).some(speaks);
  names.set(is, says);
  return says;
}

type ObjectNode = Extract<Node, { kind: "object" }>;
const speaking = new WeakMap<ObjectNode, (readonly [string, Shape<unknown>])[]>();
/** The keys of an object of which something names or refers. */
function speakingOf(is: ObjectNode): (readonly [string, Shape<unknown>])[] {
  const known = speaking.get(is);
  if (known) return known;
  const keys = Object.entries(is.keys)
    .map(([key, of]) => [key, ofKey(of)[0]] as const)
    .filter(([, inner]) => speaks(inner));
  speaking.set(is, keys);
  return keys;
}

function innerOf(is: Node): Shape<unknown>[] {
  if ("inner" in is) return [is.inner];
  if ("item" in is) return [is.item];
  if (is.kind === "tuple") return [...is.items];
  if (is.kind === "object") return Object.values(is.keys).map((key) => ofKey(key)[0]);
  return is.kind === "choice" ? Object.values(is.among) : [];
}

function walk(shape: Shape<unknown>, value: unknown, path: string, into: Gathered): void {
  if (value === undefined || value === null || !speaks(shape)) return;
  const { is } = shape;
  switch (is.kind) {
    case "names": {
      walk(is.inner, value, path, into);
      const named = is.key === undefined ? value : isRecord(value) ? value[is.key] : undefined;
      if (typeof named === "string")
        into.name(is.thing, named, is.key === undefined ? path : join(path, is.key));
      return;
    }
    case "refers to":
      if (typeof value === "string") into.referred.push({ things: is.things, id: value, path });
      return;
    case "condition":
      if (isRecord(value)) into.conditions.push({ path, when: wholeLists(value) });
      return;
    case "list":
    case "one or more":
      if (Array.isArray(value)) value.forEach((entry, i) => walk(is.item, entry, join(path, i), into));
      return;
    case "tuple":
      if (Array.isArray(value))
        is.items.forEach((item, i) => walk(item, (value as unknown[])[i], join(path, i), into));
      return;
    case "map":
      if (isRecord(value))
        for (const [key, entry] of Object.entries(value)) walk(is.item, entry, join(path, key), into);
      return;
    case "object":
      if (isRecord(value))
        for (const [key, inner] of speakingOf(is))
          if (value[key] !== undefined) walk(inner, value[key], join(path, key), into);
      return;
    case "choice": {
      const one = chosen(is, value);
      if (one) walk(one, value, path, into);
      return;
    }
    default:
      if ("inner" in is) walk(is.inner, value, path, into);
  }
}

/** What could not be read has been said; the rest is kept, so that checks of other sections can go on. */
const wholeLists = (value: Record<string, unknown>): Record<string, string[]> =>
  Object.fromEntries(
    Object.entries(value).filter(
      (entry): entry is [string, string[]] =>
        Array.isArray(entry[1]) && entry[1].every((one) => typeof one === "string"),
    ),
  );
