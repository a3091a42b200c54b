import type Joi from "joi";
import type { Problem } from "../core/book";

/** A place in the input, what is wrong there, and what to do about it. */
export function problemOf({ path, message, context, type }: Joi.ValidationErrorItem): Problem {
  const place = path
    .map((step, i) => (typeof step === "number" ? `[${step}]` : i === 0 ? step : `.${step}`))
    .join("");
  const inner = type === "any.custom" ? (context as { error?: Error }).error?.message : undefined;
  const remedy =
    type === "any.required"
      ? "add it; docs/formats.md shows an example"
      : type === "object.unknown"
        ? "take it out or correct its name"
        : "write it as docs/formats.md shows, lengths as “1.80 mm”";
  return { path: place, message: inner ?? message, remedy };
}
