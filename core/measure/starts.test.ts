import { describe, expect, it } from "@jest/globals";
import fc from "fast-check";
import { bookOf } from "../../demo/units";
import { resolve } from "../book";
import { strongerPlan } from "../capacity";
import { fold, type Fact, type FactBody } from "../fact";
import { nominalGap } from "../pack";
import { nm } from "../quantity";
import { said } from "../testing/said";
import { startsOf, worksheet, type House } from "./index";

const HOUSE: House = { rule: "proven", target: "middle" };
const CHAIN = "d1-clearance";
const applied = resolve(bookOf("marram-dunlin"), { body: "late", plate: "second" }, ["full"]);
const pack = applied.packs.find(({ chain }) => chain.id === CHAIN);
if (!pack) throw new Error("no D1");
const sizes = pack.seats[0]?.sizes ?? [];

const reading = (value: number): FactBody => ({
  kind: "reading",
  chain: CHAIN,
  phase: "built",
  fit: 0,
  method: "hand and dial",
  unit: "mm",
  resolution: nm(10_000),
  state: { soak: "soaked", facings: "new", wave: "free" },
  reading: { kind: "single", value: nm(value) },
});
const ring = (n: number): FactBody => {
  const { mark = "", size = nm(1), part = "" } = sizes[n] ?? {};
  return { kind: "fitting", seat: CHAIN, fit: 0, origin: "found", piece: { part, mark, size } };
};
const read = (value: number): FactBody[] => [
  reading(value),
  reading(value + 10_000),
  reading(value - 10_000),
];
const stronger: FactBody = {
  kind: "stronger",
  ways: ["d1-thin-steels"],
  torque: 400,
  use: "usual",
  packs: [],
  cuts: [],
  reason: "tows",
};
const starts = (bodies: readonly FactBody[]) => startsOf(fold(bodies.map(said)), applied, HOUSE);

describe("how this very drum measures", () => {
  it("is what was read with a known piece in, and not before it was read often enough", () => {
    expect(starts([ring(2), reading(1_300_000)]).size).toBe(0);
    expect(starts(read(1_300_000)).size).toBe(0);
    expect(starts([ring(2), ...read(1_300_000)]).get("d1")).toEqual({ gap: 1_300_000, ring: sizes[2]?.size });
  });

  it("stays what it was once it is decided: what is read then is of other plates", () => {
    const before = [ring(2), ...read(1_300_000), stronger];
    expect(starts([...before, ...read(2_000_000)]).get("d1")?.gap).toBe(1_300_000);
    expect(starts([ring(2), stronger, ...read(2_000_000)]).size).toBe(0);
  });

  it("counts what a bench that had not heard of the decision reads as of the plates that lay before it", () => {
    const at = (id: string, body: FactBody, after?: string): Fact => ({
      ...said(body),
      id,
      ...(after ? { after } : {}),
    });
    const three = (by: string, after: string, value: number): Fact[] =>
      read(value).map((body, i) => ({ ...at(`${by}${i}`, body, i === 0 ? after : `${by}${i - 1}`), by }));
    const changed: FactBody = {
      ...stronger,
      packs: [
        {
          element: "d1",
          plates: [{ role: "steel", part: "d1-steel", thickness: nm(1_400_000), count: 5 }],
          min: nm(1),
          max: nm(2_000_000),
          predicted: nm(1_300_000),
        },
      ],
    };
    const begun = [at("ring", ring(2))];
    const decided = { ...at("decided", changed, "ring"), by: "Edda L." };
    const count = (facts: readonly Fact[]): number =>
      worksheet(fold(facts), pack, HOUSE).trial.readings.length;
    // Away: it had seen the ring alone, and then what it said itself. There: it had seen the decision.
    expect(count([...begun, decided, ...three("away", "ring", 1_300_000)])).toBe(0);
    expect(count([...begun, decided, ...three("there", "decided", 1_300_000)])).toBe(3);
    // A decision that leaves the plates as they are changes nothing.
    expect(count([...begun, at("plain", stronger, "ring"), ...three("away", "ring", 1_300_000)])).toBe(3);
  });

  it("leads to the stacks of a drum so much deeper: whatever is planned, with that ring it comes out where the sum says", () => {
    const wish = { ways: ["d1-thin-steels", "d1-flat"], packs: new Map(), turns: 0 };
    const book = nominalGap(pack, null);
    const middle = sizes[Math.floor(sizes.length / 2)]?.size ?? null;
    const gaps = (deeper: number) =>
      strongerPlan(
        applied,
        wish,
        () => true,
        new Map([["d1", { gap: nm(book + deeper), ring: middle }]]),
      ).fitting.get("d1");
    expect(gaps(0)).toEqual(strongerPlan(applied, wish).fitting.get("d1"));
    fc.assert(
      fc.property(fc.integer({ min: -20, max: 60 }), (steps) => {
        const deeper = steps * 10_000;
        const by = (n: number | undefined): number => n ?? 0;
        for (const plan of gaps(deeper) ?? []) {
          // The same stack and ring in the book’s drum would have so much less.
          const stacked = (stack: typeof plan.stack): number =>
            stack.reduce((sum, { thickness, count }) => sum + by(thickness) * by(count ?? 1), 0);
          const own =
            book +
            deeper +
            stacked(pack.stack) -
            stacked(plan.stack) -
            (by(plan.ring?.size) - by(middle ?? 0)) +
            plan.cut;
          expect(plan.gap).toBe(own);
          expect(plan.gap).toBeGreaterThanOrEqual(plan.limits.min);
          expect(plan.gap).toBeLessThanOrEqual(plan.limits.max);
        }
      }),
      { numRuns: 40 },
    );
  });
});
