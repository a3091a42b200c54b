import { BOOK_FORMAT, keptBook, type Book } from "../core/book";
import { readBook } from "../core/check";
import { ratioText, solveRanges, teethDoubt } from "../core/gears";
import { toDecimal, type Rational } from "../core/quantity";
import { diagnose } from "./diagnose-verb";
import { select } from "./select-verb";
import { capacity } from "./capacity-verb";
import { kits, needs } from "./supply-verbs";
import type { Answer } from "./verbs";

/** The verbs whose input is a document: a whole book, or one with a book in it, or what is to be chosen. */
export const BOOK_VERBS: Readonly<Record<string, (document: unknown) => Answer>> = {
  diagnose,
  select,
  needs,
  kits,
  capacity,
  "check-book": (document) => {
    const read = readBook(document);
    return read.ok
      ? {
          ok: true,
          result: { format: BOOK_FORMAT, unit: read.book.unit.id, problems: [], warnings: read.warnings },
        }
      : { ok: false, errors: [...read.problems, ...read.warnings] };
  },
  // A book that is still being written has problems elsewhere: its form is enough to turn it.
  gears: (document) => {
    const book = keptBook(document);
    if (book) return { ok: true, result: gears(book) };
    const read = readBook(document);
    return { ok: false, errors: read.ok ? [] : read.problems };
  },
};

const speed = (value: Rational | null): number | null =>
  value ? Number(toDecimal(value, 4).figure.replace("−", "-")) : null;
const speeds = (all: Readonly<Record<string, Rational | null>>): Record<string, number | null> =>
  Object.fromEntries(Object.entries(all).map(([id, value]) => [id, speed(value)]));

/** Every range with its ratio, the speed of every member for one turn of the input, and the slip of every released element. */
function gears(book: Book): unknown {
  return {
    unit: book.unit.id,
    ranges: solveRanges(book).map(({ range, behaviour, fault }) => ({
      id: range.id,
      applied: range.applied,
      does: behaviour.kind,
      ratio: behaviour.ratio && ratioText(behaviour.ratio).replace("−", "-"),
      listed: range.ratio,
      ...(fault ? { fault } : {}),
      holding: behaviour.holding,
      speeds: speeds(behaviour.speeds),
      slips: speeds(behaviour.slips),
    })),
    doubts: book.gearSets.flatMap((set) => {
      const doubt = teethDoubt(set);
      return doubt ? [`${set.id}: ${doubt}`] : [];
    }),
  };
}
