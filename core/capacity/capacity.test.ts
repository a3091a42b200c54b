import { ends } from "../reading";
import { describe, expect, it, test } from "@jest/globals";
import fc from "fast-check";
import { resolve, type PackChain, type SeatSize, type StackEntry, type StrongerWay } from "../book";
import { nominalGap, thicknessOf } from "../pack";
import { nm, type Nm } from "../quantity";
import { bookOf, UNITS } from "../../demo/units";
import {
  bandTorque,
  capacitiesOf,
  demandsOf,
  dragSpeed,
  forceOf,
  headForce,
  meanRadii,
  packTorque,
  platePlans,
  riseOf,
  shiftHeat,
  steelMass,
  strongerPlan,
  type Duty,
  type PackGrip,
} from "./index";

const GRIP: PackGrip = {
  kind: "pack",
  surfaces: 8,
  friction: 0.12,
  inner: 0.058,
  outer: 0.074,
  area: 112e-4,
  spring: 980,
  lever: 1,
  pressure: 14e5,
};
const close = (found: number, wanted: number, within = 0.0005): void =>
  expect(Math.abs(found / wanted - 1)).toBeLessThan(within);

describe("worked by hand", () => {
  it("the radius by both models: even pressure 66.32 mm, even wear 66.00 mm", () => {
    const { evenPressure, evenWear } = meanRadii(0.058, 0.074);
    close(evenPressure, 0.066_323);
    close(evenWear, 0.066);
  });

  it("a pack: 15 680 N of fluid less 980 N of spring, on eight faces", () => {
    close(forceOf(GRIP), 14_700);
    close(packTorque(GRIP).evenWear, 8 * 0.12 * 14_700 * 0.066);
    close(packTorque(GRIP).evenPressure, 935.95);
  });

  it("a dished spring as a lever makes 1.6 of what is left of the force", () => {
    close(forceOf({ area: 110e-4, pressure: 1_034_000, spring: 1_068, lever: 1.6 }), 16_489.6);
  });

  it("a spring that the fluid does not overcome lets the pack be", () => {
    expect(forceOf({ area: 1e-4, pressure: 1e5, spring: 980, lever: 3 })).toBe(0);
  });

  it("a band three quarters round: 1.76 times the force wound up, 0.64 times let down", () => {
    const band = {
      ...({ kind: "band", friction: 0.2155, drum: 0.08, wrap: (270 * Math.PI) / 180, area: 20e-4 } as const),
      ...({ spring: 200, lever: 2, pressure: 10e5, winds: "forward" } as const),
    };
    // e^(0.2155 · 3π/2) = e^1.0155 = 2.7608; the force is (2000 − 200) · 2 on 0.08 m.
    close(bandTorque(band, "forward"), 288 * 1.7608);
    close(bandTorque(band, "backward"), 288 * (1 - 1 / 2.7608));
  });

  it("fluid that turns along at 5000/min behind a piston of 132 and 72 mm: 1710 N; a spring of 980 N gives in at 3785/min", () => {
    // ω = 523.6; π·850/4·ω²·(0.066² − 0.036²)² = 667.6 · 274 156 · (0.003060)².
    close(headForce(0.036, 0.066, 5_000), 1_713.8, 0.001);
    const speed = dragSpeed(0.036, 0.066, 980);
    close(headForce(0.036, 0.066, speed), 980, 1e-9);
  });

  it("heat: 400 N·m over 2000/min of slip in 0.4 s is 16.8 kJ; 0.6 kg of steel is 57 K warmer", () => {
    close(shiftHeat(400, -2_000, 0.4), 16_755);
    close(riseOf(16_755, 0.6), 56.99);
    // A ring of 58 to 74 mm and 7.2 mm of steels: π·(74² − 58²) · 7.2 mm³ at 7.85 g/cm³.
    close(steelMass(0.058, 0.074, 0.0072), 0.375);
  });
});

const DUTY: Duty = { torque: 400, stall: 2, speed: 3_000, seconds: 0.5, use: "usual" };

describe("a unit", () => {
  test.each(UNITS)(
    "%s: every element that a range applies is judged, or says what the book does not",
    (id) => {
      const book = bookOf(id);
      const applied = resolve(book, firstOf(book.traits), book.depths);
      const found = capacitiesOf(applied, DUTY);
      const used = new Set(book.ranges.flatMap(({ applied: on }) => on));
      expect(
        found
          .map(({ element }) => element.id)
          .filter((one) => used.has(one))
          .sort(),
      ).toEqual([...used].sort());
      for (const { stock, demands } of found) {
        expect(stock.judged === "unknown").toBe(
          stock.missing.length > 0 && demands.some(({ torque }) => torque > 0),
        );
        if (stock.torque !== null && stock.worst)
          close(stock.margin ?? 0, stock.torque / stock.worst.torque, 1e-9);
      }
    },
  );

  it("whose version nobody has seen says so instead of a figure", () => {
    const book = bookOf("marram-dunlin");
    const d1 = capacitiesOf(resolve(book, {}, book.depths), DUTY).find(({ element }) => element.id === "d1");
    expect(d1?.stock).toMatchObject({ judged: "unknown", missing: ["which version it is"] });
  });

  it("the converter multiplies where a vehicle pulls away, and only there", () => {
    const of = (stall: number): Record<string, number> =>
      Object.fromEntries(
        (demandsOf(bookOf("marram-dunlin"), { torque: 100, stall }).get("d1") ?? []).map(
          ({ range, torque }) => [range, torque],
        ),
      );
    const [one, two] = [of(1), of(2)];
    // The book lets the engine give 85 of 100 in first.
    close(one["1"] ?? 0, 85 * (108 / 76));
    expect(two["1"]).toBeCloseTo(2 * (one["1"] ?? 0), 9);
    expect(two["2"]).toBeCloseTo(one["2"] ?? 0, 9);
    // Both drive the same way: the pack carries less where another clutch drives along.
    expect(one["3"]).toBeLessThan(one["2"] ?? 0);
  });

  it("more pressure, faces and friction carry more; a use that is harder wants more", () => {
    const book = bookOf("marram-dunlin");
    const applied = resolve(book, firstOf(book.traits), book.depths);
    const d3 = (use: Duty["use"], ways: StrongerWay[]) =>
      capacitiesOf(applied, { ...DUTY, use }, new Map([["d3", { ways }]])).find(
        ({ element }) => element.id === "d3",
      );
    const raised: StrongerWay = {
      id: "raised",
      name: "raised pressure",
      elements: ["d3"],
      pressure: { quantity: "pressure", unit: "bar", figure: "18" },
    };
    const [stock, planned] = [d3("usual", [raised])?.stock, d3("usual", [raised])?.planned];
    // (18 bar · 96 cm² − 760 N) / (14 bar · 96 cm² − 760 N)
    close((planned?.torque ?? 0) / (stock?.torque ?? 1), 16_520 / 12_680);
    // Of two that raise it the higher one counts, whichever stands first.
    const lower: StrongerWay = {
      id: "lower",
      name: "lower",
      elements: ["d3"],
      pressure: { quantity: "pressure", unit: "bar", figure: "16" },
    };
    expect(d3("usual", [raised, lower])?.planned?.torque).toBe(planned?.torque);
    expect(d3("usual", [lower, raised])?.planned?.torque).toBe(planned?.torque);
    expect(d3("towing", [])?.wanted).toBeGreaterThan(d3("usual", [])?.wanted ?? 9);
    // It takes over from second to third: slip there, and none at a standstill pack.
    expect(stock?.shift).toMatchObject({ from: "2", to: "3" });
  });
});

const firstOf = (traits: ReturnType<typeof bookOf>["traits"]): Record<string, string> =>
  Object.fromEntries(traits.map(({ id, values }) => [id, Object.keys(values)[0] ?? ""]));

describe("how many more plates fit", () => {
  const book = bookOf("marram-dunlin");
  const pack = (id: string): PackChain => {
    const found = resolve(book, { ...firstOf(book.traits), body: "late" }, book.depths).packs.find(
      (one) => one.pack.element === id,
    );
    if (!found) throw new Error(id);
    return found;
  };
  const way = (id: string, more: Partial<StrongerWay>): StrongerWay => ({
    id,
    name: id,
    elements: ["d1"],
    ...more,
  });

  it("with nothing done to it the stock stack is all there is", () => {
    const d1 = pack("d1");
    const ring = d1.seats[0]?.sizes[Math.floor((d1.seats[0]?.sizes.length ?? 0) / 2)]?.size ?? null;
    const plans = platePlans(d1, [], { gap: nominalGap(d1, null), ring });
    expect(plans.map(({ frictions, ways, cut }) => ({ frictions, ways, cut }))).toEqual([
      { frictions: 4, ways: [], cut: 0 },
    ]);
  });

  it("whose ways are listed in another order is the same, and a way of two plates is bought for those that go in", () => {
    const both = way("both", {
      steels: { thickness: nm(1_400_000), number: "S" },
      reaction: { thickness: nm(2_000_000), number: "R" },
    });
    const ways = [
      both,
      way("thin", { steels: { thickness: nm(1_400_000), number: "T" } }),
      way("flat", { without: "waved plate" }),
    ];
    const start = { gap: nominalGap(pack("d1"), null), ring: nm(1_900_000) };
    const found = platePlans(pack("d1"), ways, start);
    expect(found.length).toBeGreaterThan(2);
    expect(platePlans(pack("d1"), [...ways].reverse(), start)).toEqual(found);
    // A plate so thin that no stack with it fits stays out, though its way is taken for its steels.
    const thinnest: StrongerWay = { ...both, reaction: { thickness: nm(500_000), number: "R" } };
    const flat = way("flat", { without: "waved plate" });
    const traits = { ...firstOf(book.traits), body: "late" };
    const applied = resolve({ ...book, stronger: [thinnest, flat] }, traits, book.depths);
    const wish = {
      ways: ["both", "flat"],
      turns: 0,
      packs: new Map([["d1", { frictions: 5, isSprung: false }]]),
    };
    const [plates] = strongerPlan(applied, wish).packs.map((one) => one.plates);
    expect(plates?.find(({ role }) => role === "steel")).toMatchObject({ number: "S", count: 5 });
    expect(plates?.find(({ role }) => role === "reaction plate")).not.toHaveProperty("number");
  });

  it("a facing that grips more goes in though no more plates fit with it", () => {
    const hard = way("hard", { frictions: { thickness: nm(1_600_000), number: "X", friction: 0.14 } });
    const plans = platePlans(pack("d1"), [hard], { gap: nominalGap(pack("d1"), null), ring: null });
    expect(plans.map(({ frictions, ways }) => ({ frictions, ways }))).toEqual([
      { frictions: 4, ways: ["hard"] },
    ]);
  });

  it("plates faced on one side are left as they are listed", () => {
    const d1 = pack("d1");
    const stack = d1.stack.map((entry): StackEntry =>
      entry.role === "friction" ? { ...entry, faced: "inner side" } : entry,
    );
    expect(platePlans({ ...d1, stack }, [], { gap: nominalGap(d1, null), ring: null })).toEqual([]);
  });

  it("thin steels or metal off the end plate: as many as every combination tried one by one would find, and with as little metal", () => {
    const tenth = (n: number): Nm => nm(n * 50_000);
    fc.assert(
      fc.property(
        fc.record({
          steel: fc.integer({ min: 20, max: 40 }),
          end: fc.integer({ min: 40, max: 100 }),
          friction: fc.integer({ min: 24, max: 36 }),
          most: fc.integer({ min: 0, max: 12 }),
          second: fc.integer({ min: 0, max: 6 }),
          gap: fc.integer({ min: 8, max: 50 }),
          wave: fc.boolean(),
        }),
        ({ steel, end, friction, most, second, gap, wave }) => {
          const d1 = pack("d1");
          const seat = d1.seats[0];
          const sizes = seat?.sizes ?? [];
          const ring = sizes[2]?.size ?? nm(0);
          const ways = [
            way("thin", { steels: { thickness: tenth(steel), number: "X" } }),
            way("end", { reaction: { thickness: tenth(end), number: "X" } }),
            way("thinner", { frictions: { thickness: tenth(friction), number: "X" } }),
            ...(most > 0
              ? [way("cut", { cut: { part: "d1-reaction", step: nm(50_000), most: tenth(most) } })]
              : []),
            ...(second > 0
              ? [way("piston", { cut: { part: "d1-piston", step: nm(100_000), most: tenth(second * 2) } })]
              : []),
            ...(wave ? [way("flat", { without: "waved plate" })] : []),
          ];
          const start = { gap: tenth(gap), ring };
          const found = platePlans(d1, ways, start);
          const slow = everything(d1, ways, start, ring, sizes);
          for (const sprung of [true, false])
            for (let frictions = 4; frictions <= 10; frictions++) {
              const best = found.find((one) => one.frictions === frictions && one.isSprung === sprung);
              expect(best?.cut ?? null).toBe(slow.get(`${frictions} ${sprung}`) ?? null);
              if (!best) continue;
              // What is returned adds up by itself.
              const into = start.gap + (thicknessOf(d1.stack) ?? NaN) - (thicknessOf(best.stack) ?? NaN);
              expect(best.gap).toBe(into - ((best.ring?.size ?? ring) - ring) + best.cut);
              // Off each part comes what its machine can take off, and together it is all of it.
              expect(best.cuts.reduce((sum, { off }) => sum + off, 0)).toBe(best.cut);
              for (const { way: of, off } of best.cuts) {
                const { step = nm(1), most: top = nm(0) } = ways.find(({ id }) => id === of)?.cut ?? {};
                expect([off % step, off <= top]).toEqual([0, true]);
              }
              expect(best.gap).toBeGreaterThanOrEqual(best.limits.min);
              expect(best.gap).toBeLessThanOrEqual(best.limits.max);
            }
        },
      ),
      { numRuns: 60 },
    );
  });

  /** Least metal for each count, every plate, ring and cut tried. */
  function everything(
    d1: PackChain,
    ways: readonly StrongerWay[],
    start: { gap: Nm },
    ring: Nm,
    sizes: readonly SeatSize[],
  ): Map<string, number> {
    const least = new Map<string, number>();
    const has = (id: string): StrongerWay | undefined => ways.find((one) => one.id === id);
    const stock = { wave: 1_900_000, steel: 1_800_000, friction: 1_600_000, end: 4_800_000 };
    const before = stock.wave + 4 * stock.steel + 4 * stock.friction + stock.end;
    for (let n = 4; n <= 10; n++)
      for (const wave of has("flat") ? [stock.wave, 0] : [stock.wave])
        for (const steel of [stock.steel, has("thin")?.steels?.thickness ?? stock.steel])
          for (const friction of [stock.friction, has("thinner")?.frictions?.thickness ?? stock.friction])
            for (const end of [stock.end, has("end")?.reaction?.thickness ?? stock.end])
              for (const { size } of sizes)
                for (let a = 0; a <= (has("cut")?.cut?.most ?? 0); a += 50_000)
                  for (let b = 0; b <= (has("piston")?.cut?.most ?? 0); b += 100_000) {
                    const gap =
                      start.gap + before - (wave + n * steel + n * friction + end) - (size - ring) + a + b;
                    const key = `${n} ${wave > 0}`;
                    if (gap < (ends(d1.spec).min * n) / 4 || gap > (ends(d1.spec).max * n) / 4) continue;
                    least.set(key, Math.min(least.get(key) ?? Infinity, a + b));
                  }
    return least;
  }
});
