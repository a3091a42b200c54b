import { describe, expect, it } from "@jest/globals";
import { bookOf, UNITS } from "../../demo/units";
import { readBook } from "../check";
import { abilityOf, bookByHand, resolve, type PackByHand } from "./index";

const LOW: PackByHand = {
  name: "Low",
  kind: "clutch",
  frictions: 4,
  steels: 4,
  min: "0.80 mm",
  max: "1.20 mm",
  soak: "soaked",
  rings: ["1.50 mm", "1.70 mm"],
  within: "0.02 mm",
};
const written = (packs: readonly PackByHand[]): object =>
  bookByHand({
    maker: "Fen",
    name: "Dotterel",
    family: "automatic",
    lengthUnit: "mm",
    source: "a colleague",
    checked: "2026-11-27",
    packs,
  });

describe("a unit written down by hand", () => {
  it("is a book that the check has nothing against, and judges its packs", () => {
    const read = readBook(written([LOW, { ...LOW, name: "Rev", kind: "brake", rings: [], steels: 3 }]));
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    const { packs, chains } = resolve(read.book, {}, ["full"]);
    expect(packs.map(({ pack, spec, seats }) => [pack.element, spec.min, spec.max, seats.length])).toEqual([
      ["low", 800_000, 1_200_000, 1],
      ["rev", 800_000, 1_200_000, 0],
    ]);
    expect(chains.map(({ book }) => book.source)).toEqual(["a colleague", "a colleague"]);
    const { can, cannot } = abilityOf(read.book);
    expect(can).toEqual(["judge 2 packs", "choose 1 piece", "name 4 parts"]);
    expect(cannot).toContain("tear-down steps");
  });

  it.each(UNITS)("has all that %s can do before it", (unit) =>
    expect(abilityOf(bookOf(unit)).cannot).toEqual([]),
  );

  it("invents nothing: no thickness, no ratio, no step, no member that anything joins", () => {
    const read = readBook(written([LOW]));
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    const { packs, ranges, gearSets, elements, build, teardown } = read.book;
    expect(packs[0]?.stack.map(({ thickness }) => thickness)).toEqual([undefined, undefined]);
    expect([ranges, gearSets, elements[0]?.joins, build, teardown]).toEqual([
      [],
      [],
      undefined,
      undefined,
      undefined,
    ]);
  });
});
