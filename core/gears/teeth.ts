import type { GearSet } from "../book";

/**
 * What tooth counts cannot be, by geometry: pinions of equal module fill the space between sun and ring, and go in evenly spaced.
 *
 * @returns the fault in words; null when there is none. Corrected gears may be a tooth off, so it is a doubt, not proof.
 */
export function teethDoubt(set: GearSet): string | null {
  if (set.kind !== "simple" && set.kind !== "double-pinion") return null;
  const { kind, sun, ring, pinion, pinions } = set;
  const [s, r] = [sun[1], ring[1]];
  if (s >= r) return `a sun of ${s} does not go into a ring of ${r}`;
  if (kind === "simple") {
    if (pinion !== undefined && Math.abs(s + 2 * pinion - r) > 2)
      return `sun ${s} and pinions of ${pinion} need a ring of ${s + 2 * pinion}, not ${r}`;
    if (pinion === undefined && (r - s) % 2 !== 0)
      return `between sun ${s} and ring ${r} no whole pinion fits`;
  }
  const meshes = kind === "simple" ? s + r : r - s;
  if (pinions !== undefined && meshes % pinions !== 0)
    return `${pinions} pinions cannot be evenly spaced: ${meshes} is not divisible by ${pinions}`;
  return null;
}
