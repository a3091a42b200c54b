import { readFileSync } from "node:fs";
import { expect, it, test } from "@jest/globals";
import { Ajv2020 } from "ajv/dist/2020.js";
import { documentOf, UNITS } from "../demo/units";
import { jobSchema } from "../core/fact";
import { derived } from "./schema";

it("what docs/ says of the formats is what is declared; `npm run schema` makes it anew", async () => {
  for (const [file, text] of await derived())
    expect([file, readFileSync(file, "utf8")]).toEqual([file, text]);
});

const ajv = new Ajv2020({ strict: false, validateFormats: false });
const valid = ajv.compile(JSON.parse(readFileSync("docs/book.schema.json", "utf8")) as object);

it("an exported job of today agrees with its schema", () => {
  const job = ajv.compile(jobSchema());
  const id = "0190d3c0-0000-7000-8000-000000000001";
  const at = "2026-05-04T08:00:00.000Z";
  const fact = (body: unknown) => ({ id, at, by: "Mira K.", body });
  const document = (...facts: unknown[]) => ({
    format: "yard-key/job@1",
    id,
    number: 1,
    opened: at,
    book: {},
    facts,
  });
  expect(job(document(fact({ kind: "scope", depths: ["full"] })))).toBe(true);
  expect(job(document(fact({ kind: "scope", depth: "full" })))).toBe(false);
  expect(job(document(fact({ kind: "gossip" })))).toBe(false);
});

test.each(UNITS)("%s agrees with it", (unit) => {
  valid(documentOf(unit));
  expect(valid.errors).toBeNull();
});

test.each<[string, (book: Record<string, unknown>) => void]>([
  ["an unknown key", (book) => (book.colour = "red")],
  ["no unit", (book) => delete book.unit],
  ["a unit without a name", (book) => delete (book.unit as Record<string, unknown>).name],
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
