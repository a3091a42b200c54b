/**
 * How many made-up cases a property is held against: a few at every turn, and more of them by `SAMPLES=5 npm test -- core`, which takes
 * that much longer.
 */
export const samples = (few: number): number =>
  Math.ceil(few * ((globalThis as { SAMPLES?: number }).SAMPLES ?? 1));
