import { nm, type Nm } from "../quantity";

/** What a figure must lie between; a side of which no limit is known is left out. */
export interface Limits {
  min?: Nm | undefined;
  max?: Nm | undefined;
}

/** Whether anything is known that a figure could be held against. */
export const isStated = ({ min, max }: Limits): boolean => min !== undefined || max !== undefined;

/** Limits as two ends: a side that is not known is as far away as there is. */
export const ends = ({ min = NOWHERE.min, max = NOWHERE.max }: Limits): { min: Nm; max: Nm } => ({
  min,
  max,
});

/** Halfway between two limits; where one is known alone, that; null where none is. */
export function middleOf({ min, max }: Limits): Nm | null {
  if (min === undefined || max === undefined) return min ?? max ?? null;
  return nm(Math.round((min + max) / 2));
}

/** A metre either way: nothing that is measured on a unit is that far off. */
const NOWHERE = { min: nm(-1_000_000_000), max: nm(1_000_000_000) };
