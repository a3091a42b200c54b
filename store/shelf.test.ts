import { afterAll, beforeAll, describe, expect, it } from "@jest/globals";
import { v7 as newId } from "uuid";
import type { Fact } from "~core/fact";
import { nm } from "~core/quantity";
import { dunlinDocument } from "~core/testing/dunlin";
import { addBook } from "./books";
import { addFacts, factsOf } from "./facts";
import { openJob } from "./jobs";
import {
  addOddPiece,
  addShelfPart,
  countShelf,
  fitFromShelf,
  giveUp,
  listShelf,
  movementsOf,
  receive,
  reserve,
  reservedFor,
  stockOf,
  type Fitting,
} from "./shelf";
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
async function fitting(take: NonNullable<Fitting["take"]>, more: Partial<Fitting> = {}): Promise<Fitting> {
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
        seat: "d1",
        fit: 1,
        kept: false,
        reason: "",
        predictions: [{ chain: "d1", mean: nm(1), expanded: nm(1), chance: 1 }],
      },
    },
    {
      id: newId(),
      at,
      by: "Mira K.",
      body: {
        kind: "fitting",
        seat: "d1",
        fit: 1,
        origin: "shelf",
        piece: { part: take?.part, size: nm(1) },
      },
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
  const one = await fitting({ part: name }, { back: { part: name, name, measured: nm(1_757_000) } });
  const results = await Promise.all([1, 2, 3, 4].map(() => fitFromShelf(db.pool, one)));
  expect(results.every(({ ok }) => ok)).toBe(true);
  expect(await onHand(name)).toBe(4);
  expect((await stockOf(db.pool, [name])).filter(({ piece }) => piece)).toMatchObject([
    { onHand: 1, piece: { measured: 1_757_000 } },
  ]);
});

it("gives what comes out of a unit a place where the shelf had none of it, and refuses what it never had", async () => {
  const out = { part: "Never seen 1.50", name: "Snap ring 1.50", measured: null };
  const name = await part(2);
  expect(await fitFromShelf(db.pool, await fitting({ part: name }, { back: out }))).toEqual({ ok: true });
  expect(await listShelf(db.pool, { parts: [out.part], limit: 5 })).toMatchObject([
    { name: "Snap ring 1.50", bin: "to be put away", onHand: 1 },
  ]);
  const measured = { ...out, name: "another name", measured: nm(1_503_000) };
  expect(await fitFromShelf(db.pool, await fitting({ part: name }, { back: measured }))).toEqual({
    ok: true,
  });
  expect((await stockOf(db.pool, [out.part])).map(({ onHand, piece }) => [onHand, piece?.measured])).toEqual(
    expect.arrayContaining([
      [1, undefined],
      [1, 1_503_000],
    ]),
  );
  expect(await fitFromShelf(db.pool, await fitting({ part: "Nobody’s" }))).toEqual({
    ok: false,
    why: "gone",
  });
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
  const row = (await listShelf(db.pool, { limit: 1000 })).find((one) => one.part === name);
  expect(row).toMatchObject({ onHand: 4, bin: "R1", oddPieces: [{ measured: 1_900_000 }] });
});

it("never rewrites the ledger", async () => {
  await part(3);
  await expect(db.pool.query("update movement set quantity = 9")).rejects.toThrow("never changed");
  await expect(db.pool.query("delete from movement")).rejects.toThrow("never changed");
});

describe("reserved pieces", () => {
  const jobs = async (n: number): Promise<string[]> =>
    Promise.all(Array.from({ length: n }, async () => (await fitting({ part: "none" })).job));

  it("are counted by their own job alone, until they are fitted or given up", async () => {
    const name = await part(2);
    const [mine, other] = await jobs(2);
    expect(await reserve(db.pool, "Mira K.", [{ job: mine!, seat: "d1", part: name }])).toBeNull();
    const left = async (job: string) => (await stockOf(db.pool, [name], [job]))[0]?.onHand;
    expect([await left(mine!), await left(other!)]).toEqual([2, 1]);
    // Meant for the same seat anew: the first is given up with it.
    expect(await reserve(db.pool, "Mira K.", [{ job: mine!, seat: "d1", part: name }])).toBeNull();
    expect(await left(other!)).toBe(1);
    expect(await reservedFor(db.pool, mine!)).toMatchObject([{ seat: "d1", part: name }]);
    await giveUp(db.pool, mine!, "d1");
    expect([await left(other!), await reservedFor(db.pool, mine!)]).toEqual([2, []]);
    const one = await fitting({ part: name });
    await reserve(db.pool, "Mira K.", [{ job: one.job, seat: "d1", part: name }]);
    expect(await fitFromShelf(db.pool, { ...one, seat: "d1" })).toEqual({ ok: true });
    expect([await left(other!), await reservedFor(db.pool, one.job)]).toEqual([1, []]);
  });

  it("cannot be taken by another, and not be reserved twice however many reach for the last", async () => {
    const name = await part(1);
    const all = await jobs(8);
    const said = await Promise.all(
      all.map((job) => reserve(db.pool, "Mira K.", [{ job, seat: "d1", part: name }])),
    );
    expect(said.filter((taken) => taken === null)).toHaveLength(1);
    const winner = all[said.findIndex((taken) => taken === null)]!;
    expect(await fitFromShelf(db.pool, await fitting({ part: name }))).toEqual({ ok: false, why: "gone" });
    const own = { ...(await fitting({ part: name })), job: winner };
    expect(await fitFromShelf(db.pool, { ...own, seat: "d1" })).toEqual({ ok: true });
  });

  it("are given up when their job is closed", async () => {
    const name = await part(1);
    const [job] = await jobs(1);
    await reserve(db.pool, "Mira K.", [{ job: job!, seat: "d1", part: name }]);
    const closed: Fact = {
      id: newId(),
      at: "2026-05-04T08:00:00.000Z",
      by: "Edda L.",
      body: { kind: "closed", rule: "proven" },
    };
    expect(await addFacts(db.pool, job!, [closed], author)).toMatchObject({ ok: true });
    expect([await reservedFor(db.pool, job!), await onHand(name)]).toEqual([[], 1]);
  });

  it("are all of them or none, two of one part counted twice", async () => {
    const name = await part(1);
    const [job] = await jobs(1);
    const both = [
      { job: job!, seat: "d1", part: name },
      { job: job!, seat: "d2", part: name },
    ];
    expect(await reserve(db.pool, "Mira K.", both)).toMatchObject({ seat: "d2" });
    expect(await reservedFor(db.pool, job!)).toEqual([]);
  });

  it("change hands between two jobs in one go", async () => {
    const [rare, common] = [await part(1), await part(1)];
    const [one, other] = await jobs(2);
    await reserve(db.pool, "Mira K.", [{ job: one!, seat: "d1", part: rare }]);
    const both = [
      { job: other!, seat: "d1", part: rare },
      { job: one!, seat: "d1", part: common },
    ];
    // What both keep from each other is free for neither alone, and for both together.
    const free = async (of: string[]) => (await stockOf(db.pool, [rare], of))[0]?.onHand;
    expect([await free([other!]), await free([one!, other!])]).toEqual([0, 1]);
    expect(await reserve(db.pool, "Mira K.", both)).toBeNull();
    expect(await reservedFor(db.pool, other!)).toMatchObject([{ part: rare }]);
    expect(await reservedFor(db.pool, one!)).toMatchObject([{ part: common }]);
  });
});

describe("what is asked of the shelf", () => {
  it("is what a slow look through all of it finds, page by page", async () => {
    for (const [i, onHand] of [0, 3, 1, 0, 7, 2].entries()) {
      const name = `ASK-${i}`;
      await addShelfPart(db.pool, {
        part: name,
        name: i % 2 ? "Ring, even" : "Washer 100%",
        bin: i < 3 ? "Q_1" : "Q12",
        priceCents: 10,
        orderDays: null,
      });
      if (onHand > 0) await receive(db.pool, { id: newId(), part: name, quantity: onHand, by: "Ines R." });
    }
    const all = await listShelf(db.pool, { limit: 1000 });
    const pages = async (asked: Parameters<typeof listShelf>[1]): Promise<string[]> => {
      const rows: typeof all = [];
      for (;;) {
        const last = rows.at(-1);
        const page = await listShelf(db.pool, { ...asked, limit: 2, ...(last ? { after: last } : {}) });
        rows.push(...page);
        if (page.length < 2) return rows.map(({ part: one }) => one);
      }
    };
    const byPart = (a: string, b: string): number => (a < b ? -1 : 1);
    const parts = all.map(({ part: one }) => one);
    expect(await pages({})).toEqual([...parts].sort(byPart));
    expect(await pages({ lowFirst: true })).toEqual(
      [...all].sort((a, b) => a.onHand - b.onHand || byPart(a.part, b.part)).map((row) => row.part),
    );
    expect(await pages({ text: "washer 100%" })).toEqual(["ASK-0", "ASK-2", "ASK-4"]);
    // What stands for anything elsewhere is a letter here.
    expect(await pages({ bin: "Q_" })).toEqual(["ASK-0", "ASK-1", "ASK-2"]);
    expect(await pages({ parts: ["ASK-4", "ASK-1", "none"], lowFirst: true })).toEqual(["ASK-1", "ASK-4"]);
  });

  it("is counted and set right with a reason, once however often it is sent, and told by movement", async () => {
    const name = await part(5);
    const one = { id: newId(), part: name, counted: 3, reason: "two were bent", by: "Ines R." };
    await Promise.all([1, 2, 3].map(() => countShelf(db.pool, one)));
    await countShelf(db.pool, { ...one, id: newId(), reason: "counted again" });
    expect([await onHand(name), await ledger(name)]).toEqual([3, 3]);
    expect((await movementsOf(db.pool, name)).map(({ quantity, why, by }) => [quantity, why, by])).toEqual([
      [-2, "counted: two were bent", "Ines R."],
      [5, "received", "Ines R."],
    ]);
    const fitted = await fitting({ part: name });
    await fitFromShelf(db.pool, fitted);
    const [last] = await movementsOf(db.pool, name);
    expect(last).toMatchObject({ quantity: -1, why: "fitted", by: "Mira K." });
    expect(last?.job).toEqual(expect.any(Number));
    // What the shop used of it is what says how scarce it is.
    expect((await stockOf(db.pool, [name]))[0]?.used).toBe(1);
  });
});
