import { checksOf, type Book } from "../../book";
import {
  about,
  codeFor,
  flag,
  listOnce,
  maybeWords,
  nearest,
  object,
  oneOf,
  optional,
  refersTo,
  suchThat,
  whole,
  words,
} from "../../shape";
import { roundsOf, VERIFY } from "../../torque";
import { codes, type CodeOf } from "../codes";
import { coded, kind } from "../kind";

const name = words(1, 120);

/** What is answered of a check. */
export const CHECKED = codes({ yes: "so", no: "not so", "cannot-see": "cannot be seen" });
/** A code of `CHECKED`. */
export type Checked = CodeOf<typeof CHECKED>;
export const check = kind(
  "check",
  suchThat(object({ step: refersTo("step"), check: name, said: coded(CHECKED), note: maybeWords(500) }), {
    test: ({ said, note }) => said !== "cannot-see" || note.trim().length >= 2,
    message: "cannot be seen, and nothing else said",
    remedy: "say how it was made sure of instead",
    key: "note",
  }),
  {
    means: "what was seen to in a step: so, not so, or not to be seen",
    about: ({ step, check: of }) => `${step} ${of}`,
    sentence: ({ step, check: of, said }, nameOf) =>
      `${nameOf(step)}: ${of.replaceAll("-", " ")}: ${CHECKED.words[said]}`,
    against: ({ step, check: of }, book: Book) => {
      const { build = [], teardown = [], stronger = [] } = book;
      const found = [...build, ...teardown].find(({ id }) => id === step);
      const asked = found ? checksOf(book, found) : [];
      // What a plan to make it stronger asks to be proven is in no step of the book, and begins with the way’s name.
      return stronger.some(({ name: way }) => of.startsWith(codeFor(way))) ||
        asked.some(({ id }) => id === of)
        ? []
        : [
            {
              path: "check",
              message: `${step} has no check "${of}"`,
              remedy: nearest(
                of,
                asked.map(({ id }) => id),
              ),
            },
          ];
    },
  },
);

export const plates = kind(
  "plates",
  object({
    step: refersTo("step"),
    element: refersTo("element"),
    in: about("How many of those the step puts in, as they lie, the first one first.", whole(0, 99)),
  }),
  {
    means: "how many plates of a pack lie in it, as they are put in one by one",
    about: ({ step, element }) => `${step} ${element}`,
    sentence: ({ element, in: there }, nameOf) => `${nameOf(element)}: ${there} plates in`,
    against: ({ element }, { packs }: Book) =>
      packs.some((one) => one.element === element)
        ? []
        : [
            {
              path: "element",
              message: `${element} has no plates`,
              remedy: nearest(
                element,
                packs.map((one) => one.element),
              ),
            },
          ],
  },
);

/** When check balls are counted into their places. */
export const LAID = codes({ laid: "as they are laid", "turned-over": "turned over" });
export const laid = kind(
  "laid",
  object({ step: refersTo("step"), round: coded(LAID), balls: listOnce(refersTo("check ball"), 0, 60) }),
  {
    means: "check balls counted into their places: as they are laid, and turned over",
    about: ({ step, round }) => `${step} ${round}`,
    sentence: ({ round, balls }) => `${balls.length} check balls in, ${LAID.words[round]}`,
  },
);

/** What became of a soak. */
export const TIMERS = codes({ started: "begun", ended: "taken out" });
export const timer = kind(
  "timer",
  object({ step: refersTo("step"), soak: refersTo("soak"), did: coded(TIMERS) }),
  {
    means: "a soak begun with a step, or what stood in it taken out",
    about: ({ step, soak }) => `${step} ${soak}`,
    sentence: ({ soak, did }, nameOf) => `${nameOf(soak)} ${TIMERS.words[did]}`,
    against: ({ step, soak }, { build = [] }: Book) => {
      const begins = build.find(({ id }) => id === step)?.starts ?? [];
      return begins.includes(soak)
        ? []
        : [{ path: "soak", message: `${step} does not begin ${soak}`, remedy: nearest(soak, begins) }];
    },
  },
);

/** What air did at the port of an element. */
export const AIR = codes({
  holds: "applies, holds, lets go",
  leaks: "leaks",
  "does-not-apply": "does not apply",
  "does-not-let-go": "does not let go",
});
/** A code of `AIR`. */
export type AirResult = CodeOf<typeof AIR>;
const measured = words(1, 40);
export const air = kind(
  "air",
  object({
    element: refersTo("element"),
    result: coded(AIR),
    pressure: about("It was tried with, with its unit.", optional(measured)),
    lost: about("What it lost in the time below, with its unit.", optional(measured)),
    over: about("How long it was watched, with its unit.", optional(measured)),
    how: oneOf("heard", "read"),
    note: maybeWords(500),
  }),
  {
    means: "an element tried with air at its port",
    about: ({ element }) => element,
    sentence: ({ element, result, lost, over }, nameOf) =>
      `${nameOf(element)} with air: ${AIR.words[result]}${lost === undefined ? "" : `, lost ${lost}${over === undefined ? "" : ` in ${over}`}`}`,
    against: ({ element }, { airChecks = [] }: Book) =>
      airChecks.some((one) => one.element === element)
        ? []
        : [
            {
              path: "element",
              message: `${element} is not tried with air`,
              remedy: nearest(
                element,
                airChecks.map((one) => one.element),
              ),
            },
          ],
  },
);

/** What became of a place of a face in one round of tightening. */
export const PLACE_DONE = codes({
  tight: "tight",
  unreached: "not reached by a wrench",
  loose: "not tight",
  moved: "tight, and it still moved",
});
/** A code of `PLACE_DONE`. */
export type PlaceDone = CodeOf<typeof PLACE_DONE>;
export const tightened = kind(
  "tightened",
  object({
    group: refersTo("fastener group"),
    round: about(
      "Of `core/torque`: part-1, part-2, …, full, angle, lap, again; or verify, of what nobody undid.",
      words(1, 20),
    ),
    places: listOnce(whole(0, 199), 1, 200),
    did: coded(PLACE_DONE),
    read: about("What the wrench said, with its unit.", optional(measured)),
  }),
  {
    means: "places of a fastener group tightened in one round",
    about: ({ group, round, places }) => places.map((place) => `${group} ${round} ${place}`),
    sentence: ({ group, round, places, did }, nameOf) =>
      `${nameOf(group)}, ${round.replaceAll("-", " ")}: ${places.map((one) => one + 1).join(", ")} ${PLACE_DONE.words[did]}`,
    against: ({ group, round, places }, { fasteners = [] }: Book) => {
      const of = fasteners.find(({ id }) => id === group);
      if (!of) return [];
      const count = of.places.length;
      const rounds = roundsOf({
        places: count,
        parts: of.passes?.length ?? 0,
        angle: of.angle !== undefined,
        again: of.retorque !== undefined,
      })
        .concat(VERIFY)
        .map(({ id }) => id);
      return [
        ...(rounds.includes(round)
          ? []
          : [{ path: "round", message: `${group} has no round "${round}"`, remedy: nearest(round, rounds) }]),
        ...places.flatMap((place, i) =>
          place < count
            ? []
            : [
                {
                  path: `places[${i}]`,
                  message: `${group} has ${count} places, counted from 0`,
                  remedy: `give one below ${count}`,
                },
              ],
        ),
      ];
    },
  },
);

export const deviation = kind(
  "deviation",
  object({
    step: refersTo("step"),
    instead: about("What of the step it stands for, as `core/build` names it; or a name of its own.", name),
    reason: words(2, 500),
    there: flag,
  }),
  {
    means: "something done otherwise than the book has it, with its reason, or that taken back",
    about: ({ step, instead }) => `${step} ${instead}`,
    sentence: ({ step, reason, there }, nameOf) =>
      `${nameOf(step)}, otherwise: ${there ? reason : "taken back"}`,
  },
);
