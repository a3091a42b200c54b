import { lengthOf, measureOf, type Measure, type Quantity } from "../../quantity";
import {
  condition,
  list,
  map,
  object,
  oneOrMore,
  optional,
  refersTo,
  text,
  written,
  type Shape,
} from "../../shape";

export const length = written(lengthOf, "1.80 mm");

/** A correction with its half-width: `-0.06 mm` within `0.02 mm`. */
export const allowance = object({ amount: length, within: length });

const EXAMPLES: Readonly<Partial<Record<Quantity, string>>> = {
  torque: "42 N·m",
  pressure: "4 bar",
  temperature: "40 °C",
  resistance: "5.2 Ω",
  time: "15 min",
};
export const measure = <Q extends Quantity>(quantity: Q): Shape<Measure<Q>> =>
  written((value) => measureOf(value, quantity), EXAMPLES[quantity] ?? `a ${quantity} with its unit`);

const when = condition(map(oneOrMore(text)));

/** An entry holds only for some configurations (`when`) and belongs to some depths of work (`depth`). */
export const holds = { when: optional(when), depth: optional(list(refersTo("depth", text), 1)) };
