import { PART_KINDS } from "../../book";
import {
  about,
  flag,
  list,
  maybeWords,
  nanometres,
  object,
  oneOf,
  optional,
  refersTo,
  tuple,
  uuid,
  whole,
  words,
} from "../../shape";
import { kind } from "../kind";

/** In thousandths of a picture's width and height. */
const point = tuple([whole(0, 1000), whole(0, 1000)]);

/** What came off a unit that the book has no step for: a book can be made of it. */
export const cameOff = kind(
  "came-off",
  object({
    act: about("Said again it holds anew.", words(1, 40)),
    there: flag,
    after: about(
      "The step of the book it was done after; left out where it came before all of them.",
      optional(refersTo("step")),
    ),
    what: words(1, 80),
    part: about("What kind of part it is.", optional(oneOf(...PART_KINDS))),
    count: whole(1, 60),
    way: about("Which way it sat.", maybeWords(500)),
    to: about("Where it was laid: a place of this job.", words(1, 80)),
    bolts: about(
      "Bolts that held it.",
      optional(object({ count: whole(1, 80), size: maybeWords(20), length: optional(nanometres(1)) })),
    ),
    plates: about(
      "It is a pack’s plates, counted and measured one of each.",
      optional(
        object({
          pack: words(1, 80),
          frictions: whole(0, 20),
          steels: whole(0, 20),
          friction: optional(nanometres(1)),
          steel: optional(nanometres(1)),
          clearance: about("As it was found.", optional(nanometres(0))),
        }),
      ),
    ),
    balls: about(
      "Check balls that lay in it.",
      optional(object({ count: whole(1, 60), size: optional(nanometres(1)) })),
    ),
    photo: about("The picture that its bolts or balls are marked on.", optional(uuid)),
    at: about("Where they sat, on that picture.", list(point)),
  }),
  {
    onCard: false,
    means:
      "what came off that the book has no step for: how it sat, its bolts, plates and balls; or that it is taken back",
    about: ({ act }) => act,
    sentence: ({ what, count, there }) =>
      `${count > 1 ? `${count} ` : ""}${what} ${there ? "came off" : "did not come off"}`,
  },
);
