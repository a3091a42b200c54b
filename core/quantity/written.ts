/**
 * How people write a number, for every figure that is read: a sign as any dash, and a comma that may stand for a point or between thousands.
 */

/** A sign is written as any dash, with or without a blank after it. */
const DASH = /^[-−–‐‑‒—]\s*/u;
/** Up to three digits that do not begin with 0, a comma, exactly three digits: one figure in one country, a thousand times it in another. */
const EITHER = /^[+-]?([1-9]\d{0,2}),(\d{3})$/;

/** With its sign, if any, as the one in ASCII. */
export const plainSign = (text: string): string => text.replace(DASH, "-");

/**
 * What to ask when a comma can be read two ways.
 *
 * @param number digits with their sign, without a unit.
 * @returns null where there is nothing to ask.
 */
export function whichComma(number: string): { problem: string; remedy: string } | null {
  const [, whole = "", fraction = ""] = EITHER.exec(number) ?? [];
  if (whole === "") return null;
  return {
    problem: `“${number}” can be ${whole}.${fraction} or ${whole}${fraction}`,
    remedy: `write ${whole}.${fraction} or ${whole}${fraction}`,
  };
}
