import type { Refusal } from "./refusal";

/** What is wrong, where, and what would be right. */
export interface Problem extends Refusal {
  /** Where, as `packs[2].stack[0].thickness`. Empty for the value itself. */
  path: string;
  /** Something to look at that does not stop the document from being used. */
  warning?: true;
}

/** The steps from a value to something within it. */
export type Place = readonly (string | number)[];

/** The place of a key or list entry within another place: `packs[2].stack`. */
export const join = (path: string, key: string | number): string =>
  typeof key === "number" ? `${path}[${key}]` : path === "" ? key : `${path}.${key}`;

/** A place in words a person can follow, behind the place of the value itself. */
export const pathOf = (place: Place, at: string): string => place.reduce<string>(join, at);
