import { expect, it } from "@jest/globals";
import fc from "fast-check";
import { bookOf } from "../../demo/units";
import { resolve } from "../book";
import { nm } from "../quantity";
import { spreadOf, spreadsOf, versionOf, type FigureLeft } from "./index";

it("tells the least, the most and the middle of what there is", () => {
  expect(spreadOf([])).toBeNull();
  fc.assert(
    fc.property(fc.array(fc.integer({ min: -5_000, max: 5_000 }), { minLength: 1 }), (values) => {
      const { count, low, middle, high } = spreadOf(values.map(nm)) ?? { count: 0 };
      expect([count, low, high]).toEqual([values.length, Math.min(...values), Math.max(...values)]);
      // As many lie above the middle as below it.
      const side = (is: (value: number) => boolean) => values.filter(is).length;
      expect(side((value) => value < Number(middle))).toBeLessThanOrEqual(values.length / 2);
      expect(side((value) => value > Number(middle))).toBeLessThanOrEqual(values.length / 2);
    }),
  );
});

it("mixes no versions, and no figures", () => {
  const book = bookOf("marram-dunlin");
  const [pack, other] = resolve(book, {}, book.depths).packs;
  if (!pack || !other) throw new Error("no packs");
  const left = (id: string, version: string, built: number): FigureLeft => ({
    id,
    version,
    built: nm(built),
  });
  const before = [
    left(pack.chain.id, versionOf(pack), 1_000),
    left(pack.chain.id, versionOf(pack), 1_200),
    left(pack.chain.id, `${versionOf(pack)}, 1 more`, 9_000),
    left(other.chain.id, versionOf(pack), 9_000),
  ];
  expect(spreadsOf(before, pack)).toEqual({
    found: null,
    built: { count: 2, low: 1_000, middle: 1_100, high: 1_200 },
  });
});
