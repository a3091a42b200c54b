import {
  about,
  flag,
  maybeWords,
  nanometres,
  object,
  optional,
  refersTo,
  suchThat,
  uuid,
  words,
} from "../../shape";
import { codes, type CodeOf } from "../codes";
import { kind, coded } from "../kind";

/** What a job can teach the book of its unit. */
export const LESSONS = codes({
  tip: "a tip for next time",
  "weak-point": "a weak point",
  tool: "a tool made here",
  limit: "a limit of the house",
});
/** A code of `LESSONS`. */
export type Lesson = CodeOf<typeof LESSONS>;

/** What this job found out that the book of its unit should say: a lead takes it over into a draft. */
export const nextTime = kind(
  "next-time",
  suchThat(
    suchThat(
      object({
        lesson: about("Said again it holds anew.", words(1, 40)),
        there: flag,
        is: coded(LESSONS),
        of: about(
          "What it is about; the whole unit where it is left out.",
          optional(
            refersTo(["step", "part", "chain", "measurement", "fastener group", "station"], words(1, 80)),
          ),
        ),
        name: about("Of a weak point or a tool.", maybeWords(80)),
        text: about("The tip; what the customer notices; what the tool does; why the limit.", words(2, 500)),
        done: about("What is done about a weak point.", maybeWords(200)),
        not: about("What a tool must not be asked to do.", maybeWords(200)),
        min: about("Of a limit of a length.", optional(nanometres())),
        max: optional(nanometres()),
        torque: about("Of a limit of bolts, as written.", maybeWords(40)),
        photo: about("The picture that shows it.", optional(uuid)),
      }),
      {
        test: ({ is, name }) => (is !== "tool" && is !== "weak-point") || name.trim() !== "",
        message: "no name",
        remedy: "give it a name in a few words",
        key: "name",
      },
    ),
    {
      test: ({ is, of, min, max, torque }) =>
        is !== "limit" || (of !== undefined && (min !== undefined || max !== undefined || torque !== "")),
      message: "no limit",
      remedy: "say which figure, and a min, a max or a torque",
      key: "of",
    },
  ),
  {
    onCard: false,
    means: "what this job found out that the book of its unit should say next time; or that it is taken back",
    about: ({ lesson }) => lesson,
    sentence: ({ is, name, text, there }) =>
      `${there ? "" : "taken back: "}${LESSONS.words[is]}: ${name ? `${name}, ` : ""}${text}`,
  },
);
