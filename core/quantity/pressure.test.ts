import { expect, test } from "@jest/globals";
import { parsePressure, pressureText } from "./index";

test.each([
  ["4", "bar", 400_000],
  ["4 bar", "psi", 400_000],
  ["60 psi", "bar", 413_685],
  ["0,5 MPa", "bar", 500_000],
  ["350 kpa", "bar", 350_000],
] as const)("%s in a field of %s", (text, unit, pascals) => {
  const parsed = parsePressure(text, unit);
  expect(parsed.ok && parsed.pressure).toBe(pascals);
});

test("refuses nonsense and shop air that bursts", () => {
  expect(parsePressure("lots", "bar").ok).toBe(false);
  expect(parsePressure("", "bar").ok).toBe(false);
  expect(parsePressure("400 bar", "bar").ok).toBe(false);
});

test("shows a tenth of a bar and a whole psi", () => {
  const parsed = parsePressure("60 psi", "bar");
  if (!parsed.ok) throw new Error(parsed.problem);
  expect(pressureText(parsed.pressure, "psi")).toBe("60 psi");
  expect(pressureText(parsed.pressure, "bar")).toBe("4.1 bar");
});
