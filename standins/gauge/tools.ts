import { ownError } from "./drum";

/** A gauge held by hand: its step, what hands scatter with it, and how much of a part’s own error there is to find. Nanometres. */
interface Tool {
  step: number;
  scatter: number;
  error: number;
}
const DIAL: Tool = { step: 10_000, scatter: 6_000, error: 1 };
const TOOLS: Readonly<Record<string, Tool>> = {
  micrometer: { step: 1_000, scatter: 1_500, error: 0.2 },
  "bore gauge": { step: 1_000, scatter: 2_500, error: 0.2 },
  "depth gauge": { step: 10_000, scatter: 9_000, error: 1 },
  caliper: { step: 10_000, scatter: 12_000, error: 1 },
};

/** The blades of a set, thinnest first: hundredths up to a tenth of a millimetre, then in twentieths to one. */
export const BLADES: readonly number[] = [
  ...Array.from({ length: 9 }, (_, i) => (i + 2) * 10_000),
  ...Array.from({ length: 18 }, (_, i) => (i + 3) * 50_000),
];

export type ToolReading = { value: number } | { passes: number | null; refuses: number | null };

/**
 * What a hand reads with a gauge: the book’s figure, what this very part is off by, and a little scatter, in whole steps; of blades the
 * thickest that passes and the thinnest that does not.
 *
 * @param what tells one part from another; the same part is off by the same.
 * @param chance a source of numbers in [0, 1).
 */
export function reading(gauge: string, what: string, nominal: number, chance: () => number): ToolReading {
  const { step, scatter, error } = TOOLS[gauge] ?? DIAL;
  // A narrow gap can be off by a part of itself only.
  const own = ownError(what) * Math.min(error, Math.abs(nominal) / 250_000);
  if (gauge === "feeler") {
    const gap = nominal + own;
    return {
      passes: BLADES.findLast((blade) => blade <= gap) ?? null,
      refuses: BLADES.find((blade) => blade > gap) ?? null,
    };
  }
  const normal = Math.sqrt(-2 * Math.log(1 - chance())) * Math.cos(2 * Math.PI * chance());
  return { value: Math.round((nominal + own + scatter * normal) / step) * step };
}
