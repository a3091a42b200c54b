import { holding } from "../core/book";
import { readBook } from "../core/check";
import { CONDITIONS, outcomeCode, outcomeWords, type Condition } from "../core/fact";
import { Diagnostician, readSpeeds, report, type Told } from "../core/diagnose";
import { anything, check, list, map, object, oneOf, optional, whole, words, type Read } from "../core/shape";
import type { Answer } from "./verbs";

const word = words(1, 80);
const rpm = whole(0, 20_000);
const asked = object({
  book: anything,
  configuration: optional(map(word)),
  told: optional(
    list(
      object({
        question: word,
        outcome: word,
        conditions: optional(list(oneOf(...CONDITIONS.codes, ...Object.values(CONDITIONS.words)))),
      }),
      0,
      500,
    ),
  ),
  speeds: optional(list(object({ range: word, input: rpm, output: rpm }), 0, 50)),
  next: optional(whole(0, 50)),
});

type ToldInWords = NonNullable<Read<typeof asked>["told"]>[number];

/** An answer may be given in words, as a person reads it. */
const withCodes = ({ question, outcome, conditions }: ToldInWords): Told => ({
  question,
  outcome: outcomeCode(outcome),
  ...(conditions
    ? {
        conditions: conditions.map(
          (one): Condition =>
            CONDITIONS.codes.find((code) => CONDITIONS.words[code] === one) ?? (one as Condition),
        ),
      }
    : {}),
});

/** How many answers are told for each cause, those that say most of it. */
const STRONGEST = 2;
const round = (value: number): number => Number(value.toPrecision(4));

/** What is told of a unit → causes ranked, with their working, and what to ask next. */
export function diagnose(given: unknown): Answer {
  const { value, problems } = check(asked, given);
  if (problems.length > 0) return { ok: false, errors: problems };
  const { book: document, configuration = {}, speeds = [], next = 3 } = value;
  const told = (value.told ?? []).map(withCodes);
  const read = readBook(document);
  if (!read.ok)
    return { ok: false, errors: read.problems.map((one) => ({ ...one, path: `book.${one.path}` })) };
  const unit = holding(read.book, configuration);
  const wrong = speeds.findIndex(({ range }) => !unit.ranges.some(({ id }) => id === range));
  if (wrong >= 0) {
    const remedy = `use one of: ${unit.ranges.map(({ id }) => id).join(", ")}`;
    return {
      ok: false,
      errors: [{ path: `speeds[${wrong}].range`, message: "the unit has no such range", remedy }],
    };
  }
  const diagnostician = new Diagnostician(unit);
  const bad = told.findIndex(
    ({ question, outcome }) => !diagnostician.question(question)?.outcomes.includes(outcome),
  );
  const odd = told[bad];
  if (odd) {
    const known = diagnostician.question(odd.question);
    const [what, use] = known
      ? ["outcome", known.outcomes.map(outcomeWords)]
      : ["question", diagnostician.questions.map(({ id }) => id)];
    const message = `“${known ? outcomeWords(odd.outcome) : odd.question}” is no ${what} of this unit`;
    return {
      ok: false,
      errors: [{ path: `told[${bad}].${what}`, message, remedy: `use one of: ${use.join(", ")}` }],
    };
  }
  const figured = speeds.map((one) => readSpeeds(unit, one));
  const all = [...told, ...figured.flatMap((one) => one?.told ?? [])];
  const found = report(diagnostician, all, next);
  return {
    ok: true,
    result: {
      unit: read.book.unit.id,
      suspects: found.suspects.map(({ id, name, chance, working, factors }) => ({
        id,
        name,
        chance: round(chance),
        ...working,
        factors: factors
          .slice(0, STRONGEST)
          .map(({ question, answer, factor }) => ({ question, answer, factor: round(factor) })),
      })),
      pairs: found.pairs.map(({ names, chance }) => ({ names, chance: round(chance) })),
      next: found.next.map(({ id, name, minutes, bits, would }) => ({
        id,
        name,
        minutes,
        bits: round(bits),
        would: would.map((one) => ({
          ...one,
          outcome: outcomeWords(one.outcome),
          chance: round(one.chance),
          firstChance: round(one.firstChance),
        })),
      })),
      ...(figured.length > 0
        ? {
            speeds: figured.map((one, i) => ({
              range: speeds[i]?.range,
              says: one?.told ? outcomeWords(one.told.outcome) : null,
              ratio: one?.ratio === null || one?.ratio === undefined ? null : round(one.ratio),
              slip: one?.slip,
              elements: one?.elements,
            })),
          }
        : {}),
    },
  };
}
