import Joi from "joi";
import { factsSchema } from "~/job/fact-schema";
import { check } from "~/server/check";
import { JOB_FORMAT, type JobDocument } from "~core/job";

const schema = Joi.object({
  format: Joi.valid(JOB_FORMAT).required(),
  id: Joi.string().uuid().required(),
  number: Joi.number().integer().min(1).required(),
  opened: Joi.string().isoDate().required(),
  book: Joi.object().required(),
  facts: factsSchema.required(),
  pictures: Joi.array()
    .items(
      Joi.object({
        id: Joi.string().uuid().required(),
        width: Joi.number().integer().min(1).max(10_000).required(),
        height: Joi.number().integer().min(1).max(10_000).required(),
        large: Joi.string().base64().required(),
        small: Joi.string().base64().required(),
      }),
    )
    .max(500),
});

/** Reads an exported job. @returns the document, or each problem with its place. The book is checked by whoever keeps it. */
export function readJobDocument(
  text: string,
): { ok: true; document: JobDocument } | { ok: false; problems: string[] } {
  let given: unknown;
  try {
    given = JSON.parse(text);
  } catch {
    return { ok: false, problems: ["This is not JSON. Choose a file that Yard Key exported."] };
  }
  const checked = check<JobDocument>(schema, given, { convert: false });
  if (!checked.ok) return { ok: false, problems: checked.details.slice(0, 10).map(({ message }) => message) };
  return { ok: true, document: checked.value };
}
