import {
  about,
  flag,
  listOnce,
  maybeWords,
  object,
  oneOf,
  optional,
  refersTo,
  suchThat,
  text,
  whole,
  words,
} from "../../shape";
import { codes, type CodeOf } from "../codes";
import { coded, kind } from "../kind";

const name = words(1, 80);
const rpm = whole(0, 20_000);
/** False takes back what was said before. */
const there = about("False takes back what was said before.", flag);

/** Under what a symptom shows. */
export const CONDITIONS = codes({ cold: "cold", hot: "hot", light: "light", "full-load": "full load" });
/** A code of `CONDITIONS`. */
export type Condition = CodeOf<typeof CONDITIONS>;

/** What sort a trouble code is of. */
export const CODE_SORTS = codes({
  "ratio-or-slip-code": "ratio or slip code",
  "electrical-code": "electrical code",
  "engine-or-vehicle-code": "engine or vehicle code",
  "place-or-travel-code": "place or travel code",
});

/** Everything that can be answered to a question of the diagnosis. */
export const OUTCOMES = codes({
  // Of a range, driven or held by hand.
  fine: "fine",
  "no-drive": "no drive",
  "will-not-engage": "will not engage",
  slips: "slips",
  flares: "flares",
  binds: "binds",
  "no-upshift": "no upshift",
  "stuck-in-it": "stuck in it",
  harsh: "harsh",
  delayed: "delayed",
  "grabs-at-take-off": "grabs at take-off",
  "clunks-on-and-off": "clunks on and off",
  grinds: "grinds",
  noise: "noise",
  shudders: "shudders",
  "no-engine-braking": "no engine braking",
  // Of a ratio without steps.
  "stays-low": "stays low",
  "stays-high": "stays high",
  "judders-at-one-ratio": "judders at one ratio",
  // In neutral, and standing in gear.
  stays: "stays",
  "moves-when-revved": "moves when revved",
  "pulls-or-stalls": "pulls or stalls",
  // Of the vehicle as a whole.
  nothing: "nothing",
  leaks: "leaks",
  "stalls-at-standstill": "stalls at standstill",
  "revs-high-at-cruise": "revs high at cruise",
  "binds-in-tight-turns": "binds in tight turns",
  "second-axle-not-driven": "second axle not driven",
  "noise-in-every-range": "noise in every range",
  // Of what is looked at, read or tried.
  none: "none",
  found: "found",
  ...CODE_SORTS.words,
  clear: "clear",
  dark: "dark",
  burnt: "burnt",
  milky: "milky",
  "in-its-limits": "in its limits",
  low: "low",
  high: "high",
  "holds-and-lets-go": "holds and lets go",
  "does-not-move": "does not move",
  "does-not-let-go": "does not let go",
  "as-listed": "as listed",
});
const RATIO_OF = "ratio-of-";
/** The answer that two speeds show the ratio of another range. */
export const ratioOf = (range: string): string => `${RATIO_OF}${range}`;
/** An answer in words. */
export const outcomeWords = (outcome: string): string =>
  outcome.startsWith(RATIO_OF)
    ? `ratio of ${outcome.slice(RATIO_OF.length)}`
    : Object.hasOwn(OUTCOMES.words, outcome)
      ? OUTCOMES.words[outcome as CodeOf<typeof OUTCOMES>]
      : outcome;
/** The code of an answer given in words; a code is itself. */
export const outcomeCode = (words: string): string =>
  words.startsWith("ratio of ")
    ? ratioOf(words.slice("ratio of ".length))
    : (OUTCOMES.codes.find((code) => OUTCOMES.words[code] === words) ?? words);
/** A question's id as one says it: the range, by hand or not. */
export const questionWords = (question: string): string =>
  question
    .replace(/^range:/, "")
    .replace(/^manual:(.*)/, "$1 by hand")
    .replace(/^change:(.*)-(.*)/, "$1 to $2");

export const answer = kind(
  "answer",
  object({
    question: about("A question of the diagnosis.", name),
    outcome: suchThat(name, {
      test: (given) => Object.hasOwn(OUTCOMES.words, given) || given.startsWith(RATIO_OF),
      message: "no answer of the diagnosis",
      remedy: `one of ${OUTCOMES.codes.slice(0, 15).join(", ")} and so on`,
      examples: [...OUTCOMES.codes, ratioOf("2")],
    }),
    conditions: listOnce(coded(CONDITIONS), 0, 4),
    there,
    note: optional(maybeWords(500)),
  }),
  {
    means: "a symptom, or another answer to a question of the diagnosis",
    about: ({ question, outcome }) => `${question} ${outcome}`,
    sentence: ({ question, outcome, there: so }) =>
      `${questionWords(question)}: ${so ? "" : "not "}${outcomeWords(outcome)}`,
  },
);

/** A fault code the control unit has, or has no more. */
export const code = kind(
  "code",
  object({
    code: words(1, 30),
    words: maybeWords(500),
    sort: coded(CODE_SORTS),
    related: oneOf("yes", "no", "unsure"),
    there,
  }),
  {
    onCard: false,
    means: "a trouble code, and whether it belongs to this complaint",
    about: ({ code: id }) => id,
    sentence: ({ code: id, there: so }) => `code ${id}${so ? "" : " taken back"}`,
  },
);

/** Input and output speed in a range, in revolutions per minute. */
export const speeds = kind(
  "speeds",
  object({ range: refersTo("range", text), input: whole(1, 20_000), output: rpm, there }),
  {
    onCard: false,
    means: "input and output speed read while driving in a range",
    about: ({ range }) => range,
    sentence: ({ range, input, output }) => `${range}: ${input} in, ${output} out`,
  },
);

/** Where the fault was found to be. */
export const FAULTS = codes({ "this-unit": "this unit", elsewhere: "elsewhere", open: "open" });
export const conclusion = kind(
  "conclusion",
  object({ fault: coded(FAULTS), reason: words(2, 2000), fee: maybeWords(40) }),
  {
    means: "whether this unit is at fault at all",
    about: () => "",
    sentence: ({ fault }) => `fault: ${FAULTS.words[fault]}`,
  },
);
