import { describe, expect, it } from "@jest/globals";
import fc from "fast-check";
import { resolve } from "../book";
import { dunlin } from "../testing/dunlin";
import { nm } from "../quantity";
import { askedFor, ruleOf, seatCandidates, worksheets, type House, type PackSheet } from "../measure";
import { fold, type Fact, type FactBody, type Job, type Phase } from "./index";

const HOUSE: House = { rule: "proven", target: "middle" };
const CHAIN = "d1-clearance";
let counter = 0;
const fact = (body: FactBody, more: Partial<Fact> = {}): Fact => ({
  id: `fact-${String(counter++)}`,
  at: "2026-05-04T08:00:00.000Z",
  by: "Mira K.",
  body,
  ...more,
});
const reading = (phase: Phase, fit: number, um: number): Fact =>
  fact({
    kind: "reading",
    chain: CHAIN,
    phase,
    fit,
    method: "air and dial",
    state: { soak: "soaked", facings: "new", wave: "free" },
    reading: { kind: "single", value: nm(um * 1_000) },
    resolution: nm(10_000),
    unit: "mm",
  });
const opened = [
  fact({ kind: "configuration", traits: { body: "late" } }),
  fact({ kind: "scope", depths: ["full"] }),
];
const ring = (fit: number, um: number): Fact =>
  fact({
    kind: "fitting",
    seat: CHAIN,
    fit,
    origin: fit === 0 ? "found" : "shelf",
    piece: { part: `P${um / 10}`, size: nm(um * 1_000) },
  });
const choice = (fit: number, kept: boolean): Fact =>
  fact({
    kind: "choice",
    seat: CHAIN,
    fit,
    kept,
    reason: "",
    predictions: [{ chain: CHAIN, mean: nm(1_225_000), expanded: nm(20_000), chance: 1 }],
  });

function sheets(facts: Fact[]) {
  const job = fold([...opened, ...facts]);
  const applied = resolve(dunlin(), job.configuration, job.depths ?? ["full"]);
  const all = worksheets(job, applied, HOUSE);
  return { job, all, d1: all[0]! };
}

const candidates = ({ job, all }: { job: Job; all: PackSheet[] }) =>
  seatCandidates(askedFor({ job, sheets: all, orders: [], stock: [] }, CHAIN, CHAIN), CHAIN, CHAIN, "proven");

describe("the stages of a pack", () => {
  const found = [1480, 1490, 1485].map((um) => reading("found", 0, um));
  const trial = [1370, 1380, 1375].map((um) => reading("built", 0, um));
  const built = [1220, 1230, 1225].map((um) => reading("built", 1, um));

  it("goes from found to trial, choice, reading again, done", () => {
    const steps: [Fact[], string][] = [
      [[], "found"],
      [found.slice(0, 2), "found"],
      [found, "trial"],
      [[...found, ...trial.slice(0, 1)], "trial"],
      [[...found, ring(0, 1750), ...trial], "choose"],
      [[...found, ring(0, 1750), ...trial, choice(1, false), ring(1, 1900)], "read"],
      [[...found, ring(0, 1750), ...trial, choice(1, false), ring(1, 1900), ...built], "done"],
    ];
    for (const [facts, at] of steps) expect(sheets(facts).d1.stage.at).toBe(at);
  });

  it("is not read as found any more once its plates are out, and can be again when they were not", () => {
    const book = dunlin();
    const plate = book.packs[0]?.stack.at(-1)?.part ?? "";
    const teardown = [{ id: "t-apart", name: "Take the drum apart", parts: [plate] }];
    const stageAfter = (...facts: Fact[]) => {
      const job = fold([...opened, ...facts]);
      const applied = resolve({ ...book, teardown }, job.configuration, job.depths ?? ["full"]);
      return worksheets(job, applied, HOUSE)[0]?.stage;
    };
    const said = (did: "done" | "undone"): Fact => fact({ kind: "step", step: "t-apart", did, reason: "" });
    expect(stageAfter()).toEqual({ at: "found", begun: false });
    expect(stageAfter(said("done"))).toEqual({ at: "trial", begun: false });
    expect(stageAfter(...found.slice(0, 1), said("done"))).toEqual({ at: "trial", begun: false });
    expect(stageAfter(said("done"), said("undone"))).toEqual({ at: "found", begun: false });
  });

  it("keeps trial and as-built apart by the ring that was in", () => {
    const { d1 } = sheets([ring(0, 1750), ...trial, choice(1, false), ring(1, 1900), ...built]);
    expect(d1.trial.assessment.estimate?.mean).toBe(1_375_000);
    expect(d1.built.assessment.estimate?.mean).toBe(1_225_000);
    expect(d1.seats[0]?.fitted?.size).toBe(1_900_000);
  });

  it("lets the trial readings stand when the ring is kept", () => {
    const { d1 } = sheets([
      ring(0, 1750),
      ...built.map((one) => ({ ...one, body: { ...one.body, fit: 0 } as FactBody })),
      choice(0, true),
    ]);
    expect(d1.stage.at).toBe("done");
    expect(d1.built.readings).toHaveLength(3);
  });

  it("is not done when what was built is not inside: what is not as predicted is asked about first, outside too", () => {
    const outside = [1420, 1430, 1425].map((um) => reading("built", 1, um));
    const said = [ring(0, 1750), ...trial, choice(1, false), ring(1, 1900), ...outside];
    expect(sheets(said).d1.stage).toEqual({ at: "astray" });
    const why = fact({ kind: "explained", chain: CHAIN, fit: 1, reason: "the trial was misread" });
    expect(sheets([...said, why]).d1.stage).toEqual({ at: "read", begun: true });
  });

  it("predicts nothing between a change of ring and the first reading with it", () => {
    // Found at the bench: the trial readings were taken for readings with the new ring in, and a second ring was fitted on them.
    const changed = sheets([ring(0, 1750), ...trial, choice(1, false), ring(1, 1900)]);
    expect(candidates(changed)).toEqual([]);
    const read = sheets([ring(0, 1750), ...trial, choice(1, false), ring(1, 1900), ...built]);
    expect(candidates(read).find(({ key }) => key === "P205")?.predicted.mean).toBe(1_075_000);
  });

  it("predicts nothing from a single dial reading or without a known ring", () => {
    expect(candidates(sheets([ring(0, 1750), ...trial.slice(0, 1)]))).toEqual([]);
    expect(candidates(sheets(trial))).toEqual([]);
    expect(candidates(sheets([ring(0, 1750), ...trial]))).not.toEqual([]);
  });

  it("asks what is wrong when a ring comes out a size off, though inside; counts once somebody has said", () => {
    const predicted = fact({
      kind: "choice",
      seat: CHAIN,
      fit: 1,
      kept: false,
      reason: "",
      predictions: [{ chain: CHAIN, mean: nm(1_080_000), expanded: nm(30_000), chance: 0.99 }],
    });
    const wide = [1225, 1226, 1224].map((um) => reading("built", 1, um));
    const facts = [ring(0, 1750), ...trial, predicted, ring(1, 1900)];
    const as = [1075, 1085, 1080].map((um) => reading("built", 1, um));
    expect(sheets([...facts, ...as]).d1.stage).toEqual({ at: "done" });
    const { d1 } = sheets([...facts, ...wide]);
    expect([d1.built.assessment.verdict.kind, d1.stage.at, d1.astray?.off]).toEqual([
      "inside",
      "astray",
      145_000,
    ]);
    const said = fact({ kind: "explained", chain: CHAIN, fit: 1, reason: "the ring out was marked wrong" });
    expect(sheets([...facts, ...wide, said]).d1.stage).toEqual({ at: "done" });
    // What was said of one ring is not said of the next.
    const other = fact({ kind: "explained", chain: CHAIN, fit: 0, reason: "another" });
    expect(sheets([...facts, ...wide, other]).d1.stage.at).toBe("astray");
  });

  it("asks nothing of what is out of scope", () => {
    const { all } = sheets([fact({ kind: "scope", depths: ["pan and body"] })]);
    expect(all.map(({ stage }) => stage.at)).toEqual(["quiet", "quiet"]);
  });
});

it("a closed job keeps the verdicts of the rule it was closed under", () => {
  const close = [1390, 1400, 1395].map((um) => reading("found", 0, um));
  const closed = fact({ kind: "closed", rule: "plain" });
  expect(sheets(close).d1.found.assessment.verdict.kind).toBe("too close");
  const { job, d1 } = sheets([...close, closed]);
  expect(d1.found.assessment.verdict.kind).toBe("inside");
  expect([ruleOf(job, HOUSE), ruleOf(sheets(close).job, HOUSE)]).toEqual(["plain", "proven"]);
});

describe("folding facts", () => {
  it("counts a fact that came twice once", () => {
    const one = reading("found", 0, 1480);
    expect(sheets([one, one]).d1.found.readings).toHaveLength(1);
  });

  it("lets a correction stand for what it replaces", () => {
    const first = ring(0, 1750);
    const { d1 } = sheets([first, { ...ring(0, 1900), replaces: first.id }]);
    expect(d1.seats[0]?.fitted?.size).toBe(1_900_000);
  });

  it("the last word on leaving out holds", () => {
    const one = reading("found", 0, 1480);
    const out = (value: boolean) =>
      fact({ kind: "leave-out", reading: one.id, out: value, reason: "drum not turned" });
    expect(sheets([one, out(true)]).d1.found.assessment.marks[0]?.use).toBe("out");
    expect(sheets([one, out(true), out(false)]).d1.found.assessment.marks[0]?.use).toBe("used");
  });

  it("gives the same job however often facts are repeated", () => {
    const facts = [...opened, reading("found", 0, 1480), reading("found", 0, 1490), ring(0, 1750)];
    fc.assert(
      fc.property(fc.array(fc.nat(facts.length - 1), { maxLength: 20 }), (again) => {
        expect(fold([...facts, ...again.map((i) => facts[i]!)])).toEqual(fold(facts));
      }),
      { seed: 29, numRuns: 200 },
    );
  });
});
