import {
  about,
  flag,
  list,
  map,
  matching,
  maybeWords,
  nanometres,
  object,
  oneOf,
  optional,
  orNothing,
  refersTo,
  text,
  time,
  tuple,
  uuid,
  nearest,
  whole,
  words,
  type Read,
} from "../../shape";
import { codes } from "../codes";
import { coded, kind, LEADS } from "../kind";

/** How a vehicle is driven: what wears a unit by itself. */
export const DRIVEN = codes({
  "not-told": "not told",
  ordinary: "ordinary use",
  hard: "hard: towing, taxi, plough, racing",
});
/** Whether somebody was in the unit before. */
export const OPENED_BEFORE = codes({ "not-told": "not known", no: "no", yes: "yes" });

/** How far something ran. */
export const ODOMETER = matching(
  /^(\d[\d .,]{0,9}\s*(km|mi)?)?$/,
  "an odometer",
  "write it as 148 200 km, or leave it empty",
);

/** What the customer brought, and in what words. */
export const booking = kind(
  "booking",
  object({
    vehicle: words(2, 120),
    customer: maybeWords(120),
    words: words(3, 4000),
    odometer: ODOMETER,
    use: about("How it is driven, in words: towing, taxi, short trips.", optional(maybeWords(500))),
    driven: optional(coded(DRIVEN)),
    earlier: about(
      "What somebody did before: old sealant, new marks, a part turned over and used again.",
      optional(maybeWords(2000)),
    ),
    opened: about("Whether somebody was in it before.", optional(coded(OPENED_BEFORE))),
  }),
  {
    means: "the vehicle, whose it is and what the customer says",
    about: () => "",
    sentence: ({ vehicle }) => `booked in: ${vehicle}`,
  },
);

export const configuration = kind("configuration", object({ traits: map(text) }), {
  means: "which version the unit is, as far as it was seen: trait → value",
  about: ({ traits }) => Object.keys(traits),
  sentence: ({ traits }) =>
    `seen: ${Object.entries(traits)
      .map(([trait, value]) => `${trait} ${value}`)
      .join(", ")}`,
  against: ({ traits }, book) =>
    Object.entries(traits).flatMap(([trait, value]) => {
      const known = book.traits.find(({ id }) => id === trait);
      const path = `traits.${trait}`;
      if (!known)
        return [
          {
            path,
            message: `no trait "${trait}"`,
            remedy: nearest(
              trait,
              book.traits.map(({ id }) => id),
            ),
          },
        ];
      const values = Object.keys(known.values);
      return values.includes(value)
        ? []
        : [{ path, message: `${trait} has no value "${value}"`, remedy: nearest(value, values) }];
    }),
});

export const scope = kind("scope", object({ depths: list(refersTo("depth", text), 1, 20) }), {
  means: "how deep the work goes: one depth of the book, or several",
  about: () => "",
  sentence: ({ depths }) => `scope: ${depths.join(" + ")}`,
});

export const holder = kind("holder", object({ name: words(1, 80), staff: orNothing(uuid) }), {
  means: "whose job it is",
  about: () => "",
  sentence: ({ name }) => `${name} has it`,
});

const earlierFigure = object({
  of: oneOf("chain", "measurement"),
  id: words(1, 80),
  text: words(1, 120),
  value: about("The mean, where it is a length with one.", optional(nanometres())),
});
/** A figure that a unit left with at an earlier visit, as it was said there. */
export type EarlierFigure = Read<typeof earlierFigure>;

export const earlierVisit = kind(
  "earlier-visit",
  object({
    job: whole(1, Number.MAX_SAFE_INTEGER),
    left: time,
    figures: list(earlierFigure, 0, 400),
  }),
  {
    onCard: false,
    means: "the same unit was here before, and left with these figures",
    about: () => "",
    sentence: ({ job }) => `was here before as ${job}`,
  },
);

/** Whose cost a comeback is. */
export const WARRANTY = codes({ ours: "under warranty", theirs: "not under warranty" });
/** What came of a unit that was here before: a lead says whose it is. */
export const comeback = kind(
  "comeback",
  object({
    job: whole(1, Number.MAX_SAFE_INTEGER),
    same: about("Whether it is the same complaint.", flag),
    step: about("The step of the earlier build it goes back to; empty where it is none.", maybeWords(80)),
    cause: about("What of the earlier work it comes from, in words.", maybeWords(500)),
    warranty: coded(WARRANTY),
    cost: about("What it cost, with its currency or in hours.", maybeWords(60)),
    reason: words(2, 500),
    signedBy: words(1, 80),
  }),
  {
    means:
      "a unit that was here before: the same complaint or another, its cause in the earlier build, and whose cost it is",
    about: () => "",
    who: LEADS,
    bench: false,
    sentence: ({ job, warranty, signedBy }) =>
      `came back after ${job}: ${WARRANTY.words[warranty]}, signed by ${signedBy}`,
  },
);

const house = object({
  rule: oneOf("proven", "plain"),
  target: oneOf("middle", "low end"),
  steels: oneOf("reuse if flat", "always new"),
  bushings: oneOf("on measurement", "always new"),
  hourCents: whole(0, 100_000_000),
  comebackCents: whole(0, 1_000_000_000),
});
/** What the house had chosen when a job was closed. */
export type HouseKept = Read<typeof house>;

const closing = object({
  rule: oneOf("proven", "plain"),
  house: about(
    "Everything the house had chosen: what the job says later is what it said then.",
    optional(house),
  ),
  prices: about(
    "Prices in cents of the parts of its book, as they were known.",
    optional(list(tuple([words(1, 120), whole(0, 100_000_000)]), 0, 5_000)),
  ),
  calledOff: about(
    "Why it was called off, unfinished: nothing is built, nothing is wanted any more.",
    optional(object({ reason: words(2, 500), signedBy: words(1, 80) })),
  ),
});
export const closed = kind("closed", closing, {
  means: "nothing more is added; the house’s choices and the prices it was decided with",
  about: () => "",
  bench: false,
  sentence: ({ calledOff }) => (calledOff ? `called off: ${calledOff.reason}` : "closed"),
});
