import type { Book } from "../book";
import { elementName } from "./cause";

/** What is found in a pan, on a magnet, in a filter. */
export const DEBRIS_KINDS = ["fuzz", "flakes", "chunks", "friction", "brass", "aluminium"] as const;
export type DebrisKind = (typeof DEBRIS_KINDS)[number];

/** The question of a diagnosis that a kind of debris answers; grey fuzz on a magnet is what every unit has. */
export function debrisQuestion(kind: DebrisKind): string | null {
  if (kind === "fuzz") return null;
  return kind === "flakes" || kind === "chunks" ? "debris:steel" : `debris:${kind}`;
}

/** What a kind of debris points at in this very unit, by the names of its book. */
export function pointsAt(unit: Book, kind: DebrisKind): string {
  const of = (...kinds: Book["elements"][number]["kind"][]): string[] =>
    unit.elements.filter((e) => kinds.includes(e.kind)).map(elementName);
  const parts = (words: RegExp): string[] =>
    [...new Set(unit.parts.filter(({ name }) => words.test(name)).map(({ name }) => name))].slice(0, 5);
  const among = (names: readonly string[], otherwise: string): string =>
    names.length > 0 ? names.join(", ") : otherwise;
  switch (kind) {
    case "fuzz":
      return "grey paste on a magnet is ordinary wear";
    case "friction":
      return `facings: ${among(of("clutch", "brake", "band"), "no facing in this unit")}`;
    case "flakes":
      return `faces and teeth: ${among(parts(/bearing|gear|pulley|belt|planet|pinion/i), "gears and bearings")}`;
    case "chunks":
      return `something broken: ${among([...of("one-way clutch"), ...parts(/planet|carrier|synchron|fork|belt|chain|pin\b/i)], "gears and bearings")}`;
    case "brass":
      return `bushings and rings: ${among(parts(/bush|synchroniser ring|thrust/i), "bushings and thrust washers")}`;
    case "aluminium":
      return `pistons, pump and case: ${among(parts(/piston|pump|case|housing|fork/i), "pistons and case bores")}`;
  }
}
