import { expect, test } from "@jest/globals";
import { kilometresOf, readDistance } from "./index";

test.each<[string, number | null]>([
  ["20 km", 20],
  ["148 200 km", 148_200],
  ["148.200 km", 148_200],
  ["148,200 km", 148_200],
  ["12,5 km", 12.5],
  ["12.5 km", 12.5],
  ["100 mi", 160.9344],
  ["20", null],
  ["km", null],
  ["20 m", null],
])("%s is %s km", (text, km) => {
  const read = readDistance(text);
  expect(read && kilometresOf(read)).toBe(km);
});
