import { afterAll, beforeAll, describe, expect, it } from "@jest/globals";
import { v7 as newId } from "uuid";
import { dunlinDocument } from "~core/testing/dunlin";
import type { Fact, FactBody } from "~core/fact";
import type { House } from "~core/measure";
import { nm } from "~core/quantity";
import { addBook } from "~store/books";
import { addFacts } from "~store/facts";
import { jobByNumber, openJob, type JobRecord } from "~store/jobs";
import { addOddPiece, addShelfPart, receive, stockOf } from "~store/shelf";
import { testDatabase } from "~store/testing";
import { decide, worksheetOf, type Decision } from "./decide";

const HOUSE: House = { rule: "proven", target: "middle" };
const CHAIN = "d1-clearance";
const MIRA = { id: null, name: "Mira K." };
let db: Awaited<ReturnType<typeof testDatabase>>;
let book: string;

beforeAll(async () => {
  db = await testDatabase();
  const added = await addBook(db.pool, dunlinDocument());
  if (!added.ok) throw new Error(JSON.stringify(added.problems));
  book = added.id;
  for (const part of ["P160", "P175", "P190", "P205"]) {
    await addShelfPart(db.pool, { part, name: part, bin: "R1", priceCents: 580, orderDays: 2 });
  }
  await receive(db.pool, { id: newId(), part: "P190", quantity: 4, by: "Ines R." });
  await addOddPiece(db.pool, "P205", nm(2_041_000), "Ines R.");
});
afterAll(() => db.drop());

const fact = (body: FactBody): Fact => ({ id: newId(), at: "2026-05-04T08:00:00.000Z", by: "Mira K.", body });

/** A job whose D1 has been tried with 1.75 mm in: 1.37 to 1.38 mm. */
async function tried(): Promise<JobRecord> {
  const readings = [1370, 1380, 1375].map((um) =>
    fact({
      kind: "reading",
      chain: CHAIN,
      phase: "built",
      fit: 0,
      method: "air and dial",
      state: { soak: "soaked", facings: "new", wave: "free" },
      reading: { kind: "single", value: nm(um * 1_000) },
      resolution: nm(10_000),
      unit: "mm",
    }),
  );
  const number = await openJob(db.pool, {
    id: newId(),
    bookId: book,
    author: MIRA,
    facts: [
      fact({ kind: "configuration", traits: { body: "late" } }),
      fact({ kind: "scope", depths: ["full"] }),
      fact({
        kind: "fitting",
        seat: CHAIN,
        fit: 0,
        origin: "found",
        piece: { part: "P175", size: nm(1_750_000) },
      }),
      ...readings,
    ],
  });
  return again(number);
}
async function again(number: number): Promise<JobRecord> {
  const record = await jobByNumber(db.pool, number);
  if (!record) throw new Error(`no job ${number}`);
  return record;
}
const decision = (more: Partial<Decision> = {}): Decision => ({
  id: newId(),
  seat: CHAIN,
  key: "P190",
  fit: 0,
  reason: "on the middle",
  ...more,
});
const make = (record: JobRecord, one: Decision) => decide(db.pool, record, HOUSE, one, MIRA);
const onHand = async (part: string): Promise<number> =>
  (await stockOf(db.pool, [part]))
    .filter(({ piece }) => !piece)
    .reduce((sum, entry) => sum + entry.onHand, 0);

describe("carrying out a choice", () => {
  it("fits a ring off the shelf, keeps the prediction, puts the measured one back", async () => {
    const record = await tried();
    const before = await onHand("P190");
    expect(await make(record, decision({ removed: nm(1_757_000), going: nm(1_903_000) }))).toEqual({
      ok: true,
    });
    const sheet = worksheetOf(await again(record.number), CHAIN, HOUSE);
    expect(sheet?.fit).toBe(1);
    expect(sheet?.seats[0]?.fitted).toMatchObject({ part: "P190", measured: 1_903_000 });
    expect(sheet?.choice?.body).toMatchObject({
      kept: false,
      fit: 1,
      predictions: [{ chain: CHAIN, mean: 1_222_000 }],
    });
    expect(sheet?.stage).toEqual({ at: "read", begun: false });
    expect(await onHand("P190")).toBe(before - 1);
    expect((await stockOf(db.pool, ["P175"])).map(({ piece }) => piece?.measured)).toContain(1_757_000);
  });

  it("puts the one that came out back by its mark, one more of its size and no piece of its own", async () => {
    const record = await tried();
    const pieces = async (): Promise<number> =>
      (await stockOf(db.pool, ["P175"])).filter(({ piece }) => piece).length;
    const before = [await onHand("P175"), await pieces()] as const;
    expect(await make(record, decision({ removed: undefined, byMark: true }))).toEqual({ ok: true });
    expect([await onHand("P175"), await pieces()]).toEqual([before[0] + 1, before[1]]);
  });

  it("sent twice is done once", async () => {
    const record = await tried();
    const before = await onHand("P190");
    const one = decision();
    expect(await make(record, one)).toEqual({ ok: true });
    expect(await make(await again(record.number), one)).toEqual({ ok: true });
    expect(await make(record, one)).toEqual({ ok: true });
    expect(await onHand("P190")).toBe(before - 1);
  });

  it("keeps the fitted ring without touching the shelf", async () => {
    const record = await tried();
    const before = await onHand("P175");
    expect(await make(record, decision({ key: "fitted" }))).toEqual({ ok: true });
    const sheet = worksheetOf(await again(record.number), CHAIN, HOUSE);
    expect([sheet?.fit, sheet?.choice?.body.kept, sheet?.built.readings.length]).toEqual([0, true, 3]);
    expect(await onHand("P175")).toBe(before);
  });

  it("takes an odd piece with its own measure, and nobody after that", async () => {
    const piece = (await stockOf(db.pool, ["P205"])).find((entry) => entry.piece)?.piece?.id ?? "";
    const [one, two] = [await tried(), await tried()];
    expect(await make(one, decision({ key: piece }))).toEqual({ ok: true });
    expect(worksheetOf(await again(one.number), CHAIN, HOUSE)?.seats[0]?.fitted?.measured).toBe(2_041_000);
    expect(await make(two, decision({ key: piece }))).toMatchObject({ ok: false });
  });
});

describe("refusing one", () => {
  it.each<[string, Partial<Decision>, string]>([
    ["a size that is not on the shelf", { key: "P160 ordered" }, "Someone else has just taken the last one"],
    ["a ring that is nowhere", { key: "P999" }, "no longer on the shelf"],
    ["a fitting that is no longer the one in", { fit: 4 }, "Somebody else has just fitted"],
    ["a removed ring far off its mark", { removed: nm(1_900_000) }, "far from its mark"],
    ["a new ring far off its mark", { going: nm(1_750_000) }, "far from its mark"],
  ])("%s", async (_name, more, words) => {
    const record = await tried();
    const before = await onHand("P190");
    const result = await make(record, decision(more));
    expect(result.ok ? "" : result.problem).toContain(words);
    expect(await onHand("P190")).toBe(before);
    expect((await again(record.number)).facts).toHaveLength(record.facts.length);
  });

  it("a chain this unit does not have, and a closed job", async () => {
    const record = await tried();
    expect(await decide(db.pool, record, HOUSE, decision({ seat: "z9-clearance" }), MIRA)).toMatchObject({
      ok: false,
    });
    await addFacts(db.pool, record.id, [fact({ kind: "closed", rule: "proven" })], MIRA);
    expect(await make(await again(record.number), decision())).toEqual({
      ok: false,
      problem: "The job is closed.",
    });
    expect(await make(await again(record.number), decision({ key: "fitted" }))).toEqual({
      ok: false,
      problem: "The job is closed.",
    });
  });

  it("a second change before anything was read with the first", async () => {
    const record = await tried();
    await make(record, decision());
    const result = await make(await again(record.number), decision({ fit: 1, key: "P190" }));
    expect(result.ok).toBe(false);
  });
});
