import { bookShape, CATALOGUE, upcastBook, type Book } from "../book";
import { check, type Names, type Problem } from "../shape";
import { checks } from "./checks";

/** A book that was read and checked, or every problem found with its place and remedy. */
export type ReadBook =
  | { ok: true; book: Book; warnings: Problem[] }
  | { ok: false; problems: Problem[]; warnings: Problem[] };

/**
 * Reads a book document. Every problem is said at once: those of its form, references that lead nowhere, and what the trade would
 * refuse (`check/`), as far as the sections a check reads have kept their form.
 *
 * @param document parsed JSON.
 * @param as "kept" for the book a job was done by: its form and references are checked, and what the trade would refuse is not held against
 *   it. What was right when it was kept opens whatever a later Yard Key has learnt to ask.
 * @returns the book with lengths in nanometres, or every problem with its path and remedy; warnings in either case.
 */
export function readBook(document: unknown, as: "written" | "kept" = "written"): ReadBook {
  const { value, problems: formal, gathered } = check(bookShape, upcastBook(document));
  const broken = new Set(formal.map(({ path }) => /^\w*/.exec(path)?.[0] ?? ""));
  const problems = [...formal, ...gathered.twice, ...gathered.astray(withCatalogue(gathered.named))];
  // Every check looks at versions and depths.
  const blind = ["", "traits", "depths"].some((section) => broken.has(section));
  for (const one of blind || as === "kept" ? [] : checks) {
    if (one.reads.some((section) => broken.has(section))) continue;
    one.check(value, gathered.conditions, (path, message, remedy, warning) =>
      problems.push({ path, message, remedy, ...(warning ? { warning } : {}) }),
    );
  }
  const warnings = problems.filter(({ warning }) => warning);
  const errors = problems.filter(({ warning }) => !warning);
  return errors.length === 0
    ? { ok: true, book: value, warnings }
    : { ok: false, problems: errors, warnings };
}

/** Everything a book may refer to: what it names itself, and the catalogue. */
const withCatalogue = (named: Names): Names =>
  new Map(
    [...new Set([...named.keys(), ...CATALOGUE.keys()])].map((thing) => [
      thing,
      new Map([...(named.get(thing) ?? []), ...(CATALOGUE.get(thing) ?? [])]),
    ]),
  );
