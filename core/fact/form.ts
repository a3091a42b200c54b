import {
  field,
  ofKey,
  readFields,
  type Field,
  type Fields,
  type Keys,
  type Rule,
  type Shape,
} from "../shape";
import { kindOf } from "./about";
import type { BodyOf, FactBody, FactKind } from "./fact";

/** What is said at each field of a fact that is wrong, in words for whoever fills it in. */
export type Says<K extends FactKind> = { readonly [P in Exclude<keyof BodyOf<K>, "kind">]?: string };
/** What stands for fields that are empty or not asked for. */
export type Empty<K extends FactKind> = { readonly [P in Exclude<keyof BodyOf<K>, "kind">]?: BodyOf<K>[P] };

/** A fact’s body as read from a form, or a problem at each field that has one. */
export type ReadFact = { ok: true; body: FactBody } | { ok: false; problems: Record<string, string> };

type FieldsOf<K extends FactKind> = {
  readonly [P in Exclude<keyof BodyOf<K>, "kind">]-?: Field<NonNullable<BodyOf<K>[P]>>;
};

/** The fields of a kind of fact, as a form asks for them. */
export const fieldsOf = <K extends FactKind>(kind: K, says: Says<K>, empty: Empty<K> = {}): FieldsOf<K> =>
  Object.fromEntries(
    Object.entries(declared(kindOf(kind).shape).keys).map(([name, of]) => [
      name,
      field(ofKey(of)[0], (says as Fields)[name], {
        empty: (empty as Record<string, unknown>)[name] ?? (name === "there" ? true : undefined),
      }),
    ]),
  ) as unknown as FieldsOf<K>;

const isOptional = (keys: Keys, name: string): boolean => {
  const of = keys[name];
  return of !== undefined && ofKey(of)[1];
};

/**
 * A fact from the fields of a form, read and checked by the declaration of its kind. What may be absent and was left empty is absent.
 *
 * @returns the body, or what is said at each field that is wrong.
 */
export function readFact<K extends FactKind>(
  kind: K,
  typed: Fields,
  says: Says<K>,
  empty: Empty<K> = {},
): ReadFact {
  const { keys, rules } = declared(kindOf(kind).shape);
  const fields = Object.entries<Field<unknown>>(fieldsOf(kind, says, empty));
  const asked = fields.filter(
    ([name, { empty: instead }]) =>
      instead !== undefined || Boolean(typed[name]?.trim()) || !isOptional(keys, name),
  );
  const read = readFields(Object.fromEntries(asked), typed);
  if (!read.ok) return read;
  const broken = rules.find(({ test }) => !test(read.values as never));
  if (broken) {
    const { key = "", message, remedy } = broken;
    return { ok: false, problems: { [key]: (says as Fields)[key] ?? `${message}; ${remedy}` } };
  }
  return { ok: true, body: { kind, ...read.values } as FactBody };
}

/** The keys of a declaration and what is asked of them together. */
export function declared({ is }: Shape<unknown>): { keys: Keys; rules: Rule[] } {
  if (is.kind === "object") return { keys: is.keys, rules: [] };
  if (is.kind !== "such that") throw new RangeError(`no form asks for a ${is.kind}`);
  const { keys, rules } = declared(is.inner);
  return { keys, rules: [...rules, is.rule] };
}
