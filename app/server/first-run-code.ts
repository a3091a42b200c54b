import { createHash, timingSafeEqual } from "node:crypto";

const digest = (text: string): Buffer => createHash("sha256").update(text).digest();

/** What is typed as the code, against what the console shows; how much of it is right takes no longer to say. */
export const isCode = (typed: string, code: string): boolean =>
  timingSafeEqual(digest(typed.trim().toUpperCase()), digest(code));
