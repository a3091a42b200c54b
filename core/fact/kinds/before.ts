import { about, maybeWords, object, oneOf, optional, refersTo, words } from "../../shape";
import { codes, type CodeOf } from "../codes";
import { coded, kind } from "../kind";

/** How the fluid looks on arrival. */
export const FLUID_LOOKS = codes({
  "red-or-clear": "red or clear",
  brown: "brown",
  black: "black",
  milky: "milky",
  "none-came-out": "none came out",
});
/** How the fluid smells on arrival. */
export const FLUID_SMELLS = codes({ "as-new": "as new", old: "old", burnt: "burnt" });
export const fluid = kind(
  "fluid",
  object({
    look: coded(FLUID_LOOKS),
    smell: coded(FLUID_SMELLS),
    note: maybeWords(500),
    of: about(
      "Which other fluid of the unit; absent for the transmission’s own.",
      optional(refersTo("other fluid")),
    ),
  }),
  {
    means: "how a fluid of the unit looks and smells",
    about: ({ of }) => of ?? "",
    sentence: ({ look, smell, of }, nameOf) =>
      `${of ? nameOf(of) : "fluid"} ${FLUID_LOOKS.words[look]}, smells ${FLUID_SMELLS.words[smell]}`,
  },
);

/** Where debris was found. */
export const DEBRIS_PLACES = codes({
  pan: "pan",
  magnet: "magnet",
  filter: "filter",
  cooler: "cooler",
  neighbour: "neighbour",
});
/** How much debris there is, by eye. */
export const DEBRIS_AMOUNTS = codes({ none: "none", trace: "trace", some: "some", much: "much" });
/** What is found in a pan, on a magnet, in a filter. */
export const DEBRIS_KINDS = ["fuzz", "flakes", "chunks", "friction", "brass", "aluminium"] as const;
/** A kind of debris: what the flakes are of. */
export type DebrisKind = (typeof DEBRIS_KINDS)[number];

/** What lay in pan, filter, magnet or cooler, and how much of it. */
export const debris = kind(
  "debris",
  object({ where: coded(DEBRIS_PLACES), what: oneOf(...DEBRIS_KINDS), amount: coded(DEBRIS_AMOUNTS) }),
  {
    means: "what metal or facing material was found where, and how much; none of it too",
    about: ({ where, what }) => `${where} ${what}`,
    sentence: ({ where, what, amount }) => `${amount} ${what}, ${where}`,
  },
);

/** How a control unit’s figures came into the job. */
export const READ_OUT_FROM = codes({ typed: "typed", pasted: "pasted", "scan-tool": "scan tool" });
export const readOut = kind(
  "read-out",
  object({ readOut: refersTo("read-out"), text: words(1, 20_000), from: coded(READ_OUT_FROM) }),
  {
    onCard: false,
    means: "what the control unit knew, read out before opening",
    about: ({ readOut: id }) => id,
    sentence: ({ readOut: id }, nameOf) => `read out: ${nameOf(id)}`,
  },
);

/** A code of `FLUID_LOOKS`. */
export type FluidLook = CodeOf<typeof FLUID_LOOKS>;
/** A code of `FLUID_SMELLS`. */
export type FluidSmell = CodeOf<typeof FLUID_SMELLS>;
/** A code of `DEBRIS_PLACES`. */
export type DebrisPlace = CodeOf<typeof DEBRIS_PLACES>;
/** A code of `DEBRIS_AMOUNTS`. */
export type DebrisAmount = CodeOf<typeof DEBRIS_AMOUNTS>;
