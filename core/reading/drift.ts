/**
 * A pack that is still settling: air builds up, oil squeezes out, plates seat, and readings creep up from take to take. Four
 * readings in rising order happen by chance once in 24; together with a rise of several gauge steps that is settling.
 */
export type Drift =
  | { kind: "none" }
  /** The last readings still rise: take more before believing the mean. */
  | { kind: "creeping"; rise: number }
  /** The first readings rose, the later ones stand: the first `from` readings are set aside. */
  | { kind: "settled"; from: number };

/** In a row to call it a rise. */
const RISING = 4;
/** How many gauge steps the rise must be to mean anything. */
const STEPS = 3;
/** How many later readings are needed to say that it has settled. */
const STANDING = 3;
/** How many risen readings make a beginning: one low reading alone is a stray, for the builder to judge. */
const BEGINNING = 2;

/**
 * @param values readings in the order taken, in nanometres.
 * @param resolution the gauge's step, in nanometres; readings within a rise may repeat, since a step hides small rises.
 */
export function drift(values: readonly number[], resolution: number): Drift {
  const least = STEPS * resolution;
  for (let from = BEGINNING; from <= values.length - STANDING; from++) {
    const first = values.slice(0, from);
    // What falls once is no beginning that rises, however long.
    if (!neverFalls(first)) break;
    if (hasSettled(first, values.slice(from), least)) return { kind: "settled", from };
  }
  const rise = riseAtEnd(values, least);
  return rise === null ? { kind: "none" } : { kind: "creeping", rise };
}

/** What rose first lies all below what follows, by more than what follows scatters; and what follows stands. */
function hasSettled(first: readonly number[], later: readonly number[], least: number): boolean {
  const low = Math.min(...later);
  const spread = Math.max(...later) - low;
  const rise = mean(later) - (first[0] ?? 0);
  const before = ((first.at(-1) ?? 0) - (first[0] ?? 0)) / (first.length - 1);
  return Math.max(...first) < low && rise > least && rise > 2 * spread && stands(later, before, least);
}

/**
 * Whether readings stand: no reading is part of the rise still, lying under all that follow it; and together they rise neither by more than
 * the gauge tells, nor half as fast as those before did.
 *
 * @param before the rise per reading until then.
 */
function stands(later: readonly number[], before: number, least: number): boolean {
  const under = later.some(
    (value, i) => i < later.length - 1 && value < Math.min(...later.slice(i + 1)) - least / 2,
  );
  if (under) return false;
  if (neverFalls(later) && (later.at(-1) ?? 0) - (later[0] ?? 0) > least) return false;
  if (!mostlyRises(later)) return true;
  const slope = slopeOf(later);
  return slope * (later.length - 1) <= least && slope <= before / 2;
}

/**
 * How much the readings rise at their end: a run of at least four that never falls, by more than the gauge tells. At most so few readings may
 * come after it that they cannot be said to stand, and they stay up.
 *
 * @returns the rise; null where there is none.
 */
function riseAtEnd(values: readonly number[], least: number): number | null {
  for (let end = values.length; end > values.length - STANDING && end >= RISING; end--) {
    let start = end - 1;
    while (start > 0 && (values[start - 1] ?? 0) <= (values[start] ?? 0)) start--;
    const run = values.slice(start, end);
    const [first = 0, last = 0] = [run[0], run.at(-1)];
    const rise = last - first;
    const staysUp = values.slice(end).every((value) => value > first + rise / 2);
    if (run.length >= RISING && rise > least && staysUp) return rise;
  }
  return null;
}

const neverFalls = (values: readonly number[]): boolean =>
  values.every((value, i) => i === 0 || value >= (values[i - 1] ?? 0));

/** More than three of four pairs are in rising order: Kendall's count over half of its greatest. */
function mostlyRises(values: readonly number[]): boolean {
  const pairs = values.flatMap((value, i) => values.slice(i + 1).map((later) => Math.sign(later - value)));
  return pairs.reduce((sum, one) => sum + one, 0) > pairs.length / 2;
}

/** Rise per reading, by least squares. */
function slopeOf(values: readonly number[]): number {
  const middle = (values.length - 1) / 2;
  const level = mean(values);
  const [up, across] = values.reduce(
    ([a, b], value, i) => [a + (i - middle) * (value - level), b + (i - middle) ** 2] as const,
    [0, 0] as readonly [number, number],
  );
  return up / across;
}

const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / values.length;
