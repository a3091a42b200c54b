import { createHmac, timingSafeEqual } from "node:crypto";
import { UUID } from "~core/shape";

/** A tablet may lie away from the server over a weekend and a holiday, and no longer. */
const LASTS_MS = 7 * 24 * 3600 * 1000;

const seal = (key: string, staff: string, at: string): Buffer =>
  createHmac("sha256", key)
    .update(`said by ${staff}${at && ` at ${at}`}`)
    .digest();

/**
 * A word that only a page of this person's has: facts said there keep it, so that they are still theirs when somebody else has signed in
 * before the machine found the server again. It says when it was given and ends after a week; it never speaks for what needs a role.
 */
export function voucherFor(key: string, staff: string, now = Date.now()): string {
  const at = now.toString(36);
  return `${staff}.${at}.${seal(key, staff, at).toString("base64url")}`;
}

/** Whose voucher it is, and whether it still holds; null when it is not ours. */
export function vouchedFor(
  key: string,
  voucher: string,
  now = Date.now(),
): { staff: string; holds: boolean } | null {
  const [staff = "", ...rest] = voucher.split(".");
  // Those given before they had an end do not say when: they hold for nobody but whoever is signed in as the same.
  const [at, given = ""] = rest.length === 1 ? ["", rest[0]] : rest;
  if (!UUID.test(staff) || at === undefined || !/^[0-9a-z]{0,11}$/.test(at) || rest.length > 2) return null;
  const [right, told] = [seal(key, staff, at), Buffer.from(given, "base64url")];
  if (told.length !== right.length || !timingSafeEqual(told, right)) return null;
  return { staff, holds: at !== "" && Math.abs(now - parseInt(at, 36)) <= LASTS_MS };
}
