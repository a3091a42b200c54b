import { describe, expect, it, test } from "@jest/globals";
import { resolve } from "../book";
import { dunlin } from "../testing/dunlin";
import { nm } from "../quantity";
import { counts, drawStack, GAP_DRAWN, nominalGap, plates, plausible, thicknessOf } from "./index";

const chain = (body: "early" | "late") => {
  const found = resolve(dunlin(), { body }, ["full"]).packs.find(
    ({ chain: { id } }) => id === "d1-clearance",
  );
  if (!found) throw new Error("no D1");
  return found;
};

describe("the stack", () => {
  it("alternates neighbouring steels and frictions, beginning with the one listed first", () => {
    expect(plates(chain("late").stack).map(({ role }) => role)).toEqual([
      "waved plate",
      ...["steel", "friction", "steel", "friction", "steel", "friction", "steel", "friction"],
      "reaction plate",
    ]);
  });

  test.each([
    ["early", 3, 16_900_000],
    ["late", 4, 20_300_000],
  ] as const)("%s body: %d frictions and %d nm of plates", (body, frictions, thickness) => {
    const { stack } = chain(body);
    expect(counts(stack)).toEqual({ frictions, steels: frictions });
    expect(thicknessOf(stack)).toBe(thickness);
    expect(plates(stack).reduce((sum, plate) => sum + (plate.thickness ?? NaN), 0)).toBe(thickness);
  });

  it("puts the longer group's surplus at the end", () => {
    const stack = chain("late").stack.map((entry) =>
      entry.role === "steel" ? { ...entry, count: 6 } : entry,
    );
    expect(
      plates(stack)
        .slice(-4)
        .map(({ role }) => role),
    ).toEqual(["friction", "steel", "steel", "reaction plate"]);
  });
});

describe("the drawing", () => {
  it("lays piece to piece, only the gap wider than it is", () => {
    const drawn = drawStack(plates(chain("late").stack), nm(1_200_000), nm(1_750_000));
    drawn.pieces.forEach((piece, i) => {
      expect(piece.from).toBe(drawn.pieces[i - 1]?.to ?? 0);
      expect(piece.to - piece.from).toBe(piece.thickness * (piece.kind === "gap" ? GAP_DRAWN : 1));
    });
    expect(drawn.length).toBe(20_300_000 + 3 * 1_200_000 + 1_750_000);
  });

  it("draws no gap and no ring that nobody knows", () => {
    expect(drawStack(plates(chain("late").stack), null, null).pieces).toHaveLength(10);
  });
});

it("finds a reading plausible from nearly nothing to all facings gone, and no farther", () => {
  const { min, max } = plausible(chain("late"));
  expect(min).toBeLessThan(nm(200_000));
  expect(max).toBeGreaterThan(nm(4_000_000));
  // A slip of unit must fall outside: 1.2 mm taken for inches, or for micrometres.
  expect(1_200_000 * 25.4).toBeGreaterThan(max);
  expect(1_200_000 / 25.4).toBeLessThan(min);
});

it("builds a nominal drum so that a thicker ring closes it by as much", () => {
  const one = chain("late");
  expect(nominalGap(one, null)).toBe(1_225_000);
  expect(nominalGap(one, nm(1_900_000)) - nominalGap(one, nm(2_050_000))).toBe(150_000);
});
