import type { ObjectSchema } from "joi";

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
export async function readForm<T>(request: Request, schema: ObjectSchema<T>): Promise<{ values: T } | FormProblems> {
  const typed: Record<string, string> = {};
  for (const [name, value] of await request.formData()) if (typeof value === "string") typed[name] = value;
  const { value, error } = schema.validate(typed, { abortEarly: false, stripUnknown: true, errors: { label: false } });
  if (!error) return { values: value };
  const problems: Record<string, string> = {};
  for (const { path, message } of error.details) problems[String(path[0])] ??= message;
  return { problems, typed };
}
