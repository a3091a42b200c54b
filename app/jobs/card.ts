import { type Book, type HouseValue } from "~core/book";
import { appliedTo, fold, waitsFor, worksheets, type Fact, type House } from "~core/job";
import type { Card } from "~store/jobs";

/** What a list shows of a job. */
export const makeCard =
  (house: House) =>
  (book: Book, facts: Fact[], values: readonly HouseValue[]): Card => {
    const job = fold(facts);
    const sheets = worksheets(job, appliedTo(book, job, values), house);
    const inScope = sheets.filter(({ stage }) => stage.at !== "quiet");
    return {
      vehicle: job.booking?.body.vehicle ?? "",
      unit: `${book.unit.maker} ${book.unit.name}`,
      depth: job.depth ?? "",
      waitsFor: waitsFor(job, sheets),
      done: inScope.filter(({ stage }) => stage.at === "done" || stage.at === "signed").length,
      packs: inScope.length,
    };
  };
