import { lengthOf, measureOf, type Measure, type Quantity } from "../../quantity";
import {
  about,
  condition,
  day,
  list,
  map,
  object,
  oneOf,
  oneOrMore,
  optional,
  refersTo,
  text,
  written,
  type Read,
  type Shape,
} from "../../shape";

/** A length as a book writes it, `1.80 mm` or `0.071 in`; read as whole nanometres. */
export const length = written(lengthOf, "1.80 mm");

/** A length that something has, and so is above nothing: a thickness, a diameter, a bolt's. */
export const width = written((text) => {
  const found = lengthOf(text);
  if (found <= 0) throw new RangeError(`"${text}" is not above nothing; write the size it has`);
  return found;
}, "1.80 mm");

/** Half-width of what something may be off, which has no sign. */
export const tolerance = written((text) => {
  const found = lengthOf(text);
  if (found < 0) throw new RangeError(`"${text}" is below nothing; a tolerance has no sign`);
  return found;
}, "0.02 mm");

/** A correction with its half-width: `-0.06 mm` within `0.02 mm`. Its sense is looked at where it is known what it corrects. */
export const allowance = object({ amount: length, within: tolerance });

/** What can be below nothing. */
const SIGNED: readonly Quantity[] = ["temperature", "voltage"];

const EXAMPLES: Readonly<Partial<Record<Quantity, string>>> = {
  torque: "42 N·m",
  pressure: "4 bar",
  temperature: "40 °C",
  resistance: "5.2 Ω",
  time: "15 min",
};
/**
 * A figure with its unit, as a book writes it.
 *
 * @param quantity what is measured: torque, pressure, volume.
 * @returns a shape that reads it in the quantity’s own unit.
 */
export const measure = <Q extends Quantity>(quantity: Q): Shape<Measure<Q>> =>
  written(
    (value) => {
      const found = measureOf(value, quantity);
      if (!SIGNED.includes(quantity) && found.figure.startsWith("-"))
        throw new RangeError(`"${value}" is below nothing; a ${quantity} has no sign`);
      return found;
    },
    EXAMPLES[quantity] ?? `a ${quantity} with its unit`,
  );

const when = condition(map(oneOrMore(text)));

/** What a part is told by when it goes in: its lip, its bevel, its dish. */
export const FEATURES = [
  ...(["lip", "bevel", "chamfer", "step", "dish", "wave", "flat", "joint", "notch", "mark"] as const),
  ...(["print", "small end", "race", "retainer", "tabs", "land", "oil groove"] as const),
] as const;
/** What of a part is drawn, and where to; a lip is drawn toward the pressure it holds. */
export const shows = object({
  as: oneOf(...FEATURES),
  to: optional(oneOf("up", "down", "in", "out")),
});

/** An entry holds only for some configurations (`when`) and belongs to some depths of work (`depth`). */
export const holds = { when: optional(when), depth: optional(list(refersTo("depth", text), 1)) };

/** Whose a figure is, from the surest to the least. */
export const ORIGINS = [
  "maker",
  "printed sheet",
  "measured on units here",
  "measured on one unit",
  "colleague",
] as const;
/** One of `ORIGINS`. */
export type Origin = (typeof ORIGINS)[number];

/** Where a figure comes from when it is not the unit's own source, and the day it was last checked. */
export const sourced = {
  from: about("Whose figure it is; left out where nobody said.", optional(oneOf(...ORIGINS))),
  source: optional(text),
  checked: about("The day it was last checked, where anybody knows.", optional(day)),
};

/** A picture of the book that shows it. */
export const pictured = { picture: optional(refersTo("picture")) };
/** Where what a shop learnt comes from: a job of its own. */
export const learnt = { learnt: about("The job of a shop that it comes from.", optional(text)) };

/** What of a part is drawn when it goes in, and where it is turned to. */
export type Feature = Read<typeof shows>;
