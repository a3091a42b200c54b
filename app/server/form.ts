import type { ObjectSchema } from "joi";
import { BETWEEN } from "~/look/several";
import { check } from "./check";

/** What a form gets back when something was wrong: a message at each field, and everything as it was typed. */
export interface FormProblems {
  problems: Record<string, string>;
  typed: Record<string, string>;
}

/**
 * Checks a submitted form at the edge.
 *
 * @returns the values, or every problem by field and what was typed.
 */
export async function readForm<T>(
  request: Request,
  schema: ObjectSchema<T>,
): Promise<{ values: T } | FormProblems> {
  const typed: Record<string, string> = {};
  for (const [name, value] of await request.formData())
    if (typeof value === "string")
      typed[name] = typed[name] === undefined ? value : `${typed[name]}${BETWEEN}${value}`;
  const checked = check(schema, typed, { stripUnknown: true, errors: { label: false } });
  if (checked.ok) return { values: checked.value };
  const problems: Record<string, string> = {};
  for (const { path, message } of checked.details) problems[String(path[0])] ??= message;
  return { problems, typed };
}
