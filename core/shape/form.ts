import { refusal } from "./refusal";
import { isDay, STORABLE, type Node, type Shape } from "./shape";

/** What was typed into the fields of a form, by their names; several values of one field stand apart by `BETWEEN`. */
export type Fields = Readonly<Record<string, string>>;
/** What stands between the values of a field that takes several. */
export const BETWEEN = "\n";

/** A field of a form: what its text is read as, and what is said at it where it cannot be. */
export interface Field<T> {
  readonly shape: Shape<T>;
  /** What to do, in words for whoever fills it in; without any, what the shape says. */
  readonly says: string;
  /** What stands for a field that is empty or not there. */
  readonly empty?: T;
  /** Taken to the letter, blanks at its ends as well: a PIN. */
  readonly asTyped?: boolean;
}
/**
 * A field of a form.
 *
 * @param inner what is read from it.
 * @param words what it is called beside it.
 */
export const field = <T>(
  shape: Shape<T>,
  says = "",
  rest: Pick<Field<T>, "empty" | "asTyped"> = {},
): Field<T> => ({ shape, says, ...rest });

/** A form: its fields by name. */
export type Form = Readonly<Record<string, Field<unknown>>>;
/** What a form reads to. */
export type Values<F extends Form> = { -readonly [K in keyof F]: F[K] extends Field<infer T> ? T : never };
/** A form’s values, or a problem at each field that has one. */
export type ReadFields<T> = { ok: true; values: T } | { ok: false; problems: Record<string, string> };

/** Holds one value against a shape: what it says, or null where it is not so. */
export type Holder = (shape: Shape<unknown>, value: unknown) => { value: unknown } | null;

/**
 * Reads the fields of a form: each text as what its shape is written as, and held against it.
 *
 * @param holds what holds a value against a shape: on the server Joi; at the bench, where a page does not carry it, `fits`.
 * @returns the values, or what is said at each field that is wrong.
 */
export function readFields<F extends Form>(
  form: F,
  typed: Fields,
  holds: Holder = fits,
): ReadFields<Values<F>> {
  const values: Record<string, unknown> = {};
  const problems: Record<string, string> = {};
  for (const [name, { shape, says, empty, asTyped = false }] of Object.entries(form)) {
    const given = Object.hasOwn(typed, name) ? (typed[name] ?? "") : "";
    const text = asTyped ? given : given.trim();
    if (text === "" && empty !== undefined) {
      values[name] = empty;
      continue;
    }
    const value = valueOf(shape.is, text);
    const held = holds(shape, value);
    if (held) values[name] = held.value;
    else problems[name] = says || told(shape, value);
  }
  return Object.keys(problems).length > 0
    ? { ok: false, problems }
    : { ok: true, values: values as Values<F> };
}

function told(shape: Shape<unknown>, value: unknown): string {
  const { message, remedy } = refusal(shape, value);
  return `${message}; ${remedy}`;
}

/** A text as the value that its shape is written as; what it cannot be stays the text, and is refused as such. */
function valueOf(node: Node, text: string): unknown {
  switch (node.kind) {
    case "number":
    case "whole": {
      const plain = text.replace(",", ".");
      return /^[-−]?\d{1,15}(\.\d{1,9})?$/.test(plain) ? Number(plain.replace("−", "-")) : text;
    }
    case "flag":
      return text === "true" ? true : text === "false" ? false : text;
    case "one of":
      return node.words.find((word) => `${word}` === text) ?? text;
    case "list":
      return text === "" ? [] : text.split(BETWEEN).map((one) => valueOf(node.item.is, one.trim()));
    case "or nothing":
      return text === "" ? null : valueOf(node.inner.is, text);
    default:
      return "inner" in node ? valueOf(node.inner.is, text) : text;
  }
}

/**
 * Holds a value of a field against its shape, without the checker of whole documents: the same values pass, and a page stays small.
 *
 * @throws RangeError for a shape that no single field can be.
 */
export function fits({ is }: Shape<unknown>, value: unknown): { value: unknown } | null {
  const when = (good: boolean): { value: unknown } | null => (good ? { value } : null);
  switch (is.kind) {
    case "text":
      return when(
        typeof value === "string" &&
          value.length <= is.most &&
          value.trim().length >= is.least &&
          STORABLE.test(value),
      );
    case "pattern":
      return when(typeof value === "string" && is.pattern.test(value));
    case "number":
      return when(typeof value === "number" && value >= is.least && value <= is.most);
    case "whole":
      return when(Number.isInteger(value) && Number(value) >= is.least && Number(value) <= is.most);
    case "flag":
      return when(typeof value === "boolean");
    case "one of":
      return when(is.words.some((word) => word === value));
    case "written":
      return parsed(is.parse, value);
    case "list": {
      if (!Array.isArray(value) || value.length < is.least || value.length > is.most) return null;
      const items = value.map((one) => fits(is.item, one));
      if (is.once && new Set(value).size < value.length) return null;
      return items.every((one) => one !== null) ? { value: items.map((one) => one?.value) } : null;
    }
    case "or nothing":
      return value === null ? { value } : fits(is.inner, value);
    case "such that": {
      const inner = fits(is.inner, value);
      return inner && is.rule.test(inner.value as never) ? inner : null;
    }
    case "names":
    case "refers to":
      return fits(is.inner, value);
    case "day":
      return when(typeof value === "string" && isDay(value));
    default:
      throw new RangeError(`no field of a form holds a ${is.kind}`);
  }
}

function parsed(parse: (text: string) => unknown, value: unknown): { value: unknown } | null {
  if (typeof value !== "string") return null;
  try {
    return { value: parse(value) };
  } catch {
    return null;
  }
}
