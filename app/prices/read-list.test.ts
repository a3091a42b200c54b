import { describe, expect, it, test } from "@jest/globals";
import { readPriceList } from "./read-list";

const problems = (text: string): string[] => {
  const read = readPriceList(text);
  return read.ok ? [] : read.problems;
};

describe("a supplier's price list", () => {
  it("is read as the spreadsheet wrote it", () => {
    const expected = {
      ok: true,
      prices: [
        { part: "MD-1", cents: 1250, days: 3 },
        { part: "MD-2", cents: 9900, days: null },
      ],
    };
    expect(readPriceList("part,price,days\nMD-1,12.50,3\nMD-2,99,\n")).toEqual(expected);
    expect(
      readPriceList('\uFEFFPart;Price;Days;Name\r\nMD-1;12,50;3;"steel; D1"\r\n\r\nMD-2;99;;\r\n'),
    ).toEqual(expected);
    expect(readPriceList("name\tPRICE\tpart\tdays\nx\t12.5\tMD-1\t3\ny\t99\tMD-2\t")).toEqual(expected);
  });

  it("says what is paid until the old part comes back", () => {
    expect(readPriceList("part,price,deposit\nMD-1,12.50,120\nMD-2,99,\n")).toEqual({
      ok: true,
      prices: [
        { part: "MD-1", cents: 1250, days: null, deposit: 12_000 },
        { part: "MD-2", cents: 9900, days: null },
      ],
    });
  });

  it("takes the last word on a part that stands twice", () => {
    expect(readPriceList("part,price\nMD-1,1\nMD-1,2")).toEqual({
      ok: true,
      prices: [{ part: "MD-1", cents: 200, days: null }],
    });
  });

  test.each([
    ["", "column “part” and no “price”"],
    ["part,cost\nMD-1,2", "column “price”"],
    ["part,price\n", "no line below"],
    ["part,price\nMD-1,twelve", "Line 2, MD-1: “twelve” is no price"],
    ["part,price\nMD-1,-3", "Line 2, MD-1"],
    ["part,price,days\nMD-1,3,soon", "Line 2, MD-1: “soon” is no number of days"],
    ["part,price,deposit\nMD-1,3,some", "Line 2, MD-1: “some” is no deposit"],
    ["part,price\nMD-1,3\n,4", "Line 3: no part number"],
  ])("%j is told where it is wrong", (text, message) => {
    expect(problems(text)[0]).toContain(message);
  });

  it("takes nothing of a list with a fault, and names the first few", () => {
    const lines = Array.from({ length: 30 }, (_, i) => `MD-${i},${i === 3 ? "5" : "x"}`);
    const told = problems(["part,price", ...lines].join("\n"));
    expect(told).toHaveLength(9);
    expect(told[8]).toBe("and 21 more like these.");
  });
});
