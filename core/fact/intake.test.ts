import { describe, expect, it, test } from "@jest/globals";
import { bookOf } from "../../demo/units";
import { resolve } from "../book";
import { Diagnostician, toldBy } from "../diagnose";
import { asFound } from "../measure";
import { nm } from "../quantity";
import { fold, type BodyOf, type Fact, type FactBody } from "./index";

const book = bookOf("marram-dunlin");
const applied = resolve(book, { body: "late" }, ["full"]);
let n = 0;
const fact = (body: FactBody): Fact => ({
  id: `00000000-0000-4000-8000-${String(++n).padStart(12, "0")}`,
  at: "2026-05-04T08:00:00.000Z",
  by: "Mira K.",
  body,
});
const job = (...bodies: FactBody[]) => fold(bodies.map(fact));
const answer = (question: string, outcome: string, there = true): FactBody => ({
  kind: "answer",
  question,
  outcome,
  conditions: [],
  there,
});
type Debris = BodyOf<"debris">;
const debris = (where: Debris["where"], what: Debris["what"], amount: Debris["amount"]): FactBody => ({
  kind: "debris",
  where,
  what,
  amount,
});

describe("what was told", () => {
  it("stands until it is taken back, and again when said again", () => {
    const intake = job(
      answer("range:3", "slips"),
      answer("range:5", "slips"),
      answer("range:3", "slips", false),
      answer("range:4", "fine"),
      answer("range:4", "fine", false),
      answer("range:4", "fine"),
    );
    expect(toldBy(intake, book).map(({ question }) => question)).toEqual(["range:5", "range:4"]);
  });

  it("keeps conditions with the answer they were said with", () => {
    const intake = job({ ...answer("range:3", "slips"), conditions: ["hot", "full-load"] } as FactBody);
    expect(toldBy(intake, book)).toEqual([
      { question: "range:3", outcome: "slips", conditions: ["hot", "full-load"] },
    ]);
  });

  test.each<[string, FactBody[], { question: string; outcome: string }[]]>([
    [
      "a trace is what every unit has",
      [debris("pan", "friction", "trace")],
      [{ question: "debris:friction", outcome: "none" }],
    ],
    [
      "some is found",
      [debris("pan", "friction", "some")],
      [{ question: "debris:friction", outcome: "found" }],
    ],
    [
      "found in one place, however clean the other",
      [debris("filter", "brass", "much"), debris("pan", "brass", "none")],
      [{ question: "debris:brass", outcome: "found" }],
    ],
    ["fuzz says nothing", [debris("magnet", "fuzz", "much")], []],
    [
      "flakes and chunks are steel",
      [debris("pan", "chunks", "some")],
      [{ question: "debris:steel", outcome: "found" }],
    ],
    [
      "a neighbour's is the neighbour's",
      [debris("neighbour", "flakes", "much")],
      [{ question: "outside:neighbour", outcome: "found" }],
    ],
    [
      "the last word on a place",
      [debris("pan", "friction", "much"), debris("pan", "friction", "none")],
      [{ question: "debris:friction", outcome: "none" }],
    ],
    [
      "burnt is worse than its colour",
      [{ kind: "fluid", look: "brown", smell: "burnt", note: "" }],
      [{ question: "fluid", outcome: "burnt" }],
    ],
    [
      "milky before everything",
      [{ kind: "fluid", look: "milky", smell: "burnt", note: "" }],
      [{ question: "fluid", outcome: "milky" }],
    ],
    [
      "clear and old is clear",
      [{ kind: "fluid", look: "red-or-clear", smell: "old", note: "" }],
      [{ question: "fluid", outcome: "clear" }],
    ],
    ["none came out says nothing", [{ kind: "fluid", look: "none-came-out", smell: "as-new", note: "" }], []],
    [
      "speeds of a slipping third",
      [{ kind: "speeds", range: "3", input: 1800, output: 1000, there: true }],
      [{ question: "speeds:3", outcome: "slips" }],
    ],
    [
      "speeds as listed",
      [{ kind: "speeds", range: "3", input: 1800, output: 1267, there: true }],
      [{ question: "speeds:3", outcome: "as-listed" }],
    ],
    [
      "speeds of another gear",
      [{ kind: "speeds", range: "3", input: 1800, output: 432, there: true }],
      [{ question: "speeds:3", outcome: "ratio-of-1" }],
    ],
    [
      "codes of one sort count once",
      [
        { kind: "code", code: "A1", words: "", sort: "electrical-code", related: "yes", there: true },
        { kind: "code", code: "A2", words: "", sort: "electrical-code", related: "no", there: true },
      ],
      [{ question: "scan", outcome: "electrical-code" }],
    ],
  ])("%s", (_name, bodies, told) => expect(toldBy(job(...bodies), book)).toEqual(told));

  it("is all understood by the diagnosis of the unit", () => {
    const intake = job(
      debris("neighbour", "flakes", "much"),
      debris("pan", "aluminium", "some"),
      answer("manual:1", "no-engine-braking"),
      answer("tap:line", "low"),
      answer("air:d1", "leaks"),
      { kind: "fluid", look: "black", smell: "old", note: "" },
      { kind: "speeds", range: "6", input: 2000, output: 1000, there: true },
      { kind: "code", code: "A1", words: "", sort: "engine-or-vehicle-code", related: "no", there: true },
    );
    expect(new Diagnostician(book).diagnose(toldBy(intake, book), 0).unread).toEqual([]);
  });
});

describe("pictures", () => {
  it("have the last caption, and the marks that were not taken away", () => {
    const mark = fact({
      kind: "photo-mark",
      photo: "p",
      shape: "arrow",
      from: [1, 1],
      to: [90, 90],
      there: true,
    });
    const other = fact({
      kind: "photo-mark",
      photo: "p",
      shape: "circle",
      from: [1, 1],
      to: [9, 9],
      there: true,
    });
    const facts = [
      fact({ kind: "photo", photo: "p", caption: "", of: "job" }),
      mark,
      other,
      fact({ kind: "photo", photo: "p", caption: "pump", of: "job" }),
      fact({
        kind: "photo-mark",
        photo: "p",
        shape: "arrow",
        from: [1, 1],
        to: [90, 90],
        there: false,
        mark: mark.id,
      }),
    ];
    const [photo, ...more] = fold(facts).photos;
    expect(more).toEqual([]);
    expect([photo?.fact.body.caption, photo?.marks.map(({ id }) => id)]).toEqual(["pump", [other.id]]);
  });
});

describe("as found", () => {
  const figure = (id: string, said: { text: string } | { cannot: "does-not-run" }): FactBody => ({
    kind: "figure",
    of: "measurement",
    id,
    phase: "found",
    note: "",
    ...said,
  });
  const verdictOf = (id: string, ...bodies: FactBody[]) =>
    asFound(job(...bodies), applied, "proven").find((one) => one.id === id);

  it("asks for what the book wants, chains first, and only what the depth reaches", () => {
    expect(asFound(job(), applied, "proven").map(({ id }) => id)).toEqual([
      ...["input-end-play", "output-end-play", "converter-depth"],
      ...["line-idle", "line-stall", "line-reverse", "input-turning"],
    ]);
    const pan = asFound(job(), resolve(book, { body: "late" }, book.depths.slice(0, 1)), "proven");
    expect(pan.length).toBeLessThan(7);
  });

  it("judges a figure in whatever unit it was typed, at the limit exactly", () => {
    const idle = applied.scoped.measurements?.find(({ id }) => id === "line-idle");
    expect(verdictOf("line-idle", figure("line-idle", { text: idle?.max ?? "" }))).toMatchObject({
      verdict: "inside",
    });
    expect(verdictOf("line-idle", figure("line-idle", { text: "1 psi" }))).toMatchObject({
      verdict: "outside",
    });
    expect(verdictOf("line-idle")).toMatchObject({ verdict: null, said: null });
  });

  it("keeps why there is no figure as what it is", () => {
    const found = verdictOf("line-idle", figure("line-idle", { cannot: "does-not-run" }));
    expect([found?.kind === "measurement" && found.verdict, found?.said?.body.cannot]).toEqual([
      null,
      "does-not-run",
    ]);
  });

  it("takes several readings of a chain and judges them as a run", () => {
    const reading = (value: number): FactBody => ({
      kind: "reading",
      chain: "input-end-play",
      phase: "found",
      fit: 0,
      method: "dial",
      state: { soak: "dry", facings: "run-in" },
      reading: { kind: "single", value: nm(value) },
      resolution: nm(10_000),
      unit: "mm",
    });
    const found = verdictOf("input-end-play", reading(450_000), reading(460_000), reading(455_000));
    expect(found?.kind === "chain" && found.assessment.verdict.kind).toBe("inside");
    const one = verdictOf("input-end-play", reading(450_000));
    expect(one?.kind === "chain" && one.assessment.verdict.kind).toBe("too few");
  });
});
