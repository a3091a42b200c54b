import type { Book } from "../../book";
import { parseMeasure, plainSign, type Quantity } from "../../quantity";
import {
  about,
  flag,
  list,
  listOnce,
  matching,
  maybeWords,
  nearest,
  object,
  oneOf,
  optional,
  refersTo,
  suchThat,
  text,
  whole,
  words,
  type Problem,
  type Read,
} from "../../shape";
import { codes, type CodeOf } from "../codes";
import { coded, kind } from "../kind";
import { CHECKED } from "./build";
import { OUTCOMES } from "./told";

const name = words(1, 120);
const measured = words(1, 40);

export const proof = kind(
  "proof",
  suchThat(object({ proof: refersTo("proof"), said: coded(CHECKED), note: maybeWords(500) }), {
    test: ({ said, note }) => said !== "cannot-see" || note.trim().length >= 2,
    message: "cannot be seen, and nothing else said",
    remedy: "say how it was made sure of instead",
    key: "note",
  }),
  {
    means: "what was seen to in the vehicle: so, not so, or not to be seen",
    about: ({ proof: id }) => id,
    sentence: ({ proof: id, said, note }, nameOf) =>
      `${nameOf(id)}: ${CHECKED.words[said]}${note ? `, ${note}` : ""}`,
  },
);

/** When what the control unit remembers was read. */
export const CODES_READ = codes({ first: "read", again: "cleared, and read again" });
/** A code of `CODES_READ`. */
export type CodesRead = CodeOf<typeof CODES_READ>;
export const codesRead = kind(
  "codes-read",
  object({
    proof: refersTo("proof"),
    when: coded(CODES_READ),
    codes: suchThat(list(object({ code: words(1, 120), own: about("It is of this unit.", flag) }), 0, 60), {
      test: (all) => new Set(all.map(({ code }) => code)).size === all.length,
      message: "a code twice",
      remedy: "name each once",
    }),
  }),
  {
    means:
      "what the control unit remembers: each code of this unit or not; read, and read again once cleared",
    about: ({ proof: id, when }) => `${id} ${when}`,
    sentence: ({ when, codes: all }) =>
      `codes ${CODES_READ.words[when]}: ${all.map(({ code, own }) => (own ? code : `${code} (not of this unit)`)).join(", ") || "none"}`,
    against: ({ proof: id }, { proofs = [] }: Book) =>
      proofs.some((one) => one.id === id && one.codes) || !proofs.some((one) => one.id === id)
        ? []
        : [
            {
              path: "proof",
              message: `no codes are read for ${id}`,
              remedy: nearest(
                id,
                proofs.filter((one) => one.codes).map((one) => one.id),
              ),
            },
          ],
  },
);

/** What happens in a procedure. */
export const HAPPENED = codes({
  begun: "begun",
  held: "held from now",
  broke: "no longer held",
  done: "done",
  stopped: "stopped",
  missed: "window passed",
});
/** A code of `HAPPENED`. */
export type Happened = CodeOf<typeof HAPPENED>;

const senses = object({
  fluid: about("How warm the fluid is, with its unit.", optional(measured)),
  engine: optional(oneOf("off", "running")),
  revs: about("Of the engine, with its unit.", optional(measured)),
  lever: optional(words(1, 20)),
  brake: optional(oneOf("held", "free")),
  pedal: optional(oneOf("untouched", "pressed")),
});

/** What is known of a vehicle at one moment: read off it, or by whoever stands there; absent what nobody knows. */
export type Told = Read<typeof senses>;

/** A figure that must be one of its quantity. */
const figure = (path: string, text: string | undefined, quantity: Quantity): Omit<Problem, "warning">[] => {
  if (text === undefined) return [];
  const read = parseMeasure(text, quantity);
  return read.ok ? [] : [{ path, message: read.problem, remedy: read.remedy }];
};

export const procedure = kind(
  "procedure",
  object({
    procedure: refersTo("procedure"),
    did: coded(HAPPENED),
    turn: about("Which turn; none when all of it begins or stops.", maybeWords(80)),
    as: about("From where it was said.", oneOf("seat", "lift", "both")),
    senses: about("What the vehicle said, or whoever read it off.", senses),
    note: maybeWords(500),
  }),
  {
    means: "what happened in a procedure: begun, held, done, stopped, its window passed",
    about: null,
    onCard: true,
    sentence: ({ procedure: id, did, turn, senses: { fluid } }, nameOf) =>
      `${nameOf(id)}${turn ? `, ${turn.replaceAll("-", " ")}` : ""}: ${HAPPENED.words[did]}${fluid ? ` at ${fluid}` : ""}`,
    against: ({ procedure: id, did, turn, senses: { fluid, revs } }, { procedures = [] }: Book) => {
      const turns = procedures.find((one) => one.id === id)?.turns.map((one) => one.id) ?? [];
      const ofAll = did === "begun" || did === "stopped" || did === "missed";
      return [
        ...(ofAll || turns.includes(turn)
          ? []
          : [{ path: "turn", message: `${id} has no turn "${turn}"`, remedy: nearest(turn, turns) }]),
        ...figure("senses.fluid", fluid, "temperature"),
        ...figure("senses.revs", revs, "speed"),
      ];
    },
  },
);

/** Which way fluid went. */
export const FLOWED = codes({ in: "in", out: "out" });
export const filled = kind(
  "filled",
  object({
    amount: about("With its unit.", measured),
    way: coded(FLOWED),
    when: about("Drained, on the bench, topped up.", words(1, 80)),
    of: about("Which other fluid of the unit; absent for its own.", optional(refersTo("other fluid"))),
  }),
  {
    means: "fluid that went in or ran out; every amount counts",
    about: null,
    onCard: false,
    sentence: ({ amount, way, when }) => `${amount} ${FLOWED.words[way]}, ${when}`,
    against: ({ amount }) =>
      plainSign(amount.trim()).startsWith("-")
        ? [{ path: "amount", message: `${amount} is below nothing`, remedy: "say that it ran out" }]
        : figure("amount", amount, "volume"),
  },
);

/** How learning anew ended. */
export const LEARNED = codes({ done: "learned", failed: "not learned" });
export const relearned = kind(
  "relearned",
  object({
    relearn: refersTo("relearn"),
    outcome: coded(LEARNED),
    before: about("What was learned before, as the control unit says it.", maybeWords(2_000)),
    after: about("What is learned now.", maybeWords(2_000)),
    note: maybeWords(500),
  }),
  {
    means: "a routine by which the control unit learns anew, with what it had learned before and has now",
    about: ({ relearn }) => relearn,
    sentence: ({ relearn, outcome }, nameOf) => `${nameOf(relearn)}: ${LEARNED.words[outcome]}`,
  },
);

/** How it is, driven. */
export const ON_DRIVE = codes({
  fine: "fine",
  cured: "cured",
  better: "better",
  same: "as before",
  new: "new",
});
/** A code of `ON_DRIVE`. */
export type OnDrive = CodeOf<typeof ON_DRIVE>;
const drive = whole(1, 9);
export const driven = kind(
  "driven",
  object({
    drive,
    of: about("A range, a symptom it was brought with, an item of the book.", listOnce(name, 1, 60)),
    said: coded(ON_DRIVE),
    outcome: about("What it does instead, as the diagnosis calls it.", optional(coded(OUTCOMES))),
    note: maybeWords(500),
  }),
  {
    means: "how the unit is on a drive: each range, and each symptom it was brought with",
    about: ({ drive: which, of }) => of.map((one) => `${which} ${one}`),
    sentence: ({ drive: which, of, said, note }) =>
      `drive ${which}, ${of.map((one) => one.replace(/^[a-z]+:/, "")).join(", ")}: ${ON_DRIVE.words[said]}${note ? `, ${note}` : ""}`,
  },
);

export const driveSpeeds = kind(
  "drive-speeds",
  object({ drive, range: refersTo("range", text), input: whole(1, 20_000), output: whole(0, 20_000) }),
  {
    onCard: false,
    means: "input and output speed read in a range on a drive, in turns a minute",
    about: ({ drive: which, range }) => `${which} ${range}`,
    sentence: ({ drive: which, range, input, output }) =>
      `drive ${which}, ${range}: ${input} in, ${output} out`,
  },
);

/** Whether it drives right. */
export const DROVE = codes({ right: "drives right", wrong: "does not drive right" });
export const drove = kind(
  "drive",
  object({
    drive,
    driver: words(1, 80),
    distance: matching(/^\d[\d .,]{0,6}\s*(km|mi)$/, "a distance", "write it as 20 km"),
    is: coded(DROVE),
    note: maybeWords(500),
  }),
  {
    means: "a road test at its end: by whom, how far, and whether it drives right",
    about: ({ drive: which }) => `${which}`,
    sentence: ({ drive: which, driver, distance, is }) =>
      `drive ${which} by ${driver}, ${distance}: ${DROVE.words[is]}`,
  },
);
