import { createHmac, timingSafeEqual } from "node:crypto";

const ID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

const seal = (key: string, staff: string): Buffer =>
  createHmac("sha256", key).update(`said by ${staff}`).digest();

/**
 * A word that only a page of this person's has: facts said there keep it, so that they are still theirs when somebody else has signed in
 * before the machine found the server again.
 */
export const voucherFor = (key: string, staff: string): string =>
  `${staff}.${seal(key, staff).toString("base64url")}`;

/** Whose voucher it is; null when it is not ours. */
export function vouchedFor(key: string, voucher: string | null): string | null {
  const [staff = "", given = ""] = (voucher ?? "").split(".");
  if (!ID.test(staff)) return null;
  const [right, told] = [seal(key, staff), Buffer.from(given, "base64url")];
  return told.length === right.length && timingSafeEqual(told, right) ? staff : null;
}
