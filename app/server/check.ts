import type { AnySchema, ValidationErrorItem, ValidationOptions } from "joi";

/** Joi with its `any` left at the door: the schema is what vouches for the type. */
export function check<T>(
  schema: AnySchema<T>,
  given: unknown,
  options: ValidationOptions = {},
): { ok: true; value: T } | { ok: false; details: ValidationErrorItem[] } {
  const result = schema.validate(given, { abortEarly: false, ...options }) as {
    value: T;
    error?: { details: ValidationErrorItem[] };
  };
  return result.error ? { ok: false, details: result.error.details } : { ok: true, value: result.value };
}
