/**
 * A pack that is still settling: air builds up, oil squeezes out, plates seat, and each reading is above the one before.
 * Four readings in rising order happen by chance once in 24; together with a rise of several gauge steps that is settling.
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

/**
 * @param values readings in the order taken, in nanometres.
 * @param resolution the gauge's step, in nanometres.
 */
export function drift(values: readonly number[], resolution: number): Drift {
  const rising = risingRun(values);
  const from = rising.length - 1;
  if (rising.length >= 3 && values.length - from >= STANDING) {
    const later = values.slice(from);
    const spread = Math.max(...later) - Math.min(...later);
    const gap = Math.min(...later) - Math.max(...rising.slice(0, -1));
    const rise = mean(later) - (rising[0] ?? 0);
    if (gap > 0 && rise > STEPS * resolution && rise > 2 * spread && !stillRising(later, resolution)) {
      return { kind: "settled", from };
    }
  }
  if (stillRising(values, resolution)) {
    return { kind: "creeping", rise: (values.at(-1) ?? 0) - (values.at(-RISING) ?? 0) };
  }
  return { kind: "none" };
}

/** The longest rising beginning. */
function risingRun(values: readonly number[]): readonly number[] {
  let end = 1;
  while (end < values.length && (values[end] ?? 0) > (values[end - 1] ?? 0)) end++;
  return values.slice(0, end);
}

function stillRising(values: readonly number[], resolution: number): boolean {
  const last = values.slice(-RISING);
  if (last.length < RISING) return false;
  const rises = last.every((value, i) => i === 0 || value > (last[i - 1] ?? 0));
  return rises && (last.at(-1) ?? 0) - (last[0] ?? 0) > STEPS * resolution;
}

const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / values.length;
