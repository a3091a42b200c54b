import Joi from "joi";
import { ofKey, STORABLE, type Keys, type Node, type Shape, isDay } from "./shape";

const made = new WeakMap<Node, Joi.Schema>();

/** The Joi schema of a shape, made once. */
export function joiOf(shape: Shape<unknown>): Joi.Schema {
  const known = made.get(shape.is);
  if (known) return known;
  const schema = schemaOf(shape.is);
  made.set(shape.is, schema);
  return schema;
}

const required = (shape: Shape<unknown>): Joi.Schema => joiOf(shape).required();

/** A check of a value that Joi has no word for. */
const tested =
  (test: (value: never) => boolean): Joi.CustomValidator =>
  (value: unknown, helpers) =>
    test(value as never) ? value : helpers.error("any.invalid");

function schemaOf(node: Node): Joi.Schema {
  switch (node.kind) {
    case "text": {
      const text = Joi.string().max(node.most).pattern(STORABLE);
      return node.least === 0 ? text.allow("") : text.custom(tested(atLeast(node.least)));
    }
    case "pattern": {
      const text = Joi.string().pattern(node.pattern);
      return node.pattern.test("") ? text.allow("") : text;
    }
    case "day":
      return Joi.string().custom(tested(isDay));
    case "time":
      return Joi.string().custom(tested(isTime));
    case "number":
      return Joi.number().min(node.least).max(node.most);
    case "whole":
      return Joi.number().integer().min(node.least).max(node.most);
    case "flag":
      return Joi.boolean();
    case "nothing":
      return Joi.valid(null);
    case "one of":
      return Joi.valid(...node.words);
    case "written":
      return Joi.string().custom((value: string) => node.parse(value));
    case "list": {
      const list = Joi.array().items(joiOf(node.item)).min(node.least).max(node.most);
      return node.once ? list.unique() : list;
    }
    case "one or more":
      return Joi.alternatives().conditional(Joi.array(), {
        then: Joi.array().items(joiOf(node.item)).min(1),
        otherwise: joiOf(node.item).custom((value: unknown) => [value]),
      });
    case "tuple": {
      const items = node.items.map((item, i) => (i < node.least ? required(item) : joiOf(item)));
      return Joi.array().ordered(...items);
    }
    case "map":
      return Joi.object().pattern(Joi.string(), joiOf(node.item));
    case "object":
      return Joi.object().keys(keysSchema(node.keys));
    case "choice": {
      const { by, among } = node;
      return Object.entries(among).reduceRight<Joi.Schema>(
        (otherwise, [kind, one]) =>
          Joi.alternatives().conditional(Joi.object({ [by]: Joi.valid(kind).required() }).unknown(), {
            then: withKey(one, by, Joi.valid(kind).required()),
            otherwise,
          }),
        Joi.forbidden(),
      );
    }
    case "or nothing":
      return joiOf(node.inner).allow(null);
    case "usually":
      return joiOf(node.inner).default(() => JSON.parse(JSON.stringify(node.instead)) as unknown);
    case "such that":
      return joiOf(node.inner).custom(tested(node.rule.test));
    case "names":
    case "refers to":
    case "condition":
      return joiOf(node.inner);
    case "any":
      return Joi.any();
  }
}

/** The schema of an object with one key more. */
function withKey({ is }: Shape<unknown>, key: string, schema: Joi.Schema): Joi.Schema {
  if (is.kind === "object") return Joi.object().keys({ [key]: schema, ...keysSchema(is.keys) });
  if (is.kind === "such that") return withKey(is.inner, key, schema).custom(tested(is.rule.test));
  throw new RangeError(`a choice is among objects, not ${is.kind}`);
}

const keysSchema = (keys: Keys): Joi.SchemaMap =>
  Object.fromEntries(
    Object.entries(keys).map(([key, of]) => {
      const [shape, mayMiss] = ofKey(of);
      return [key, mayMiss ? joiOf(shape) : required(shape)];
    }),
  );

const atLeast = (least: number) => (value: string) => value.trim().length >= least;

const isTime = (value: string): boolean =>
  /^\d{4}-\d\d-\d\dT\d\d:\d\d(:\d\d(\.\d{1,6})?)?(Z|[+-]\d\d:?\d\d)$/.test(value) &&
  isDay(value.slice(0, 10)) &&
  !Number.isNaN(Date.parse(value));
