import { afterAll, beforeAll, describe, expect, it } from "@jest/globals";
import { v7 as newId } from "uuid";
import { fold, type Fact, type FactBody } from "../core/fact";
import { resolve } from "../core/book";
import { dunlinDocument } from "../core/testing/dunlin";
import { addBook } from "./books";
import { addFacts } from "./facts";
import { setHouseValue } from "./house-values";
import { inTransaction } from "./database";
import { earlierVisits, jobByNumber, listJobs, openJob, type CardRow } from "./jobs";
import { BARE_CARD, testDatabase } from "./testing";

let db: Awaited<ReturnType<typeof testDatabase>>;
let book: string;
const unit = "test-dunlin";
const author = { id: null, name: "Mira K." };
const fact = (body: FactBody): Fact => ({ id: newId(), at: new Date().toISOString(), by: "Mira K.", body });

beforeAll(async () => {
  db = await testDatabase();
  const added = await addBook(db.pool, dunlinDocument());
  if (!added.ok) throw new Error("the test book is wrong");
  book = added.id;
}, 60_000);
afterAll(() => db.drop());

async function job(): Promise<{ id: string; number: number }> {
  const id = newId();
  const facts = [
    fact({ kind: "configuration", traits: { body: "late" } }),
    fact({ kind: "scope", depths: ["full"] }),
  ];
  return { id, number: await openJob(db.pool, { id, bookId: book, facts, author }) };
}
const own = (max: number | null, reason = "house"): Promise<void> =>
  setHouseValue(db.pool, {
    unit,
    of: "chain",
    id: "d1-clearance",
    reason,
    by: "Edda L.",
    value: max === null ? null : { max: max as never },
  });
async function limitOf(number: number): Promise<number | undefined> {
  const record = await jobByNumber(db.pool, number);
  if (!record) throw new Error("no such job");
  const { configuration, depths } = fold(record.facts);
  return resolve(record.book, configuration, depths ?? [], record.houseValues).packs[0]?.spec.max;
}

describe("earlier visits", () => {
  const booked = (vehicle: string): Fact =>
    fact({ kind: "booking", vehicle, customer: "", words: "It slips.", odometer: "" });
  const open = async (vehicle: string, more: Fact[] = []): Promise<number> =>
    openJob(db.pool, { id: newId(), bookId: book, facts: [booked(vehicle), ...more], author });

  it("are the earlier jobs of the same vehicle and kind of unit, latest first", async () => {
    const [first, other, second] = [
      await open("Skerry van, AB 1"),
      await open("Linnet, CD 2"),
      await open("SKERRY van, ab 1"),
    ];
    // Booked in wrongly and put right: what was said last holds for the visit that asks.
    const now = await open("Linnet, CD 2", [booked("Skerry Van, AB 1")]);
    const found = await earlierVisits(db.pool, now);
    expect(found.map(({ number }) => number)).toEqual([second, first]);
    expect((await earlierVisits(db.pool, second)).map(({ number }) => number)).toEqual([first]);
    expect(await earlierVisits(db.pool, first)).toEqual([]);
    expect(await earlierVisits(db.pool, other)).toEqual([]);
    expect(await earlierVisits(db.pool, 1e9)).toEqual([]);
  });
});

describe("a job and the shop's own values", () => {
  it("an open job follows them; a closed one keeps those it was closed under", async () => {
    const [open, closed] = [await job(), await job()];
    expect(await limitOf(open.number)).toBe(1_400_000);
    await own(1_300_000);
    expect(await limitOf(open.number)).toBe(1_300_000);
    await addFacts(db.pool, closed.id, [fact({ kind: "closed", rule: "proven" })], author);
    await own(1_200_000);
    expect([await limitOf(open.number), await limitOf(closed.number)]).toEqual([1_200_000, 1_300_000]);
    await own(null);
    expect([await limitOf(open.number), await limitOf(closed.number)]).toEqual([1_400_000, 1_300_000]);
  });

  it("the cards of open jobs are made anew when a value changes, without another fact", async () => {
    await job();
    let made = 0;
    const make = () => {
      made++;
      return BARE_CARD;
    };
    await listJobs(db.pool, { which: "open" }, "test", make);
    const first = made;
    await listJobs(db.pool, { which: "open" }, "test", make);
    expect(made).toBe(first);
    await own(1_250_000);
    await listJobs(db.pool, { which: "open" }, "test", make);
    expect(made).toBeGreaterThan(first);
  });

  it("answers while somebody else writes a card, and leaves that card to them", async () => {
    const { number, id } = await job();
    const list = (): Promise<{ rows: CardRow[] }> =>
      listJobs(db.pool, { which: "open" }, "anew", () => BARE_CARD);
    const madeBy = async (): Promise<string | undefined> =>
      (await db.pool.query<{ made: string }>("select made from job_card where job = $1", [id])).rows[0]?.made;
    await inTransaction(db.pool, async (other) => {
      await other.query("select from job_card where job = $1 for no key update", [id]);
      expect((await list()).rows.map((row) => row.number)).toContain(number);
      expect(await madeBy()).not.toBe("anew");
    });
    await list();
    expect(await madeBy()).toBe("anew");
  });
});

describe("a job and its revision", () => {
  it("stays on the one it was opened with, and knows of a later one", async () => {
    const { number } = await job();
    expect((await jobByNumber(db.pool, number))?.newer).toBeNull();
    const later = { ...dunlinDocument(), depths: ["pan and body", "full", "tail"] };
    const added = await addBook(db.pool, later, { published: { by: "Edda L.", note: "tail" } });
    const record = await jobByNumber(db.pool, number);
    expect(record?.newer).toEqual({ id: added.ok ? added.id : "", revision: 2 });
    expect([record?.bookId, record?.book.unit.revision, record?.book.depths.length]).toEqual([book, 1, 2]);
  });

  it("nothing is found under a number that is none", async () => {
    for (const number of [0, -1, 1.5, Number.NaN, 999_999])
      expect(await jobByNumber(db.pool, number)).toBeNull();
  });
});
