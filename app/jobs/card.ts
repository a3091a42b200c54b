import { type Book, type HouseValue, unitName } from "~core/book";
import { jobWithBook, fold, type Fact } from "~core/fact";
import { dispositions } from "~core/inspect";
import { houseOf, worksheets } from "~core/measure";
import { needsOf, wanted } from "~core/needs";
import { standingOf, waitsFor, type Rule } from "~core/stage";
import type { Card } from "~store/jobs";

/** Counted up whenever a card says something else of the same facts: cards that are kept are made anew then. */
const CARD_VERSION = 9;

/** What cards are made by: this code and the house's choices that show in them. */
export const cardsMadeBy = ({ rule, target, steels, bushings }: Rule): string =>
  [CARD_VERSION, rule, target, steels, bushings].join(" ");

/** What a list shows of a job. */
export const makeCard =
  (today: Rule) =>
  (book: Book, facts: Fact[], values: readonly HouseValue[]): Card => {
    const { job, applied } = jobWithBook(book, fold(facts), values);
    const house = houseOf(job, today);
    const sheets = worksheets(job, applied, house);
    const states = dispositions(job, applied, house, house.rule);
    const inScope = sheets.filter(({ stage }) => stage.at !== "quiet");
    const standing = standingOf(job, applied, house);
    return {
      vehicle: job.booking?.body.vehicle ?? "",
      unit: unitName(book.unit),
      depth: (job.depths ?? []).join(" + "),
      holder: job.holder?.body.name ?? null,
      waitsFor: waitsFor(standing),
      minutesLeft: standing.minutesLeft,
      done: inScope.filter(({ stage }) => stage.at === "done" || stage.at === "signed").length,
      packs: inScope.length,
      wants: job.closed ? [] : [...wanted(needsOf(job, applied, states).lines)],
    };
  };
