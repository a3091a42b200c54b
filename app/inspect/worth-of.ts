import {
  dispositions,
  metalEverywhere,
  OTHER_UNITS,
  toldOfUnit,
  unitPart,
  warrantyWords,
  worth,
  type Option,
  type Worth,
} from "~core/inspect";
import { ruleOf } from "~core/measure";
import { type Job } from "~core/fact";
import type { Applied, Book } from "~core/book";
import type { HouseSettings } from "~store/house";

/** All that is told of an offer of another unit, its warranty too; empty for a rebuild. */
export const toldOf = (fact: Option["fact"]): string[] => [
  ...toldOfUnit(fact?.body ?? null),
  ...warrantyWords(fact?.body ?? null),
];

export const WAY_NAMES = {
  rebuild: "Rebuild",
  reconditioned: "Reconditioned unit",
  used: "Used unit",
} as const;

/** @param part of one. */
export const percent = (part: number): string => `${(part * 100).toFixed(0)} %`;

/** Everything a price is looked up for when a unit is weighed: its parts, and other units like it. */
export const pricedParts = ({ unit, parts }: Pick<Book, "unit" | "parts">): string[] => [
  ...parts.map(({ number }) => number),
  ...OTHER_UNITS.map((way) => unitPart(unit.id, way)),
];

/** The ways on for a job's unit, by its findings so far, the shop's prices and its house values. */
export const worthOf = (
  job: Job,
  applied: Applied,
  house: Pick<HouseSettings, "rule" | "target" | "steels" | "bushings" | "hourCents" | "comebackCents">,
  prices: readonly (readonly [string, number])[],
): Worth =>
  worth(job, applied, dispositions(job, applied, house, ruleOf(job, house)), {
    prices: new Map(prices),
    rate: house.hourCents,
    comeback: house.comebackCents,
    metal: metalEverywhere(job) !== null,
  });

/** The work still to do by the book, and what it costs at the house’s hour. */
export function labourOf(
  job: Job,
  applied: Applied,
  house: Parameters<typeof worthOf>[2],
): { hours: number; cents: number } {
  const { hours } = worthOf(job, applied, house, []);
  return { hours, cents: Math.round(hours * house.hourCents) };
}
