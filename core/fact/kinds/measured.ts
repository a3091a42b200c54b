import type { Pa } from "../../quantity";
import { GAUGES, type Reading } from "../../reading";
import {
  about,
  choice,
  flag,
  list,
  listOnce,
  maybeWords,
  nanometres,
  object,
  oneOf,
  optional,
  refersTo,
  suchThat,
  uuid,
  whole,
  words,
  type Read,
  type Shape,
} from "../../shape";
import { codes, type CodeOf } from "../codes";
import { coded, kind } from "../kind";

const name = words(1, 80);
const length = nanometres();

/** As found in the unit before anything was changed, or with the parts that will stay in. */
const phase = oneOf("found", "built");
/** When a figure was read: as it came apart, on trial, or as built. */
export type Phase = Read<typeof phase>;
const PHASES: Readonly<Record<Phase, string>> = { found: "as found", built: "as built" };

const measuredLink = object({ name, sign: oneOf(1, -1), value: length, uncertainty: nanometres(0) });
/** A link measured one by one for a reading by the numbers. */
export type MeasuredLink = Read<typeof measuredLink>;

const figures = choice("kind", {
  single: object({ value: length, back: optional(length) }),
  bracket: suchThat(object({ passes: optional(length), refuses: optional(length) }), {
    test: ({ passes, refuses }) => passes !== undefined || refuses !== undefined,
    message: "no blade",
    remedy: "give the one that passes, the one that does not, or both",
  }),
  summed: object({ value: length, uncertainty: nanometres(0) }),
}) as Shape<Reading>;

const packState = object({
  soak: oneOf("dry", "soaked"),
  facings: oneOf("new", "run-in"),
  wave: optional(oneOf("free", "flat")),
});

/** One reading of a chain, in nanometres, with gauge and state of the pack. */
export const reading = kind(
  "reading",
  object({
    chain: refersTo("chain"),
    phase,
    fit: about(
      "How often the pieces of its seats had been changed when it was read: 0 with what was found.",
      whole(0, 1000),
    ),
    method: oneOf(...GAUGES),
    state: about("The state of a pack’s facings; an end play has none.", optional(packState)),
    reading: figures,
    resolution: nanometres(0),
    unit: about("The unit it was read in.", oneOf("mm", "in", "thou", "µm")),
    typed: about("The characters typed, if it was typed.", optional(words(1, 80))),
    air: about(
      "Pressure of the air it was lifted with, in pascals.",
      optional(whole(0, 20_000_000) as Shape<Pa>),
    ),
    links: about("The links of a reading by the numbers.", optional(list(measuredLink, 0, 60))),
    item: about("Of which of the things the chain is read of, each by itself.", optional(name)),
    points: about(
      "Diameters of a bore and its journal, all of them; the links are the two that decide.",
      optional(list(object({ link: name, place: name, angle: whole(0, 359), value: length }), 0, 100)),
    ),
  }),
  {
    means: "one reading of a chain",
    about: null,
    sentence: ({ chain, phase: when, typed }, nameOf) =>
      `${nameOf(chain)} read ${PHASES[when]}${typed === undefined ? "" : `: ${typed}`}`,
  },
);
/** The body of a reading. */
export type ReadingBody = { kind: "reading" } & Read<typeof reading.shape>;

export const leaveOut = kind("leave-out", object({ reading: uuid, out: flag, reason: words(2, 500) }), {
  means: "whether a reading counts, and why not",
  about: ({ reading: id }) => id,
  sentence: ({ out, reason }) => `reading ${out ? "left out" : "counts again"}: ${reason}`,
});

export const conditions = kind(
  "conditions",
  object({ chain: refersTo("chain"), phase, fit: whole(0, 1000), met: listOnce(words(1, 200), 0, 40) }),
  {
    means: "under which of the book’s conditions a chain is read, said once for each trial assembly",
    about: ({ chain, phase: when, fit }) => `${chain} ${when} ${fit}`,
    sentence: ({ chain, met }, nameOf) =>
      `${nameOf(chain)} is read ${met.length > 0 ? `with ${met.join(", ")}` : "without its conditions"}`,
  },
);

/** Why a figure has no number: recorded as what it is, never left blank or made up. */
export const CANNOT = codes({
  "felt-only-in-order": "felt only, in order",
  "felt-only-not-in-order": "felt only, not in order",
  "seen-only": "seen only",
  "thinnest-blade-does-not-enter": "thinnest blade does not enter",
  "passes-with-drag": "passes with drag",
  "gauge-not-here-yet": "gauge not here yet",
  "does-not-run": "does not run",
  "cannot-be-reached": "cannot be reached",
});
/** A code of `CANNOT`. */
export type Cannot = CodeOf<typeof CANNOT>;

interface FigureOf {
  of: "chain" | "measurement";
  id: string;
  phase: Phase;
  item?: string;
  note: string;
}
/** A figure has a text or a reason why there is none, never both and never neither. */
type Figured = FigureOf & ({ text: string; cannot?: never } | { text?: never; cannot: Cannot });

const figured = object({
  of: oneOf("chain", "measurement"),
  id: refersTo(["chain", "measurement"]),
  phase,
  item: about("Of which of the things the book takes it of.", optional(name)),
  text: about("As typed, with its unit; absent when it could not be taken.", optional(words(1, 40))),
  cannot: optional(coded(CANNOT)),
  note: maybeWords(500),
});
export const figure = kind(
  "figure",
  suchThat(figured, {
    test: ({ text, cannot }) => (text === undefined) !== (cannot === undefined),
    message: "a figure has a text or a reason why there is none, and one of them only",
    remedy: "give `text` or `cannot`",
  }) as unknown as Shape<Figured>,
  {
    means: "a figure that is no series of readings, or why there is none",
    about: ({ of, id, phase: when, item = "" }) => [of, id, when, item].join(" "),
    sentence: ({ id, text, cannot }, nameOf) => `${nameOf(id)}: ${cannot ? CANNOT.words[cannot] : text}`,
  },
);
