import { describe, expect, it, test } from "@jest/globals";
import { BENCH, checkFacts } from "~core/fact";
import { resolve } from "~core/book";
import { bookOf } from "../../demo/units";
import { readIntake, type Fields } from "./form";

const book = resolve(bookOf("marram-dunlin"), { body: "late" }, ["full"]).present;
const FRESH = "01900000-0000-7000-8000-0000abcd1234";

const GOOD: [string, Fields][] = [
  [
    "a booking",
    {
      kind: "booking",
      vehicle: "Skerry 400",
      customer: "",
      words: "slips in third",
      odometer: "148 200 km",
      use: "towing",
      earlier: "",
    },
  ],
  ["an answer", { kind: "answer", question: "range:3", outcome: "slips", conditions: "hot,cold" }],
  ["an answer taken back", { kind: "answer", question: "range:3", outcome: "slips", there: "false" }],
  ["a code", { kind: "code", code: "p0-731", words: "third", sort: "ratio-or-slip-code", related: "yes" }],
  ["speeds, the output standing", { kind: "speeds", range: "3", input: "1800", output: "0" }],
  ["fluid", { kind: "fluid", look: "black", smell: "burnt", note: "" }],
  ["another fluid", { kind: "fluid", look: "black", smell: "burnt", note: "", of: "final-drive" }],
  ["what a step records", { kind: "noted", record: "t-actuator-steps", text: "41" }],
  [
    "a question about a part",
    {
      kind: "part-question",
      part: "body",
      asks: "sleeve it?",
      options: "sleeve, another one",
      until: "",
      waits: "yes",
    },
  ],
  ["debris", { kind: "debris", where: "pan", what: "brass", amount: "some" }],
  ["a conclusion", { kind: "conclusion", fault: "elsewhere", reason: "misfire", fee: "95.00" }],
  ["a pressure with its unit", { kind: "figure", of: "measurement", id: "line-idle", text: "60 psi" }],
  ["a pressure in the book's unit", { kind: "figure", of: "measurement", id: "line-idle", text: "5.2" }],
  ["no figure", { kind: "figure", of: "measurement", id: "line-idle", cannot: "does-not-run" }],
  ["a reading", { kind: "reading", chain: "input-end-play", value: ".018", unit: "in", method: "dial" }],
  ["a read-out", { kind: "read-out", readOut: "learned", text: "a: 1", from: "pasted" }],
  ["a tray", { kind: "place", sort: "tray", name: "Pump" }],
];

test.each(GOOD)("%s is read, and the server takes it", (_name, fields) => {
  const read = readIntake(fields, book, FRESH);
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  const fact = { id: FRESH, at: "2026-05-04T08:00:00.000Z", by: "Mira K.", body: read.body };
  expect(checkFacts([fact], BENCH)).toMatchObject({ ok: true });
});

test.each<[string, Fields, string, RegExp]>([
  ["no vehicle", { kind: "booking", vehicle: " ", words: "slips" }, "vehicle", /vehicle/],
  [
    "an odometer in words",
    { kind: "booking", vehicle: "van", words: "slips", odometer: "a lot" },
    "odometer",
    /number/,
  ],
  ["a code without its sort", { kind: "code", code: "A1", related: "yes" }, "sort", /sort/],
  ["a range there is not", { kind: "speeds", range: "9", input: "1", output: "1" }, "range", /range/],
  ["an input of none", { kind: "speeds", range: "3", input: "0", output: "1" }, "input", /1800/],
  ["a speed with a comma", { kind: "speeds", range: "3", input: "1800", output: "12,5" }, "output", /whole/],
  [
    "one option",
    { kind: "part-question", part: "body", asks: "sleeve it?", options: "sleeve" },
    "options",
    /two/,
  ],
  [
    "a day in words",
    { kind: "part-question", part: "body", asks: "sleeve it?", until: "soon" },
    "until",
    /2026-05-04/,
  ],
  ["a look there is not", { kind: "fluid", look: "pink", smell: "old" }, "look", /looks/],
  ["no reason", { kind: "conclusion", fault: "elsewhere", reason: "" }, "reason", /record/],
  [
    "a pressure in millimetres",
    { kind: "figure", of: "measurement", id: "line-idle", text: "5 mm" },
    "text",
    /bar/,
  ],
  [
    "a figure of nothing",
    { kind: "figure", of: "measurement", id: "line-idle" },
    "text",
    /why there is none/,
  ],
  ["an empty reading", { kind: "reading", chain: "input-end-play", value: "", unit: "mm" }, "value", /Type/],
  [
    "a reading in letters",
    { kind: "reading", chain: "input-end-play", value: "wide", unit: "mm" },
    "value",
    /./,
  ],
  [
    "a reading of a chain there is not",
    { kind: "reading", chain: "nowhere", value: "1", unit: "mm" },
    "method",
    /how/,
  ],
  ["a read-out of nothing", { kind: "read-out", readOut: "learned", text: "  " }, "text", /Paste/],
  ["a tray without a name", { kind: "place", sort: "tray", name: "" }, "name", /name/],
  ["a kind there is not", { kind: "waiver" }, "kind", /./],
])("%s is told at its field", (_name, fields, field, words) => {
  const read = readIntake(fields, book, FRESH);
  expect(read.ok ? {} : read.problems).toHaveProperty(field);
  if (!read.ok) expect(read.problems[field]).toMatch(words);
});

describe("what is read", () => {
  it("keeps the digits and gives them the book's unit when none was typed", () => {
    const read = readIntake(
      { kind: "figure", of: "measurement", id: "line-idle", text: "5,20" },
      book,
      FRESH,
    );
    expect(read.ok && read.body.kind === "figure" && read.body.text).toMatch(/^5\.20 (bar|kPa|psi)$/);
  });
  it("names a new tray by the id it was given", () => {
    expect(readIntake({ kind: "place", sort: "bag", name: "Balls" }, book, FRESH)).toMatchObject({
      body: { place: "abcd1234" },
    });
  });
  it("lets nothing through that is not a condition", () => {
    const read = readIntake(
      { kind: "answer", question: "range:3", outcome: "slips", conditions: "hot,<b>" },
      book,
      FRESH,
    );
    expect(read).toMatchObject({ body: { conditions: ["hot"] } });
  });
});
