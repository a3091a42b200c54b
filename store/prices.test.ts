import { afterAll, beforeAll, expect, it } from "@jest/globals";
import { addPrices, depositsOf, listPrices, offersOf, pricesOf } from "./prices";
import { addShelfPart } from "./shelf";
import { testDatabase } from "./testing";

let db: Awaited<ReturnType<typeof testDatabase>>;
beforeAll(async () => {
  db = await testDatabase();
});
afterAll(() => db.drop());

const said = { supplier: "Tidewater Parts", by: "Ines R." };
const history = async (part: string): Promise<number[]> => {
  const { rows } = await db.pool.query<{ cents: number }>(
    "select cents from price where part = $1 order by id",
    [part],
  );
  return rows.map(({ cents }) => cents);
};

it("holds the last word on a part and keeps what stood before", async () => {
  expect(await addPrices(db.pool, [{ part: "A-1", cents: 1250, days: 3 }], said)).toBe(1);
  expect(await addPrices(db.pool, [{ part: "A-1", cents: 1390, days: 3 }], said)).toBe(1);
  expect(await pricesOf(db.pool, ["A-1", "A-2"])).toEqual([["A-1", 1390]]);
  expect(await history("A-1")).toEqual([1250, 1390]);
});

it("takes a list that comes twice once", async () => {
  const list = [
    { part: "B-1", cents: 100, days: null },
    { part: "B-2", cents: 200, days: 2 },
  ];
  expect(await addPrices(db.pool, list, said)).toBe(2);
  expect(await addPrices(db.pool, list, said)).toBe(0);
  expect(await addPrices(db.pool, list, { ...said, supplier: "Mudflat Gears" })).toBe(2);
});

it("falls back to what the shelf has noted", async () => {
  await addShelfPart(db.pool, { part: "C-1", name: "ring", bin: "R1", priceCents: 580, orderDays: 2 });
  expect(await pricesOf(db.pool, ["C-1"])).toEqual([["C-1", 580]]);
  await addPrices(db.pool, [{ part: "C-1", cents: 600, days: 1 }], said);
  expect(await pricesOf(db.pool, ["C-1"])).toEqual([["C-1", 600]]);
});

it("lists each part once, page by page, and by how its number begins", async () => {
  await addPrices(
    db.pool,
    ["D-1", "D-2", "D-3", "E_1"].map((part, i) => ({ part, cents: i, days: null })),
    said,
  );
  await addPrices(db.pool, [{ part: "D-2", cents: 99, days: null }], said);
  const first = await listPrices(db.pool, { begins: "D-", limit: 2 });
  expect(first.map(({ part, cents }) => [part, cents])).toEqual([
    ["D-1", 0],
    ["D-2", 99],
  ]);
  expect((await listPrices(db.pool, { begins: "D-", after: "D-2" })).map(({ part }) => part)).toEqual([
    "D-3",
  ]);
  // What is typed is no pattern.
  expect(await listPrices(db.pool, { begins: "D_" })).toEqual([]);
});

it("refuses a price below nought, and every change", async () => {
  await expect(addPrices(db.pool, [{ part: "F-1", cents: -1, days: null }], said)).rejects.toThrow();
  await expect(db.pool.query("update price set cents = 1")).rejects.toThrow("never changed");
  await expect(db.pool.query("delete from price")).rejects.toThrow("never changed");
});

it("knows what each supplier asks now, and takes one’s list in again without a word whatever another said since", async () => {
  const near = { supplier: "Mudflat Gears", by: "Ines R." };
  await addPrices(db.pool, [{ part: "F-1", cents: 700, days: 3 }], said);
  await addPrices(db.pool, [{ part: "F-1", cents: 2500, days: 1, pack: 5 }], near);
  expect(await addPrices(db.pool, [{ part: "F-1", cents: 700, days: 3 }], said)).toBe(0);
  await addPrices(db.pool, [{ part: "F-1", cents: 750, days: 2 }], said);
  expect(await offersOf(db.pool, ["F-1", "F-2"])).toEqual([
    { number: "F-1", supplier: "Mudflat Gears", cents: 2500, days: 1, pack: 5 },
    { number: "F-1", supplier: "Tidewater Parts", cents: 750, days: 2, pack: 1 },
  ]);
  // Of a pack the price of one.
  await addPrices(db.pool, [{ part: "F-1", cents: 2600, days: 1, pack: 5 }], near);
  expect(await pricesOf(db.pool, ["F-1"])).toEqual([["F-1", 520]]);
});

it("keeps what is paid until an old part comes back, by the last word", async () => {
  const one = { part: "CV-1", cents: 40_000, days: 3 };
  expect(await addPrices(db.pool, [Object.assign({}, one, { deposit: 12_000 })], said)).toBe(1);
  expect(await addPrices(db.pool, [Object.assign({}, one, { deposit: 12_000 })], said)).toBe(0);
  expect(await depositsOf(db.pool, ["CV-1", "F-1"])).toEqual([["CV-1", 12_000]]);
  // Another supplier’s list says nothing of this one’s deposit.
  await addPrices(db.pool, [one], { supplier: "Mudflat Gears", by: "Ines R." });
  expect(await depositsOf(db.pool, ["CV-1"])).toEqual([["CV-1", 12_000]]);
  expect(await addPrices(db.pool, [one], said)).toBe(1);
  expect(await depositsOf(db.pool, ["CV-1"])).toEqual([]);
});
