import { createContext } from "react";

/** What of a job's new parts lies in its box, and what is on its way, by part number. */
export interface BuildSupply {
  box: string[];
  coming: { part: string; due: string | null; isLate: boolean }[];
}

export const NO_SUPPLY: BuildSupply = { box: [], coming: [] };
/** Told to every part of the panel. */
export const Supply = createContext<BuildSupply>(NO_SUPPLY);

/** Where a new part is, short; empty where nobody knows. */
export function whereNew({ box, coming }: BuildSupply, part: string | undefined): string {
  if (part === undefined) return "";
  if (box.includes(part)) return "in the job’s box";
  const line = coming.find((one) => one.part === part);
  if (!line) return "";
  return `on order, ${line.due === null ? "no day said" : `here ${line.due}`}${line.isLate ? ", late" : ""}`;
}
