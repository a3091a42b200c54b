import type { Pack } from "./format/pack";
import type { Part } from "./format/parts";

/** Every part of a pack: its plates, and what sits at its station. */
export function partsOf(parts: readonly Part[], { stack, station }: Pick<Pack, "stack" | "station">): Part[] {
  const plates = new Set(stack.map(({ part }) => part));
  return parts.filter((part) => plates.has(part.id) || stationOf(parts, part) === station);
}

/** The station a part sits at: its own, or its assembly's. */
export function stationOf(parts: readonly Part[], part: Part): string | undefined {
  if (part.station !== undefined) return part.station;
  const whole = part.of === undefined ? undefined : parts.find(({ id }) => id === part.of);
  return whole ? stationOf(parts, whole) : undefined;
}
