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
  type LengthUnit,
  type Measure,
} from "../quantity";
import type { Limits } from "../reading";
import { statedIn } from "./stated";
import type { FastenerGroup, Measurement } from "./format/parts";
import type { Origin } from "./format/pack";
import type { AppliedChain, HouseValue } from "./resolve";

/** The two ways people measure: what a book prints in one is shown in the other on demand. */
export type UnitSystem = "mm" | "in";

/** A measure in the units of a person who works in millimetres or inches. */
export const shownIn = (measure: Measure, system: UnitSystem): string =>
  measureText(measure, unitFor(measure, system));

/** `48 N·m`, `12 N·m + 60°`; with whose it is where it is only believed. */
export function torqueWords({ torque, angle, from }: FastenerGroup, system: UnitSystem): string {
  if (!torque) return "no torque stated";
  return `${shownIn(torque, system)}${angle ? ` + ${shownIn(angle, system)}` : ""}${believed({ from })}`;
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

/** A measurement's limits: `5.0 to 5.8 Ω`, with whose they are where they are only believed; or what should be seen. */
export function measurementWords(measurement: Measurement, system: UnitSystem): string {
  return `${limitsOf(measurement, system)}${believed(measurement)}`;
}

function limitsOf({ kind, min, max, expect, under }: Measurement, system: UnitSystem): string {
  const quantity = statedIn(kind);
  if (under !== undefined) return `at most ${lengthText(under, system)} under its stack’s figure`;
  if (quantity === null || (min === undefined && max === undefined)) return expect ?? "not stated";
  if (quantity === "length") {
    const [low, high] = [min, max].map((text) => (text === undefined ? undefined : lengthOf(text)));
    return limitWords({ min: low, max: high }, system, "not stated");
  }
  const [low, high] = [min, max].map((text) => (text === undefined ? undefined : measureOf(text, quantity)));
  const any = low ?? high;
  return limitsText(low, high, any && unitFor(any, system));
}

/** Limits of a length: `0.80 to 1.20 mm`, `at most 0.15 mm`; of what no limit is known, so much. */
export function limitWords({ min, max }: Limits, unit: LengthUnit, neither = "no limit known"): string {
  if (min !== undefined && max !== undefined) return rangeText(min, max, unit);
  if (min !== undefined) return `at least ${lengthText(min, unit)}`;
  return max === undefined ? neither : `at most ${lengthText(max, unit)}`;
}

const ORIGIN_WORDS: Readonly<Record<Origin, string>> = {
  maker: "the maker’s information",
  "printed sheet": "a printed sheet",
  "measured on units here": "measured on units here",
  "measured on one unit": "measured on one unit, not a limit",
  colleague: "a colleague’s figure",
};
/** Whose a figure is, in words. */
export const originWords = (from: Origin): string => ORIGIN_WORDS[from];

/** Said behind limits that are only believed: `, a colleague’s figure`; nothing where it is the maker’s, or nobody said whose it is. */
export const believed = ({ from }: { from?: Origin | undefined }): string =>
  from === undefined || from === "maker" ? "" : `, ${originWords(from)}`;

/** A chain's limits as they are judged by, with the target where one is stated. */
export function specWords({ spec, book, house }: AppliedChain, system: UnitSystem): string {
  const range = limitWords(spec, system);
  if (house) return `${range} (house; the book ${limitWords(book, system)})`;
  const target = book.target === undefined ? "" : `, target ${roundedText(book.target, system)}`;
  return `${range}${target}${believed(book)}`;
}
