import {
  choice,
  about,
  list,
  names,
  number,
  object,
  oneOf,
  optional,
  refersTo,
  text,
  tuple,
  whole,
  type Read,
} from "../../shape";
import { OUTSIDE, type Outside } from "../catalogue";
import { holds, measure, width } from "./common";

/** What is drawn at a place along the shaft. */
export const STATION_KINDS = [
  "converter",
  "pump",
  "gear set",
  "drum",
  "brake",
  "band",
  "support",
  "shaft",
  "pulley",
  "fork",
  "clutch",
  "transfer",
  "differential",
  "control",
  "park lock",
  "output",
] as const;

/** Where things sit along the shaft, and what kind of thing is drawn there. */
export const station = object({
  id: names("station"),
  name: text,
  kind: oneOf(...STATION_KINDS),
  line: about(
    "Which of the unit's shafts it sits on, the input's being 0; each is drawn as a line of its own.",
    optional(whole(0, 3)),
  ),
  from: about(
    "Where it sits along the shaft, in hundredths of the unit's length from the front.",
    number(0, 100),
  ),
  to: number(0, 100),
  reach: about(
    "How far it reaches out from the shaft, in hundredths of the case's half height.",
    number(5, 100),
  ),
});

const toothed = (most: number) => tuple([refersTo("member"), whole(5, most)]);

/**
 * Gears that mesh. A compound set is two sets that share a carrier and a ring; a gear pair is two gears on shafts side by side, whose
 * idlers turn the sense round; a pulley pair has a ratio that moves between two ends.
 */
const planetary = {
  id: names("gear set"),
  sun: toothed(200),
  ring: toothed(400),
  carrier: refersTo("member"),
  pinion: about("Teeth of a pinion and how many there are, where the source tells.", optional(whole(5, 200))),
  pinions: optional(whole(1, 12)),
};
/** What a gear set is. */
export const GEAR_SET_KINDS = ["simple", "double-pinion", "gear pair", "pulley pair"] as const;

export const gearSet = choice("kind", {
  simple: object(planetary),
  "double-pinion": object(planetary),
  "gear pair": object({
    id: names("gear set"),
    driver: toothed(200),
    driven: toothed(200),
    idlers: optional(whole(0, 3)),
  }),
  "pulley pair": object({
    id: names("gear set"),
    primary: refersTo("member"),
    secondary: refersTo("member"),
    low: about("Turns of the primary for one of the secondary at both ends.", number(0.1, 10)),
    high: number(0.1, 10),
  }),
});

/** What a band’s grip is worked out from. */
const band = object({
  drum: about("Radius of the drum it lies on.", width),
  wrap: about("How far round the drum it lies; above 360° for one that goes round twice.", measure("angle")),
  friction: number(0.02, 0.6),
  winds: about(
    "The sense in which its drum must be driven, seen from the front, for the band to wind itself tighter.",
    oneOf("forward", "backward"),
  ),
  area: about("Of the servo’s piston on its apply side.", measure("area")),
  spring: about("What pushes the servo back.", optional(measure("force"))),
  lever: about(
    "What a lever between servo and band makes of the force; 1 where there is none.",
    number(0.1, 10),
  ),
  pressure: measure("pressure"),
  duty: oneOf("shifting", "standstill"),
});

/** What an element of the train is. */
export const ELEMENT_KINDS = ["clutch", "brake", "band", "one-way clutch", "synchroniser"] as const;

export const element = object({
  id: names("element"),
  name: optional(text),
  kind: oneOf(...ELEMENT_KINDS),
  joins: about(
    "The two members it ties; absent where nobody knows them yet: nothing is solved of it then.",
    optional(tuple([refersTo("member"), refersTo("member")])),
  ),
  aka: list(text),
  free: about(
    "The sense in which the first member of a one-way clutch may turn past the second, seen from the front.",
    optional(oneOf("forward", "backward")),
  ),
  fork: about(
    "The fork that moves a synchroniser; one that moves several takes their gears with it.",
    optional(refersTo("part")),
  ),
  servo: about("What works a band or brake: where its servo sits, in words.", optional(text)),
  band: optional(band),
  carries: about(
    "What a one-way clutch, a synchroniser or a dry disc is made to carry: it has no plates to work it out from.",
    optional(measure("torque")),
  ),
  outside: about(
    "Applied for something other than a range: the converter's lock-up, driven wheels front and rear.",
    optional(oneOf(...(Object.keys(OUTSIDE) as Outside[]))),
  ),
  ...holds,
});

export const range = object({
  id: names("range", text),
  name: optional(text),
  applied: list(refersTo("element")),
  braking: about("Applied besides under engine braking only.", optional(list(refersTo("element")))),
  ratio: number(-40, 40),
});

/** The gear train: input, output, what is held, members and gear sets. */
export const train = object({
  input: refersTo("member"),
  output: refersTo("member"),
  held: about("The member that never turns.", refersTo("member")),
});

/** A place along the unit’s axis, from and to in hundredths of its length. */
export type Station = Read<typeof station>;
/** One gear set of the train: a planetary set, gear pair or pulley pair, with its tooth counts. */
export type GearSet = Read<typeof gearSet>;
/** A clutch, brake, band, one-way clutch or synchroniser: what it joins or holds. */
export type Element = Read<typeof element>;
/** A line of the apply chart: what is applied, and the ratio the book states. */
export type Range = Read<typeof range>;
