import { afterAll, beforeAll, describe, expect, it } from "@jest/globals";
import { v7 as newId } from "uuid";
import { dunlinDocument } from "~core/testing/dunlin";
import { addBook } from "./books";
import { inSnapshot } from "./database";
import { openJob } from "./jobs";
import { setHouse } from "./house";
import {
  arrive,
  backToShelf,
  cameLast,
  comingIn,
  gotFor,
  order,
  purchase,
  supplierRecords,
  supplyOf,
  type ComingLine,
  type NewLine,
} from "./orders";
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

  it("takes what lies on the shelf, where it is or in the box at any one moment", async () => {
    const pieces = 40;
    const [job, part] = [await newJob(), await onShelf(pieces)];
    let busy = true;
    const taken = (async () => {
      for (let n = 0; n < pieces; n++)
        await order(db.pool, {
          id: newId(),
          job,
          by,
          lines: [],
          shelf: [{ part, name: "washer", pieces: 1 }],
        });
      busy = false;
    })();
    const seen = new Set<number>();
    while (busy) {
      const { stock, box } = await inSnapshot(db.pool, async (at) => ({
        stock: await stockOf(at, [part]),
        ...(await supplyOf(at, job)),
      }));
      expect((stock[0]?.onHand ?? 0) + (box[0]?.count ?? 0)).toBe(pieces);
      seen.add(box[0]?.count ?? 0);
    }
    await taken;
    expect(seen.size).toBeGreaterThan(3);
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

  it("are on their way or here whenever one looks, be it while they are booked in", async () => {
    const pieces = 60;
    const job = await newJob();
    await order(db.pool, { id: newId(), job, by, lines: [line({ part: "P", pieces })], shelf: [] });
    const [{ line: id = "", order: number = 0 } = {}] = await comingTo(job);
    let busy = true;
    const booked = (async () => {
      for (let n = 0; n < pieces; n++) await came(id, 1);
      busy = false;
    })();
    const seen = new Set<number>();
    while (busy) {
      const { box, coming } = await supplyOf(db.pool, job);
      expect((box[0]?.count ?? 0) + (coming[0]?.pieces ?? 0)).toBe(pieces);
      const [of] = (await purchase(db.pool, number))?.lines ?? [];
      expect((of?.pieces ?? 0) + (of?.events.length ?? 0)).toBe(pieces);
      seen.add(of?.pieces ?? 0);
    }
    await booked;
    expect(seen.size).toBeGreaterThan(3);
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

  it("are due by the shop’s day, wherever the server stands", async () => {
    // Twenty-five hours lie between these two: it is never the same day in both.
    const dueIn = async (timeZone: string): Promise<ComingLine | undefined> => {
      await setHouse(db.pool, { timeZone }, by);
      const job = await newJob();
      await order(db.pool, { id: newId(), job, by, lines: [line({ part: "Z", days: 0 })], shelf: [] });
      return (await comingTo(job))[0];
    };
    const [west, east] = [await dueIn("Pacific/Pago_Pago"), await dueIn("Pacific/Kiritimati")];
    expect(Date.parse(east?.due ?? "") - Date.parse(west?.due ?? "")).toBeGreaterThanOrEqual(24 * 3_600_000);
    expect(east?.isLate).toBe(false);
    // What is due today in the west was due yesterday in the east.
    const again = (await comingIn(db.pool)).find((one) => one.line === west?.line);
    expect([west?.isLate, again?.isLate]).toEqual([false, true]);
    // A zone that only browsers know is the server’s.
    await setHouse(db.pool, { timeZone: "Nowhere/At_All" }, by);
    expect(
      (await db.pool.query<{ same: boolean }>("select shop_day() = current_date as same")).rows[0]?.same,
    ).toBe(true);
    await setHouse(db.pool, { timeZone: "UTC" }, by);
  });

  it("say how each supplier is: what came in time, what is late, what was wrong; not what nobody wanted any more", async () => {
    const [job, supplier] = [await newJob(), "Slipway Seals"];
    const of = (part: string, more: Partial<NewLine>): NewLine =>
      line({ supplier, part, pieces: 2, ...more });
    await order(db.pool, {
      id: newId(),
      job,
      by,
      lines: [
        of("in time", { days: 2 }),
        of("no day", { days: null }),
        of("late", { days: -3 }),
        of("still out", { days: -1 }),
        of("to come", { days: 9 }),
        of("not wanted", { days: -5 }),
      ],
      shelf: [],
    });
    const lineOf = async (part: string) => (await comingTo(job)).find((one) => one.part === part)?.line ?? "";
    const say = async (part: string, what: "arrived" | "wrong" | "cancelled", pieces: number) =>
      arrive(db.pool, { id: newId(), line: await lineOf(part), what, pieces, note: "as it was", by });
    await say("in time", "wrong", 1);
    for (const part of ["in time", "no day", "late"]) await say(part, "arrived", 2);
    await say("still out", "arrived", 1);
    await say("not wanted", "cancelled", 2);
    expect((await supplierRecords(db.pool)).find((one) => one.supplier === supplier)).toEqual({
      supplier,
      due: 4,
      inTime: 2,
      wrong: 1,
    });
    // What came last stands first; what was cancelled did not come.
    expect((await cameLast(db.pool, 3)).map(({ part, what, pieces }) => [part, what, pieces])).toEqual([
      ["still out", "arrived", 1],
      ["late", "arrived", 2],
      ["no day", "arrived", 2],
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
