import type { PackChain } from "../book";
import { nm, type Nm } from "../quantity";
import type { Plausible } from "../reading";
import { countOf } from "./plates";

/**
 * What a clearance reading can be at all: not negative, and not more than if every facing had gone, one friction were
 * missing and the thinnest ring were in. Beyond it lies a slip of hand or unit, not wear.
 */
export function plausible({ stack, spec, series }: PackChain): Plausible {
  const frictions = stack.filter(({ role }) => role === "friction");
  const onePlate = Math.max(0, ...frictions.map(({ thickness }) => thickness));
  // Facings are about half of a friction's thickness; all of them worn away is the most that wear can open.
  const wear = frictions.reduce((sum, entry) => sum + (countOf(entry) * entry.thickness) / 2, 0);
  const sizes = series?.sizes.map(({ size }) => size) ?? [];
  const rings = sizes.length > 0 ? Math.max(...sizes) - Math.min(...sizes) : 0;
  return {
    min: nm(Math.floor(spec.min / 8)),
    max: nm(Math.ceil(spec.max + Math.max(onePlate, wear) + rings)),
  };
}

/**
 * The clearance a pack of nominal parts would have: the drum is taken to be cut so that the middle size of its series gives the
 * middle of the spec.
 *
 * @param ring the ring that is in; null for the middle one.
 */
export function nominalGap({ spec, series }: PackChain, ring: Nm | null): Nm {
  const sizes = series?.sizes ?? [];
  const usual = sizes[Math.floor(sizes.length / 2)]?.size ?? ring ?? 0;
  return nm(Math.round((spec.min + spec.max) / 2) - ((ring ?? usual) - usual));
}
