/** Within two parts in a hundred a ratio is the listed one: speed sensors and a tyre’s slip are no better. */
const NEAR = 0.02;

/** Whether a ratio as read is the one listed, its sense left out. */
export const isListed = (ratio: number, listed: number): boolean =>
  Math.abs(Math.abs(ratio / listed) - 1) <= NEAR;
