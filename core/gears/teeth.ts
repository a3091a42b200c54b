import type { GearSet } from "../book";

/**
 * Pinions of equal module side by side round a sun: their tips, one module beyond the pitch circle, must pass each other.
 * Source: plane geometry, `(sun + pinion)·sin(π/n) > pinion + 2` in teeth; a tooth is allowed for corrected gears.
 *
 * @returns the fault in words; null when they pass, or when it cannot be told.
 */
export function pinionsCollide(set: GearSet): string | null {
  if (set.kind !== "simple" || set.pinions === undefined || set.pinions < 2) return null;
  const { sun, ring, pinions } = set;
  const pinion = set.pinion ?? (ring[1] - sun[1]) / 2;
  const apart = (sun[1] + pinion) * Math.sin(Math.PI / pinions);
  return pinion > 0 && apart < pinion + 1
    ? `${pinions} pinions of ${pinion} teeth do not go round a sun of ${sun[1]}: they collide`
    : null;
}

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
