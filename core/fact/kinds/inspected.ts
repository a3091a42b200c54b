import {
  about,
  day,
  flag,
  id,
  listOnce,
  maybeWords,
  object,
  optional,
  refersTo,
  suchThat,
  whole,
  words,
} from "../../shape";
import { codes, type CodeOf } from "../codes";
import { coded, kind } from "../kind";

const name = words(1, 80);

export const good = kind("good", object({ parts: listOnce(refersTo("part"), 1, 300) }), {
  means: "parts looked at and in good order; takes back what was found on them before",
  about: ({ parts }) => parts,
  sentence: ({ parts }, nameOf) => `in good order: ${parts.map(nameOf).join(", ")}`,
});

/** How far wear has gone. */
export const SEVERITIES = codes({ trace: "trace", worn: "worn", "beyond-use": "beyond use" });
/** A code of `SEVERITIES`. */
export type Severity = CodeOf<typeof SEVERITIES>;
export const finding = kind(
  "finding",
  object({
    part: refersTo("part"),
    wear: about("A kind of wear of the catalogue, or of the book.", refersTo("wear")),
    severity: coded(SEVERITIES),
    sure: about("False for a suspicion that stays open.", flag),
    pieces: about(
      "Which of several pieces, counted from the piston; absent for all of them. What was said of the others stays.",
      optional(listOnce(whole(1, 60), 1, 60)),
    ),
    note: maybeWords(500),
    there: flag,
  }),
  {
    means: "wear seen on a part, or suspected, or taken back",
    about: ({ part, wear }) => `${part} ${wear}`,
    sentence: ({ part, wear, severity, there }, nameOf) =>
      `${nameOf(part)}: ${there ? "" : "not "}${nameOf(wear)}, ${SEVERITIES.words[severity]}`,
  },
);

export const partQuestion = kind(
  "part-question",
  suchThat(
    object({
      part: refersTo("part"),
      asks: words(2, 300),
      options: about("What it could come to.", listOnce(words(1, 80), 0, 6)),
      until: about("The day it must be decided by.", optional(day)),
      waits: about("Whether the build waits for it.", flag),
      answer: about("Empty while it is open.", maybeWords(300)),
    }),
    {
      test: ({ options, answer }) => options.length !== 1 || answer !== "",
      message: "one option is no choice",
      remedy: "name at least two, or none",
      key: "options",
    },
  ),
  {
    means: "a question about a part that is still open, or what it came to",
    about: ({ part }) => part,
    sentence: ({ part, asks, answer }, nameOf) => `${nameOf(part)}: ${asks}${answer ? ` ${answer}` : ""}`,
  },
);

/** What becomes of a part. */
export const DISPOSITIONS = codes({
  reuse: "reuse",
  clean: "clean",
  "measure-first": "measure first",
  machine: "machine",
  upgrade: "upgrade",
  replace: "replace",
});
/** A code of `DISPOSITIONS`. */
export type Disposition = CodeOf<typeof DISPOSITIONS>;
/** What becomes of a part, and why. */
export const disposition = kind(
  "disposition",
  object({ part: refersTo("part"), is: coded(DISPOSITIONS), reason: words(2, 500) }),
  {
    means: "what becomes of a part, decided otherwise than proposed",
    about: ({ part }) => part,
    sentence: ({ part, is }, nameOf) => `${nameOf(part)}: ${DISPOSITIONS.words[is]}`,
  },
);

export const weakPoint = kind(
  "weak-point",
  object({
    point: refersTo("weak point"),
    answer: about("One of the point’s answers, or that it was looked at and is in order.", id),
    note: maybeWords(500),
  }),
  {
    means: "a known weak point of the unit answered",
    about: ({ point }) => point,
    sentence: ({ point, answer }, nameOf) => `${nameOf(point)}: ${nameOf(answer)}`,
  },
);

/** How sure one is of a cause. */
export const CAUSE_STANDINGS = codes({ found: "found", likely: "likely", "not-found": "not found" });
/** A code of `CAUSE_STANDINGS`. */
export type CauseStanding = CodeOf<typeof CAUSE_STANDINGS>;
/** Why something failed. */
export const cause = kind(
  "cause",
  suchThat(
    object({
      of: about("The element or part that failed.", refersTo(["part", "element"], name)),
      cause: maybeWords(200),
      standing: coded(CAUSE_STANDINGS),
      note: maybeWords(500),
      after: about("What failed first, when this one followed from it.", maybeWords(80)),
    }),
    {
      test: ({ cause: id, standing }) => standing === "not-found" || id.trim() !== "",
      message: "no cause",
      remedy: "name it, or say that it was not found",
      key: "cause",
    },
  ),
  {
    means: "why something failed, and how sure that is",
    about: ({ of }) => of,
    sentence: ({ of, cause: by, standing }, nameOf) =>
      `${nameOf(of)}: ${by ? `${by}, ` : "cause "}${CAUSE_STANDINGS.words[standing]}`,
  },
);

export const renewed = kind("renewed", object({ parts: listOnce(refersTo("part"), 1, 300), there: flag }), {
  means: "a new part went in where the old one is not used again, or that is taken back",
  about: ({ parts }) => parts,
  sentence: ({ parts, there }, nameOf) =>
    `${there ? "new in" : "not new in"}: ${parts.map(nameOf).join(", ")}`,
});
