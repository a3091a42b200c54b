import {
  about,
  list,
  listOnce,
  maybeWords,
  number,
  object,
  optional,
  refersTo,
  whole,
  words,
} from "../../shape";
import { codes, type CodeOf } from "../codes";
import { coded, kind, LEADS } from "../kind";
import { ODOMETER } from "./booking";

/** The ways on from a broken unit. */
export const WAYS_ON = codes({ rebuild: "rebuild", reconditioned: "reconditioned", used: "used" });
/** A code of `WAYS_ON`. */
export type Way = CodeOf<typeof WAYS_ON>;

export const offer = kind(
  "offer",
  object({
    way: coded(WAYS_ON),
    cents: about("In whole cents.", whole(0, 100_000_000)),
    hours: about("Hours of work.", number(0, 500)),
    risk: about("Chance of a comeback in percent.", number(0, 100)),
    note: maybeWords(500),
    source: about("Where the other unit comes from.", optional(words(1, 120))),
    distance: about("How far the other unit ran.", optional(ODOMETER)),
    grade: about("How its seller grades it.", optional(words(1, 40))),
    warranty: about("What is promised on it.", optional(words(1, 120))),
    renew: about("Parts that are renewed before it goes in.", optional(listOnce(refersTo("part"), 0, 60))),
  }),
  {
    means: "what one way on for this unit costs",
    about: ({ way }) => way,
    sentence: ({ way }) => `offer: ${WAYS_ON.words[way]}`,
  },
);

export const wayOn = kind("way-on", object({ way: coded(WAYS_ON), reason: words(2, 500) }), {
  means: "whether it is rebuilt; a lead decides",
  about: () => "",
  who: LEADS,
  sentence: ({ way }) => `decided: ${WAYS_ON.words[way]}`,
});

const cents = whole(0, 1_000_000_000);
export const quoted = kind(
  "quoted",
  object({
    parts: about("Parts together, in whole cents.", cents),
    labour: about("Work together, in whole cents.", cents),
    hours: number(0, 500),
    lines: list(
      object({
        id: words(1, 120),
        what: words(1, 200),
        cents: about("Absent where nobody knew its price.", optional(cents)),
      }),
      0,
      400,
    ),
    promised: about("What is promised on the work: how long, how far.", maybeWords(500)),
  }),
  {
    onCard: false,
    means: "a quote as the customer was given it: what is left with is held against it",
    about: () => "",
    sentence: ({ parts, labour }) => `quoted: ${((parts + labour) / 100).toFixed(2)}`,
  },
);
