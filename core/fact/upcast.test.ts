import { describe, expect, it, test } from "@jest/globals";
import { BENCH, checkFacts, fold, upcast, type Fact, type FactBody } from "./index";

const said = (body: unknown): Fact => ({
  id: "0190d3c0-0000-7000-8000-000000000001",
  at: "2026-05-04T08:00:00.000Z",
  by: "Mira K.",
  body: body as FactBody,
});

/** What was stored once, and what it is today. */
const STORED: [string, object, object][] = [
  ["one depth", { kind: "scope", depth: "full" }, { kind: "scope", depths: ["full"] }],
  [
    "a mark with its apostrophe",
    { kind: "sat", part: "pan", way: "", mark: "maker’s mark", note: "" },
    { kind: "sat", part: "pan", way: "", mark: "makers-mark", note: "" },
  ],
  [
    "bolts of a length, in millimetres",
    { kind: "count", of: "bolts:body-bolts:35.00 mm", found: 9 },
    { kind: "count", of: "bolts:body-bolts:35000000", found: 9 },
  ],
  [
    "bolts of a length, in inches",
    { kind: "count", of: "bolts:body-bolts:1.375 in", found: 9 },
    { kind: "count", of: "bolts:body-bolts:34925000", found: 9 },
  ],
  [
    "wear and its severity in words",
    {
      kind: "finding",
      part: "pan",
      wear: "worn to the groove bottom",
      severity: "beyond use",
      sure: true,
      note: "",
      there: true,
    },
    {
      kind: "finding",
      part: "pan",
      wear: "worn-to-the-groove-bottom",
      severity: "beyond-use",
      sure: true,
      note: "",
      there: true,
    },
  ],
  [
    "why there is no figure",
    { kind: "figure", of: "chain", id: "x", phase: "found", cannot: "felt only, not in order", note: "" },
    { kind: "figure", of: "chain", id: "x", phase: "found", cannot: "felt-only-not-in-order", note: "" },
  ],
  [
    "an answer to a weak point",
    { kind: "weak-point", point: "boost-sleeve", answer: "measure line pressure in R", note: "" },
    { kind: "weak-point", point: "boost-sleeve", answer: "measure-line-pressure-in-r", note: "" },
  ],
  [
    "cleaning in several steps",
    { kind: "cleaning", things: ["pan"], state: "clean", did: ["washed", "passages blown"] },
    { kind: "cleaning", things: ["pan"], state: "clean", did: ["washed", "passages-blown"] },
  ],
  [
    "an answer in words, and when it shows",
    { kind: "answer", question: "range:R", outcome: "no drive", conditions: ["full load"], there: true },
    { kind: "answer", question: "range:R", outcome: "no-drive", conditions: ["full-load"], there: true },
  ],
  [
    "the ratio of another range",
    { kind: "answer", question: "speeds:3", outcome: "ratio of R", conditions: [], there: true },
    { kind: "answer", question: "speeds:3", outcome: "ratio-of-R", conditions: [], there: true },
  ],
  [
    "the sort of a code",
    { kind: "code", code: "P1", words: "", sort: "place or travel code", related: "yes", there: true },
    { kind: "code", code: "P1", words: "", sort: "place-or-travel-code", related: "yes", there: true },
  ],
  [
    "hard use told in words alone",
    { kind: "booking", vehicle: "van", customer: "", words: "slips", odometer: "", use: "Tows a boat" },
    {
      kind: "booking",
      vehicle: "van",
      customer: "",
      words: "slips",
      odometer: "",
      use: "Tows a boat",
      driven: "hard",
      opened: "not-told",
    },
  ],
  [
    "a cause not found",
    { kind: "cause", of: "d1", cause: "", standing: "not found", note: "", after: "" },
    { kind: "cause", of: "d1", cause: "", standing: "not-found", note: "", after: "" },
  ],
];

describe("what was stored before", () => {
  test.each(STORED)("%s is read as today's", (_name, before, today) => {
    expect(upcast(said(before)).body).toEqual(today);
    // A tablet that still runs the earlier page sends the earlier words.
    expect(checkFacts([said(before)], BENCH)).toEqual({ ok: true, facts: [said(today)] });
  });

  test.each(STORED)("%s: today's is left as it is, the very same fact", (_name, _before, today) => {
    const fact = said(today);
    expect(upcast(fact)).toBe(fact);
  });

  it("is turned where a job is made of its facts", () => {
    expect(fold([said({ kind: "scope", depth: "full" })]).depths).toEqual(["full"]);
  });
});

describe("a piece of a chain that had one seat", () => {
  const old = (body: object): Fact => ({
    id: "a",
    at: "2026-05-04T08:00:00.000Z",
    by: "Mira K.",
    body: body as never,
  });

  it("is said of the seat that is called after it", () => {
    const fitting = {
      kind: "fitting",
      chain: "d1-clearance",
      fit: 1,
      origin: "shelf",
      piece: { size: 1_750_000 },
    };
    expect(upcast(old(fitting)).body).toEqual({
      kind: "fitting",
      seat: "d1-clearance",
      fit: 1,
      origin: "shelf",
      piece: { size: 1_750_000 },
    });
  });

  it("keeps what was expected of the one figure it moved", () => {
    const prediction = { mean: 1_225_000, expanded: 20_000, chance: 1 };
    const choice = {
      kind: "choice",
      chain: "d1-clearance",
      fit: 1,
      kept: false,
      reason: "middle",
      prediction,
    };
    expect(upcast(old(choice)).body).toEqual({
      kind: "choice",
      seat: "d1-clearance",
      fit: 1,
      kept: false,
      reason: "middle",
      predictions: [{ chain: "d1-clearance", ...prediction }],
    });
  });
});
