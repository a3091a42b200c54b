import { describe, expect, it, test } from "@jest/globals";
import { fold, mayReplace, type Fact, type FactBody } from "./index";

let n = 0;
const said = (body: FactBody, replaces?: string): Fact => ({
  id: `01900000-0000-7000-8000-${String(++n).padStart(12, "0")}`,
  at: "2026-05-04T08:00:00.000Z",
  by: "Mira K.",
  ...(replaces ? { replaces } : {}),
  body,
});
const piece = { mark: "b", size: 1_800_000 } as never;
const FITTED: FactBody = { kind: "fitting", seat: "d1-clearance", fit: 0, piece, origin: "found" };
const READ = {
  kind: "reading",
  chain: "d1-clearance",
  phase: "found",
  fit: 0,
  method: "feeler",
  reading: { kind: "single", value: 1_200_000 },
  resolution: 10_000,
  unit: "mm",
} as unknown as FactBody;
const WAIVED: FactBody = {
  kind: "waiver",
  chain: "d1-clearance",
  reason: "customer knows",
  signedBy: "Edda L.",
};
const CLOSED = { kind: "closed", rule: "proven" } as FactBody;

describe("a correction", () => {
  test.each<[string, FactBody, FactBody, boolean]>([
    ["the ring that was found", FITTED, FITTED, true],
    ["a ring of another pack", { ...FITTED, seat: "d2-clearance" }, FITTED, false],
    ["a ring by a word on a part", { kind: "good", parts: ["d1-drum"] }, FITTED, false],
    ["a reading by one of the same chain", READ, READ, true],
    ["a reading by one as built", { ...READ, phase: "built" } as FactBody, READ, false],
    ["a reading by one of another chain", { ...READ, chain: "d2-clearance" } as FactBody, READ, false],
    ["a count", { kind: "count", of: "pan", found: 3 }, { kind: "count", of: "pan", found: 2 }, true],
    ["a lead’s signature", WAIVED, WAIVED, false],
    ["a lead’s signature by a reading", READ, WAIVED, false],
    ["a closing", CLOSED, CLOSED, false],
    ["a closing by a booking", { kind: "fluid", look: "black", smell: "burnt", note: "" }, CLOSED, false],
    ["a ring off the shelf by what was found", FITTED, { ...FITTED, fit: 1, origin: "shelf" }, false],
  ])("of %s", (_what, body, old, may) => {
    const before = said(old);
    const after = said(body, before.id);
    expect(mayReplace(after, before)).toBe(may);
    // What is stored already is read by the same rule: nothing is taken away that may not be.
    const live = fold([before, after]).live.map(({ id }) => id);
    expect(live.includes(before.id)).toBe(!may);
    expect(live).toContain(after.id);
  });

  it("of what is not there takes nothing away", () => {
    const one = said(FITTED, "01900000-0000-7000-8000-ffffffffffff");
    expect(fold([one]).live).toEqual([one]);
  });
});
