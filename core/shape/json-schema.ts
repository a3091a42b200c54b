import { ofKey, type Node, type Shape } from "./shape";

/** A JSON Schema, as an object. */
export type JsonSchema = Readonly<Record<string, unknown>>;

/** The JSON Schema (2020-12) of a shape: what is read can be checked by anybody’s editor. */
export function jsonSchemaOf({ is, about }: Shape<unknown>): JsonSchema {
  const schema = schemaOf(is);
  return about ? { ...schema, description: about } : schema;
}

function schemaOf(node: Node): JsonSchema {
  switch (node.kind) {
    case "text":
      return {
        type: "string",
        ...(node.least > 0 ? { minLength: node.least } : {}),
        ...(node.most < 20_000 ? { maxLength: node.most } : {}),
      };
    case "pattern":
      return node.format
        ? { type: "string", format: node.format }
        : { type: "string", pattern: node.pattern.source };
    case "day":
      return { type: "string", format: "date" };
    case "time":
      return { type: "string", format: "date-time" };
    case "number":
    case "whole":
      return {
        type: node.kind === "whole" ? "integer" : "number",
        minimum: node.least,
        maximum: node.most,
      };
    case "flag":
      return { type: "boolean" };
    case "nothing":
      return { type: "null" };
    case "one of":
      return { enum: node.words };
    case "written":
      return { type: "string", examples: [node.example] };
    case "list":
      return {
        type: "array",
        items: jsonSchemaOf(node.item),
        ...(node.least > 0 ? { minItems: node.least } : {}),
        ...(node.most < 20_000 ? { maxItems: node.most } : {}),
        ...(node.once ? { uniqueItems: true } : {}),
      };
    case "one or more": {
      const item = jsonSchemaOf(node.item);
      return { anyOf: [item, { type: "array", items: item, minItems: 1 }] };
    }
    case "tuple":
      return {
        type: "array",
        prefixItems: node.items.map((item) => jsonSchemaOf(item)),
        minItems: node.least,
        items: false,
      };
    case "map":
      return { type: "object", additionalProperties: jsonSchemaOf(node.item) };
    case "object":
      return objectSchema(node.keys);
    case "choice":
      return {
        oneOf: Object.entries(node.among).map(([kind, one]) => withKind(jsonSchemaOf(one), node.by, kind)),
      };
    case "or nothing":
      return { anyOf: [jsonSchemaOf(node.inner), { type: "null" }] };
    case "usually":
      return { ...jsonSchemaOf(node.inner), default: node.instead };
    case "such that": {
      const inner = jsonSchemaOf(node.inner);
      return { ...inner, $comment: node.rule.message };
    }
    case "names":
      return node.key
        ? jsonSchemaOf(node.inner)
        : { ...jsonSchemaOf(node.inner), description: `names a ${node.thing}` };
    case "refers to":
      return { ...jsonSchemaOf(node.inner), description: `a ${node.things.join(" or ")}` };
    case "condition":
      return { ...jsonSchemaOf(node.inner), description: "trait → value, or a list of values" };
    case "any":
      return {};
  }
}

function objectSchema(keys: Extract<Node, { kind: "object" }>["keys"]): JsonSchema {
  const shapes = Object.entries(keys).map(([key, of]) => [key, ...ofKey(of)] as const);
  return {
    type: "object",
    properties: Object.fromEntries(shapes.map(([key, shape]) => [key, jsonSchemaOf(shape)])),
    required: shapes.filter(([, , mayMiss]) => !mayMiss).map(([key]) => key),
    additionalProperties: false,
  };
}

const withKind = (schema: JsonSchema, by: string, kind: string): JsonSchema => ({
  ...schema,
  properties: { [by]: { const: kind }, ...(schema.properties as object) },
  required: [by, ...(schema.required as string[])],
});
