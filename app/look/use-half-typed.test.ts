import { expect, test } from "@jest/globals";
import { readHalfTyped } from "./use-half-typed";

test.each([
  [null, {}],
  ["", {}],
  ["{", {}],
  ["[1]", {}],
  ["7", {}],
  ['{"bore front 0":"40.01","bore front 60":7}', { "bore front 0": "40.01" }],
])("%j is read as %j", (text, typed) => {
  expect(readHalfTyped(text)).toEqual(typed);
});
