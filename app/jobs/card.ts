import { type Book, type HouseValue } from "~core/book";
import { appliedTo, fold, stepsDone, waitsFor, worksheets, type Fact, type House } from "~core/job";
import type { Card } from "~store/jobs";

/** What a list shows of a job. */
export const makeCard =
  (house: House) =>
  (book: Book, facts: Fact[], values: readonly HouseValue[]): Card => {
    const job = fold(facts);
    const applied = appliedTo(book, job, values);
    const sheets = worksheets(job, applied, house);
    const inScope = sheets.filter(({ stage }) => stage.at !== "quiet");
    return {
      vehicle: job.booking?.body.vehicle ?? "",
      unit: `${book.unit.maker} ${book.unit.name}`,
      depth: job.depth ?? "",
      waitsFor: waitsFor(job, sheets, stepsDone(job, applied)),
      done: inScope.filter(({ stage }) => stage.at === "done" || stage.at === "signed").length,
      packs: inScope.length,
    };
  };
