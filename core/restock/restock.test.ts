import { describe, expect, it } from "@jest/globals";
import fc from "fast-check";
import loadHighs from "highs";
import { solvedBy } from "../kit";
import { cheapestFor, restock, type Pieces, type RestockQuestion } from "./index";

const solve = solvedBy(await loadHighs(), 60);
const pieces = (of: Readonly<Record<string, number>>): Pieces => new Map(Object.entries(of));
const PARTS = ["A", "B", "C"] as const;
const some = (most: number): fc.Arbitrary<Pieces> =>
  fc
    .tuple(fc.nat(most), fc.nat(most), fc.nat(most))
    .map((counts) => new Map(PARTS.flatMap((part, i) => (counts[i] ? [[part, counts[i]] as const] : []))));

/** Every amount of every part tried, one by one: the cheapest that serves enough. */
function triedAll(all: readonly Pieces[], shelf: Pieces, cents: Pieces, level: number): number {
  let best = Infinity;
  for (let a = 0; a <= 3; a++)
    for (let b = 0; b <= 3; b++)
      for (let c = 0; c <= 3; c++) {
        const bought = pieces({ A: a, B: b, C: c });
        const served = all.filter((future) =>
          PARTS.every((part) => (future.get(part) ?? 0) <= (shelf.get(part) ?? 0) + (bought.get(part) ?? 0)),
        ).length;
        const cost = PARTS.reduce((sum, part) => sum + (bought.get(part) ?? 0) * (cents.get(part) ?? 0), 0);
        if (served >= level * all.length - 1e-9 && cost < best) best = cost;
      }
  return best;
}
const costOf = (bought: Pieces, cents: Pieces): number =>
  [...bought].reduce((sum, [part, n]) => sum + n * (cents.get(part) ?? 0), 0);

const QUESTION: RestockQuestion = {
  past: [pieces({ A: 1 }), pieces({ A: 1, B: 2 }), pieces({})].map((took) => ({ unit: "one", took })),
  known: [],
  jobs: 2,
  shelf: pieces({ A: 1, B: 2 }),
  cents: pieces({ A: 500, B: 100 }),
  level: 0.9,
};

describe("what to keep on the shelf", () => {
  it("costs what trying everything finds, and by hand never less and always enough", () => {
    fc.assert(
      fc.property(
        fc.array(some(3), { minLength: 1, maxLength: 12 }),
        some(2),
        fc.tuple(
          fc.integer({ min: 1, max: 900 }),
          fc.integer({ min: 1, max: 900 }),
          fc.integer({ min: 1, max: 900 }),
        ),
        fc.constantFrom(0.5, 0.8, 0.9, 1),
        (all, shelf, [a, b, c], level) => {
          const cents = pieces({ A: a, B: b, C: c });
          const best = triedAll(all, shelf, cents, level);
          const exact = cheapestFor({ shelf, cents, level }, all, solve);
          expect(exact.proven).toBe(true);
          expect(costOf(exact.bought, cents)).toBe(best);
          const byHand = cheapestFor({ shelf, cents, level }, all);
          expect(costOf(byHand.bought, cents)).toBeGreaterThanOrEqual(best);
          const served = all.filter((future) =>
            [...future].every(([part, n]) => n <= (shelf.get(part) ?? 0) + (byHand.bought.get(part) ?? 0)),
          ).length;
          expect(served).toBeGreaterThanOrEqual(level * all.length - 1e-9);
        },
      ),
      { seed: 7, numRuns: 60 },
    );
  });

  it("is as likely as counting every pair of past jobs says", () => {
    // Two jobs out of three records: nine pairs. A lasts for one, B for one.
    let fine = 0;
    for (const one of QUESTION.past)
      for (const two of QUESTION.past) {
        const of = (part: string): number => (one.took.get(part) ?? 0) + (two.took.get(part) ?? 0);
        if (of("A") <= 1 && of("B") <= 2) fine++;
      }
    const { now, then, parts } = restock(QUESTION, solve);
    expect(Math.abs(now.chance - fine / 9)).toBeLessThan(0.08);
    expect(then.chance).toBeGreaterThanOrEqual(0.9);
    expect(now.low).toBeLessThanOrEqual(now.chance);
    expect(now.high).toBeGreaterThanOrEqual(now.chance);
    // Few records say little.
    expect(now.high - now.low).toBeGreaterThan(0.2);
    expect(parts.map(({ part }) => part).sort()).toEqual(["A", "B"]);
  });

  it("knows what the jobs that are here want for sure, and leaves aside what the shop does not keep", () => {
    const known = [
      { unit: "one", wants: pieces({ A: 3, Z: 9 }), chosen: true },
      { unit: "one", wants: pieces({ B: 1 }), chosen: true },
    ];
    const { now, parts, cents } = restock({ ...QUESTION, known, jobs: 2 }, solve);
    expect(now.chance).toBe(0);
    expect(parts).toMatchObject([
      { part: "A", mean: 3, most: 3, short: 1, buy: 2 },
      { part: "B", mean: 1, short: 0, buy: 0 },
    ]);
    expect(cents).toBe(1000);
  });

  it("of a job whose sizes are not chosen yet expects what jobs take, and at least what it is known to want", () => {
    const [open, chosen] = [false, true].map((is) =>
      restock(
        {
          ...QUESTION,
          known: [
            { unit: "one", wants: pieces({}), chosen: is },
            { unit: "one", wants: pieces({}), chosen: is },
          ],
        },
        solve,
      ),
    );
    expect(open?.now).toEqual(restock(QUESTION, solve).now);
    expect(chosen?.now.chance).toBe(1);
    // Two of B for sure in the first, as drawn in the second: never less than the two, and once in three four.
    const sure = { unit: "one", wants: pieces({ B: 2 }), chosen: false };
    const { parts } = restock({ ...QUESTION, shelf: pieces({ A: 9, B: 2 }), known: [sure] }, solve);
    const b = parts.find(({ part }) => part === "B");
    expect(b?.mean).toBeGreaterThan(2);
    expect(Math.abs((b?.short ?? 0) - 1 / 3)).toBeLessThan(0.08);
  });

  it("draws for a job that is here from jobs of its own unit alone", () => {
    const past = [...QUESTION.past, { unit: "other", took: pieces({ A: 9 }) }];
    const here = { unit: "one", wants: pieces({}), chosen: false };
    const same = { ...QUESTION, past, jobs: 1, known: [here] };
    expect(restock(same, solve).now.chance).toBe(1);
    expect(restock({ ...same, known: [{ ...here, unit: "other" }] }, solve).now.chance).toBe(0);
    // Of a unit nobody has built here nothing is known.
    expect(restock({ ...same, known: [{ ...here, unit: "third" }] }, solve)).toMatchObject({
      cents: 0,
      parts: [],
    });
    const { chance } = restock({ ...same, known: [] }, solve).now;
    expect(Math.abs(chance - 3 / 4)).toBeLessThan(0.08);
  });

  it("says the same each time, and nothing is wanted where there are no records", () => {
    expect(restock(QUESTION, solve)).toEqual(restock(QUESTION, solve));
    expect(restock({ ...QUESTION, past: [] }, solve)).toMatchObject({
      now: { chance: 1 },
      cents: 0,
      parts: [],
    });
  });
});
