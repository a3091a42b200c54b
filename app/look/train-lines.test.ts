import { expect, it } from "@jest/globals";
import { readFileSync } from "node:fs";
import { UNITS } from "../../demo/units";
import { bookOf } from "../../demo/units";
import { trainLines } from "./train-lines";

const documentOf = (unit: string): Record<string, unknown> =>
  JSON.parse(readFileSync(`demo/books/${unit}.json`, "utf8")) as Record<string, unknown>;

it.each(UNITS)(
  "%s: every gear set and element that joins two members is drawn, the input at the top",
  (unit) => {
    const { gearSets, elements, train } = bookOf(unit);
    const { lines, columns } = trainLines(documentOf(unit));
    expect(columns.map(({ id }) => id)).toEqual([
      ...gearSets.map(({ id }) => id),
      ...elements.filter(({ joins, outside }) => joins && !outside).map(({ id }) => id),
    ]);
    expect([lines[0]?.id, lines.at(-1)?.id]).toEqual([train.input, train.held]);
    for (const { ends } of columns) for (const { line } of ends) expect(lines[line]).toBeDefined();
  },
);

it("what is half typed is left out and the rest is drawn", () => {
  const half = {
    members: ["input", "output", "case", "shell"],
    gearSets: [
      { id: "front", kind: "simple", sun: ["shell", 30], ring: ["nowhere", 70], carrier: "output" },
      { id: "rear", kind: "simple", sun: ["input"], ring: 5 },
      { kind: "gear pair", driver: ["input", 20], driven: ["output", 40] },
      "broken",
    ],
    elements: [{ id: "c1", joins: ["input", "shell"] }, { id: "c2", joins: ["input"] }, { id: "b1" }],
  };
  const { lines, columns } = trainLines(half, ["elements", 0]);
  expect(lines.map(({ id }) => id)).toEqual(["input", "shell", "output", "case"]);
  expect(columns.map(({ words, ends, isLit }) => [words, ends.map((one) => one.words), isLit])).toEqual([
    ["front", ["sun 30", "carrier"], false],
    ["", ["20", "40"], false],
    ["C1", ["", ""], true],
  ]);
});

it.each([null, 4, [], {}, { gearSets: 5, elements: {}, members: [3] }])("draws nothing of %j", (given) => {
  expect(trainLines(given).columns).toEqual([]);
});
