import { afterAll, beforeAll, describe, expect, it } from "@jest/globals";
import { v7 as newId } from "uuid";
import type { Fact } from "~core/fact";
import { dunlinDocument } from "~core/testing/dunlin";
import { addBook } from "./books";
import { inTransaction, openPool } from "./database";
import { addFacts, factsOf, factsTextOf } from "./facts";
import { openJob } from "./jobs";
import { forgetKept, KeptTexts } from "./kept-texts";
import { testDatabase } from "./testing";

let db: Awaited<ReturnType<typeof testDatabase>>;
let book: string;
const author = { id: null, name: "Mira “K.”" };
const fact = (name: string): Fact => ({
  id: newId(),
  at: "2026-05-04T08:00:00.000Z",
  by: "",
  body: { kind: "holder", staff: null, name },
});
const open = async (facts: Fact[] = []): Promise<string> => {
  const id = newId();
  await openJob(db.pool, { id, bookId: book, facts, author });
  return id;
};

beforeAll(async () => {
  db = await testDatabase();
  const added = await addBook(db.pool, dunlinDocument());
  if (!added.ok) throw new Error(JSON.stringify(added.problems));
  book = added.id;
});
afterAll(() => db.drop());

describe("the text of a job’s facts", () => {
  /** What the rows say, read anew: the slow way. */
  const same = async (job: string): Promise<void> => {
    const { text, seq } = await factsTextOf(db.pool, job);
    const rows = await factsOf(db.pool, job);
    expect(JSON.parse(text)).toEqual(rows);
    const { rows: last } = await db.pool.query<{ seq: number }>(
      "select coalesce(max(seq), 0) as seq from fact where job = $1",
      [job],
    );
    expect(seq).toBe(last[0]?.seq);
  };
  it("is that of its rows, empty, at first, and after each that comes, from whichever process", async () => {
    const job = await open();
    const elsewhere = openPool(db.url, () => {});
    await same(job);
    for (const [pool, names] of [
      [db.pool, ["Mira K."]],
      [elsewhere, ['Tomas "B."', "Runa S."]],
      [elsewhere, []],
      [db.pool, ["[],{}"]],
    ] as const) {
      await addFacts(pool, job, names.map(fact), author);
      await same(job);
    }
    expect(await factsTextOf(elsewhere, job)).toEqual(await factsTextOf(db.pool, job));
    await elsewhere.end();
  });
  it("misses none of many that come at once while it is read", async () => {
    const job = await open();
    await Promise.all(
      Array.from({ length: 40 }, async (_, i) => {
        await addFacts(db.pool, job, [fact(`${i}`)], author);
        const { text } = await factsTextOf(db.pool, job);
        expect(text).toContain(`"name": "${i}"`);
      }),
    );
    await same(job);
  });
  it("keeps nothing that a transaction saw and then took back", async () => {
    const job = await open([fact("Mira K.")]);
    await inTransaction(db.pool, async (client) => {
      await addFacts(client, job, [fact("nobody")], author);
      expect((await factsTextOf(client, job)).text).toContain("nobody");
      throw new Error("taken back");
    }).catch(() => {});
    expect((await factsTextOf(db.pool, job)).text).not.toContain("nobody");
    await same(job);
  });
  it("is read anew from a database that is older than what was read, and after a lost connection", async () => {
    const job = await open([fact("Mira K."), fact("Runa S.")]);
    await same(job);
    const put = async (back: string): Promise<void> => {
      await db.pool.query("alter table fact disable trigger fact_is_kept");
      await db.pool.query("delete from fact where job = $1 and body ->> 'name' = $2", [job, back]);
      await db.pool.query("alter table fact enable trigger fact_is_kept");
    };
    await put("Runa S.");
    await same(job);
    await put("Mira K.");
    await addFacts(db.pool, job, [fact("Ines R.")], author);
    forgetKept(db.pool);
    await same(job);
  });
});

it("keeps no more than it may, those asked for last, and replaces what it had", () => {
  const kept = new KeptTexts(10);
  kept.keep("a", { text: "aaaa", seq: 1 });
  kept.keep("b", { text: "bbbb", seq: 1 });
  kept.keep("a", { text: "aaaaa", seq: 2 });
  kept.keep("c", { text: "cccc", seq: 1 });
  expect(["a", "b", "c"].map((job) => kept.get(job)?.text)).toEqual(["aaaaa", undefined, "cccc"]);
  kept.keep("d", { text: "far too long", seq: 1 });
  expect(kept.get("d")).toBeUndefined();
  expect(kept.get("c")?.text).toBe("cccc");
});
