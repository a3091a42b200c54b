import { isRecord, ofKey, type Node, type Shape } from "./shape";

/** What is wrong with a value, and what to write instead. */
export interface Refusal {
  message: string;
  remedy: string;
}

/** How a value looks in a message. */
export function shown(value: unknown): string {
  if (value === undefined) return "nothing";
  const text = JSON.stringify(value) ?? typeof value;
  return text.length > 60 ? `${text.slice(0, 57)}…` : text;
}

/** Why a value is not of a shape, in words. Asked only once it has been refused. */
export function refusal({ is }: Shape<unknown>, value: unknown, because = ""): Refusal {
  switch (is.kind) {
    case "text":
      return textRefusal(is, value);
    case "pattern":
      return { message: `${shown(value)} is not ${is.what}`, remedy: is.remedy };
    case "day":
      return { message: `${shown(value)} is not a day`, remedy: "write it as 2026-05-04" };
    case "time":
      return { message: `${shown(value)} is not a moment`, remedy: "write it as 2026-05-04T08:15:00.000Z" };
    case "number":
    case "whole":
      return {
        message: `expected a ${is.kind === "whole" ? "whole " : ""}number, got ${shown(value)}`,
        remedy: `write one from ${is.least} to ${is.most}`,
      };
    case "flag":
      return {
        message: `expected true or false, got ${shown(value)}`,
        remedy: "write true or false, without quotes",
      };
    case "nothing":
      return { message: `expected null, got ${shown(value)}`, remedy: "write null" };
    case "one of":
      return { message: `${shown(value)} is not known here`, remedy: `use one of: ${is.words.join(", ")}` };
    case "written":
      return {
        message: because || `expected a text with its unit, got ${shown(value)}`,
        remedy: `write it as "${is.example}"`,
      };
    case "list":
      return listRefusal(is, value);
    case "one or more":
      return Array.isArray(value)
        ? { message: "the list is empty", remedy: "give at least 1" }
        : refusal(is.item, value, because);
    case "tuple":
      return {
        message: `expected ${is.items.length} values in [ ], got ${shown(value)}`,
        remedy: "see docs/formats.md",
      };
    case "map":
    case "object":
      return { message: `expected { }, got ${shown(value)}`, remedy: "put it in { }" };
    case "choice":
      return isRecord(value)
        ? {
            message: `${shown(value[is.by])} is no ${is.by} known here`,
            remedy: `use one of: ${Object.keys(is.among).join(", ")}`,
          }
        : { message: `expected { }, got ${shown(value)}`, remedy: "put it in { }" };
    case "such that":
      return because === RULE
        ? { message: is.rule.message, remedy: is.rule.remedy }
        : refusal(is.inner, value, because);
    case "or nothing": {
      const { message, remedy } = refusal(is.inner, value, because);
      return { message, remedy: `${remedy}, or null` };
    }
    case "usually":
    case "names":
    case "refers to":
    case "condition":
      return refusal(is.inner, value, because);
    case "any":
      return { message: "expected something, got nothing", remedy: "give a value" };
  }
}

/** Marks a refusal by the rule of a `suchThat`, and not by what it is around. */
export const RULE = "rule";

function textRefusal({ least, most }: Extract<Node, { kind: "text" }>, value: unknown): Refusal {
  if (typeof value === "string" && value.trim() !== "") {
    if (value.length > most)
      return { message: `${value.length} characters are too many`, remedy: `write at most ${most}` };
    if (value.trim().length < least)
      return { message: `${shown(value)} is too short`, remedy: `write at least ${least} characters` };
  }
  if (typeof value === "string" && least <= 1 && value.length > most)
    return { message: `${value.length} characters are too many`, remedy: `write at most ${most}` };
  return {
    message: `expected words, got ${shown(value)}`,
    remedy: least === 0 ? "write a text; it may be empty" : "write a text that is not empty",
  };
}

function listRefusal({ least, most, once }: Extract<Node, { kind: "list" }>, value: unknown): Refusal {
  if (!Array.isArray(value))
    return { message: `expected a list, got ${shown(value)}`, remedy: "put it in [ ]" };
  if (value.length < least)
    return {
      message: value.length === 0 ? "the list is empty" : `${value.length} are too few`,
      remedy: `give at least ${least}`,
    };
  if (value.length > most) return { message: `${value.length} are too many`, remedy: `give at most ${most}` };
  return once
    ? { message: "something stands twice in the list", remedy: "name each once" }
    : { message: "a gap in the list", remedy: "give every entry a value" };
}

/** What is said of a key that no shape knows. */
export const unknownKey = (keys: Readonly<Record<string, unknown>>): Refusal => ({
  message: "unknown key",
  remedy: `known here: ${Object.keys(keys).join(", ")}`,
});

/** What is said of a key that another one of a choice has; null when none has it. */
export function keyOfAnother({ is }: Shape<unknown>, value: unknown, key: string | number): Refusal | null {
  if (is.kind !== "choice" || !isRecord(value) || !chosen(is, value)) return null;
  const others = Object.values(is.among).some((one) => Object.hasOwn(keysOf(one, value), key));
  return others
    ? {
        message: `a ${String(value[is.by])} has none`,
        remedy: `take it out, or correct \`${is.by}\``,
      }
    : null;
}

/** What is said of a key that the one chosen must have and has not; null where nothing was chosen. */
export function keyOfChosen({ is }: Shape<unknown>, value: unknown, key: string | number): Refusal | null {
  return is.kind === "choice" && isRecord(value) && key !== is.by && chosen(is, value)
    ? { message: `a ${String(value[is.by])} needs it`, remedy: `add "${key}"` }
    : null;
}

/** The shape that stands at one step further into a value. */
export function inward({ is }: Shape<unknown>, value: unknown, key: string | number): Shape<unknown> | null {
  switch (is.kind) {
    case "list":
      return is.item;
    case "one or more":
      return Array.isArray(value) ? is.item : inward(is.item, value, key);
    case "tuple":
      return is.items[Number(key)] ?? null;
    case "map":
      return is.item;
    case "object": {
      const found = Object.hasOwn(is.keys, key) ? is.keys[key] : undefined;
      return found ? ofKey(found)[0] : null;
    }
    case "choice": {
      const one = chosen(is, value);
      return one ? inward(one, value, key) : null;
    }
    case "such that":
    case "or nothing":
    case "usually":
    case "names":
    case "refers to":
    case "condition":
      return inward(is.inner, value, key);
    default:
      return null;
  }
}

/** Which of a choice a value says it is; null when it is none of them. */
export function chosen(
  { by, among }: Extract<Node, { kind: "choice" }>,
  value: unknown,
): Shape<unknown> | null {
  const kind = isRecord(value) && Object.hasOwn(value, by) ? value[by] : undefined;
  return typeof kind === "string" && Object.hasOwn(among, kind) ? (among[kind] ?? null) : null;
}

/** The keys of an object's shape, under whatever is around it. */
export function keysOf({ is }: Shape<unknown>, value: unknown): Readonly<Record<string, unknown>> {
  if (is.kind === "object") return is.keys;
  if (is.kind === "choice") {
    const one = chosen(is, value);
    return one ? { [is.by]: null, ...keysOf(one, value) } : { [is.by]: null };
  }
  return "inner" in is ? keysOf(is.inner, value) : {};
}
