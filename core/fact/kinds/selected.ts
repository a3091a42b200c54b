import type { Piece } from "../../chain";
import {
  about,
  flag,
  list,
  listOnce,
  maybeWords,
  nanometres,
  number,
  object,
  optional,
  refersTo,
  suchThat,
  whole,
  words,
  type Shape,
} from "../../shape";
import { codes } from "../codes";
import { coded, kind, LEADS } from "../kind";

const chain = refersTo("chain");
/** A chain’s own seat is called after the chain. */
const seat = refersTo(["seat", "chain"]);
const piece: Shape<Piece> = suchThat(
  object({
    part: optional(words(1, 80)),
    mark: optional(words(1, 80)),
    size: about("0 where nothing is in, or nothing was taken off.", optional(nanometres(0))),
    measured: optional(nanometres(0)),
  }),
  {
    test: ({ size, measured }) => size !== undefined || measured !== undefined,
    message: "neither a size nor a measure",
    remedy: "give what its mark stands for, or what a micrometer said",
  },
);

/** Where a selective came from. */
export const ORIGINS = codes({
  found: "found",
  shelf: "shelf",
  "odd-piece": "odd piece",
  ordered: "ordered",
  made: "set or made here",
  trial: "to read with, not to stay",
});
export const fitting = kind(
  "fitting",
  object({
    seat,
    fit: whole(0, 1000),
    piece,
    origin: coded(ORIGINS),
    note: about(
      "How a part was machined: with which tool, what is left of it, who proved it.",
      optional(words(1, 500)),
    ),
  }),
  {
    means: "which selective is in: fit 0 as found, later ones off the shelf, or set and made on the spot",
    about: ({ seat: id, fit }) => `${id} ${fit}`,
    // Anything later comes off the shelf, with its movement.
    bench: ({ fit, origin }) => fit === 0 && origin === "found",
    sentence: ({ seat: id, piece: { mark }, origin }, nameOf) =>
      `${nameOf(id)}: ${mark ?? "a piece"}, ${ORIGINS.words[origin]}`,
  },
);

export const unseen = kind("unseen", object({ seat, reason: words(2, 500) }), {
  means: "what was in a seat was not seen, and why: it fell out, it was off before anybody looked",
  about: ({ seat: id }) => id,
  sentence: ({ seat: id, reason }, nameOf) => `${nameOf(id)}: what was in was not seen, ${reason}`,
});

/** What became of a piece that was in already. */
export const TAKEN_OUT = codes({
  out: "taken out",
  "in-again": "in again",
  "not-out": "was in all along",
});
export const takenOut = kind(
  "taken-out",
  object({ seat, fit: whole(0, 1000), was: coded(TAKEN_OUT), measured: optional(nanometres(1)) }),
  {
    means:
      "that the piece that is in was taken out, or the same one put in again: what was read before is of another assembly",
    about: null,
    sentence: ({ seat: id, was }, nameOf) => `${nameOf(id)}: ${TAKEN_OUT.words[was]}`,
  },
);

/** The selective a builder chose for a seat. */
export const choice = kind(
  "choice",
  object({
    seat,
    fit: whole(0, 1000),
    kept: flag,
    reason: maybeWords(500),
    // What was expected when choosing: kept to be held against the outcome, never shown as a measurement.
    predictions: list(
      object({ chain, mean: nanometres(), expanded: nanometres(), chance: number(0, 1) }),
      1,
      20,
    ),
  }),
  {
    means: "which selective the builder chose, why, and what was expected of every figure it moves",
    about: ({ seat: id, fit }) => `${id} ${fit}`,
    bench: false,
    sentence: ({ seat: id, kept }, nameOf) => `${nameOf(id)}: ${kept ? "kept" : "another chosen"}`,
  },
);

export const explained = kind("explained", object({ chain, fit: whole(0, 1000), reason: words(2, 500) }), {
  means: "why a figure as built is not what was predicted of it, found by whoever looked",
  about: ({ chain: id, fit }) => `${id} ${fit}`,
  sentence: ({ chain: id, reason }, nameOf) => `${nameOf(id)} is not as predicted: ${reason}`,
});

export const signOff = kind(
  "sign-off",
  object({ of: listOnce(words(1, 120), 1, 500), reason: words(2, 500), signedBy: words(1, 80) }),
  {
    means: "what was not answered before closing, and a lead answers for as it is",
    about: ({ of }) => of,
    who: LEADS,
    bench: false,
    sentence: ({ of, signedBy }) => `${of.length} left as they are, signed by ${signedBy}`,
  },
);

export const waiver = kind("waiver", object({ chain, reason: maybeWords(500), signedBy: words(1, 80) }), {
  means: "a figure that leaves as it is, signed by a lead",
  about: ({ chain: id }) => id,
  who: LEADS,
  bench: false,
  sentence: ({ chain: id, signedBy }, nameOf) => `${nameOf(id)} signed off by ${signedBy}`,
});
