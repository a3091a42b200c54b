import type { Problem } from "~core/book";

/** What a draft’s page is told when it sends something. */
export type Answer =
  | { kind: "saved"; version: number }
  | { kind: "conflict"; version: number; by: string; theirs: string }
  | { kind: "refused"; problem: string; problems: Problem[] };
