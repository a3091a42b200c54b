import { problemText, readJobDocument as readDocument, type JobDocument } from "~core/fact";

/** Reads the text of an exported job. @returns the document, or each problem with its place. The book is checked by whoever keeps it. */
export function readJobDocument(
  text: string,
): { ok: true; document: JobDocument } | { ok: false; problems: string[] } {
  let given: unknown;
  try {
    given = JSON.parse(text);
  } catch {
    return { ok: false, problems: ["This is not JSON. Choose a file that Yard Key exported."] };
  }
  const read = readDocument(given);
  return read.ok ? read : { ok: false, problems: read.problems.slice(0, 10).map(problemText) };
}
