import {
  lengthOf,
  lengthText,
  limitsText,
  measureOf,
  measureText,
  parseMeasure,
  rangeText,
  roundedText,
  unitFor,
  type Measure,
} from "../quantity";
import { statedIn } from "./stated";
import type { FastenerGroup, Measurement } from "./format/parts";
import type { AppliedChain, HouseValue } from "./resolve";

/** The two ways people measure: what a book prints in one is shown in the other on demand. */
export type UnitSystem = "mm" | "in";

/** A measure in the units of a person who works in millimetres or inches. */
export const shownIn = (measure: Measure, system: UnitSystem): string =>
  measureText(measure, unitFor(measure, system));

/** `48 N·m`, `12 N·m + 60°`. */
export function torqueWords({ torque, angle }: FastenerGroup, system: UnitSystem): string {
  if (!torque) return "no torque stated";
  return `${shownIn(torque, system)}${angle ? ` + ${shownIn(angle, system)}` : ""}`;
}

/** A house torque in place of the book's, if the shop has one. */
export function houseTorque(group: FastenerGroup, house: readonly HouseValue[]): HouseValue | null {
  return house.find(({ of, id, torque }) => of === "fastener" && id === group.id && torque) ?? null;
}

/** The torque that is used, the house's where it has one, in the person's unit. */
export function usedTorque(group: FastenerGroup, house: readonly HouseValue[], system: UnitSystem): string {
  const own = houseTorque(group, house)?.torque;
  const read = own === undefined ? null : parseMeasure(own, "torque");
  return read?.ok ? shownIn(read.measure, system) : torqueWords(group, system);
}

/** A measurement's limits: `5.0 to 5.8 Ω`, or what should be seen. */
export function measurementWords({ kind, min, max, expect, under }: Measurement, system: UnitSystem): string {
  const quantity = statedIn(kind);
  if (under !== undefined) return `at most ${lengthText(under, system)} under its stack’s figure`;
  if (quantity === null || (min === undefined && max === undefined)) return expect ?? "not stated";
  if (quantity === "length") {
    const [low, high] = [min, max].map((text) => (text === undefined ? undefined : lengthOf(text)));
    if (low !== undefined && high !== undefined) return rangeText(low, high, system);
    if (low !== undefined) return `at least ${lengthText(low, system)}`;
    return high === undefined ? "not stated" : `at most ${lengthText(high, system)}`;
  }
  const [low, high] = [min, max].map((text) => (text === undefined ? undefined : measureOf(text, quantity)));
  const any = low ?? high;
  return limitsText(low, high, any && unitFor(any, system));
}

/** A chain's limits as they are judged by, with the target where one is stated. */
export function specWords({ spec, book, house }: AppliedChain, system: UnitSystem): string {
  const range = rangeText(spec.min, spec.max, system);
  if (house) return `${range} (house; the book ${rangeText(book.min, book.max, system)})`;
  return book.target === undefined ? range : `${range}, target ${roundedText(book.target, system)}`;
}
