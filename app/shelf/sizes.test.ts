import { expect, test } from "@jest/globals";
import { nm } from "~core/quantity";
import { sizesNear, type KnownSize } from "./sizes";

const size = (part: string, um: number): KnownSize => ({
  part,
  mark: part,
  size: nm(um * 1_000),
  series: "ring",
  units: ["Marram Dunlin"],
});
const KNOWN = [size("A", 1_550), size("B", 1_700), size("C", 1_745), size("D", 1_860), size("E", 1_718)];

test.each<[string, "mm" | "in", string[] | null]>([
  ["1.7", "mm", ["B", "E", "C", "A"]],
  ["1,70", "mm", ["B", "E", "C", "A"]],
  [".067", "in", ["B", "E", "C"]],
  ["67", "in", ["B", "E", "C"]],
  ["67 thou", "mm", ["B", "E", "C"]],
  ["9.9", "mm", []],
  ["MD-2170", "mm", null],
  ["2170", "mm", null],
  ["ring", "mm", null],
])("%s typed in %s", (typed, unit, parts) => {
  const near = sizesNear(KNOWN, typed, unit);
  expect(near?.map(({ part }) => part) ?? null).toEqual(parts);
});
