import type { Pack } from "../book";
import { nm, type Nm } from "../quantity";
import { ends, type Limits } from "../reading";

/** Where in the range a shop wants its shifting packs. */
export type TargetSchool = "middle" | "low end";

/** What a pack is brought to: a length, or anywhere inside (an element that engages only at standstill). */
export type Target = { kind: "at"; length: Nm; words: TargetSchool | "the book’s" } | { kind: "anywhere" };

/**
 * @param limits a range with one end has no middle.
 * @param duty the pack's; a standstill pack is not drawn to any place.
 * @param school the shop's; the low end is a quarter of the range above the minimum, crisp without sitting on the limit.
 * @param stated where the book wants it, when it says; it goes before the school.
 */
export function target({ min, max }: Limits, duty: Pack["duty"], school: TargetSchool, stated?: Nm): Target {
  if (stated !== undefined) return { kind: "at", length: stated, words: "the book’s" };
  if (duty === "standstill" || min === undefined || max === undefined) return { kind: "anywhere" };
  const part = school === "middle" ? 2 : 4;
  return { kind: "at", length: nm(min + Math.round((max - min) / part)), words: school };
}

/** Signed distance of a length from a target; inside `anywhere` it is zero, outside it is to the nearer limit. */
export function distance(length: Nm, goal: Target, limits: Limits): Nm {
  const { min, max } = ends(limits);
  if (goal.kind === "at") return nm(length - goal.length);
  if (length < min) return nm(length - min);
  return nm(length > max ? length - max : 0);
}
