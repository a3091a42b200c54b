import { readdirSync, readFileSync } from "node:fs";
import { afterAll, beforeAll, describe, expect, it, test } from "@jest/globals";
import { makeCard } from "../app/jobs/card";
import { readJobDocument } from "../app/jobs/job-document";
import { readBook } from "../core/check";
import { pricedParts, worthOf } from "../app/inspect/worth-of";
import { appliedTo, fold, jobDocument } from "../core/fact";
import { readHouse } from "../store/house";
import { jobByNumber, listJobs, type CardRow } from "../store/jobs";
import { pricesOf } from "../store/prices";
import { comingIn } from "../store/orders";
import { takenByJobs } from "../store/restock";
import { listShelf } from "../store/shelf";
import { testDatabase } from "../store/testing";
import { loadShop } from "./load";

let db: Awaited<ReturnType<typeof testDatabase>>;
beforeAll(async () => {
  db = await testDatabase();
  expect(await loadShop(db.url)).toBe(true);
}, 60_000);
afterAll(() => db.drop());

const books = readdirSync("demo/books");
test.each(books)("the book %s is in order", (file) => {
  const read = readBook(JSON.parse(readFileSync(`demo/books/${file}`, "utf8")));
  expect(read.ok ? [] : read.problems).toEqual([]);
});

test.each(books)(
  "what a step of %s says is out is what it undoes, and a build undoes nothing of its own",
  (file) => {
    const read = readBook(JSON.parse(readFileSync(`demo/books/${file}`, "utf8")));
    if (!read.ok) throw new Error("the book is wrong");
    const { teardown = [], build = [], fasteners = [] } = read.book;
    const count = new Map(fasteners.map(({ id, count }) => [id, count]));
    for (const { id, check = [], fasteners: groups = [] } of teardown) {
      const said = check.flatMap(({ what }) => /(\d+) of (\d+) out/.exec(what)?.slice(1).map(Number) ?? []);
      const undone = groups.reduce((sum, group) => sum + (count.get(group) ?? 0), 0);
      expect([id, ...said]).toEqual([id, ...said.map(() => undone)]);
    }
    // What goes in came out: but for a part that is renewed, plugs and fittings that are opened where it is proven, and what is first fitted there.
    const out = new Set(teardown.flatMap(({ fasteners: groups = [] }) => groups));
    const only = build.filter(({ onlyIf, id }) => onlyIf === undefined && id !== "b-prove");
    expect(only.flatMap(({ fasteners: groups = [] }) => groups).filter((group) => !out.has(group))).toEqual(
      [],
    );
  },
);

/** Every job of one list, page by page. */
async function all(which: "open" | "closed"): Promise<CardRow[]> {
  const make = makeCard(await readHouse(db.pool));
  const rows: CardRow[] = [];
  for (;;) {
    const page = await listJobs(db.pool, { which, before: rows.at(-1)?.number }, "test", make);
    rows.push(...page.rows);
    if (!page.more) return rows;
  }
}

describe("the demo shop", () => {
  it("is loaded once: a second time changes nothing", async () => {
    const count = async (): Promise<unknown> =>
      (
        await db.pool.query(
          "select (select count(*) from job) as j, (select count(*) from fact) as f, (select count(*) from movement) as m",
        )
      ).rows[0];
    const before = await count();
    expect(await loadShop(db.url)).toBe(false);
    expect(await count()).toEqual(before);
  });

  it("has thirty jobs in every stage, and each closed one is proven throughout", async () => {
    const [open, closed] = [await all("open"), await all("closed")];
    expect([open.length, closed.length]).toEqual([8, 22]);
    const waits = open.map(({ waitsFor }) => waitsFor.replace(/^\w\d: |, \d to go/g, ""));
    for (const stage of [
      "Input end play: before the unit is opened",
      "Lift the D3 drum out: step 20 of 31",
      "trial reading",
      "choose its size",
    ]) {
      expect(waits).toContain(stage);
    }
    for (const { done, packs } of closed) expect(done).toBe(packs);
  });

  it("has jobs that another Yard Key would take", async () => {
    for (const number of [1001, 1029, 1030]) {
      const record = await jobByNumber(db.pool, number);
      if (!record) throw new Error(`no job ${number}`);
      const { id, opened, document, facts } = record;
      const text = JSON.stringify(jobDocument({ id, number, opened, book: document, facts }));
      const read = readJobDocument(text);
      expect(read.ok ? [] : read.problems).toEqual([]);
    }
  });

  it("has a shelf with bins nearly empty, every part of it in a book", async () => {
    const shelf = await listShelf(db.pool, { limit: 1000 });
    const parts = books.flatMap((file) => {
      const read = readBook(JSON.parse(readFileSync(`demo/books/${file}`, "utf8")));
      const { series = [], kits = [] } = read.ok ? read.book : {};
      return [
        ...series.flatMap(({ sizes }) => sizes.map(({ part }) => part)),
        ...kits.map(({ number }) => number),
      ];
    });
    for (const { part } of shelf) expect(parts).toContain(part);
    expect(shelf.filter(({ onHand }) => onHand === 0).length).toBeGreaterThan(0);
    expect(shelf.filter(({ onHand }) => onHand === 1).length).toBeGreaterThan(1);
    expect(shelf.some(({ oddPieces }) => oddPieces.length > 0)).toBe(true);
    // What closed jobs took tells of kits too, and all of them came.
    const took = await takenByJobs(db.pool);
    expect(took.filter(({ took: of }) => of.has("MD-9803")).length).toBeGreaterThan(3);
    expect(await comingIn(db.pool)).toEqual([]);
  });
});

describe("the demo's prices", () => {
  it.each([
    [1029, "rebuild"],
    [1024, "reconditioned"],
  ])("job %i costs least as a %s unit", async (number, way) => {
    const record = await jobByNumber(db.pool, number);
    if (!record) throw new Error(`no job ${number}`);
    const { book, facts, houseValues } = record;
    const job = fold(facts);
    const prices = await pricesOf(db.pool, pricedParts(book));
    const { options, best, needs } = worthOf(
      job,
      appliedTo(book, job, houseValues),
      await readHouse(db.pool),
      prices,
    );
    expect(needs.filter(({ cents }) => cents === null)).toEqual([]);
    expect(options.map(({ from }) => from)).toEqual(["list", "list", "list"]);
    expect(best?.way).toBe(way);
  });
});

describe("an exported job that was tampered with", () => {
  const good = async (): Promise<Record<string, unknown>> => {
    const record = await jobByNumber(db.pool, 1029);
    if (!record) throw new Error("no job");
    const { id, number, opened, document, facts } = record;
    return JSON.parse(JSON.stringify(jobDocument({ id, number, opened, book: document, facts }))) as Record<
      string,
      unknown
    >;
  };
  test.each<[string, (document: Record<string, unknown>) => unknown, string]>([
    ["another format", (d) => ({ ...d, format: "yard-key/job@9" }), "format"],
    ["no facts", (d) => ({ ...d, facts: undefined }), "facts"],
    [
      "a fact of no kind",
      (d) => ({ ...d, facts: [{ ...(d.facts as object[])[0], body: { kind: "gossip" } }] }),
      "facts[0]",
    ],
    ["a key too many", (d) => ({ ...d, owner: "me" }), "owner"],
    ["no document at all", () => 7, "put it in { }"],
  ])("%s is refused with its place", async (_name, change, place) => {
    const read = readJobDocument(JSON.stringify(change(await good())));
    expect(read.ok ? "" : read.problems.join()).toContain(place);
  });
  it("what is not JSON is said to be so", () => {
    expect(readJobDocument("{")).toMatchObject({
      ok: false,
      problems: [expect.stringContaining("not JSON")],
    });
  });
});
