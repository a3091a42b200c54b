import {
  about,
  flag,
  id,
  list,
  map,
  names,
  object,
  oneOf,
  optional,
  refersTo,
  suchThat,
  text,
  tuple,
  usually,
  whole,
  type Read,
} from "../../shape";
import { LOOKS, ONLY, WEAR, type LookId, type WearId } from "../catalogue";
import { holds, measure, tolerance, width, learnt, pictured, sourced } from "./common";

/** What a part is: how it can lie, how it wears and what becomes of it follow from that. */
export const PART_KINDS = [
  ...(["friction", "steel", "waved plate", "apply plate", "reaction plate", "snap ring", "piston"] as const),
  ...([
    "spring",
    "dished spring",
    "drum",
    "shaft",
    "support",
    "sleeve",
    "bushing",
    "thrust bearing",
  ] as const),
  ...([
    "bearing",
    "taper bearing",
    "washer",
    "shim",
    "seal",
    "O-ring",
    "sealing washer",
    "sealing ring",
    "gasket",
    "gear",
    "carrier",
  ] as const),
  ...([
    "one-way clutch",
    "band",
    "servo",
    "pump",
    "pump cover",
    "pump gears",
    "converter",
    "cassette",
  ] as const),
  ...(["damper", "differential", "valve body", "valve", "separator plate", "solenoids", "sensor"] as const),
  ...(["loom", "control unit", "actuator", "accumulator", "filter", "cooler", "magnet", "pan"] as const),
  ...(["housing", "cover", "tube", "nut", "pulley", "belt", "chain", "fork", "synchroniser"] as const),
  ...(["park lock", "linkage", "fluid"] as const),
] as const;
/** What a part is, as far as wear, cleaning and reuse ask. */
export type PartKind = (typeof PART_KINDS)[number];

/** A part, and what it belongs to. */
export const part = object({
  id: names("part"),
  name: text,
  kind: optional(oneOf(...PART_KINDS)),
  number: text,
  of: about("The assembly it is part of.", optional(refersTo("part"))),
  station: optional(refersTo("station")),
  count: optional(whole(1, 60)),
  sold: about("How it is sold, when not alone.", optional(oneOf("with its assembly", "as a set"))),
  inVehicle: about("Stays in the vehicle: no step at the bench takes it off.", optional(flag)),
  oneTime: about("Never goes in twice.", optional(flag)),
  always: about(
    "Replaced on principle: a reason of the catalogue, or of `reasons`.",
    optional(refersTo("reason")),
  ),
  kit: optional(list(oneOf("seal kit", "friction kit", "full kit", "bushing kit", "filter kit"), 1)),
  heldBy: about(
    "What must come off before this can.",
    optional(list(refersTo(["part", "fastener group"]), 1)),
  ),
  wear: about(
    "How it wears or breaks: kinds of wear of the catalogue, or of `wears`.",
    optional(list(refersTo("wear"), 1)),
  ),
  instead: about(
    "A later or other part that goes in instead, and what it brings along.",
    optional(
      list(
        object({
          number: text,
          brings: text,
          forbids: about("What may not go in with it any more.", optional(text)),
          machine: about("What must be machined before it fits.", optional(text)),
        }),
        1,
      ),
    ),
  ),
  lookAlikes: about(
    "Parts that look the same, and what tells them apart.",
    optional(list(object({ part: refersTo("part"), tell: text }), 1)),
  ),
  apart: about("Why it is never taken apart here, if it is not.", optional(text)),
  then: about(
    "Where one looks next when this one is worn, and for what: its twin, what runs in it.",
    optional(list(object({ part: refersTo("part"), look: text }), 1)),
  ),
  sets: about("Traits of the unit that change when this part is fitted.", optional(map(text))),
  takes: about(
    "What it is made to carry, and what runs through it: what turns one member of the train, or what one element holds.",
    optional(
      suchThat(
        object({
          torque: measure("torque"),
          member: optional(refersTo("member")),
          element: optional(refersTo("element")),
        }),
        {
          test: ({ member, element }) => (member === undefined) !== (element === undefined),
          message: "what runs through it?",
          remedy: "give one of member and element",
        },
      ),
    ),
  ),
  good: about("How a valve's bore, a spring, a facing is when good.", optional(text)),
  ...holds,
});

/** A kind of wear that only this unit has. */
export const ownWear = object({
  id: names("wear"),
  name: text,
  look: oneOf(...(Object.keys(LOOKS) as LookId[])),
  like: about("The kind of the catalogue it counts as.", optional(oneOf(...(Object.keys(WEAR) as WearId[])))),
  breaks: about("The part is broken, and not only worn.", optional(flag)),
  cleans: about("Cleaning mends it.", optional(flag)),
});

/** A reason of this unit's own to replace a part on principle. */
export const ownReason = object({
  id: names("reason"),
  words: text,
  only: about("Only then, and not always.", optional(oneOf(...ONLY))),
});

/** A known weak point of the unit, which must be answered. */
export const weakPoint = object({
  id: names("weak point"),
  name: text,
  station: optional(refersTo("station")),
  parts: optional(list(refersTo("part"))),
  complaint: text,
  answers: about(
    "What can be answered, each with what it makes of the point's parts.",
    list(
      object({
        id,
        name: text,
        does: oneOf("replace", "machine", "clean", "look"),
        parts: about("Where it is of other parts than the point's own.", optional(list(refersTo("part"), 1))),
      }),
      1,
    ),
  ),
  ...pictured,
  ...learnt,
  ...holds,
});

/** What is measured that is no chain. */
export const MEASUREMENT_KINDS = [
  "resistance",
  "turning torque",
  "pressure",
  "spring load",
  "spring length",
  "flatness",
  "runout",
  "valve drop",
  "seen",
  "leak-down",
  "temperature",
  "voltage",
  "plate thickness",
  "fastener stretch",
] as const;

/** A figure that is not a length. */
export const measurement = object({
  id: names("measurement"),
  name: text,
  kind: oneOf(...MEASUREMENT_KINDS),
  each: about(
    "What it is taken of, each judged by itself: solenoids, valves, bolts.",
    optional(list(text, 1)),
  ),
  over: about(
    "Taken of every plate of this role in every pack in scope.",
    optional(oneOf("steels", "frictions")),
  ),
  under: about("How much thinner than its stack states a plate may be.", optional(tolerance)),
  part: optional(refersTo("part")),
  element: optional(refersTo("element")),
  range: optional(refersTo("range", text)),
  condition: optional(text),
  min: optional(text),
  max: optional(text),
  stop: about(
    "Below or above this whatever runs is stopped at once.",
    optional(object({ below: optional(text), above: optional(text) })),
  ),
  asFound: about("Taken before the unit is opened, to be held against what it leaves with.", optional(flag)),
  expect: about(
    "What should be seen, where it is no figure: falls by its own weight both ways.",
    optional(text),
  ),
  ...sourced,
  ...holds,
});

const position = object({
  at: about(
    "Where it sits on the drawn face, in hundredths from the upper left.",
    tuple([whole(0, 100), whole(0, 100)]),
  ),
  length: optional(width),
  unreached: about("A wrench does not reach it.", optional(flag)),
});

export const fastenerGroup = object({
  id: names("fastener group"),
  name: text,
  station: optional(refersTo("station")),
  count: whole(1, 80),
  size: text,
  number: about("Of one of them, where it is bought new.", optional(text)),
  length: optional(width),
  places: about(
    "Left out where nobody knows: then they are drawn in plain rows.",
    usually(list(position), []),
  ),
  torque: optional(measure("torque")),
  angle: about("Turned on by so much after the torque.", optional(measure("angle"))),
  passes: about("Torques of the passes before the last.", optional(list(measure("torque"), 1))),
  rest: about(
    "How long it stands before the last pass: tightened near, waited for, tightened full.",
    optional(measure("time")),
  ),
  pattern: optional(oneOf("star", "crosswise", "spiral", "in line", "any order")),
  thread: about(
    "What goes on it; left out where nobody knows.",
    optional(oneOf("dry", "transmission fluid", "grease", "anti-seize", "thread locker", "sealer")),
  ),
  carries: about("What it carries: washer, O-ring under the head, ground strap, bracket.", optional(text)),
  oneTime: optional(flag),
  retorque: optional(object({ wait: measure("time"), torque: measure("torque") })),
  part: optional(refersTo("part")),
  note: optional(text),
  picture: about("The face it is on, as a picture: its places are on that.", optional(refersTo("picture"))),
  ...sourced,
  ...holds,
});

export const checkBall = object({
  id: names("check ball"),
  name: optional(text),
  at: tuple([whole(0, 100), whole(0, 100)]),
  size: width,
  side: about("Which side of the body it lies on, where balls lie on both.", optional(text)),
  material: optional(text),
  picture: about("The plate it lies on, as a picture: its place is on that.", optional(refersTo("picture"))),
  ...holds,
});

/** A part of the unit: its number, station, kind, and what it belongs to. */
export type Part = Read<typeof part>;
/** A place known to give trouble: the complaint, and the answers to it with their parts. */
export type WeakPoint = Read<typeof weakPoint>;
/** A figure that is no chain: a hardness, a bore, a run-out, with its limits. */
export type Measurement = Read<typeof measurement>;
/** Fasteners tightened together: their places, size, length, torque and order. */
export type FastenerGroup = Read<typeof fastenerGroup>;
/** A check ball: its place and size. */
export type CheckBall = Read<typeof checkBall>;
