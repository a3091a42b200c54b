import type { Piece, Thickness } from "../chain";
import { nm, type Nm } from "../quantity";

/** Standard uncertainty of a thickness by bench micrometer: half-width 2 µm, rectangular. */
export const MICROMETER_U = 2_000 / Math.sqrt(3);

/**
 * The thickness to reckon with: measured beats marked; a mark may be off by the series' tolerance (rectangular).
 *
 * @returns null when neither is known.
 */
export function thickness(piece: Piece, tolerance: Nm): Thickness | null {
  if (piece.measured !== undefined) return { value: piece.measured, uncertainty: MICROMETER_U };
  if (piece.size !== undefined) return { value: piece.size, uncertainty: tolerance / Math.sqrt(3) };
  return null;
}

/** How many tolerances a measured ring may be off its mark before it is more likely another ring, or a slip. */
const MOST_OFF = 5;

/** Whether a measured thickness can be a ring of that marked size at all. Any can be one without a mark. */
export const agrees = (size: Nm | undefined, measured: Nm, tolerance: Nm): boolean =>
  size === undefined || Math.abs(measured - size) <= MOST_OFF * tolerance;

/** The size of a series that a measured thickness is nearest to, if it is within a quarter of a step. */
export function sizeNear<S extends { size: Nm }>(
  series: { sizes: readonly S[]; tolerance: Nm },
  measured: Nm,
): S | null {
  const gaps = series.sizes.slice(1).map(({ size }, i) => size - (series.sizes[i]?.size ?? 0));
  const reach = Math.max(series.tolerance, Math.min(...gaps, Infinity) / 4);
  return series.sizes.find(({ size }) => Math.abs(nm(size - measured)) <= reach) ?? null;
}
