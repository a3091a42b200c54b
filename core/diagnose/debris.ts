import type { Book } from "../book";
import type { DebrisKind } from "../fact";
import { elementName } from "./cause";

/** The question of a diagnosis that a kind of debris answers; grey fuzz on a magnet is what every unit has. */
export function debrisQuestion(kind: DebrisKind): string | null {
  if (kind === "fuzz") return null;
  return kind === "flakes" || kind === "chunks" ? "debris:steel" : `debris:${kind}`;
}

/** What a kind of debris points at in this very unit, by the names of its book. */
export function pointsAt(
  unit: Pick<Book, "elements" | "chains" | "gearSets" | "stations">,
  kind: DebrisKind,
): string {
  const elements = (...kinds: Book["elements"][number]["kind"][]): string[] =>
    unit.elements.filter((e) => kinds.includes(e.kind)).map(elementName);
  const stations = (...kinds: Book["stations"][number]["kind"][]): string[] =>
    unit.stations.filter((one) => kinds.includes(one.kind)).map(({ name }) => name);
  const chains = (...kinds: Book["chains"][number]["kind"][]): string[] =>
    unit.chains
      .filter((one) => kinds.includes(one.kind))
      .map(({ name }) => name.replace(/ clearance| preload/i, ""));
  const among = (names: readonly string[], otherwise: string): string =>
    [...new Set(names)].slice(0, 6).join(", ").toLowerCase() || otherwise;
  switch (kind) {
    case "fuzz":
      return "grey paste on a magnet is ordinary wear";
    case "friction":
      return `facings of ${elements("clutch", "brake", "band").join(", ") || "nothing in this unit"}`;
    case "flakes":
      return `faces, teeth and races: ${among([...stations("pulley", "gear set", "transfer", "differential"), ...chains("preload")], "gears and bearings")}`;
    case "chunks":
      return `something broken: ${among([...elements("one-way clutch"), ...stations("gear set", "fork", "pulley", "differential", "park lock")], "gears and bearings")}`;
    case "brass":
      return `bushings and rings: ${among([...elements("synchroniser").slice(0, 2), ...chains("bushing clearance")], "bushings and thrust washers")}`;
    case "aluminium":
      return `pistons and bores: ${among(stations("pump", "drum", "fork", "control", "converter"), "pistons and case bores")}`;
  }
}
