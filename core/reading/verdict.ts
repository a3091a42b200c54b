import { nearestNm, nm, type Nm } from "../quantity";
import { corrections, type Allowances, type Correction } from "./allowance";
import { drift, type Drift } from "./drift";
import { combine, doubledValue, estimate, type Estimate, type Observation } from "./estimate";
import { ends, isStated, type Limits } from "./limits";
import type { PackState, TakenReading } from "./reading";

/** What a figure must lie in, and the state it is stated for. */
export interface Spec extends Limits {
  state: PackState;
}

/**
 * How a limit is decided. `proven`: the whole 95 % interval must lie inside (ISO 14253-1, proving conformity); `plain`: the
 * mean alone is compared, as a paper sheet would.
 */
export type DecisionRule = "proven" | "plain";

/** What can be said about a figure against its spec. */
export type Verdict =
  | { kind: "inside"; margin: Nm }
  | { kind: "outside"; side: "tight" | "loose"; by: Nm }
  | { kind: "too close"; limit: "min" | "max"; advice: CloseAdvice }
  | { kind: "too few"; more: number }
  | { kind: "creeping" }
  /** No limit is known: what was read stands for itself. */
  | { kind: "not stated" };

/** What to do next when a mean lies too close to a limit: so many more readings, or reading on is no use. */
export type CloseAdvice = { kind: "read again"; more: number } | { kind: "finer gauge or other part" };

/** What became of one reading: `bound` is a one-sided feeler, `other state` cannot be compared with this spec. */
export interface Mark {
  use: "used" | "out" | "settling" | "bound" | "other state";
  /** The interval or value in the spec's state; ends are equal for a dial reading, absent where a bracket is open. */
  low?: Nm;
  high?: Nm;
  corrections: Correction[];
}

/** A set of readings judged against a spec. `marks` runs parallel to the readings given. */
export interface Assessment {
  marks: Mark[];
  /** Null while there is no two-sided reading that counts. */
  estimate: Estimate | null;
  drift: Drift;
  verdict: Verdict;
  /** Why a reading could not be compared, once. */
  missing: string | null;
  /** The corrections applied to the readings used, each once. */
  corrections: Correction[];
}

/** How many readings of each kind make a measurement: a feeler goes in at two places, a dial needs the drum turned twice. */
export const READINGS_NEEDED = { single: 3, bracket: 2, summed: 1 } as const;

/**
 * Judges readings against a spec: brings each to the spec's state, sets aside what the builder left out and what was read
 * while the pack still settled, and decides.
 *
 * @param readings in the order taken.
 * @param allowances the unit's, signed.
 */
export function assess(
  readings: readonly TakenReading[],
  spec: Spec,
  rule: DecisionRule,
  allowances: Allowances = {},
): Assessment {
  let missing: string | null = null;
  const marks: Mark[] = readings.map((taken) => {
    const brought = corrections(taken.state, spec.state, allowances);
    if (!brought.ok) missing = brought.missing;
    return {
      use: useOf(taken, brought.ok),
      ...endsOf(taken, brought.ok ? brought.total : 0),
      corrections: brought.ok ? brought.corrections : [],
    };
  });

  const found = settle(readings, marks);
  const counted = readings.flatMap((taken, i): Observation[] => {
    const mark = marks[i];
    if (mark?.use !== "used") return [];
    return [{ reading: taken.reading, resolution: taken.resolution, corrections: mark.corrections }];
  });
  const result = counted.length > 0 ? estimate(counted) : null;
  return {
    marks,
    estimate: result,
    drift: found,
    missing,
    verdict: decide(readings, counted, result, marks, found, spec, rule),
    corrections: distinct(counted.flatMap((observation) => observation.corrections)),
  };
}

function useOf({ reading, leftOut }: TakenReading, comparable: boolean): Mark["use"] {
  if (leftOut) return "out";
  if (!comparable) return "other state";
  return doubledValue(reading) === null ? "bound" : "used";
}

function endsOf({ reading }: TakenReading, total: number): Pick<Mark, "low" | "high"> {
  if (reading.kind !== "bracket") return { low: nm(reading.value + total), high: nm(reading.value + total) };
  return {
    low: reading.passes === undefined ? undefined : nm(reading.passes + total),
    high: reading.refuses === undefined ? undefined : nm(reading.refuses + total),
  };
}

/** Marks the dial readings of a settling beginning; changes `marks` in place and returns what was seen. */
function settle(readings: readonly TakenReading[], marks: Mark[]): Drift {
  const dial = marks.flatMap((mark, i) => {
    const taken = readings[i];
    if (mark.use !== "used" || taken?.reading.kind !== "single") return [];
    return [{ mark, value: mark.low ?? 0, resolution: taken.resolution }];
  });
  const step = Math.max(0, ...dial.map(({ resolution }) => resolution));
  const found = drift(
    dial.map(({ value }) => value),
    step,
  );
  if (found.kind === "settled") for (const { mark } of dial.slice(0, found.from)) mark.use = "settling";
  return found;
}

function decide(
  readings: readonly TakenReading[],
  counted: readonly Observation[],
  result: Estimate | null,
  marks: readonly Mark[],
  found: Drift,
  spec: Spec,
  rule: DecisionRule,
): Verdict {
  // What one blade proves a second does not take back. Where the state had to be corrected, it proves it only beyond what the correction may be off.
  const blades = marks.filter(
    ({ use }, i) => readings[i]?.reading.kind === "bracket" && (use === "bound" || use === "used"),
  );
  const unsure = ({ corrections: list }: Mark): number =>
    rule === "proven" ? list.reduce((sum, { within }) => sum + Math.abs(within), 0) : 0;
  const most = (list: readonly number[]): number => Math.max(0, ...list);
  const { min, max } = ends(spec);
  const loose = most(blades.map((mark) => (mark.low ?? -Infinity) - unsure(mark) - max));
  if (loose > 0) return { kind: "outside", side: "loose", by: nm(loose) };
  const tight = most(blades.map((mark) => min - unsure(mark) - (mark.high ?? Infinity)));
  if (tight > 0) return { kind: "outside", side: "tight", by: nm(tight) };

  const have = counted.reduce((sum, { reading }) => sum + 1 / READINGS_NEEDED[reading.kind], 0);
  // A third added three times is not quite one.
  if (!result || have < 1 - 1e-9) {
    const last = counted.at(-1)?.reading.kind ?? "single";
    return { kind: "too few", more: Math.ceil((1 - have) * READINGS_NEEDED[last] - 1e-9) };
  }
  if (found.kind === "creeping") return { kind: "creeping" };
  return judge(result, spec, rule);
}

/**
 * What a swap may be predicted from: the estimate, once the readings are enough for a verdict and stand. The same rule as the verdict's own, so
 * that nothing is chosen from what could not be judged.
 */
export const basisOf = (assessment: Pick<Assessment, "estimate" | "verdict">): Estimate | null =>
  isEnough(assessment) ? assessment.estimate : null;

/** Whether nothing more is to be done about a figure: it is inside, or nobody knows what it should be. */
export const isSettled = ({ kind }: Verdict): boolean => kind === "inside" || kind === "not stated";

/** Whether no more readings are asked for before anything is said of the figure. */
export const isEnough = ({ verdict }: Pick<Assessment, "verdict">): boolean =>
  verdict.kind !== "too few" && verdict.kind !== "creeping";

/**
 * The verdict on an estimate. All comparisons are between integers: `mean ± U ≥ limit` is taken times twice the count.
 *
 * @returns never `too few` or `creeping`: those are about the readings, not the figure.
 */
export function judge(result: Estimate, limits: Limits, rule: DecisionRule): Verdict {
  if (!isStated(limits)) return { kind: "not stated" };
  const spec = ends(limits);
  const scale = 2 * result.count;
  const guard = rule === "proven" ? result.expanded * scale : 0;
  const overMin = result.doubledSum - spec.min * scale;
  const underMax = spec.max * scale - result.doubledSum;
  if (overMin >= guard && underMax >= guard)
    return { kind: "inside", margin: nearestNm(Math.min(overMin, underMax) / scale) };
  if (overMin < -guard) return { kind: "outside", side: "tight", by: nearestNm(-overMin / scale) };
  if (underMax < -guard) return { kind: "outside", side: "loose", by: nearestNm(-underMax / scale) };
  const nearMin = overMin < underMax;
  return {
    kind: "too close",
    limit: nearMin ? "min" : "max",
    advice: advise(result, (nearMin ? overMin : underMax) / scale),
  };
}

/** More readings than this nobody takes. */
const MOST_READINGS = 12;

/** How many more readings, at this scatter, would bring the interval clear of the limit `distance` away. */
function advise(result: Estimate, distance: number): CloseAdvice {
  if (result.spread === null) return { kind: "read again", more: 2 };
  for (let count = result.count + 1; count <= MOST_READINGS; count++) {
    const components = result.components.map((line) =>
      line.name === "scatter"
        ? { ...line, u: (result.spread ?? 0) / Math.sqrt(count), dof: count - 1 }
        : line,
    );
    if (combine(components).expanded <= Math.abs(distance))
      return { kind: "read again", more: count - result.count };
  }
  return { kind: "finer gauge or other part" };
}

function distinct(list: readonly Correction[]): Correction[] {
  const seen = new Map(list.map((item) => [`${item.name}${item.amount}`, item]));
  return [...seen.values()];
}
