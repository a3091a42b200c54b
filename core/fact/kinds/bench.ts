import {
  about,
  flag,
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
/** A part, or a group of bolts as `bolts:` and its id. */
const things = listOnce(refersTo(["part", "fastener group", "bolts"], name), 1, 300);

/** What became of a step. */
export const STEP_DONE = codes({ done: "done", skipped: "skipped", undone: "undone" });
/** A code of `STEP_DONE`. */
export type StepDone = CodeOf<typeof STEP_DONE>;
export const step = kind(
  "step",
  suchThat(
    object({
      step: refersTo("step"),
      did: coded(STEP_DONE),
      reason: maybeWords(500),
      to: about(
        "Where what came off was laid; what must not be used again goes out of circulation by itself.",
        optional(name),
      ),
    }),
    {
      test: ({ did, reason }) => did !== "skipped" || reason.trim().length >= 2,
      message: "skipped without a reason",
      remedy: "say why: already off, not needed",
      key: "reason",
    },
  ),
  {
    means: "a step of the book done, passed over for a reason, or undone",
    about: ({ step: id }) => id,
    sentence: ({ step: id, did }, nameOf) => `${nameOf(id)} ${STEP_DONE.words[did]}`,
  },
);

export const boltsOut = kind(
  "out",
  object({ group: refersTo("fastener group"), places: listOnce(whole(0, 199), 0, 200) }),
  {
    means: "which places of a fastener group are out",
    about: ({ group }) => group,
    sentence: ({ group, places }, nameOf) => `${nameOf(group)}: ${places.length} out`,
  },
);

/** Sorts of places where parts of a job lie. */
export const PLACE_SORTS = codes({ case: "case", tray: "tray", bin: "bin", bag: "bag" });
/** A code of `PLACE_SORTS`. */
export type PlaceSort = CodeOf<typeof PLACE_SORTS>;
/** A place of this job: a tray, bin, bag, or the case itself. */
export const place = kind("place", object({ place: name, sort: coded(PLACE_SORTS), name: words(1, 60) }), {
  onCard: false,
  means: "a tray, bin or bag of this job",
  about: ({ place: id }) => id,
  sentence: ({ name: called, sort }) => `${PLACE_SORTS.words[sort]} ${called}`,
});

/** Where a thing lies that lies in no place of the job's own. */
export const IN_UNIT = "unit";
/** The place of what is out of circulation. */
export const SCRAPPED = "scrap";
/** Laid down, in no tray of its own. */
export const ON_BENCH = "bench";
export const laidDown = kind("lies", object({ things, place: name }), {
  onCard: false,
  means: "parts or bolts laid somewhere: a place of this job, back in the unit, or out of circulation",
  about: ({ things: all }) => all,
  sentence: ({ things: all, place: to }, nameOf) => `${all.map(nameOf).join(", ")} → ${to}`,
});

/** How a part was marked so that it goes back as it sat. */
export const MATCH_MARKS = codes({
  "makers-mark": "maker’s mark",
  "own-mark": "own mark",
  "needs-none": "needs none",
});
/** A code of `MATCH_MARKS`. */
export type MatchMark = CodeOf<typeof MATCH_MARKS>;
export const howItSat = kind(
  "sat",
  object({ part: refersTo("part"), way: maybeWords(500), mark: coded(MATCH_MARKS), note: maybeWords(500) }),
  {
    means: "how a part sat before it came off, and what tells it from now on",
    about: ({ part }) => part,
    sentence: ({ part, way }, nameOf) => `${nameOf(part)} sat ${way}`,
  },
);

export const noted = kind("noted", object({ record: refersTo("record"), text: words(1, 500) }), {
  means: "what a step of the book asks to be noted down",
  about: ({ record }) => record,
  sentence: ({ record, text }, nameOf) => `${nameOf(record)}: ${text}`,
});

export const count = kind("count", object({ of: refersTo(["part", "bolts"], name), found: whole(0, 999) }), {
  means: "how many of a thing came out",
  about: ({ of }) => of,
  sentence: ({ of, found }, nameOf) => `${nameOf(of)}: ${found} counted`,
});

export const balls = kind(
  "balls",
  object({ there: listOnce(refersTo("check ball"), 0, 60), extra: whole(0, 60) }),
  {
    means: "check balls by their places in the book, and how many lay where it has none",
    about: () => "",
    sentence: ({ there, extra }) => `${there.length + extra} check balls`,
  },
);

/** What an earlier builder did, or what another version left. */
export const FOUND_WRONG = codes({
  "too-many": "too many",
  "too-few": "too few",
  missing: "missing",
  "turned-round": "turned round",
  "from-another-pack": "from another pack",
  "another-versions-part": "another version’s part",
  "ring-in-the-wrong-groove": "ring in the wrong groove",
  "damaged-by-an-earlier-repair": "damaged by an earlier repair",
});
/** A code of `FOUND_WRONG`. */
export type FoundWrong = CodeOf<typeof FOUND_WRONG>;
export const wrong = kind(
  "wrong",
  object({ what: coded(FOUND_WRONG), of: name, note: maybeWords(500), there: flag }),
  {
    means: "what was found built wrong, or is taken back",
    about: ({ what, of }) => `${what} ${of}`,
    sentence: ({ what, of, there }, nameOf) =>
      `${nameOf(of)}: ${there ? "" : "not "}${FOUND_WRONG.words[what]}`,
  },
);

/** A part that comes off is dirty; opened on the bench, what was bagged is dirty again. */
export const CLEANLINESS = codes({
  dirty: "dirty",
  masked: "masked",
  clean: "clean",
  bagged: "bagged",
  opened: "opened",
});
/** A code of `CLEANLINESS`. */
export type Cleanliness = CodeOf<typeof CLEANLINESS>;
/** The steps of cleaning a part, in their order. */
export const CLEANING_STEPS = codes({
  washed: "washed",
  rinsed: "rinsed",
  blown: "blown",
  dried: "dried",
  "passages-blown": "passages blown",
  flushed: "flushed",
});
/** A code of `CLEANING_STEPS`. */
export type CleaningStep = CodeOf<typeof CLEANING_STEPS>;
export const cleaning = kind(
  "cleaning",
  object({
    things: listOnce(name, 1, 300),
    state: coded(CLEANLINESS),
    did: listOnce(coded(CLEANING_STEPS), 0, 6),
  }),
  {
    means: "parts, or places where metal hides, cleaned, masked, bagged or opened again",
    about: ({ things: all }) => all,
    sentence: ({ things: all, state }) => `${all.length} ${CLEANLINESS.words[state]}`,
  },
);
