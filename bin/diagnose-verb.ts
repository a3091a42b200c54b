import Joi from "joi";
import { holding } from "../core/book";
import { readBook } from "../core/check";
import { CONDITIONS, outcomeCode, outcomeWords, type Condition } from "../core/fact";
import { Diagnostician, readSpeeds, report, type Speeds, type Told } from "../core/diagnose";
import type { Answer } from "./verbs";
import { problemOf } from "./problem";

interface Given {
  book: unknown;
  configuration: Record<string, string>;
  told: Told[];
  speeds: Speeds[];
  next: number;
}

const word = Joi.string().max(80);
const rpm = Joi.number().integer().min(0).max(20_000).required();
const schema = Joi.object<Given>({
  book: Joi.object().required(),
  configuration: Joi.object().pattern(word, word).default({}),
  told: Joi.array()
    .items(
      Joi.object({
        question: word.required(),
        outcome: word.required(),
        conditions: Joi.array().items(Joi.valid(...CONDITIONS.codes, ...Object.values(CONDITIONS.words))),
      }),
    )
    .max(500)
    .default([]),
  speeds: Joi.array()
    .items(Joi.object({ range: word.required(), input: rpm, output: rpm }))
    .max(50)
    .default([]),
  next: Joi.number().integer().min(0).max(50).default(3),
});

/** An answer may be given in words, as a person reads it. */
const withCodes = ({ question, outcome, conditions }: Told): Told => ({
  question,
  outcome: outcomeCode(outcome),
  ...(conditions
    ? {
        conditions: conditions.map(
          (one): Condition => CONDITIONS.codes.find((code) => CONDITIONS.words[code] === one) ?? one,
        ),
      }
    : {}),
});

/** How many answers are told for each cause, those that say most of it. */
const STRONGEST = 2;
const round = (value: number): number => Number(value.toPrecision(4));

/** What is told of a unit → causes ranked, with their working, and what to ask next. */
export function diagnose(given: unknown): Answer {
  const checked = schema.validate(given, { abortEarly: false }) as {
    value: Given;
    error?: Joi.ValidationError;
  };
  if (checked.error) return { ok: false, errors: checked.error.details.map(problemOf) };
  const { book: document, configuration, speeds, next } = checked.value;
  const told = checked.value.told.map(withCodes);
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
