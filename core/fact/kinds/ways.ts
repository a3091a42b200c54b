import { about, maybeWords, number, object, whole, words } from "../../shape";
import { codes, type CodeOf } from "../codes";
import { coded, kind, LEADS } from "../kind";

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
  }),
  {
    onCard: false,
    means: "what one way on for this unit costs",
    about: ({ way }) => way,
    sentence: ({ way }) => `offer: ${WAYS_ON.words[way]}`,
  },
);

export const wayOn = kind("way-on", object({ way: coded(WAYS_ON), reason: words(2, 500) }), {
  onCard: false,
  means: "whether it is rebuilt; a lead decides",
  about: () => "",
  who: LEADS,
  sentence: ({ way }) => `decided: ${WAYS_ON.words[way]}`,
});
