import { expect, it, test } from "@jest/globals";
import fc from "fast-check";
import { moneyText, parseMoney } from "./index";

test.each<[string, number | null]>([
  ["1250", 125_000],
  ["1250.00", 125_000],
  ["1250,5", 125_050],
  ["1 250.05", 125_005],
  ["0.07", 7],
  ["0", 0],
  ["", null],
  ["-3", null],
  ["12.345", null],
  ["1.250,00", null],
  ["1e3", null],
  ["twelve", null],
  ["1234567", null],
])("%s", (text, cents) => {
  expect(parseMoney(text)).toBe(cents);
});

it("reads back every amount it shows", () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 99_999_999 }), (cents) => parseMoney(moneyText(cents)) === cents),
    { seed: 7 },
  );
});
