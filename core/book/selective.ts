import type { Series } from "./format/pack";

const WORDS: Readonly<Record<Series["kind"], string>> = {
  "snap ring": "ring",
  plate: "plate",
  washer: "washer",
  shim: "shim",
  pin: "pin",
  gear: "gear",
};

/** What a chain is closed with, as one says it at the bench: a snap ring is a ring, a selective plate is a plate. */
export const selectiveWord = (series: Pick<Series, "kind"> | null): string =>
  series ? WORDS[series.kind] : "piece";
/** Whether it sits in a groove under the load of a spring. */
export const isSprung = (series: Pick<Series, "kind"> | null): boolean => series?.kind === "snap ring";
/** The same at the head of a line. */
export const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);
