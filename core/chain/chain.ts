import { nearestNm, nm, type Nm } from "../quantity";
import { combine, type Component, type Estimate, type Summed } from "../reading";

/** One link of a dimension chain with its value: `result = Σ sign·value`. */
export interface Link {
  name: string;
  sign: 1 | -1;
  value: Nm;
  /** Standard uncertainty, nm. */
  uncertainty: number;
}

/**
 * A chain by the numbers: every link measured or known. Links are independent, so variances add
 * (JCGM 100:2008 eq. 10 with all sensitivities ±1).
 *
 * @returns a reading that can stand beside others; its standard uncertainty is rounded up to a whole nanometre.
 */
export function evaluate(links: readonly Link[]): Summed {
  const value = links.reduce((sum, link) => sum + link.sign * link.value, 0);
  const variance = links.reduce((sum, link) => sum + link.uncertainty ** 2, 0);
  return { kind: "summed", value: nm(value), uncertainty: nm(Math.ceil(Math.sqrt(variance))) };
}

/** A part of known thickness: what its mark says, or what a micrometer said. */
export interface Thickness {
  value: Nm;
  /** Standard uncertainty, nm. */
  uncertainty: number;
}

/** One selective part for another in a chain. */
export interface Swap {
  sign: 1 | -1;
  removed: Thickness;
  fitted: Thickness;
}

/**
 * The result after a swap, from the result measured before it: `result′ = result + Σ sign·(in − out)`. All links that stay
 * cancel, known or not; only the swapped parts' uncertainties are added. No swap leaves the estimate as it is.
 */
export function predict(result: Estimate, swaps: readonly Swap[]): Estimate {
  if (swaps.length === 0) return result;
  const shift = swaps.reduce((sum, swap) => sum + swap.sign * (swap.fitted.value - swap.removed.value), 0);
  const doubledSum = result.doubledSum + 2 * result.count * shift;
  const added = swaps.flatMap((swap): Component[] => [
    { name: "part out", u: swap.removed.uncertainty, dof: Infinity },
    { name: "part in", u: swap.fitted.uncertainty, dof: Infinity },
  ]);
  const components = [...result.components, ...added.filter(({ u }) => u > 0)];
  return {
    ...result,
    doubledSum,
    mean: nearestNm(doubledSum / (2 * result.count)),
    components,
    ...combine(components),
  };
}
