import { afterAll, beforeAll, describe, expect, it } from "@jest/globals";
import { v7 as newId } from "uuid";
import type { Fact, FactBody } from "~core/fact";
import { nm } from "~core/quantity";
import { dunlinDocument } from "~core/testing/dunlin";
import { addBook, bookById, listBooks } from "./books";
import { sqlState } from "./database";
import { addFacts, closeJob, factsOf, factsSince, factsTextOf } from "./facts";
import { FactsElsewhere, jobByNumber, jobIdByNumber, listJobs, openJob, PAGE, type Card } from "./jobs";
import { BARE_CARD, testDatabase } from "./testing";

let db: Awaited<ReturnType<typeof testDatabase>>;
let book: string;
const author = { id: null, name: "Mira K." };
const fact = (body: FactBody): Fact => ({ id: newId(), at: "2026-05-04T08:00:00.000Z", by: "Mira K.", body });
const reading = (value: number): Fact =>
  fact({
    kind: "reading",
    chain: "d1-clearance",
    phase: "found",
    fit: 0,
    method: "air and dial",
    state: { soak: "soaked", facings: "new" },
    reading: { kind: "single", value: nm(value) },
    resolution: nm(10_000),
    unit: "mm",
  });
const open = async (facts: Fact[] = []): Promise<{ id: string; number: number }> => {
  const id = newId();
  return { id, number: await openJob(db.pool, { id, bookId: book, facts, author }) };
};

beforeAll(async () => {
  db = await testDatabase();
  const added = await addBook(db.pool, dunlinDocument());
  if (!added.ok) throw new Error(JSON.stringify(added.problems));
  book = added.id;
});
afterAll(() => db.drop());

describe("books", () => {
  it("keeps the same document once, whatever the order of its keys", async () => {
    const turned = Object.fromEntries(Object.entries(dunlinDocument()).reverse());
    expect(await addBook(db.pool, turned)).toEqual({
      ok: true,
      id: book,
      unit: "test-dunlin",
      revision: 1,
    });
  });
  it("gives another document of the unit the next revision and lists the newest", async () => {
    const changed = { ...dunlinDocument(), depths: ["pan and body", "full", "tail"] };
    const added = await addBook(db.pool, changed);
    expect(added.ok && added.id !== book).toBe(true);
    expect((await listBooks(db.pool)).map(({ revision }) => revision)).toEqual([2]);
    expect((await bookById(db.pool, book)).book.depths).toHaveLength(2);
  });
  it("refuses a wrong one with its problems", async () => {
    expect(await addBook(db.pool, { format: "yard-key/book@1" })).toMatchObject({ ok: false });
  });

  it("puts no book over another of its unit where it is to be the first; the same one sent twice is found", async () => {
    const other = dunlinDocument() as { unit: { summary?: string } };
    other.unit.summary = "written down by somebody who did not know that there is one";
    expect(await addBook(db.pool, other, { first: true })).toMatchObject({
      ok: false,
      problems: [{ message: "there is a book of test-dunlin already" }],
    });
    const own = dunlinDocument() as { unit: { id: string } };
    own.unit.id = "marram-first";
    const added = await addBook(db.pool, own, { first: true });
    expect(added).toMatchObject({ ok: true, revision: 1 });
    expect(await addBook(db.pool, own, { first: true })).toEqual(added);
  });
});

describe("facts", () => {
  it("are stored once however often they come, in the order stored", async () => {
    const job = await open();
    const readings = [1, 2, 3].map((n) => reading(n * 1_000_000));
    for (const one of [...readings, ...readings])
      expect(await addFacts(db.pool, job.id, [one], author)).toEqual({ ok: true });
    expect(await addFacts(db.pool, job.id, readings, author)).toEqual({ ok: true });
    expect((await factsOf(db.pool, job.id)).map(({ id }) => id)).toEqual(readings.map(({ id }) => id));
  });

  it("arrive once from twenty senders at the same moment", async () => {
    const job = await open();
    const one = reading(1_000_000);
    await Promise.all(Array.from({ length: 20 }, () => addFacts(db.pool, job.id, [one], author)));
    expect(await factsOf(db.pool, job.id)).toHaveLength(1);
  });

  it("come back as they went in, under the name they were stored with", async () => {
    const one = reading(1_092_200);
    const job = await open([one]);
    const [back] = await factsOf(db.pool, job.id);
    expect(back).toEqual(one);
  });

  it("are never changed or deleted, not even by hand", async () => {
    const job = await open([reading(1_000_000)]);
    for (const statement of [
      "update fact set at = now() where job = $1",
      "delete from fact where job = $1",
    ]) {
      await expect(db.pool.query(statement, [job.id])).rejects.toThrow("never changed");
    }
  });

  it("of an unknown job or a closed one are refused, but one that was stored before is acknowledged", async () => {
    const early = reading(1_000_000);
    const job = await open([early]);
    expect(await addFacts(db.pool, newId(), [reading(1)], author)).toEqual({ ok: false, why: "no job" });
    await addFacts(db.pool, job.id, [fact({ kind: "closed", rule: "proven" })], author);
    expect(await addFacts(db.pool, job.id, [reading(2_000_000)], author)).toEqual({
      ok: false,
      why: "closed",
    });
    expect(await addFacts(db.pool, job.id, [early], author)).toEqual({ ok: true });
  });

  it("that another job has are refused, and nothing that came with them is kept", async () => {
    const other = reading(1_000_000);
    await open([other]);
    const job = await open();
    expect(await addFacts(db.pool, job.id, [reading(2_000_000), other], author)).toEqual({
      ok: false,
      why: "elsewhere",
    });
    expect(await factsOf(db.pool, job.id)).toEqual([]);
    const id = newId();
    await expect(openJob(db.pool, { id, bookId: book, facts: [other], author })).rejects.toThrow(
      FactsElsewhere,
    );
    expect((await db.pool.query("select from job where id = $1", [id])).rowCount).toBe(0);
  });

  it("cannot correct what another job has", async () => {
    const other = reading(1_000_000);
    await open([other]);
    const job = await open();
    const wrong = { ...reading(2_000_000), replaces: other.id };
    const error: unknown = await addFacts(db.pool, job.id, [wrong], author).catch((e: unknown) => e);
    expect(sqlState(error)).toBe("23503");
  });

  it("one fitting of a place: the second is refused", async () => {
    const job = await open();
    const fitting = () =>
      fact({
        kind: "fitting",
        seat: "d1-clearance",
        fit: 0,
        origin: "found",
        piece: { size: nm(1_750_000) },
      });
    await addFacts(db.pool, job.id, [fitting()], author);
    const error: unknown = await addFacts(db.pool, job.id, [fitting()], author).catch((e: unknown) => e);
    expect(sqlState(error)).toBe("23505");
  });
});

describe("closing", () => {
  const closing = (): Fact => fact({ kind: "closed", rule: "proven" });

  it("is refused when more was said since it was decided on, and done once when sent twice", async () => {
    const job = await open();
    const before = await factsSince(db.pool, job.id, 0);
    await addFacts(db.pool, job.id, [reading(1)], author);
    const late = closing();
    expect(await closeJob(db.pool, job.id, late, before.seq, author)).toEqual({
      ok: false,
      why: "more said",
    });
    const { seq } = await factsSince(db.pool, job.id, 0);
    expect(await closeJob(db.pool, job.id, late, seq, author)).toEqual({ ok: true });
    expect(await closeJob(db.pool, job.id, late, seq, author)).toEqual({ ok: true });
  });

  it("while facts arrive: each is either before the closing or refused", async () => {
    const job = await open();
    const { seq } = await factsSince(db.pool, job.id, 0);
    const facts = Array.from({ length: 30 }, (_, i) => reading(i + 1));
    const [closed, ...added] = await Promise.all([
      closeJob(db.pool, job.id, closing(), seq, author),
      ...facts.map((one) => addFacts(db.pool, job.id, [one], author)),
    ]);
    const stored = (await factsSince(db.pool, job.id, 0)).facts;
    const at = stored.findIndex(({ body }) => body.kind === "closed");
    // Whoever came first: closed with nothing after it, or not closed and everything there.
    expect(at).toBe(closed.ok ? stored.length - 1 : -1);
    expect(added.filter(({ ok }) => ok)).toHaveLength(
      stored.filter(({ body }) => body.kind === "reading").length,
    );
  });

  it("a fact keeps the last one its speaker had seen", async () => {
    const job = await open();
    const [one, two] = [reading(1), reading(2)];
    await addFacts(db.pool, job.id, [one], author);
    await addFacts(db.pool, job.id, [{ ...two, after: one.id }], author);
    expect((await factsSince(db.pool, job.id, 0)).facts.at(-1)?.after).toBe(one.id);
    expect(JSON.parse((await factsTextOf(db.pool, job.id)).text)).toMatchObject([
      ...(await factsSince(db.pool, job.id, 0)).facts.slice(0, -1).map(({ id }) => ({ id })),
      { id: two.id, after: one.id },
    ]);
  });
});

describe("jobs", () => {
  const card = (waitsFor: string): Card => ({ ...BARE_CARD, waitsFor });

  it("opened twice is one job with one number", async () => {
    const id = newId();
    const numbers = await Promise.all(
      [1, 2, 3].map(() => openJob(db.pool, { id, bookId: book, facts: [], author })),
    );
    expect(new Set(numbers).size).toBe(1);
    expect(await jobIdByNumber(db.pool, numbers[0] ?? 0)).toBe(id);
  });

  it("is found by its number, with book and facts; a number nobody has is null", async () => {
    const job = await open([reading(1_000_000)]);
    expect(await jobByNumber(db.pool, job.number)).toMatchObject({
      id: job.id,
      facts: [{ body: { kind: "reading" } }],
    });
    expect(await jobByNumber(db.pool, 99_999_999)).toBeNull();
    expect(await jobByNumber(db.pool, Number("abc"))).toBeNull();
    expect(await jobIdByNumber(db.pool, 99_999_999)).toBeNull();
  });

  it("lists pages that neither repeat nor miss, and makes each card anew only when facts came", async () => {
    const made: number[] = [];
    const make = (_book: unknown, facts: Fact[]): Card => {
      made.push(facts.length);
      return card(`${facts.length} facts`);
    };
    const jobs = [];
    for (let i = 0; i < PAGE + 5; i++) jobs.push(await open([reading(1_000_000 + i)]));
    const first = await listJobs(db.pool, { which: "open" }, "test", make);
    expect(first.rows).toHaveLength(PAGE);
    expect(first.more).toBe(true);
    const second = await listJobs(
      db.pool,
      { which: "open", before: first.rows.at(-1)?.number ?? 0 },
      "test",
      make,
    );
    const numbers = [...first.rows, ...second.rows].map(({ number }) => number);
    expect(new Set(numbers).size).toBe(numbers.length);
    for (const { number } of jobs) expect(numbers).toContain(number);

    made.length = 0;
    await listJobs(db.pool, { which: "open" }, "test", make);
    expect(made).toEqual([]);
    await addFacts(db.pool, jobs.at(-1)?.id ?? "", [reading(3_000_000)], author);
    const again = await listJobs(db.pool, { which: "open" }, "test", make);
    expect(made).toEqual([2]);
    expect(again.rows[0]?.waitsFor).toBe("2 facts");
  });

  it("moves to the closed list with the fact that closes it, and to its holder's list", async () => {
    const job = await open([fact({ kind: "holder", name: "Runa S.", staff: null })]);
    const make = (): Card => card("");
    expect(
      (await listJobs(db.pool, { which: "open", holder: "Runa S." }, "test", make)).rows.map(
        (row) => row.number,
      ),
    ).toEqual([job.number]);
    await addFacts(db.pool, job.id, [fact({ kind: "closed", rule: "proven" })], author);
    expect((await listJobs(db.pool, { which: "open", holder: "Runa S." }, "test", make)).rows).toEqual([]);
    expect(
      (await listJobs(db.pool, { which: "closed" }, "test", make)).rows.map((row) => row.number),
    ).toContain(job.number);
  });

  it("keeps its holder when a tablet that was away sends later who had it before", async () => {
    const begun = fact({ kind: "holder", name: "Runa S.", staff: null });
    const job = await open([begun]);
    const holders = async (): Promise<(string | null)[]> => {
      const { rows } = await db.pool.query<{ holder: string | null }>(
        "select holder from job_card where job = $1",
        [job.id],
      );
      return rows.map(({ holder }) => holder);
    };
    const between = reading(1_000_000);
    const today = { ...fact({ kind: "holder", name: "Mira K.", staff: null }), after: between.id };
    await addFacts(db.pool, job.id, [between, today], author);
    expect(await holders()).toEqual(["Mira K."]);
    const late = { ...fact({ kind: "holder", name: "Tomas B.", staff: null }), after: begun.id };
    await addFacts(db.pool, job.id, [late], author);
    expect(await holders()).toEqual(["Mira K."]);
    const knowing = { ...fact({ kind: "holder", name: "Tomas B.", staff: null }), after: today.id };
    await addFacts(db.pool, job.id, [knowing], author);
    expect(await holders()).toEqual(["Tomas B."]);
  });
});
