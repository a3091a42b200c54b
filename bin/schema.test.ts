import { readFileSync } from "node:fs";
import { expect, it, test } from "@jest/globals";
import { Ajv2020 } from "ajv/dist/2020.js";
import { documentOf, UNITS } from "../demo/units";
import { SCHEMA_FILE, schemaText } from "./schema";

it("the file is what the shapes say; `npm run schema` makes it anew", async () => {
  expect(readFileSync(SCHEMA_FILE, "utf8")).toBe(await schemaText());
});

const valid = new Ajv2020({ strict: false, validateFormats: false }).compile(
  JSON.parse(readFileSync(SCHEMA_FILE, "utf8")) as object,
);

test.each(UNITS)("%s agrees with it", (unit) => {
  valid(documentOf(unit));
  expect(valid.errors).toBeNull();
});

test.each<[string, (book: Record<string, unknown>) => void]>([
  ["an unknown key", (book) => (book.colour = "red")],
  ["a section missing", (book) => delete book.members],
  ["a wrong word", (book) => ((book.unit as Record<string, unknown>).family = "manual")],
  [
    "a length as a number",
    (book) => (((book.series as { tolerance: unknown }[])[0] ?? { tolerance: 0 }).tolerance = 1),
  ],
])("it refuses %s", (_name, change) => {
  const book = documentOf("marram-dunlin");
  change(book);
  expect(valid(book)).toBe(false);
});
