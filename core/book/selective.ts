import type { SeatKind, SeatLink } from "./seats";

const WORDS: Readonly<Record<SeatKind, string>> = {
  "snap ring": "ring",
  plate: "plate",
  washer: "washer",
  shim: "shim",
  pin: "pin",
  gear: "gear",
  screw: "screw",
  cut: "cut",
  groove: "groove",
};

/** What a chain is closed with, as one says it at the bench: a snap ring is a ring, a selective plate is a plate. */
export const selectiveWord = (seat: { kind: SeatKind } | null | undefined): string =>
  seat ? WORDS[seat.kind] : "piece";
/** What a seat is called where its figure is named already: a chain’s own is called after what is in it. */
export const seatWord = (link: Pick<SeatLink, "seat" | "name" | "kind">): string =>
  link.seat ? link.name : selectiveWord(link);
/** Whether it sits in a groove under the load of a spring. */
export const isSprung = (seat: { kind: SeatKind } | null | undefined): boolean => seat?.kind === "snap ring";
/** The same at the head of a line. */
export const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

/** Several things in one sentence: with commas, and “and” before the last. */
export const listed = (words: readonly string[]): string =>
  words.length < 2 ? (words[0] ?? "") : `${words.slice(0, -1).join(", ")} and ${words.at(-1)}`;
