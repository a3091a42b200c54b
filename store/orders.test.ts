import { afterAll, beforeAll, describe, expect, it } from "@jest/globals";
import { v7 as newId } from "uuid";
import { dunlinDocument } from "~core/testing/dunlin";
import { addBook } from "./books";
import { openJob } from "./jobs";
import { arrive, backToShelf, comingIn, gotFor, order, purchase, supplyOf, type NewLine } from "./orders";
import { addShelfPart, receive, reserve, reservedFor, stockOf } from "./shelf";
import { testDatabase } from "./testing";

let db: Awaited<ReturnType<typeof testDatabase>>;
let book: string;
beforeAll(async () => {
  db = await testDatabase();
  const added = await addBook(db.pool, dunlinDocument());
  if (!added.ok) throw new Error(JSON.stringify(added.problems));
  book = added.id;
});
afterAll(() => db.drop());

const by = "Ines R.";
const newJob = async (): Promise<string> => {
  const id = newId();
  await openJob(db.pool, { id, bookId: book, facts: [], author: { id: null, name: by } });
  return id;
};
let parts = 0;
async function onShelf(pieces: number): Promise<string> {
  const part = `ORD-${parts++}`;
  await addShelfPart(db.pool, { part, name: part, bin: "S1", priceCents: null, orderDays: null });
  if (pieces > 0) await receive(db.pool, { id: newId(), part, quantity: pieces, by });
  return part;
}
const line = (more: Partial<NewLine> = {}): NewLine => ({
  supplier: "Tidewater Parts",
  part: "A",
  name: "friction",
  pieces: 4,
  cents: 6_000,
  days: 3,
  ...more,
});
const left = async (part: string): Promise<number> => (await stockOf(db.pool, [part]))[0]?.onHand ?? 0;
const boxOf = async (job: string): Promise<Record<string, number>> =>
  Object.fromEntries((await supplyOf(db.pool, job)).box.map(({ part, count }) => [part, count]));
const comingTo = async (job: string) => (await supplyOf(db.pool, job)).coming;
const came = (id: string, pieces: number, what: "arrived" | "wrong" | "cancelled" = "arrived") =>
  arrive(db.pool, { id: newId(), line: id, what, pieces, note: "", by });

describe("an order", () => {
  it("goes to each supplier once, however often and by however many it is sent, and takes the shelf’s part of it once", async () => {
    const [job, part] = [await newJob(), await onShelf(3)];
    const one = {
      id: newId(),
      job,
      by,
      lines: [line(), line({ part: "B", pieces: 1 }), line({ part: "C", supplier: "Causeway Supply" })],
      shelf: [{ part, name: "washer", pieces: 2 }],
    };
    expect(await Promise.all(Array.from({ length: 6 }, () => order(db.pool, one)))).toEqual(
      Array(6).fill(null),
    );
    const coming = await comingTo(job);
    expect(coming.map(({ supplier, part: of, pieces }) => [supplier, of, pieces]).sort()).toEqual([
      ["Causeway Supply", "C", 4],
      ["Tidewater Parts", "A", 4],
      ["Tidewater Parts", "B", 1],
    ]);
    expect(new Set(coming.map((each) => each.order)).size).toBe(2);
    expect([await left(part), await boxOf(job)]).toEqual([1, { [part]: 2 }]);
  });

  it("is made whole or not at all: what somebody took, or has had put aside, is said and nothing is ordered", async () => {
    const [job, other, part] = [await newJob(), await newJob(), await onShelf(1)];
    const one = { id: newId(), job, by, lines: [line()], shelf: [{ part, name: "washer", pieces: 1 }] };
    await reserve(db.pool, by, [{ job: other, seat: "d1", part }]);
    expect(await order(db.pool, one)).toBe(part);
    expect([await comingTo(job), await boxOf(job)]).toEqual([[], {}]);
    const last = await onShelf(1);
    const said = await Promise.all(
      [job, other].map((of) =>
        order(db.pool, { ...one, id: newId(), job: of, shelf: [{ part: last, name: "washer", pieces: 1 }] }),
      ),
    );
    expect(said.filter((gone) => gone === null)).toHaveLength(1);
    expect(await left(last)).toBe(0);
  });
});

describe("goods in", () => {
  it("come in parts, and never more than was ordered, however many book them in at once", async () => {
    const job = await newJob();
    await order(db.pool, { id: newId(), job, by, lines: [line({ part: "P" })], shelf: [] });
    const [{ line: id = "" } = {}] = await comingTo(job);
    expect(await came(id, 1)).toBe(true);
    expect((await comingTo(job))[0]).toMatchObject({ pieces: 3, ordered: 4 });
    const all = await Promise.all(Array.from({ length: 6 }, () => came(id, 1)));
    expect(all.filter(Boolean)).toHaveLength(3);
    expect([await comingTo(job), await boxOf(job)]).toEqual([[], { P: 4 }]);
    const again = { id: newId(), line: id, what: "arrived" as const, pieces: 1, note: "", by };
    expect(await arrive(db.pool, again)).toBe(false);
  });

  it("are booked in once when the same word comes twice", async () => {
    const job = await newJob();
    await order(db.pool, { id: newId(), job, by, lines: [line({ part: "Q" })], shelf: [] });
    const [{ line: id = "" } = {}] = await comingTo(job);
    const word = { id: newId(), line: id, what: "arrived" as const, pieces: 2, note: "", by };
    expect(await Promise.all([1, 2, 3].map(() => arrive(db.pool, word)))).toEqual([true, true, true]);
    expect(await boxOf(job)).toEqual({ Q: 2 });
  });

  it("that are wrong go back and are still wanted; what is cancelled is not", async () => {
    const job = await newJob();
    await order(db.pool, { id: newId(), job, by, lines: [line({ part: "R" })], shelf: [] });
    const [{ line: id = "", order: number = 0 } = {}] = await comingTo(job);
    expect(await came(id, 4, "wrong")).toBe(true);
    expect(await came(id, 5, "wrong")).toBe(false);
    expect([(await comingTo(job))[0]?.pieces, await boxOf(job)]).toEqual([4, {}]);
    expect(await came(id, 3, "cancelled")).toBe(true);
    expect(await came(id, 1)).toBe(true);
    expect([await comingTo(job), await boxOf(job)]).toEqual([[], { R: 1 }]);
    const kept = await purchase(db.pool, number);
    expect(kept?.lines[0]?.events.map(({ what, pieces }) => [what, pieces])).toEqual([
      ["wrong", 4],
      ["cancelled", 3],
      ["arrived", 1],
    ]);
  });

  it("of a kit lie in the job’s box one by one, and what is over goes to the shelf, which had none of it", async () => {
    const job = await newJob();
    const contents = [
      { number: "K-seal", name: "seal", count: 2 },
      { number: "K-band", name: "band", count: 1 },
    ];
    await order(db.pool, {
      id: newId(),
      job,
      by,
      lines: [line({ part: "K", name: "full kit", pieces: 2, contents })],
      shelf: [],
    });
    const [{ line: id = "" } = {}] = await comingTo(job);
    await came(id, 2);
    expect(await boxOf(job)).toEqual({ "K-seal": 4, "K-band": 2 });
    const back = { id: newId(), job, part: "K-band", pieces: 2, by };
    expect(await Promise.all([1, 2].map(() => backToShelf(db.pool, back)))).toEqual([true, true]);
    expect([await boxOf(job), await left("K-band")]).toEqual([{ "K-seal": 4 }, 2]);
    expect(await backToShelf(db.pool, { ...back, id: newId(), pieces: 1 })).toBe(false);
  });

  it("that were chosen for a seat lie on the shelf, where choosing looks for them, put aside for it", async () => {
    const [job, part] = [await newJob(), await onShelf(0)];
    await order(db.pool, {
      id: newId(),
      job,
      by,
      lines: [line({ part, pieces: 2, seats: ["d1", "d3"] })],
      shelf: [],
    });
    const [{ line: id = "" } = {}] = await comingTo(job);
    await came(id, 1);
    expect((await reservedFor(db.pool, job)).map(({ seat, part: of }) => [seat, of])).toEqual([["d1", part]]);
    await came(id, 1);
    expect((await reservedFor(db.pool, job)).map(({ seat }) => seat).sort()).toEqual(["d1", "d3"]);
    const free = async (...jobs: string[]) => (await stockOf(db.pool, [part], jobs))[0]?.onHand;
    expect([await free(job), await free(), await boxOf(job)]).toEqual([2, 0, {}]);
  });

  it("are counted for several jobs at once, in the box and on the way, a kit by what lies in it", async () => {
    const [job, other] = [await newJob(), await newJob()];
    const contents = [{ number: "G-seal", name: "seal", count: 3 }];
    await order(db.pool, {
      id: newId(),
      job,
      by,
      lines: [line({ part: "G", pieces: 4 }), line({ part: "GK", pieces: 2, contents })],
      shelf: [],
    });
    const [first] = (await comingTo(job)).filter(({ part }) => part === "G");
    await came(first?.line ?? "", 1);
    const { rows } = await db.pool.query<{ id: string; number: number }>(
      "select id, number::int as number from job where id = any ($1::uuid[])",
      [[job, other]],
    );
    const numberOf = (id: string): number => rows.find((row) => row.id === id)?.number ?? 0;
    const got = await gotFor(db.pool, [numberOf(job), numberOf(other)]);
    expect([got.get(numberOf(job)), got.get(numberOf(other))]).toEqual([
      new Map([
        ["G", 4],
        ["G-seal", 6],
      ]),
      new Map(),
    ]);
  });

  it("are told what is late first, and what was said stays", async () => {
    const job = await newJob();
    await order(db.pool, {
      id: newId(),
      job,
      by,
      lines: [line({ part: "S", days: 9 }), line({ part: "T", days: null }), line({ part: "U", days: 1 })],
      shelf: [],
    });
    const mine = (await comingIn(db.pool)).filter(({ part }) => ["S", "T", "U"].includes(part));
    expect(mine.map(({ part }) => part)).toEqual(["U", "S", "T"]);
    for (const table of ["purchase", "purchase_line", "box_movement", "purchase_event"])
      await expect(db.pool.query(`delete from ${table}`)).rejects.toThrow("never changed");
  });
});
