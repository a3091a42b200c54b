import {
  about,
  flag,
  listOnce,
  maybeWords,
  object,
  oneOf,
  optional,
  refersTo,
  text,
  whole,
  words,
} from "../../shape";
import { codes } from "../codes";
import { coded, kind } from "../kind";

const name = words(1, 80);
const rpm = whole(0, 20_000);
/** False takes back what was said before. */
const there = about("False takes back what was said before.", flag);

/** Under what a symptom shows. */
export const CONDITIONS = ["cold", "hot", "light", "full load"] as const;
export type Condition = (typeof CONDITIONS)[number];

export const answer = kind(
  "answer",
  object({
    question: about("A question of the diagnosis.", name),
    outcome: name,
    conditions: listOnce(oneOf(...CONDITIONS), 0, 4),
    there,
    note: optional(maybeWords(500)),
  }),
  {
    means: "a symptom, or another answer to a question of the diagnosis",
    about: ({ question, outcome }) => `${question} ${outcome}`,
    sentence: ({ question, outcome, there: so }) => `${question}: ${so ? "" : "not "}${outcome}`,
  },
);

export const code = kind(
  "code",
  object({
    code: words(1, 30),
    words: maybeWords(500),
    sort: name,
    related: oneOf("yes", "no", "unsure"),
    there,
  }),
  {
    onCard: false,
    means: "a trouble code, and whether it belongs to this complaint",
    about: ({ code: of }) => of,
    sentence: ({ code: of, there: so }) => `code ${of}${so ? "" : " taken back"}`,
  },
);

export const speeds = kind(
  "speeds",
  object({ range: refersTo("range", text), input: rpm, output: rpm, there }),
  {
    onCard: false,
    means: "input and output speed read while driving in a range",
    about: ({ range }) => range,
    sentence: ({ range, input, output }) => `${range}: ${input} in, ${output} out`,
  },
);

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
