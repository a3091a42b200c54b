import { type Book, type HouseValue } from "~core/book";
import { appliedTo, fold, type Fact } from "~core/fact";
import { worksheets, type House } from "~core/measure";
import { stepsDone, waitsFor } from "~core/stage";
import type { Card } from "~store/jobs";

/** Counted up whenever a card says something else of the same facts: cards that are kept are made anew then. */
const CARD_VERSION = 2;

/** What cards are made by: this code and the house's choices that show in them. */
export const cardsMadeBy = (house: House): string => [CARD_VERSION, house.rule, house.target].join(" ");

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
      depth: (job.depths ?? []).join(" + "),
      holder: job.holder?.body.name ?? null,
      waitsFor: waitsFor(job, sheets, stepsDone(job, applied)),
      done: inScope.filter(({ stage }) => stage.at === "done" || stage.at === "signed").length,
      packs: inScope.length,
    };
  };
