import { describe, expect, it } from "@jest/globals";
import fc from "fast-check";
import { lengthOf, nm } from "../quantity";
import { fitOf, type Point } from "./index";

const point = (link: "bore" | "journal", place: string, angle: number, value: string): Point => ({
  link,
  place,
  angle,
  value: lengthOf(value),
});

describe("a bore and its journal", () => {
  const points = [
    point("bore", "front", 0, "44.062 mm"),
    point("bore", "front", 90, "44.071 mm"),
    point("bore", "rear", 0, "44.064 mm"),
    point("bore", "rear", 90, "44.066 mm"),
    point("journal", "front", 0, "43.999 mm"),
    point("journal", "front", 90, "43.998 mm"),
    point("journal", "rear", 0, "43.985 mm"),
  ];

  it("have their largest clearance where bore and journal differ most, which need not be the widest bore", () => {
    expect(fitOf(points, "bore", "journal")).toMatchObject({
      place: "rear",
      clearance: lengthOf("0.081 mm"),
      bore: lengthOf("44.066 mm"),
      journal: lengthOf("43.985 mm"),
    });
  });

  it("are out of round round one place, and tapered along", () => {
    const fit = fitOf(points, "bore", "journal");
    expect(fit?.outOfRound).toEqual({ link: "bore", place: "front", by: lengthOf("0.009 mm") });
    // The journal: (43.999 + 43.998) / 2 against 43.985.
    expect(fit?.taper).toEqual({ link: "journal", by: nm(13_500) });
  });

  it("say nothing while one of them is missing, and no roundness from one angle", () => {
    expect(fitOf(points.slice(0, 4), "bore", "journal")).toBeNull();
    const single = [point("bore", "front", 0, "10 mm"), point("journal", "front", 0, "9.9 mm")];
    expect(fitOf(single, "bore", "journal")).toMatchObject({ outOfRound: null, taper: null });
  });

  it("take the narrowest journal anywhere where it was not measured", () => {
    const some = [
      point("bore", "rear", 0, "10.00 mm"),
      point("journal", "front", 0, "9.95 mm"),
      point("journal", "front", 90, "9.94 mm"),
    ];
    expect(fitOf(some, "bore", "journal")?.clearance).toBe(lengthOf("0.06 mm"));
  });

  it("agree with trying every pair of one place, whatever was measured", () => {
    const any = fc.array(
      fc.record({
        link: fc.constantFrom("bore", "journal"),
        place: fc.constantFrom("front", "rear"),
        angle: fc.constantFrom(0, 60, 120),
        value: fc.integer({ min: 1_000_000, max: 2_000_000 }).map(nm),
      }),
      { minLength: 1, maxLength: 14 },
    );
    fc.assert(
      fc.property(any, (list) => {
        const fit = fitOf(list, "bore", "journal");
        const pairs = list
          .filter(({ link }) => link === "bore")
          .flatMap((bore) => {
            const journals = list.filter(({ link }) => link === "journal");
            const there = journals.filter(({ place }) => place === bore.place);
            return (there.length > 0 ? there : journals).map(({ value }) => bore.value - value);
          });
        expect(fit?.clearance ?? null).toBe(pairs.length === 0 ? null : Math.max(...pairs));
      }),
      { seed: 5, numRuns: 500 },
    );
  });
});
