import { afterAll, beforeAll, expect, it } from "@jest/globals";
import { v7 as newId } from "uuid";
import type { Fact } from "~core/fact";
import { nm } from "~core/quantity";
import { dunlinDocument } from "~core/testing/dunlin";
import { addBook } from "./books";
import { factsOf } from "./facts";
import { openJob } from "./jobs";
import { addOddPiece, addShelfPart, fitFromShelf, listShelf, receive, stockOf, type Fitting } from "./shelf";
import { testDatabase } from "./testing";

let db: Awaited<ReturnType<typeof testDatabase>>;
let book: string;
const author = { id: null, name: "Mira K." };

beforeAll(async () => {
  db = await testDatabase();
  const added = await addBook(db.pool, dunlinDocument());
  if (!added.ok) throw new Error(JSON.stringify(added.problems));
  book = added.id;
});
afterAll(() => db.drop());

let parts = 0;
async function part(onHand: number): Promise<string> {
  const name = `PART-${parts++}`;
  await addShelfPart(db.pool, { part: name, name, bin: "R1", priceCents: 580, orderDays: 2 });
  if (onHand > 0) await receive(db.pool, { id: newId(), part: name, quantity: onHand, by: "Ines R." });
  return name;
}
async function fitting(take: Fitting["take"], more: Partial<Fitting> = {}): Promise<Fitting> {
  const job = newId();
  await openJob(db.pool, { id: job, bookId: book, facts: [], author });
  const at = "2026-05-04T08:00:00.000Z";
  const facts: Fact[] = [
    {
      id: newId(),
      at,
      by: "Mira K.",
      body: {
        kind: "choice",
        chain: "d1",
        fit: 1,
        kept: false,
        reason: "",
        prediction: { mean: nm(1), expanded: nm(1), chance: 1 },
      },
    },
    {
      id: newId(),
      at,
      by: "Mira K.",
      body: { kind: "fitting", chain: "d1", fit: 1, origin: "shelf", piece: { part: take.part } },
    },
  ];
  return { job, facts, author, take, back: null, ...more };
}
const onHand = async (name: string): Promise<number> =>
  (await stockOf(db.pool, [name]))
    .filter(({ piece }) => !piece)
    .reduce((sum, entry) => sum + entry.onHand, 0);
/** The oracle: what the ledger adds up to. */
const ledger = async (name: string): Promise<number> =>
  (
    await db.pool.query<{ sum: number }>(
      "select coalesce(sum(quantity), 0)::int as sum from movement where part = $1 and piece is null",
      [name],
    )
  ).rows[0]?.sum ?? 0;

it("gives the last one to exactly one of twenty hands, and the others' jobs stay as they were", async () => {
  const name = await part(1);
  const all = await Promise.all(Array.from({ length: 20 }, () => fitting({ part: name })));
  const results = await Promise.all(all.map((one) => fitFromShelf(db.pool, one)));
  expect(results.filter(({ ok }) => ok)).toHaveLength(1);
  for (const [i, result] of results.entries()) {
    if (!result.ok) expect(result.why).toBe("gone");
    expect(await factsOf(db.pool, all[i]?.job ?? "")).toHaveLength(result.ok ? 2 : 0);
  }
  expect(await onHand(name)).toBe(0);
  expect(await ledger(name)).toBe(0);
});

it("does the same choice once, however often it is sent", async () => {
  const name = await part(5);
  const one = await fitting({ part: name }, { back: { part: name, measured: nm(1_757_000) } });
  const results = await Promise.all([1, 2, 3, 4].map(() => fitFromShelf(db.pool, one)));
  expect(results.every(({ ok }) => ok)).toBe(true);
  expect(await onHand(name)).toBe(4);
  expect((await stockOf(db.pool, [name])).filter(({ piece }) => piece)).toMatchObject([
    { onHand: 1, piece: { measured: 1_757_000 } },
  ]);
});

it("lets one of two builders fit the same place and tells the other", async () => {
  const name = await part(5);
  const one = await fitting({ part: name });
  const two = { ...(await fitting({ part: name })), job: one.job };
  const results = await Promise.all([fitFromShelf(db.pool, one), fitFromShelf(db.pool, two)]);
  expect(results.map((result) => (result.ok ? "ok" : result.why)).sort()).toEqual(["ok", "other fitted"]);
  expect(await onHand(name)).toBe(4);
});

it("takes an odd piece once and for all", async () => {
  const name = await part(0);
  await addOddPiece(db.pool, name, nm(1_885_000), "Ines R.");
  const piece = (await stockOf(db.pool, [name])).find((entry) => entry.piece)?.piece?.id ?? "";
  expect(await fitFromShelf(db.pool, await fitting({ part: name, piece }))).toEqual({ ok: true });
  expect(await fitFromShelf(db.pool, await fitting({ part: name, piece }))).toEqual({
    ok: false,
    why: "gone",
  });
  expect((await stockOf(db.pool, [name])).some((entry) => entry.piece)).toBe(false);
});

it("refuses what was never there without leaving a trace", async () => {
  const name = await part(0);
  const one = await fitting({ part: name });
  expect(await fitFromShelf(db.pool, one)).toEqual({ ok: false, why: "gone" });
  expect(await ledger(name)).toBe(0);
  expect(await factsOf(db.pool, one.job)).toEqual([]);
});

it("books in once per movement and lists the shelf with its odd pieces", async () => {
  const name = await part(0);
  const id = newId();
  await Promise.all([1, 2, 3].map(() => receive(db.pool, { id, part: name, quantity: 4, by: "Ines R." })));
  await addOddPiece(db.pool, name, nm(1_900_000), "Ines R.");
  const row = (await listShelf(db.pool, "", 1000)).find((one) => one.part === name);
  expect(row).toMatchObject({ onHand: 4, bin: "R1", oddPieces: [{ measured: 1_900_000 }] });
});

it("never rewrites the ledger", async () => {
  await part(3);
  await expect(db.pool.query("update movement set quantity = 9")).rejects.toThrow("never changed");
  await expect(db.pool.query("delete from movement")).rejects.toThrow("never changed");
});
