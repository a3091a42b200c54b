import { middleOf } from "../reading";
import type { AppliedChain, PackChain } from "../book";
import { nm, type Nm } from "../quantity";
import type { Plausible } from "../reading";
import { countOf } from "./plates";

/**
 * What a reading can be at all. Of a pack: not negative, and not more than if every facing had gone, one friction were missing and the thinnest
 * ring were in. Of any other chain, and of a pack whose plates nobody has measured: what its seats can make of it, and some of its range beyond. Beyond it lies a slip of hand or unit, not wear.
 */
export function plausible(applied: AppliedChain | PackChain): Plausible {
  const { spec, seats } = applied;
  // Of what no limit is known anything that fits on a bench is.
  if (spec.min === undefined || spec.max === undefined) return { min: nm(-ANYTHING), max: nm(ANYTHING) };
  const [least, most] = [spec.min, spec.max];
  const chosen = seats.reduce((sum, { sizes }) => {
    const all = sizes.map(({ size }) => size);
    return sum + (all.length > 0 ? Math.max(...all) - Math.min(...all) : 0);
  }, 0);
  const open = "stack" in applied ? opensBy(applied.stack) : null;
  const beyond = open ?? BEYOND * (most - least);
  return {
    min: nm(least < 0 ? Math.floor(least - beyond - chosen) : Math.floor(least / 8)),
    max: nm(Math.ceil(most + beyond + chosen)),
  };
}

/** The most that wear, or a friction left out, can open a pack; null where nobody knows how thick its frictions are. */
function opensBy(stack: PackChain["stack"]): number | null {
  const frictions = stack.filter(({ role }) => role === "friction");
  const thick = frictions.flatMap(({ thickness }) => thickness ?? []);
  if (thick.length < frictions.length) return null;
  // Facings are about half of a friction's thickness; all of them worn away is the most that wear can open.
  const wear = frictions.reduce((sum, entry, i) => sum + (countOf(entry) * (thick[i] ?? 0)) / 2, 0);
  return Math.max(0, wear, ...thick);
}

/** A tenth of a metre, in nanometres. */
const ANYTHING = 100_000_000;

/** How many ranges beyond its limits a figure can be of which no more is known. */
const BEYOND = 4;

/**
 * The clearance a pack of nominal parts would have: the drum is taken to be cut so that the middle size of its series gives the
 * middle of the spec.
 *
 * @param ring the ring that is in; null for the middle one.
 */
export function nominalGap({ spec, seats }: Pick<AppliedChain, "spec" | "seats">, ring: Nm | null): Nm {
  const sizes = seats[0]?.sizes ?? [];
  const usual = sizes[Math.floor(sizes.length / 2)]?.size ?? ring ?? 0;
  return nm((middleOf(spec) ?? 0) - ((ring ?? usual) - usual));
}
