import { GAUGES } from "../../reading";
import {
  about,
  flag,
  list,
  namedBy,
  names,
  number,
  object,
  oneOf,
  oneOrMore,
  optional,
  refersTo,
  suchThat,
  text,
  tuple,
  usually,
  whole,
  type Read,
} from "../../shape";
import { allowance, holds, length, measure, shows, sourced, tolerance, width } from "./common";

export { ORIGINS, type Origin } from "./common";

/** What lies in a pack. */
export const plateRole = oneOf(
  ...(["piston", "apply plate", "waved plate", "cushion plate"] as const),
  ...(["steel", "friction", "reaction plate"] as const),
);

export const stackEntry = object({
  role: plateRole,
  part: refersTo("part"),
  thickness: about("Of one, new; absent where nobody knows it yet.", optional(width)),
  count: optional(whole(1, 20)),
  faced: about(
    "Whether a friction is faced on both sides (the usual) or on one.",
    optional(oneOf("both sides", "inner side", "outer side")),
  ),
  wave: about("What a waved plate stands up when free, beyond its thickness.", optional(allowance)),
  lies: about("Which way round it lies: step up, bevel out, dish towards the piston.", optional(text)),
  shows: about("What of it is drawn.", optional(shows)),
  seat: about(
    "This one plate is chosen: the seat it sits in, a link of the pack's chain. Its thickness here is the usual one.",
    optional(refersTo("seat")),
  ),
  ...holds,
});

const piston = object({
  outer: about("Diameters of the pressed ring.", width),
  inner: width,
  area: measure("area"),
  seals: text,
  bleed: about("Where fluid leaves at speed.", optional(text)),
  balanced: optional(flag),
});

const returnSpring = object({
  kind: oneOf("coils", "wave", "dished"),
  force: measure("force"),
  lever: about(
    "A dished spring as a lever between piston and plates: what it multiplies the force by.",
    optional(number(1, 10)),
  ),
});

const groove = object({
  id: names("groove"),
  ring: about("The series that belongs in it.", refersTo("series")),
  alsoTakes: about("Series that go in by mistake.", optional(list(refersTo("series")))),
  bevel: optional(text),
});

/** What an element's plates are, from the piston outwards. */
const packShape = object({
  element: refersTo("element"),
  name: text,
  duty: about(
    "`shifting` packs are read against their target; one that engages only at standstill may sit anywhere inside.",
    oneOf("shifting", "standstill"),
  ),
  station: refersTo("station"),
  stack: about("Left out where nobody has counted them.", usually(list(stackEntry), [])),
  facing: about(
    "Radii of the facings.",
    optional(object({ inner: width, outer: width, friction: number(0.02, 0.6) })),
  ),
  piston: optional(piston),
  spring: optional(returnSpring),
  pressure: optional(measure("pressure")),
  grooves: optional(list(groove)),
  normal: about("Looks like wear and is not, in this unit.", optional(list(text))),
  from: about(
    "Where its plates are put in from, when that needs saying: from the far side, the piston presses through posts.",
    optional(text),
  ),
  ...holds,
});
/** A pack is named by its element. */
export const pack = namedBy("pack", "element", packShape);

export const series = object({
  id: names("series"),
  name: text,
  kind: oneOf("snap ring", "plate", "washer", "shim", "pin", "gear"),
  tolerance: about("Half-width of what a marked size may be off.", tolerance),
  sizes: list(
    object({
      mark: text,
      size: width,
      part: text,
      colour: optional(text),
      tabs: about("How many tabs or lugs it is told by.", optional(whole(0, 24))),
    }),
    1,
  ),
});

/** Set by a screw: travel = turns backed off × pitch × lever ratio. */
const screw = object({
  pitch: width,
  lever: about("What the lever between screw and band makes of it; 1 where there is none.", number(0.1, 10)),
  steps: about("Into how many parts a turn is told.", whole(1, 24)),
  most: about("Turns it is backed off at most.", whole(1, 12)),
  snug: about("What it is tightened to before it is backed off.", measure("torque")),
  lockNut: optional(measure("torque")),
  tolerance: about("Half-width of what it comes to once the lock nut is tight.", tolerance),
});

/** A link that is taken down: the part loses so much. */
const cut = object({
  part: refersTo("part"),
  step: about("What the machine takes off at least.", width),
  most: about("So much may come off in all.", width),
  left: about("What must be left of it.", optional(width)),
  touches: about("What it comes near to once it is retracted.", optional(text)),
  relief: about("What must be relieved then.", optional(text)),
  tool: text,
  tolerance,
});

/** One of several grooves, each farther from the piston by so much. */
const grooveChoice = object({ mark: text, farther: tolerance });

const seatShape = object({
  id: names("seat"),
  name: text,
  station: optional(refersTo("station")),
  series: about("What is put in it: the sizes of a series,", optional(refersTo("series"))),
  screw: about("or a screw that is set,", optional(screw)),
  cut: about("or metal that is taken off,", optional(cut)),
  grooves: about("or which of its grooves the ring goes into.", optional(list(grooveChoice, 2))),
  trial: about(
    "A piece of known size that it is read with and that does not stay in.",
    optional(object({ mark: text, size: width })),
  ),
  usual: about(
    "The mark of what is in it unless somebody says otherwise: a steel like the others. Another is put in only where nothing else will do.",
    optional(text),
  ),
  empty: about("It may stay empty: the second of two shims.", optional(flag)),
  beside: about(
    "What lies near it and is not it: a fixed washer or race, with what tells them apart.",
    optional(text),
  ),
  first: about("Seats that are set before this one.", optional(list(refersTo("seat"), 1))),
});
/** One place where one selective sits. It may stand in several chains, and a chain may have several. */
export const seat = suchThat(seatShape, {
  test: ({ series: of, screw: by, cut: off, grooves }) =>
    [of, by, off, grooves].filter((one) => one !== undefined).length === 1,
  message: "what is chosen in it?",
  remedy: "give one of series, screw, cut and grooves",
});

const spec = object({
  min: about(
    "Left out where no limit is known on that side; without either nothing is judged.",
    optional(length),
  ),
  max: optional(length),
  target: about("Where in the range the source wants it, when it says.", optional(length)),
  soak: optional(oneOf("dry", "soaked")),
  facings: optional(oneOf("new", "run-in")),
  wave: optional(oneOf("free", "flat")),
  ...sourced,
  ...holds,
});

const reading = object({
  with: list(oneOf(...GAUGES), 1),
  air: optional(measure("pressure")),
  gasket: optional(oneOf("in", "out")),
  bolts: about(
    "How many bolts of which group are in while it is read, at what torque.",
    optional(object({ group: refersTo("fastener group"), count: whole(1, 60), torque: measure("torque") })),
  ),
  places: about(
    "Where it is read: places round or along, and how many points in all.",
    optional(list(text, 1)),
  ),
  points: optional(whole(1, 40)),
  each: about(
    "What is read and judged each by itself: pinions, rings, gears, pads.",
    optional(list(text, 1)),
  ),
  how: about("How it is done, in a sentence.", optional(text)),
  conditions: about(
    "What else must be so for a reading to count: shaft ring out, unit upright, drums home.",
    optional(list(text, 1)),
  ),
});

/** The links of a chain; a nominal size where the drawing has one, so that the chain can be added up without a unit in hand. */
const link = tuple(
  [oneOf("+", "-"), oneOf("measured", "machined", "part", "stack", "series", "seat"), text, length],
  3,
);

/** What a chain closes in. */
export const CHAIN_KINDS = [
  "pack clearance",
  "end play",
  "bushing clearance",
  "pump clearance",
  "side clearance",
  "end gap",
  "preload",
  "pinion depth",
  "backlash",
  "servo travel",
  "rest position",
  "pulley alignment",
  "converter depth",
  "installed depth",
  "wear gap",
] as const;

/** A chain of lengths along the unit that closes in one clearance, end play, preload or depth. */
export const chain = object({
  id: names("chain"),
  name: text,
  kind: oneOf(...CHAIN_KINDS),
  of: about("The pack whose clearance it is.", optional(refersTo("pack"))),
  station: optional(refersTo("station")),
  parts: about("The parts whose wear it shows.", optional(list(refersTo("part"), 1))),
  links: list(link, 1),
  spec: about("What it is held against; left out where no limit is known.", usually(oneOrMore(spec), [{}])),
  soaking: optional(allowance),
  bedding: optional(allowance),
  read: reading,
  asFound: about("Taken before the unit is opened, to be held against what it leaves with.", optional(flag)),
  clocking: about("Which way a pressed-in part is turned: its oil hole, its split.", optional(text)),
  ...holds,
});

/** One chain's result against another's in the same unit. */
export const order = tuple([refersTo("chain"), oneOf("<="), refersTo("chain")]);

/** A pack: the stack of its plates in the order they lie, and what closes it. */
export type Pack = Read<typeof pack>;
/** One entry of a pack’s stack: a plate, how many of it, how it lies. */
export type StackEntry = Read<typeof stackEntry>;
/** A series of selectives: sizes in steps, with their marks. */
export type Series = Read<typeof series>;
/** One place where one selective sits, as the book states it. */
export type Seat = Read<typeof seat>;
/** One size of a series: its mark, its thickness in nanometres, its part number. */
export type SeriesSize = Series["sizes"][number];
/** A chain as the book states it; whether it applies is `resolve`’s answer. */
export type Chain = Read<typeof chain>;
/** One link: its sign, how it is known, its name, its nominal in nanometres. */
export type ChainLink = Chain["links"][number];
