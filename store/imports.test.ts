import { randomUUID } from "node:crypto";
import { afterAll, beforeAll, describe, expect, it } from "@jest/globals";
import { v7 as newId } from "uuid";
import type { Fact, FactBody } from "../core/fact";
import { dunlinDocument } from "../core/testing/dunlin";
import { addBook, bookById, listBooks, revisionsOf } from "./books";
import { factsOf } from "./facts";
import { importJob, type IncomingJob } from "./imports";
import { jobByNumber } from "./jobs";
import { addStaff, listStaff } from "./staff";
import { testDatabase } from "./testing";

let db: Awaited<ReturnType<typeof testDatabase>>;
let edda: { id: string; name: string };
const fact = (body: FactBody, by = "Mira K."): Fact => ({
  id: newId(),
  at: new Date().toISOString(),
  by,
  body,
});
const FLUID: FactBody = { kind: "fluid", look: "black", smell: "burnt", note: "" };
const picture = (id = newId()) => ({
  id,
  width: 4,
  height: 3,
  large: Buffer.from("l"),
  small: Buffer.from("s"),
});
const job = (more: Partial<IncomingJob> = {}): IncomingJob => ({
  id: newId(),
  origin: "1007",
  opened: "2026-05-04T08:00:00.000Z",
  book: dunlinDocument(),
  facts: [fact(FLUID)],
  pictures: [],
  ...more,
});
/** The same book said otherwise, with a revision far ahead. */
function changed(revision: number, note = randomUUID()): unknown {
  const document = dunlinDocument() as { unit: object };
  return { ...document, unit: { ...document.unit, revision, source: note } };
}

beforeAll(async () => {
  db = await testDatabase();
  await addStaff(db.pool, { name: "Edda L.", role: "lead", secret: "2580" });
  const [first] = await listStaff(db.pool);
  if (!first) throw new Error("nobody is here");
  edda = first;
  await addBook(db.pool, dunlinDocument());
}, 60_000);
afterAll(() => db.drop());

describe("a job out of a file", () => {
  it("comes in with its names, and who brought it in, once", async () => {
    const incoming = job({ facts: [fact(FLUID), fact({ kind: "count", of: "pan", found: 1 }, "Tomas B.")] });
    const first = await importJob(db.pool, incoming, edda);
    expect(await importJob(db.pool, incoming, edda)).toEqual(first);
    expect((await factsOf(db.pool, incoming.id)).map(({ by }) => by)).toEqual([
      "Mira K., brought in by Edda L.",
      "Tomas B., brought in by Edda L.",
    ]);
    const { rows } = await db.pool.query("select distinct sent_by from fact where job = $1", [incoming.id]);
    expect(rows).toEqual([{ sent_by: edda.id }]);
  });

  it("that is here already takes nothing more, and less of it changes nothing", async () => {
    const incoming = job({ facts: [fact(FLUID), fact({ kind: "count", of: "pan", found: 1 })] });
    const first = await importJob(db.pool, incoming, edda);
    if (!first.ok) throw new Error("not imported");
    const more = { ...incoming, facts: [...incoming.facts, fact({ kind: "closed", rule: "proven" })] };
    expect(await importJob(db.pool, more, edda)).toEqual({ ok: false, why: "more", number: first.number });
    const less = { ...incoming, facts: incoming.facts.slice(0, 1), book: changed(9) };
    expect(await importJob(db.pool, less, edda)).toEqual(first);
    expect(await factsOf(db.pool, incoming.id)).toHaveLength(2);
    expect(await jobByNumber(db.pool, first.number)).toMatchObject({ number: first.number });
  });

  it("is taken whole or not at all: book, facts and pictures", async () => {
    const kept = job({ pictures: [picture()] });
    expect(await importJob(db.pool, kept, edda)).toMatchObject({ ok: true });
    const books = async (): Promise<number> =>
      (await db.pool.query<{ n: number }>("select count(*)::int as n from book")).rows[0]?.n ?? 0;
    const before = await books();
    const stolen = job({ book: changed(21), pictures: [picture(kept.pictures[0]?.id)] });
    expect(await importJob(db.pool, stolen, edda)).toEqual({ ok: false, why: "elsewhere" });
    const others = job({ book: changed(22), facts: kept.facts });
    expect(await importJob(db.pool, others, edda)).toEqual({ ok: false, why: "elsewhere" });
    const broken = job({ book: { format: "yard-key/book@1" } });
    expect(await importJob(db.pool, broken, edda)).toMatchObject({ ok: false, why: "book" });
    expect(await books()).toBe(before);
    for (const { id } of [stolen, others, broken])
      expect((await db.pool.query("select from job where id = $1", [id])).rowCount).toBe(0);
  });
});

describe("the book that came along", () => {
  it("is the job’s and no revision of the shop’s, until somebody takes it in by itself", async () => {
    const own = (await listBooks(db.pool)).find(({ unit }) => unit === "test-dunlin");
    const document = changed(30);
    const incoming = job({ book: document });
    const done = await importJob(db.pool, incoming, edda);
    if (!done.ok) throw new Error("not imported");
    expect((await listBooks(db.pool)).find(({ unit }) => unit === "test-dunlin")).toEqual(own);
    expect((await revisionsOf(db.pool, "test-dunlin"))[0]?.id).toBe(own?.id);
    const record = await jobByNumber(db.pool, done.number);
    expect(record?.book.unit.source).toBe((document as { unit: { source: string } }).unit.source);
    // The shop's own is no later one of it.
    expect(record?.newer).toBeNull();
    const taken = await addBook(db.pool, document);
    if (!taken.ok) throw new Error("not taken");
    expect((await listBooks(db.pool)).find(({ unit }) => unit === "test-dunlin")?.id).toBe(taken.id);
    expect((await bookById(db.pool, taken.id)).book.unit.revision).toBe(taken.revision);
  });
});
