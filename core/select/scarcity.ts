/** For how long the coming work is looked ahead where nobody knows how long a new one takes to come. */
const USUAL_DAYS = 14;
/** Even where one is here tomorrow, a day’s work should not be short of it. */
const LEAST_DAYS = 7;
/** Days of the shop’s own past that uses are counted over. */
export const USED_OVER_DAYS = 180;
/** What the last pieces count, whatever was used before: nobody knows what tomorrow wants. */
const LAST: readonly number[] = [0, 2, 1];
/** All that lies there is likely to be needed before more can come. */
const ALL = 10;

/**
 * How much the coming work is likely to miss a piece that is taken now: what the shop used of it in its own past, for as long as it takes to have
 * more, against what lies there.
 *
 * @param onHand what can be taken.
 * @param used how many were fitted in the last `USED_OVER_DAYS`.
 * @param days until one comes when ordered.
 * @returns whole points from 0 to 12.
 */
export function scarcityOf({
  onHand,
  used = 0,
  days,
}: {
  onHand: number;
  used?: number | undefined;
  days?: number | undefined;
}): number {
  if (onHand < 1) return 0;
  const needed = (used / USED_OVER_DAYS) * Math.max(LEAST_DAYS, days ?? USUAL_DAYS);
  return Math.round(ALL * Math.min(1, needed / onHand)) + (LAST[onHand] ?? 0);
}
