import { expect, it } from "@jest/globals";
import fc from "fast-check";
import { field, words } from "~core/shape";
import { readTable } from "./read-table";
import { tableText } from "./table-file";

const LINE = { part: field(words(1, 80)), name: field(words(1, 80)) };
const AS = { must: ["part", "name"], example: "part,name" };

it("comes in as it went out, whatever its cells begin with or hold", () => {
  const cell = fc
    .array(fc.constantFrom("=", "+", "-", "@", ";", "|", ",", '"', "'", " ", "A", "7"), {
      minLength: 1,
      maxLength: 8,
    })
    .map((letters) => letters.join(""))
    // Blanks at the ends of a cell are nobody's; an apostrophe of its own before a formula is one too many to tell.
    .filter((text) => text === text.trim() && text !== "" && !/'\s*[=+@-]/.test(text));
  fc.assert(
    fc.property(fc.array(fc.record({ part: cell, name: cell }), { minLength: 1, maxLength: 5 }), (rows) => {
      expect(readTable(tableText(rows), LINE, AS)).toEqual({ ok: true, rows });
    }),
    { numRuns: 300 },
  );
});

it("lets no cell be run", () => {
  const text = tableText([{ part: "=1+1", name: "a; =2" }]);
  expect(text).toContain("'=1+1");
  expect(text).toContain("a;' =2");
});
