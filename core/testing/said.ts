import type { Fact, FactBody } from "../fact";

let count = 0;

/** A part that burnt beyond use. */
export const burnt = (part: string) =>
  ({
    kind: "finding",
    part,
    wear: "burnt",
    severity: "beyond-use",
    sure: true,
    note: "",
    there: true,
  }) as const satisfies FactBody;

/** A body as a fact of its own, said by somebody at some moment: for tests of what facts say together. */
export const said = (body: FactBody): Fact => ({
  id: `00000000-0000-4000-8000-${String(++count).padStart(12, "0")}`,
  by: "Mira K.",
  at: "2026-05-04T08:00:00.000Z",
  body,
});
