import { nearestNm, nm, type Nm } from "../quantity";
import type { Correction } from "./allowance";
import { ends, type Limits } from "./limits";
import type { Reading } from "./reading";
import { coverageFactor, studentCdf } from "./student";

/** One line of the uncertainty budget (JCGM 100:2008 §4): a standard uncertainty in nanometres and where it comes from. */
export interface Component {
  name: "scatter" | "resolution" | "zero" | "blades" | "links" | Correction["name"] | "part in" | "part out";
  /** Standard uncertainty, nm. */
  u: number;
  /** Degrees of freedom; Infinity for type B. */
  dof: number;
}

/** A measured or predicted length with its uncertainty. */
export interface Estimate {
  /** Twice the sum of the readings, an exact integer: the mean is `doubledSum / (2·count)`. */
  doubledSum: number;
  count: number;
  /** The mean to the nearest nanometre, for showing. */
  mean: Nm;
  /** Standard deviation of one reading, nm; null with fewer than two. */
  spread: number | null;
  components: Component[];
  /** Combined standard uncertainty, nm. */
  u: number;
  /** Effective degrees of freedom (Welch–Satterthwaite, JCGM 100:2008 G.4). */
  dof: number;
  /** Coverage factor for 95 %. */
  k: number;
  /** Expanded uncertainty k·u, rounded up to a whole nanometre so that the guard is never short. */
  expanded: Nm;
}

/** With more degrees of freedom than this nobody could tell Student from normal. */
const AS_NORMAL = 1e5;

/** Combines budget lines: root sum of squares, Welch–Satterthwaite, Student's t at 95 %. */
export function combine(components: readonly Component[]): Pick<Estimate, "u" | "dof" | "k" | "expanded"> {
  const variance = components.reduce((sum, { u }) => sum + u * u, 0);
  const weighted = components.reduce((sum, { u, dof }) => sum + (dof === Infinity ? 0 : u ** 4 / dof), 0);
  const u = Math.sqrt(variance);
  const effective = weighted === 0 ? Infinity : variance ** 2 / weighted;
  const dof = effective > AS_NORMAL ? Infinity : effective;
  const k = coverageFactor(dof);
  return { u, dof, k, expanded: nm(Math.min(Math.ceil(k * u), MOST)) };
}

/** An expanded uncertainty beyond this says "nothing is known" just as well. */
const MOST = 1_000_000_000;

/** One reading prepared for the mean: brought to the spec's state, with its own type B contributions. */
export interface Observation {
  reading: Reading;
  resolution: Nm;
  corrections: readonly Correction[];
}

/** Half-width of a rectangular distribution to a standard uncertainty (JCGM 100:2008 4.3.7). */
const rectangular = (halfWidth: number): number => Math.abs(halfWidth) / Math.sqrt(3);

/** Twice the value of a reading: a bracket's midpoint may fall between two nanometres. Null for a one-sided bracket. */
export function doubledValue(reading: Reading): number | null {
  if (reading.kind !== "bracket") return 2 * reading.value;
  if (reading.passes === undefined || reading.refuses === undefined) return null;
  return reading.passes + reading.refuses;
}

/**
 * The mean of several readings with its uncertainty. Scatter (type A) averages down; what all readings of a run share
 * (gauge step, zero, blades, allowances) does not, so type B lines are averaged, not divided by √n.
 *
 * @throws RangeError without any two-sided reading.
 */
export function estimate(observations: readonly Observation[]): Estimate {
  const doubled = observations.map(({ reading, corrections }) => {
    const value = doubledValue(reading);
    if (value === null) throw new RangeError("a one-sided bracket has no value");
    return value + 2 * corrections.reduce((sum, { amount }) => sum + amount, 0);
  });
  const count = doubled.length;
  if (count === 0) throw new RangeError("no readings");
  const doubledSum = doubled.reduce((a, b) => a + b, 0);
  const spread = deviation(doubled, doubledSum / count);

  const components: Component[] = [];
  if (spread !== null) components.push({ name: "scatter", u: spread / Math.sqrt(count), dof: count - 1 });
  const shared = new Map<Component["name"], number>();
  const add = (name: Component["name"], u: number): void => {
    if (u > 0) shared.set(name, (shared.get(name) ?? 0) + u / count);
  };
  for (const { reading, resolution, corrections } of observations) {
    if (reading.kind === "single") {
      add("resolution", rectangular(resolution / 2));
      if (reading.back !== undefined) add("zero", rectangular(reading.back));
    } else if (reading.kind === "bracket") {
      add("blades", rectangular(((reading.refuses ?? 0) - (reading.passes ?? 0)) / 2));
    } else {
      add("links", reading.uncertainty);
    }
    for (const { name, within } of corrections) add(name, rectangular(within));
  }
  for (const [name, u] of shared) components.push({ name, u, dof: Infinity });
  return {
    doubledSum,
    count,
    mean: nearestNm(doubledSum / (2 * count)),
    spread,
    components,
    ...combine(components),
  };
}

function deviation(doubled: readonly number[], doubledMean: number): number | null {
  if (doubled.length < 2) return null;
  const squares = doubled.reduce((sum, value) => sum + ((value - doubledMean) / 2) ** 2, 0);
  return Math.sqrt(squares / (doubled.length - 1));
}

/** Whether the uncertainty can be believed: a single dial reading has no scatter to tell it from. */
export const isSpread = ({ count, components }: Estimate): boolean =>
  count > 1 || components.some(({ name }) => name === "links");

/**
 * The probability that the true value lies within its limits, from the estimate's Student distribution.
 */
export function chanceInside({ doubledSum, count, u, dof }: Estimate, limits: Limits): number {
  const { min, max } = ends(limits);
  const mean = doubledSum / (2 * count);
  if (u === 0) return mean >= min && mean <= max ? 1 : 0;
  return Math.max(0, studentCdf((max - mean) / u, dof) - studentCdf((min - mean) / u, dof));
}
