import { afterAll, beforeAll, describe, expect, it } from "@jest/globals";
import { v7 as newId } from "uuid";
import { dunlinDocument } from "~core/testing/dunlin";
import { addBook } from "./books";
import { addFacts } from "./facts";
import { openJob } from "./jobs";
import { arrive, order } from "./orders";
import { countTable, keptParts, shelfTable, shelfValue, takenByJobs, toCount, unitsOf } from "./restock";
import { addShelfPart, movementsOf, receive, reserve } from "./shelf";
import { testDatabase } from "./testing";

let db: Awaited<ReturnType<typeof testDatabase>>;
let book: string;
let bookUnit: string;
const by = "Ines R.";
beforeAll(async () => {
  db = await testDatabase();
  const added = await addBook(db.pool, dunlinDocument());
  if (!added.ok) throw new Error(JSON.stringify(added.problems));
  book = added.id;
  bookUnit = dunlinDocument().unit.id;
});
afterAll(() => db.drop());

async function newJob(): Promise<string> {
  const id = newId();
  await openJob(db.pool, { id, bookId: book, facts: [], author: { id: null, name: by } });
  return id;
}
const close = (job: string) =>
  addFacts(
    db.pool,
    job,
    [{ id: newId(), at: new Date().toISOString(), by, body: { kind: "closed", rule: "proven" } }],
    { id: null, name: by },
  );
async function kept(part: string, pieces: number, priceCents: number | null = 500): Promise<void> {
  await addShelfPart(db.pool, { part, name: `part ${part}`, bin: "S1", priceCents, orderDays: 2 });
  if (pieces > 0) await receive(db.pool, { id: newId(), part, quantity: pieces, by });
}
const moved = (part: string, quantity: number, why: string, job: string | null, ago = "0 days") =>
  db.pool.query(
    "insert into movement (id, part, quantity, why, job, by_name, at) values ($1, $2, $3, $4, $5, $6, now() - $7::interval)",
    [newId(), part, quantity, why, job, by, ago],
  );
const boxed = (job: string, part: string, quantity: number, why: string) =>
  db.pool.query(
    "insert into box_movement (id, job, part, name, quantity, why, by_name) values ($1, $2, $3, $3, $4, $5, $6)",
    [newId(), job, part, quantity, why, by],
  );

describe("what jobs took", () => {
  it("is what was fitted and what stayed in their boxes, of closed jobs alone", async () => {
    await kept("R1", 10);
    const [one, other, still] = [await newJob(), await newJob(), await newJob()];
    await moved("R1", -1, "fitted", one);
    await boxed(one, "K1", 4, "bought");
    await boxed(one, "K2", 2, "from the shelf");
    await boxed(one, "K2", -2, "to the shelf");
    // Taken for its box, it is counted there.
    await moved("R1", -2, "for a job", one);
    await boxed(one, "R1", 2, "from the shelf");
    await moved("R1", -1, "fitted", still);
    for (const job of [one, other]) await close(job);
    expect(await takenByJobs(db.pool)).toEqual([
      {
        unit: bookUnit,
        took: new Map([
          ["K1", 4],
          ["R1", 3],
        ]),
      },
    ]);
  });
});

describe("a kit that was bought", () => {
  it("is what the job took, and not what lay in it", async () => {
    const job = await newJob();
    await order(db.pool, {
      id: newId(),
      job,
      by,
      shelf: [],
      lines: [
        {
          supplier: "Tidewater Parts",
          part: "KIT-7",
          name: "seal kit",
          pieces: 1,
          cents: 9_000,
          days: 2,
          contents: [
            { number: "S1", name: "seal", count: 2 },
            { number: "S2", name: "ring", count: 4 },
          ],
        },
        { supplier: "Tidewater Parts", part: "S2", name: "ring", pieces: 3, cents: 300, days: 2 },
      ],
    });
    const { rows } = await db.pool.query<{ id: string; pieces: number }>(
      "select id, pieces from purchase_line where job = $1",
      [job],
    );
    for (const { id, pieces } of rows)
      await arrive(db.pool, { id: newId(), line: id, what: "arrived", pieces, note: "", by });
    await boxed(job, "S1", -1, "to the shelf");
    await close(job);
    expect((await takenByJobs(db.pool)).at(-1)?.took).toEqual(
      new Map([
        ["KIT-7", 1],
        ["S2", 3],
      ]),
    );
  });
});

describe("jobs that are here", () => {
  it("have sizes chosen once one is put aside or fitted", async () => {
    await kept("H1", 5);
    const jobs = [await newJob(), await newJob(), await newJob()];
    const [none = "", aside = "", fitted = ""] = jobs;
    await reserve(db.pool, by, [{ job: aside, seat: "s", part: "H1" }]);
    await moved("H1", -1, "fitted", fitted);
    const { rows } = await db.pool.query<{ id: string; number: number }>(
      "select id, number::int as number from job where id = any ($1::uuid[])",
      [jobs],
    );
    const numberOf = (job: string): number => rows.find(({ id }) => id === job)?.number ?? 0;
    const of = await unitsOf(db.pool, jobs.map(numberOf));
    expect([none, aside, fitted].map((job) => of.get(numberOf(job))?.chosen)).toEqual([false, true, true]);
    expect(of.get(numberOf(none))?.unit).toBe(bookUnit);
  });
});

describe("what the shelf keeps", () => {
  it("is free where nothing is put aside", async () => {
    await kept("F1", 3);
    const job = await newJob();
    expect(await reserve(db.pool, by, [{ job, seat: "s", part: "F1" }])).toBeNull();
    expect((await keptParts(db.pool)).find(({ part }) => part === "F1")).toMatchObject({
      free: 2,
      cents: 500,
    });
  });

  it("is worth what lies there, by when it was last wanted", async () => {
    const before = await shelfValue(db.pool);
    await kept("V1", 5, 1_000);
    await kept("V2", 3, 700);
    await moved("V1", -1, "fitted", null, "4 months");
    await kept("V3", 4, null);
    const after = await shelfValue(db.pool);
    expect(after.cents - before.cents).toBe(4 * 1_000 + 3 * 700);
    const of = (at: number): number => (after.since[at]?.cents ?? 0) - (before.since[at]?.cents ?? 0);
    expect([of(2), of(4)]).toEqual([4_000, 2_100]);
    expect(after.slow.map(({ part }) => part)).toContain("V2");
    expect(after.slow.map(({ part }) => part)).not.toContain("V1");
  });
});

describe("what is to be counted", () => {
  it("moved most since somebody counted it", async () => {
    await kept("C1", 5);
    await kept("C2", 5);
    await kept("C3", 5);
    for (const part of ["C1", "C1", "C1", "C2", "C2", "C3"]) await moved(part, -1, "fitted", null);
    const list = async () =>
      (await toCount(db.pool, 50)).flatMap(({ part, moves, pieces }) =>
        part.startsWith("C") ? [[part, moves, pieces]] : [],
      );
    // What came in counts as well.
    expect(await list()).toEqual([
      ["C1", 4, 2],
      ["C2", 3, 3],
    ]);
    await countTable(db.pool, [{ id: newId(), part: "C1", pieces: 1 }], { reason: "looked", by });
    expect(await list()).toEqual([["C2", 3, 3]]);
  });
});

describe("a counted table", () => {
  it("sets right what differs, once, with its reason; or nothing where a part is not kept", async () => {
    await kept("T1", 3);
    await kept("T2", 1);
    const ids = [newId(), newId()];
    const table = [
      { id: ids[0] ?? "", part: "T1", pieces: 2 },
      { id: ids[1] ?? "", part: "T2", pieces: 1 },
    ];
    const take = (lines: typeof table) => countTable(db.pool, lines, { reason: "count of the year", by });
    expect(await take([...table, { id: newId(), part: "NONE", pieces: 1 }])).toEqual({ unknown: ["NONE"] });
    const counts = async () =>
      (await shelfTable(db.pool)).flatMap(({ part, pieces }) => (/^T\d/.test(part) ? [[part, pieces]] : []));
    expect(await counts()).toEqual([
      ["T1", 3],
      ["T2", 1],
    ]);
    expect(await take(table)).toEqual({ changed: 1 });
    expect(await take(table)).toEqual({ changed: 0 });
    expect(await counts()).toEqual([
      ["T1", 2],
      ["T2", 1],
    ]);
    const [last] = await movementsOf(db.pool, "T1");
    expect(last).toMatchObject({ quantity: -1, why: "counted: count of the year", by });
  });
});
