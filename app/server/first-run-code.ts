import { createHash, timingSafeEqual } from "node:crypto";

/** What is typed as the code, against what the console shows; how much of it is right takes no longer to say. */
export function isCode(typed: string, code: string): boolean {
  const [a, b] = [typed.trim().toUpperCase(), code].map((one) => createHash("sha256").update(one).digest());
  return a !== undefined && b !== undefined && timingSafeEqual(a, b);
}
