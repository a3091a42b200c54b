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
  for (let from = BEGINNING; from <= values.length - STANDING; from++) {
    if (hasSettled(values.slice(0, from), values.slice(from), resolution)) return { kind: "settled", from };
  }
  if (stillRising(values, resolution)) {
    return { kind: "creeping", rise: (values.at(-1) ?? 0) - (values.at(-RISING) ?? 0) };
  }
  return { kind: "none" };
}

/** The first rose and all lie below what follows, by more than what follows scatters. */
function hasSettled(first: readonly number[], later: readonly number[], resolution: number): boolean {
  const low = Math.min(...later);
  const spread = Math.max(...later) - low;
  const rise = mean(later) - (first[0] ?? 0);
  return (
    neverFalls(first) &&
    Math.max(...first) < low &&
    rise > STEPS * resolution &&
    rise > 2 * spread &&
    !stillRising(later, resolution)
  );
}

function stillRising(values: readonly number[], resolution: number): boolean {
  const last = values.slice(-RISING);
  return (
    last.length === RISING && neverFalls(last) && (last.at(-1) ?? 0) - (last[0] ?? 0) > STEPS * resolution
  );
}

const neverFalls = (values: readonly number[]): boolean =>
  values.every((value, i) => i === 0 || value >= (values[i - 1] ?? 0));

const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / values.length;
