import { expect, it, test } from "@jest/globals";
import { takenFrom, takenText } from "./taken";

it("says what is taken, and reads it again", () => {
  const takes = [
    { number: "MD-9702", supplier: "Mudflat Gears", packs: 2, pieces: 10, cents: 840, days: 3, isKit: false },
    { number: "MD-1", supplier: null, packs: 3, pieces: 3, cents: 0, days: 0, isKit: false },
  ];
  expect(takenFrom(takenText({ takes }))).toEqual([
    { number: "MD-9702", supplier: "Mudflat Gears", packs: 2, pieces: 5 },
    { number: "MD-1", supplier: null, packs: 3, pieces: 1 },
  ]);
});

test.each(["", "1\t1", "0\t1\tMD-1\t", "1\t-1\tMD-1\t", "1.5\t1\tMD-1\t", "many\t1\tMD-1\t", "1\t1\t\tx"])(
  "%j is none",
  (text) => {
    expect(() => takenFrom(text)).toThrow(RangeError);
  },
);
