import { expect, it } from "@jest/globals";
import { readOut } from "./read-out";

it("reads the same from the same vehicle, and says that it is made up", () => {
  const one = readOut("marram-dunlin", "1030", "learned");
  expect(readOut("marram-dunlin", "1030", "learned")).toBe(one);
  expect(readOut("marram-dunlin", "1031", "learned")).not.toBe(one);
  expect(one).toMatch(/Made up/);
  expect(
    one
      .split("\n")
      .slice(1)
      .every((line) => /^[\w\s,-]+: \d+$/.test(line)),
  ).toBe(true);
});
