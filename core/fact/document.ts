import {
  anything,
  check,
  jsonSchemaOf,
  list,
  matching,
  object,
  oneOf,
  optional,
  time,
  uuid,
  whole,
  type JsonSchema,
  type Problem,
} from "../shape";
import { kindOf } from "./about";
import { checkFacts, DOCUMENT, envelope } from "./check";
import type { Fact, FactKind } from "./fact";
import { KINDS } from "./kinds";

/** `yard-key/job@1`: everything of one job that another Yard Key needs to have it. */
export const JOB_FORMAT = "yard-key/job@1";

const picture = object({
  id: uuid,
  width: whole(1, 10_000),
  height: whole(1, 10_000),
  large: matching(/^[A-Za-z0-9+/]+={0,2}$/, "a picture in base64", "give a JPEG in base64"),
  small: matching(/^[A-Za-z0-9+/]+={0,2}$/, "a picture in base64", "give a JPEG in base64"),
});

const document = object({
  format: oneOf(JOB_FORMAT),
  id: uuid,
  number: whole(1, Number.MAX_SAFE_INTEGER),
  opened: time,
  book: anything,
  facts: anything,
  pictures: optional(list(picture, 0, 500)),
});

/** A whole job as it is exported: its facts, its book, who said what. */
export interface JobDocument {
  format: typeof JOB_FORMAT;
  /** The id made when the job was opened: importing twice keeps one. */
  id: string;
  number: number;
  opened: string;
  /** The book revision the job is pinned to, whole. */
  book: unknown;
  facts: Fact[];
  /** Its pictures as JPEG in base64; absent where there is none. */
  pictures?: { id: string; width: number; height: number; large: string; small: string }[];
}

/**
 * Puts the format’s name to a job’s contents.
 *
 * @returns the document as it is written.
 */
export const jobDocument = (job: Omit<JobDocument, "format">): JobDocument => ({
  format: JOB_FORMAT,
  ...job,
});

/**
 * Reads an exported job.
 *
 * @param given parsed JSON.
 * @returns the document, or every problem with its place. Its book is checked by whoever keeps it.
 */
export function readJobDocument(
  given: unknown,
): { ok: true; document: JobDocument } | { ok: false; problems: Problem[] } {
  const { value, problems } = check(document, given);
  if (problems.length > 0) return { ok: false, problems };
  const read = checkFacts(value.facts, DOCUMENT, "facts");
  return read.ok ? { ok: true, document: { ...value, facts: read.facts } } : read;
}

const names = Object.keys(KINDS) as FactKind[];

/** The format for editors: JSON Schema 2020-12, made from the declarations of the kinds. */
export function jobSchema(): JsonSchema {
  const bodies = names.map((name) => {
    const { shape, means } = kindOf(name);
    const { properties = {}, required = [], ...rest } = jsonSchemaOf(shape);
    return {
      ...rest,
      description: means,
      properties: { kind: { const: name }, ...(properties as object) },
      required: ["kind", ...(required as string[])],
    };
  });
  const { properties, ...fact } = jsonSchemaOf(envelope);
  const whole = jsonSchemaOf(document);
  return {
    $schema: "https://json-schema.org/draft/2020-12/schema",
    title: JOB_FORMAT,
    ...whole,
    properties: {
      ...(whole.properties as object),
      facts: {
        type: "array",
        items: { ...fact, properties: { ...(properties as object), body: { oneOf: bodies } } },
      },
    },
  };
}

/** The kinds of facts as rows of docs/formats.md: kind, what it is for, its fields, who may say it. */
export const kindRows = (): string[][] =>
  names.map((name) => {
    const { shape, means, who, bench } = kindOf(name);
    const { properties = {}, required = [] } = jsonSchemaOf(shape) as {
      properties?: object;
      required?: readonly string[];
    };
    const fields = Object.keys(properties).map((key) => `\`${key}\`${required.includes(key) ? "" : "?"}`);
    const door = bench === true ? "" : bench === false ? "own page" : "bench or own page";
    return [
      `\`${name}\``,
      means,
      fields.join(", "),
      [who?.join(", ") ?? "", door].filter(Boolean).join("; "),
    ];
  });
