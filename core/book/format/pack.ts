import { GAUGES } from "../../reading";
import {
  day,
  flag,
  list,
  names,
  number,
  object,
  oneOf,
  oneOrMore,
  optional,
  refersTo,
  text,
  tuple,
  whole,
  type Read,
  type Shape,
} from "../shape";
import { allowance, holds, length, measure } from "./common";

export const stackEntry = object({
  role: oneOf("piston", "apply plate", "waved plate", "cushion plate", "steel", "friction", "reaction plate"),
  part: refersTo("part"),
  thickness: length,
  count: optional(whole(1, 20)),
  /** Whether a friction is faced on both sides (the usual) or on one. */
  faced: optional(oneOf("both sides", "inner side", "outer side")),
  /** What a waved plate stands up when free, beyond its thickness. */
  wave: optional(allowance),
  /** Which way round it lies: step up, bevel out, dish towards the piston. */
  lies: optional(text),
  ...holds,
});

const piston = object({
  /** Diameters of the pressed ring. */
  outer: length,
  inner: length,
  area: measure("area"),
  seals: text,
  /** Where fluid leaves at speed. */
  bleed: optional(text),
  balanced: optional(flag),
});

const returnSpring = object({
  kind: oneOf("coils", "wave", "dished"),
  force: measure("force"),
  /** A dished spring as a lever between piston and plates: what it multiplies the force by. */
  lever: optional(number(1, 10)),
});

const groove = object({
  id: names("groove"),
  /** The series that belongs in it. */
  ring: refersTo("series"),
  /** Series that go in by mistake. */
  alsoTakes: optional(list(refersTo("series"))),
  bevel: optional(text),
});

/** What an element's plates are, from the piston outwards. */
const packKeys = {
  element: refersTo("element"),
  name: text,
  /** `shifting` packs are read against their target; one that engages only at standstill may sit anywhere inside. */
  duty: oneOf("shifting", "standstill"),
  station: refersTo("station"),
  stack: list(stackEntry, 1),
  /** Radii of the facings. */
  facing: optional(object({ inner: length, outer: length, friction: number(0.02, 0.6) })),
  piston: optional(piston),
  spring: optional(returnSpring),
  pressure: optional(measure("pressure")),
  grooves: optional(list(groove)),
  /** Looks like wear and is not, in this unit. */
  normal: optional(list(text)),
  ...holds,
};
const packShape = object(packKeys);
/** A pack is named by its element. */
export const pack: Shape<Read<typeof packShape>> = {
  read: (value, path, reading) => {
    const read = packShape.read(value, path, reading);
    if (typeof read?.element === "string") reading.name("pack", read.element, `${path}.element`);
    return read;
  },
  schema: packShape.schema,
};

export const series = object({
  id: names("series"),
  name: text,
  kind: oneOf("snap ring", "plate", "washer", "shim", "pin", "gear"),
  /** Half-width of what a marked size may be off. */
  tolerance: length,
  sizes: list(object({ mark: text, size: length, part: text }), 1),
});

/** Where a figure comes from when it is not the unit's own source, and the day it was last checked. */
const spec = object({
  min: length,
  max: length,
  /** Where in the range the source wants it, when it says. */
  target: optional(length),
  soak: optional(oneOf("dry", "soaked")),
  facings: optional(oneOf("new", "run-in")),
  wave: optional(oneOf("free", "flat")),
  source: optional(text),
  checked: day,
  ...holds,
});

const reading = object({
  with: list(oneOf(...GAUGES), 1),
  air: optional(measure("pressure")),
  gasket: optional(oneOf("in", "out")),
  /** How many bolts of which group are in while it is read, at what torque. */
  bolts: optional(
    object({ group: refersTo("fastener group"), count: whole(1, 60), torque: measure("torque") }),
  ),
  /** Where it is read: places round or along, and how many points in all. */
  places: optional(list(text, 1)),
  points: optional(whole(1, 40)),
  /** What is read and judged each by itself: pinions, rings, gears, pads. */
  each: optional(list(text, 1)),
  /** How it is done, in a sentence. */
  how: optional(text),
});

/** The links of a chain; a nominal size where the drawing has one, so that the chain can be added up without a unit in hand. */
const link = tuple(
  [oneOf("+", "-"), oneOf("measured", "machined", "part", "stack", "series"), text, length],
  3,
);

export const chain = object({
  id: names("chain"),
  name: text,
  kind: oneOf(
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
  ),
  /** The pack whose clearance it is. */
  of: optional(refersTo("pack")),
  station: optional(refersTo("station")),
  /** The parts whose wear it shows. */
  parts: optional(list(refersTo("part"), 1)),
  links: list(link, 1),
  spec: oneOrMore(spec),
  soaking: optional(allowance),
  bedding: optional(allowance),
  read: reading,
  /** Taken before the unit is opened, to be held against what it leaves with. */
  asFound: optional(flag),
  /** Which way a pressed-in part is turned: its oil hole, its split. */
  clocking: optional(text),
  ...holds,
});

/** One chain's result against another's in the same unit. */
export const order = tuple([refersTo("chain"), oneOf("<="), refersTo("chain")]);

export type Pack = Read<typeof pack>;
export type StackEntry = Read<typeof stackEntry>;
export type Series = Read<typeof series>;
export type SeriesSize = Series["sizes"][number];
export type Chain = Read<typeof chain>;
export type ChainLink = Chain["links"][number];
