import loadHighs from "highs";
import { BOOK_FORMAT } from "../core/book";
import { readBook } from "../core/check";
import { jobWithBook, fold, readJobDocument } from "../core/fact";
import { dispositions, USUAL_SCHOOLS } from "../core/inspect";
import { frontOf, plainCover, solvedBy, SOME_DAY, type Cover, type CoverQuestion } from "../core/kit";
import { needsOf } from "../core/needs";
import { moneyOf, moneyText } from "../core/quantity";
import { check, list, map, object, optional, whole, words, written, type Read } from "../core/shape";
import type { Answer } from "./verbs";

const solve = solvedBy(await loadHighs());

/** An exported job → what its unit needs, line by line. */
export function needs(given: unknown): Answer {
  const read = readJobDocument(given);
  if (!read.ok) return { ok: false, errors: read.problems };
  const { book: document, facts } = read.document;
  const of = readBook(document);
  if (!of.ok) return { ok: false, errors: of.problems.map((one) => ({ ...one, path: `book.${one.path}` })) };
  const { job, applied } = jobWithBook(of.book, fold(facts), []);
  const { lines, open, whileOpen } = needsOf(
    job,
    applied,
    dispositions(job, applied, USUAL_SCHOOLS, "proven"),
  );
  return {
    ok: true,
    result: {
      format: BOOK_FORMAT,
      unit: of.book.unit.id,
      lines: lines.map(({ id, kind, name, number, count, amount, because, waits, brings, isIn }) => ({
        id,
        kind,
        name,
        number,
        count,
        ...(amount === null ? {} : { amount }),
        because,
        waits,
        ...(brings === null ? {} : { brings }),
        in: isIn,
      })),
      open: open.map(({ part: { id } }) => id),
      whileOpen: whileOpen.map(({ part: { id }, count, minutes }) => ({ part: id, count, minutes })),
    },
  };
}

const number = words(1, 80);
const money = written(moneyOf, "12.50");
const pieces = whole(0, 100_000);
const asked = object({
  wanted: map(whole(1, 100_000)),
  kits: optional(list(object({ number, contents: map(whole(1, 1_000)) }), 0, 1_000)),
  offers: list(
    object({
      number,
      supplier: words(1, 60),
      price: money,
      days: optional(pieces),
      pack: optional(whole(1, 1_000)),
    }),
    0,
    20_000,
  ),
  onHand: optional(map(pieces)),
});

/** What is wanted, kits, what suppliers ask, and the shelf → every way to cover it that is not both dearer and later than another. */
export function kits(given: unknown): Answer {
  const { value, problems } = check(asked, given);
  if (problems.length > 0) return { ok: false, errors: problems };
  const question = questionOf(value);
  return {
    ok: true,
    result: { front: frontOf(question, solve).map(told), plain: told(plainCover(question, solve)) },
  };
}

const questionOf = ({
  wanted,
  kits: boxes = [],
  offers,
  onHand = {},
}: Read<typeof asked>): CoverQuestion => ({
  wanted: new Map(Object.entries(wanted)),
  kits: boxes.map(({ number: of, contents }) => ({
    number: of,
    contents: new Map(Object.entries(contents)),
  })),
  offers: offers.map(({ price, days, pack, ...one }) => ({
    ...one,
    cents: price,
    days: days ?? null,
    pack: pack ?? 1,
  })),
  onHand: new Map(Object.entries(onHand)),
});

const told = ({ cents, days, takes, missing, left, proven }: Cover) => ({
  proven,
  price: moneyText(cents),
  days: days >= SOME_DAY ? null : days,
  takes: takes.map(({ number: of, supplier, packs, pieces: count, cents: each, days: by }) => ({
    number: of,
    from: supplier ?? "shelf",
    packs,
    pieces: count,
    price: moneyText(each),
    days: by >= SOME_DAY ? null : by,
  })),
  missing,
  left,
});
