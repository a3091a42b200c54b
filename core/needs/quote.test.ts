import { describe, expect, it } from "@jest/globals";
import { quoteChanges, quoteOf } from "./index";

const need = (name: string, number: string | null, count = 1, id = name) => ({ id, name, number, count });
const PRICES = new Map([
  ["A", 1_250],
  ["B", 400],
]);

describe("a quote", () => {
  it("adds up what has a price, and counts what has none", () => {
    expect(
      quoteOf([need("ring", "A", 2), need("seal", "B"), need("plate", "C"), need("own", null)], PRICES),
    ).toEqual({
      lines: [
        { id: "ring", what: "ring", cents: 2_500 },
        { id: "seal", what: "seal", cents: 400 },
        { id: "plate", what: "plate", cents: null },
        { id: "own", what: "own", cents: null },
      ],
      parts: 2_900,
      unpriced: 2,
    });
  });

  const given = {
    parts: 2_900,
    labour: 90_000,
    lines: [
      { id: "ring", what: "ring", cents: 2_500 },
      { id: "seal", what: "seal", cents: 400 },
    ],
  };

  it("says that nothing has changed", () => {
    const now = quoteOf([need("ring", "A", 2), need("seal", "B")], PRICES);
    expect(quoteChanges(given, now)).toEqual([
      "Quoted: parts 29.00, work 900.00, together 929.00",
      "Nothing has changed since",
    ]);
  });

  it("tells what was added, what is not wanted, and whose price moved", () => {
    const now = quoteOf([need("ring", "A", 3), need("filter", "B"), need("plate", "C")], PRICES);
    expect(quoteChanges(given, now)).toEqual([
      "Quoted: parts 29.00, work 900.00, together 929.00",
      "Parts come to 41.50 now, work as quoted: together 941.50",
      "ring: 25.00, now 37.50",
      "added: filter, 4.00",
      "added: plate, no price",
      "not wanted after all: seal",
    ]);
  });

  it("tells two lines of one name apart, and a price that was not known from none", () => {
    const two = {
      ...given,
      lines: [
        { id: "a", what: "seal" },
        { id: "b", what: "seal", cents: 400 },
      ],
    };
    const now = quoteOf([need("seal", "B", 1, "a"), need("seal", "B", 1, "b")], PRICES);
    expect(quoteChanges(two, now).slice(2)).toEqual(["seal: no price, now 4.00"]);
  });
});
