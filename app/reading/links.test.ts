import { describe, expect, it, test } from "@jest/globals";
import { resolve } from "~core/book";
import { dunlin } from "~core/testing/dunlin";
import { linkGroups, readLinks } from "./links";

const applied = resolve(dunlin(), { body: "late" }, ["full"]).packs[0]!;
const GOOD = {
  depth: "23.25",
  "plate-0": "1.90",
  "plate-1": "1.80 1.80 1.80 1.80",
  "plate-2": "1.60; 1,60 1.60 1.60",
  "plate-3": "4.80",
  ring: "1.75",
};

describe("by the numbers", () => {
  it("asks for the depth, every plate of the stack and the ring", () => {
    expect(linkGroups(applied).map(({ id, count }) => `${id} ${count}`)).toEqual([
      "depth 1",
      "plate-0 1",
      "plate-1 4",
      "plate-2 4",
      "plate-3 1",
      "ring 1",
    ]);
  });

  it("adds them with their signs, each with its gauge's uncertainty", () => {
    const read = readLinks({ applied, seats: [] }, GOOD, "mm");
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    // 23.25 − 1.90 − 4·1.80 − 4·1.60 − 4.80 − 1.75
    expect(read.reading.value).toBe(1_200_000);
    expect(read.links).toHaveLength(12);
    const u = Math.hypot(
      Math.ceil(10_000 / Math.sqrt(3)),
      ...Array.from({ length: 11 }, () => Math.ceil(2_000 / Math.sqrt(3))),
    );
    expect(read.reading.uncertainty).toBe(Math.ceil(u));
  });

  test.each([
    ["one missing", { ...GOOD, ring: "" }, "ring", "measure it"],
    [
      "too few of a kind",
      { ...GOOD, "plate-1": "1.80 1.80" },
      "plate-1",
      "4 values with spaces between, got 2",
    ],
    ["none of a kind", { ...GOOD, "plate-2": " " }, "plate-2", "got 0"],
    ["no length", { ...GOOD, depth: "deep" }, "depth", "has no digits"],
    [
      "a plate measured twice, so that nothing is left",
      { ...GOOD, depth: "20.00" },
      "depth",
      "one of them is off",
    ],
  ])("%s is told at its field", (_name, typed, field, words) => {
    const read = readLinks({ applied, seats: [] }, typed, "mm");
    expect(read.ok ? "" : read.problems[field]).toContain(words);
  });

  it("tells every field at once", () => {
    const read = readLinks({ applied, seats: [] }, {}, "mm");
    expect(Object.keys(read.ok ? {} : read.problems)).toHaveLength(6);
  });
});
