import type { AppliedChain, StackEntry } from "../book";
import { nm, type Nm } from "../quantity";
import type { Plausible } from "../reading";

/** One plate as it lies in the drum. */
export interface Plate {
  role: StackEntry["role"];
  part: string;
  thickness: Nm;
}

/**
 * The plates one by one, from the piston outwards. A group of steels and a group of frictions that stand next to each
 * other in the book alternate in the drum, beginning with the one listed first.
 */
export function plates(stack: readonly StackEntry[]): Plate[] {
  const result: Plate[] = [];
  for (let i = 0; i < stack.length; i++) {
    const entry = stack[i] as StackEntry;
    const next = stack[i + 1];
    if (next && alternates(entry, next)) {
      const longer = Math.max(countOf(entry), countOf(next));
      for (let n = 0; n < longer; n++) {
        if (n < countOf(entry)) result.push(plate(entry));
        if (n < countOf(next)) result.push(plate(next));
      }
      i++;
    } else {
      for (let n = 0; n < countOf(entry); n++) result.push(plate(entry));
    }
  }
  return result;
}

const countOf = (entry: StackEntry): number => entry.count ?? 1;
const plate = ({ role, part, thickness }: StackEntry): Plate => ({ role, part, thickness });
const alternates = (a: StackEntry, b: StackEntry): boolean =>
  (a.role === "steel" && b.role === "friction") || (a.role === "friction" && b.role === "steel");

/** How many frictions and steels there are. */
export function counts(stack: readonly StackEntry[]): { frictions: number; steels: number } {
  const of = (role: StackEntry["role"]): number =>
    stack.filter((entry) => entry.role === role).reduce((sum, entry) => sum + countOf(entry), 0);
  return { frictions: of("friction"), steels: of("steel") };
}

/** The plates' thickness added up; a piston is what they rest on, not part of the sum. */
export function thicknessOf(stack: readonly StackEntry[]): Nm {
  return nm(
    stack
      .filter(({ role }) => role !== "piston")
      .reduce((sum, entry) => sum + countOf(entry) * entry.thickness, 0),
  );
}

/**
 * What a clearance reading can be at all: not negative, and not more than if every facing had gone, one friction were
 * missing and the thinnest ring were in. Beyond it lies a slip of hand or unit, not wear.
 */
export function plausible({ stack, spec, series }: AppliedChain): Plausible {
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
export function nominalGap({ spec, series }: AppliedChain, ring: Nm | null): Nm {
  const sizes = series?.sizes ?? [];
  const usual = sizes[Math.floor(sizes.length / 2)]?.size ?? ring ?? 0;
  return nm(Math.round((spec.min + spec.max) / 2) - ((ring ?? usual) - usual));
}
