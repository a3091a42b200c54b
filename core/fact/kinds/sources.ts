import { about, flag, maybeWords, object, optional, refersTo, suchThat, words } from "../../shape";
import { codes, type CodeOf } from "../codes";
import { coded, kind } from "../kind";
import { ODOMETER } from "./booking";

/** Where what goes in comes from. */
export const SOURCES = codes({
  bought: "bought new",
  later: "a later part instead",
  donor: "out of a donor unit",
  machined: "the old one, machined",
});
/** A code of `SOURCES`. */
export type Source = CodeOf<typeof SOURCES>;

/** Where what goes in for a part comes from, where it is not simply bought. */
export const partSource = kind(
  "part-source",
  suchThat(
    object({
      part: refersTo("part"),
      from: coded(SOURCES),
      number: about("Which later part: one of those the book names instead of it.", optional(words(1, 80))),
      of: about("The donor unit, or who machines it.", maybeWords(120)),
      distance: about("How far the donor unit ran.", optional(ODOMETER)),
      here: about("Whether it is here and ready to go in; what is bought is counted in instead.", flag),
    }),
    {
      test: ({ from, of }) => from !== "donor" || of.trim() !== "",
      message: "no donor unit",
      remedy: "say out of which unit it is",
      key: "of",
    },
  ),
  {
    means: "where what goes in for a part comes from; a later part changes the unit’s traits with it",
    about: ({ part }) => part,
    sentence: ({ part, from }, nameOf) => `${nameOf(part)}: ${SOURCES.words[from]}`,
    against: ({ part, from, number }, { parts }) => {
      const known = parts.find(({ id }) => id === part)?.instead?.map((one) => one.number) ?? [];
      return from !== "later" || (number !== undefined && known.includes(number))
        ? []
        : [
            {
              path: "number",
              message: `the book names no ${number ?? "number"} instead of ${part}`,
              remedy: known.length > 0 ? `use one of: ${known.join(", ")}` : "have it bought new",
            },
          ];
    },
  },
);

/** Where an old part goes once another is in its place. */
export const OLD_PARTS = codes({ back: "sent back", stock: "kept for stock", scrap: "scrapped" });
/** What becomes of an old part: it may be worth a deposit. */
export const oldPart = kind("old-part", object({ part: refersTo("part"), goes: coded(OLD_PARTS) }), {
  onCard: false,
  means: "what becomes of an old part: sent back for its deposit, kept for stock, scrapped",
  about: ({ part }) => part,
  sentence: ({ part, goes }, nameOf) => `old ${nameOf(part)}: ${OLD_PARTS.words[goes]}`,
});
