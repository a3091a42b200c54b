import { plateRole } from "../../book";
import {
  about,
  list,
  listOnce,
  nanometres,
  number,
  object,
  optional,
  refersTo,
  suchThat,
  whole,
  words,
} from "../../shape";
import { codes, type CodeOf } from "../codes";
import { coded, kind, LEADS } from "../kind";

/** What a unit is used for: the harder, the more its elements must have over. */
export const USES = codes({ usual: "usual use", towing: "towing", "high-output": "high output" });
/** A code of `USES`. */
export type Use = CodeOf<typeof USES>;

const plate = object({
  role: plateRole,
  part: about("Whose place it takes.", refersTo("part")),
  thickness: nanometres(1),
  count: whole(1, 40),
  number: about("What is bought where it is not the stock one.", optional(words(1, 80))),
});

/** What is made stronger than it was built. */
export const stronger = kind(
  "stronger",
  suchThat(
    object({
      ways: about(
        "Ways of the book that are taken; none takes the plan back.",
        listOnce(refersTo("way"), 0, 60),
      ),
      turns: about("Turns of an adjustable regulator.", optional(number(0, 20))),
      torque: about("Of the engine it is planned for, in whole N·m.", whole(1, 5_000)),
      use: coded(USES),
      packs: about(
        "The stacks that go in, from the piston outwards, and what their clearance may be then.",
        list(
          object({
            element: refersTo("pack"),
            plates: list(plate, 1, 60),
            min: nanometres(),
            max: nanometres(),
            predicted: about("The clearance as it was worked out.", nanometres()),
          }),
          0,
          30,
        ),
      ),
      cuts: list(object({ way: refersTo("way"), part: refersTo("part"), off: nanometres(1) }), 0, 30),
      reason: words(2, 500),
    }),
    {
      test: ({ packs }) => packs.every(({ min, max }) => min <= max),
      message: "the lower limit is above the upper one",
      remedy: "give the smaller first",
      key: "packs",
    },
  ),
  {
    means: "what is made stronger than it was built, and the stacks that follow from it; a lead decides",
    about: () => "",
    who: LEADS,
    sentence: ({ ways }, nameOf) =>
      ways.length === 0 ? "built as it was" : `made stronger: ${ways.map(nameOf).join(", ")}`,
  },
);
