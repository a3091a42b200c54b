/**
 * An amount as people write it, in the shop’s own money, below a million: above that it is a slip of the hand. `1250`, `1250.00`, `1 250,50`.
 *
 * @returns whole cents, or null where it is no amount of money.
 */
export function parseMoney(text: string): number | null {
  const plain = text.replace(/\s/g, "").replace(",", ".");
  const [, whole, part = ""] = /^(\d{1,6})(?:\.(\d{1,2}))?$/.exec(plain) ?? [];
  if (whole === undefined) return null;
  return Number(whole) * 100 + Number(part.padEnd(2, "0"));
}

/** An amount as whole cents. @throws RangeError where it is none. */
export function moneyOf(text: string): number {
  const cents = parseMoney(text);
  if (cents === null) throw new RangeError(`“${text}” is no amount of money`);
  return cents;
}

/** @param cents whole cents. @returns the amount with two digits after the point, as it is typed. */
export const moneyText = (cents: number): string => (cents / 100).toFixed(2);
