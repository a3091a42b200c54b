import { describe, expect, it } from "@jest/globals";
import fc from "fast-check";
import { readFileSync } from "node:fs";
import { UNITS } from "../../demo/units";
import { isSameUnit, offersOf, takeOver } from "./index";

type Doc = Record<string, unknown> & { chains: Record<string, unknown>[]; parts: Record<string, unknown>[] };
const documentOf = (unit: string): Doc => JSON.parse(readFileSync(`demo/books/${unit}.json`, "utf8")) as Doc;

describe("another shop’s book of the same unit", () => {
  it("offers what it says otherwise and what it has besides, entry by entry, and nothing that is the same", () => {
    const own = documentOf("marram-dunlin");
    const other = documentOf("marram-dunlin");
    expect(offersOf(own, other)).toEqual([]);
    other.chains[0] = { ...other.chains[0], name: "D1 clearance, as we read it" };
    other.parts.push({ id: "shield", name: "Shield", number: "X-1" });
    other.parts = other.parts.filter(({ id }) => id !== "filter");
    const offers = offersOf(own, other);
    expect(offers.map(({ section, key, is }) => [section, key, is])).toEqual([
      ["chains", other.chains[0].id, "changed"],
      ["parts", "shield", "added"],
    ]);
    expect(offers[0]?.lines.join()).toContain("as we read it");
    const taken = takeOver(own, other, offers.slice(0, 1));
    expect(taken.chains).toEqual(other.chains);
    expect(taken.parts).toEqual(own.parts);
  });

  it("of another unit is none: figures of different units never mix", () => {
    expect(isSameUnit(documentOf("marram-dunlin"), documentOf("marram-whimbrel"))).toBe(false);
    expect(offersOf(documentOf("marram-dunlin"), documentOf("marram-whimbrel"))).toEqual([]);
  });

  it.each(UNITS)(
    "%s: all that is taken over leaves nothing to offer, in whatever order it is taken",
    (unit) => {
      const other = documentOf(unit);
      const sections = Object.keys(other).filter((key) => key !== "format" && key !== "unit");
      fc.assert(
        fc.property(fc.shuffledSubarray(sections), fc.integer({ min: 0, max: 1_000 }), (gone, seed) => {
          const own = Object.fromEntries(
            Object.entries(documentOf(unit)).map(([key, value]) =>
              !gone.includes(key)
                ? [key, value]
                : [key, Array.isArray(value) ? value.filter((_, i) => (i * 7 + seed) % 3 > 0) : value],
            ),
          );
          const offers = offersOf(own, other);
          const order = [...offers].sort(
            (a, b) => ((a.key.length * 31 + seed) % 7) - ((b.key.length * 31 + seed) % 7),
          );
          expect(offersOf(takeOver(own, other, order), other)).toEqual([]);
        }),
        { numRuns: 20 },
      );
    },
  );
});
