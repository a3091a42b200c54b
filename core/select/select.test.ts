import { describe, expect, it, test } from "@jest/globals";
import fc from "fast-check";
import { dunlin } from "../testing/dunlin";
import { nm } from "../quantity";
import { estimate, type Estimate, type Spec } from "../reading";
import {
  agrees,
  candidates,
  distance,
  MICROMETER_U,
  sizeNear,
  target,
  thickness,
  type CandidateQuestion,
  type Stock,
} from "./index";

const SERIES = dunlin().series[0]!;
const SPEC: Spec = { min: nm(1_050_000), max: nm(1_400_000), state: { soak: "soaked", facings: "new" } };
const FITTED = { part: "P175", mark: "two notches", size: nm(1_750_000) };

const measured = (...um: number[]): Estimate =>
  estimate(
    um.map((value) => ({
      reading: { kind: "single", value: nm(value * 1_000) },
      resolution: nm(10_000),
      corrections: [],
    })),
  );

const ask = (more: Partial<CandidateQuestion> = {}) =>
  candidates({
    measured: measured(1370, 1380, 1375),
    fitted: FITTED,
    series: SERIES,
    stock: ["P160", "P175", "P190", "P205"].map((part) => ({ part, onHand: 3 })),
    spec: SPEC,
    rule: "proven",
    target: target(SPEC, "shifting", "middle"),
    ...more,
  });

describe("candidates", () => {
  it("predicts every size as the whole chain would, each once", () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 500, max: 2500 }), { minLength: 3, maxLength: 6 }),
        (readings) => {
          const base = measured(...readings);
          const list = ask({ measured: base });
          expect(list).toHaveLength(SERIES.sizes.length);
          for (const { piece, predicted, source } of list) {
            const shift = source.kind === "fitted" ? 0 : (piece.size ?? 0) - FITTED.size;
            // Enumeration: the mean of the readings less the difference of the rings, in exact doubled sums.
            expect(predicted.doubledSum).toBe(base.doubledSum - 2 * readings.length * shift);
          }
        },
      ),
      { seed: 19, numRuns: 300 },
    );
  });

  it("puts first the one that plain enumeration finds nearest to the target among the sure ones in hand", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 800, max: 1700 }),
        fc.array(fc.integer({ min: 2, max: 9 }), { minLength: 4, maxLength: 4 }),
        (um, onHand) => {
          const stock: Stock[] = SERIES.sizes.map(({ part }, i) => ({ part, onHand: onHand[i] ?? 2 }));
          const list = ask({ measured: measured(um - 3, um, um + 3), stock });
          const sure = list.filter(({ chance }) => chance >= 0.95);
          if (sure.length === 0) return;
          const nearest = Math.min(...sure.map(({ off }) => Math.abs(off)));
          expect(Math.abs(list[0]!.off)).toBe(nearest);
        },
      ),
      { seed: 23, numRuns: 300 },
    );
  });

  it("spends a common size before the last of another that is hardly nearer", () => {
    const stock: Stock[] = [
      { part: "P190", onHand: 1 },
      { part: "P205", onHand: 4 },
    ];
    // 1.90 gives 1.210 (15 µm off), 2.05 gives 1.060 (too near the limit): the last one is still the right one.
    expect(ask({ measured: measured(1359, 1360, 1361), stock })[0]?.piece.part).toBe("P190");
    // 1.90 leaves it 90 µm loose of the middle, 2.05 60 µm tight: both sure, and the common one is nearly as good anyway.
    expect(ask({ measured: measured(1464, 1465, 1466), stock })[0]?.piece.part).toBe("P205");
  });

  it("puts what must be ordered after what is in hand", () => {
    const list = ask({
      stock: [
        { part: "P160", onHand: 2 },
        { part: "P190", onHand: 0, days: 2, price: 580 },
      ],
    });
    const sure = list.filter(({ chance }) => chance >= 0.95).map(({ source }) => source.kind);
    expect(sure.indexOf("order")).toBeGreaterThan(sure.indexOf("fitted"));
    expect(list.find(({ key }) => key === "P190")?.reason).toContain("to be ordered, 2 days");
  });

  it("lists odd pieces by themselves, with their own measure and less uncertainty", () => {
    const list = ask({ stock: [{ part: "P190", onHand: 1, piece: { id: "odd", measured: nm(1_885_000) } }] });
    const odd = list.find(({ key }) => key === "odd");
    const marked = list.find(({ key }) => key === "P190");
    expect(odd?.predicted.mean).toBe(1_375_000 - 135_000);
    expect(odd!.predicted.u).toBeLessThan(marked!.predicted.u);
  });

  it("leaves the fitted ring's estimate as measured: nothing is swapped", () => {
    const base = measured(1370, 1380, 1375);
    expect(ask({ measured: base }).find(({ key }) => key === "fitted")?.predicted).toEqual(base);
  });

  it("offers another ring of the fitted size when the fitted one was measured off its mark", () => {
    const list = ask({ fitted: { ...FITTED, measured: nm(1_720_000) } });
    expect(list.find(({ key }) => key === "P175")?.predicted.mean).toBe(1_375_000 - 30_000);
  });

  it("predicts nothing from a ring nobody knows", () => {
    expect(ask({ fitted: {} })).toEqual([]);
  });
});

describe("targets", () => {
  test.each([
    ["shifting", "middle", 1_225_000],
    ["shifting", "low end", 1_137_500],
  ] as const)("%s, %s: %d", (duty, school, expected) => {
    expect(target(SPEC, duty, school)).toMatchObject({ kind: "at", length: expected });
  });

  it("lets a standstill element sit anywhere inside", () => {
    const anywhere = target(SPEC, "standstill", "middle");
    expect(distance(nm(1_060_000), anywhere, SPEC)).toBe(0);
    expect(distance(nm(1_000_000), anywhere, SPEC)).toBe(-50_000);
    expect(distance(nm(1_450_000), anywhere, SPEC)).toBe(50_000);
  });
});

describe("pieces", () => {
  test.each([
    [1_750_000, 1_757_000, true],
    [1_750_000, 1_825_000, true],
    [1_900_000, 1_757_000, false],
    [undefined, 1_757_000, true],
  ])("marked %s, measured %d: can be it %s", (size, one, expected) => {
    expect(agrees(size === undefined ? undefined : nm(size), nm(one), SERIES.tolerance)).toBe(expected);
  });
  it("believes the micrometer before the mark", () => {
    expect(thickness({ size: nm(1_750_000), measured: nm(1_761_000) }, SERIES.tolerance)).toEqual({
      value: 1_761_000,
      uncertainty: MICROMETER_U,
    });
    expect(thickness({ size: nm(1_750_000) }, SERIES.tolerance)?.uncertainty).toBeCloseTo(
      15_000 / Math.sqrt(3),
      6,
    );
    expect(thickness({}, SERIES.tolerance)).toBeNull();
  });
  it("knows a size again when it is measured, and does not guess between two", () => {
    expect(sizeNear(SERIES, nm(1_762_000))?.part).toBe("P175");
    expect(sizeNear(SERIES, nm(1_825_000))).toBeNull();
  });
});
