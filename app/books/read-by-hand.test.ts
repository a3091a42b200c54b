import { expect, test } from "@jest/globals";
import { readBook } from "~core/check";
import { readByHand } from "./read-by-hand";

const UNIT = { name: "Dotterel", family: "automatic", unit: "mm", within: "0.02 mm" };
const ROW = {
  "name-0": "Low",
  "frictions-0": "4",
  "steels-0": "4",
  "min-0": "0.80",
  "max-0": "1.20",
  "rings-0": "1.50 1.70; 1.90",
};
const read = (more: Record<string, string>) => readByHand({ ...UNIT, ...ROW, ...more }, "2026-11-27");

test.each<[string, Record<string, string>, string]>([
  ["no name of the unit", { name: "" }, "name"],
  ["a name that no id can be made of", { name: "変速機" }, "name"],
  ["a pack without a name", { "name-0": "" }, "name-0"],
  ["the same name twice", { "name-1": "low", "frictions-1": "3", "min-1": "1", "max-1": "2" }, "name-1"],
  [
    "a name that comes to the same",
    { "name-0": "K-1", "name-1": "K 1", "frictions-1": "3", "min-1": "1", "max-1": "2" },
    "name-1",
  ],
  ["rings of which nobody says how true they are", { within: "" }, "within"],
  ["a tolerance that is none", { within: "good" }, "within"],
  ["no frictions", { "frictions-0": "0" }, "frictions-0"],
  ["a word for a length", { "min-0": "tight" }, "min-0"],
  ["to below from", { "max-0": "0.80" }, "max-0"],
  ["a ring that is none", { "rings-0": "1.50 thick" }, "rings-0"],
  ["a family there is not", { family: "steam" }, "family"],
])("tells at its field: %s", (_name, typed, field) => {
  const result = read(typed);
  expect(result.ok ? [] : Object.keys(result.problems)).toContain(field);
});

test.each(["automatic", "cvt", "dual-clutch"])(
  "a name alone is a book of a %s, and a pack more is too",
  (family) => {
    for (const typed of [
      { ...UNIT, family },
      { ...UNIT, ...ROW, family },
    ]) {
      const result = readByHand(typed, "2026-11-27");
      const book = result.ok ? readBook(result.document) : null;
      expect(book?.ok === false ? book.problems : book?.ok).toBe(true);
    }
  },
);

test.each([
  ["mm", "0.80", "1.20", "1.50 1.70"],
  ["in", "0.0315", "0.0472", "0.059 0.067"],
  ["thou", "31.5", "47.2", "59 67"],
  ["mm", "0.80 mm", "1.20 mm", "1.50 mm 1.70 mm"],
  ["in", "0.80 mm", "1.20 mm", "1.50 mm 1.70 mm"],
])("a unit in %s is a book", (unit, min, max, rings) => {
  const result = read({ unit, "min-0": min, "max-0": max, "rings-0": rings });
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  const book = readBook(result.document);
  if (!book.ok) throw new Error(JSON.stringify(book.problems));
  const [spec] = book.book.chains[0]?.spec ?? [];
  expect(Math.abs((spec?.min ?? 0) - 800_000)).toBeLessThan(1_000);
  expect(book.book.series[0]?.sizes).toHaveLength(2);
});

test.each([
  [{ "min-0": "", "max-0": "" }, [undefined, undefined, undefined]],
  [{ "min-0": "" }, [undefined, 1_200_000, "2026-11-27"]],
  [{ "max-0": "", from: "colleague" }, [800_000, undefined, "2026-11-27"]],
])("a limit nobody knows is left out: %p", (typed, known) => {
  const result = read(typed);
  const book = result.ok ? readBook(result.document) : null;
  if (!book?.ok) throw new Error(JSON.stringify(result));
  const [spec] = book.book.chains[0]?.spec ?? [];
  expect([spec?.min, spec?.max, spec?.checked]).toEqual(known);
});
