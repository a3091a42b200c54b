import { afterAll, beforeAll, describe, expect, it } from "@jest/globals";
import { v7 as newId } from "uuid";
import type { Fact } from "~core/fact";
import { dunlinDocument } from "~core/testing/dunlin";
import { addBook } from "./books";
import { addFacts, factsSince } from "./facts";
import { openJob, openJobStates } from "./jobs";
import { Live } from "./live";
import { addPhoto, hasPhoto, photoBytes } from "./photos";
import { addStaff } from "./staff";
import { testDatabase } from "./testing";

let db: Awaited<ReturnType<typeof testDatabase>>;
let book: string;
const author = { id: null, name: "Mira K." };
const scope = (by = "Mira K."): Fact => ({
  id: newId(),
  at: "2026-05-04T08:00:00.000Z",
  by,
  body: { kind: "scope", depths: ["full"] },
});
const open = async (): Promise<string> => {
  const id = newId();
  await openJob(db.pool, { id, bookId: book, facts: [], author });
  return id;
};
async function until(true_: () => boolean): Promise<void> {
  for (let i = 0; i < 400 && !true_(); i++) await new Promise((resolve) => setTimeout(resolve, 10));
  expect(true_()).toBe(true);
}

beforeAll(async () => {
  db = await testDatabase();
  const added = await addBook(db.pool, dunlinDocument());
  if (!added.ok) throw new Error("the book is wrong");
  book = added.id;
});
afterAll(() => db.drop());

describe("live", () => {
  it("tells two processes of a fact that one of them stored, and of which job it is", async () => {
    const [one, other] = [new Live(db.url), new Live(db.url)];
    await Promise.all([one.start(), other.start()]);
    const [job, another] = [await open(), await open()];
    const told: Record<"one" | "other", (string | null)[]> = { one: [], other: [] };
    one.watch((which) => told.one.push(which));
    const leave = other.watch((which) => told.other.push(which));
    await addFacts(db.pool, job, [scope(), scope()], author);
    await until(() => told.one.length > 0 && told.other.length > 0);
    // Two facts in one statement are told once.
    expect(told).toEqual({ one: [job], other: [job] });
    leave();
    await addFacts(db.pool, another, [scope()], author);
    await until(() => told.one.length === 2);
    expect(told).toEqual({ one: [job, another], other: [job] });
    await Promise.all([one.stop(), other.stop()]);
  });

  it("listens again after its connection was cut, and has everyone look once", async () => {
    const live = new Live(db.url);
    await live.start();
    const job = await open();
    const told: (string | null)[] = [];
    live.watch((which) => told.push(which));
    await db.pool.query(
      "select pg_terminate_backend(pid) from pg_stat_activity where application_name = 'yard-key live' and datname = current_database()",
    );
    await until(() => told.length > 0);
    expect(told).toEqual([null]);
    await addFacts(db.pool, job, [scope()], author);
    await until(() => told.length > 1);
    expect(told).toEqual([null, job]);
    await live.stop();
  });
});

describe("facts since", () => {
  it("gives what was stored later, each once, also when many write at the same time", async () => {
    const job = await open();
    const facts = Array.from({ length: 60 }, () => scope());
    const seen: string[] = [];
    let seq = 0;
    const writing = Promise.all(facts.map((one) => addFacts(db.pool, job, [one], author)));
    const reading = (async () => {
      while (seen.length < facts.length) {
        const later = await factsSince(db.pool, job, seq);
        seq = later.seq;
        seen.push(...later.facts.map(({ id }) => id));
      }
    })();
    await Promise.all([writing, reading]);
    expect(new Set(seen).size).toBe(seen.length);
    expect(new Set(seen)).toEqual(new Set(facts.map(({ id }) => id)));
    expect(await factsSince(db.pool, job, seq)).toEqual({ facts: [], seq });
  });

  it("keeps who said it, and who sent it when that was somebody else", async () => {
    const names = ["Mira Test", "Tomas Test"];
    const [mira, tomas] = await Promise.all(
      names.map((name) => addStaff(db.pool, { name, role: "builder", secret: "2580" })),
    );
    const job = await open();
    await addFacts(db.pool, job, [scope()], { id: mira ?? "", name: "Mira Test", sentBy: tomas });
    await addFacts(db.pool, job, [scope("Somebody Else")], { id: tomas ?? "", name: "Tomas Test" });
    const { rows } = await db.pool.query<{ by_name: string; sent: string | null }>(
      "select by_name, s.name as sent from fact f left join staff s on s.id = f.sent_by where job = $1 order by seq",
      [job],
    );
    expect(rows).toEqual([
      { by_name: "Mira Test", sent: "Tomas Test" },
      { by_name: "Tomas Test", sent: null },
    ]);
  });
});

describe("pictures", () => {
  const picture = {
    id: newId(),
    width: 4,
    height: 3,
    large: Buffer.from("large"),
    small: Buffer.from("small"),
  };

  it("are kept once and belong to one job", async () => {
    const [job, another] = [await open(), await open()];
    expect(await addPhoto(db.pool, job, picture)).toBe(true);
    expect(await addPhoto(db.pool, job, { ...picture, large: Buffer.from("other") })).toBe(true);
    expect((await photoBytes(db.pool, job, picture.id, "large"))?.toString()).toBe("large");
    expect((await photoBytes(db.pool, job, picture.id, "small"))?.toString()).toBe("small");
    expect(await addPhoto(db.pool, another, picture)).toBe(false);
    expect(await hasPhoto(db.pool, another, picture.id)).toBe(false);
    expect(await photoBytes(db.pool, another, picture.id, "large")).toBeNull();
  });

  it("are refused by the database when they are too large or have no size", async () => {
    const job = await open();
    const add = (change: Partial<typeof picture>) =>
      addPhoto(db.pool, job, { ...picture, id: newId(), ...change });
    await expect(add({ large: Buffer.alloc(5_000_001) })).rejects.toThrow(/photo_large_size/);
    await expect(add({ width: 0 })).rejects.toThrow(/photo_wide/);
  });
});

it("tells the state of open jobs by a word that changes with a fact", async () => {
  const job = await open();
  const stateOf = async (): Promise<string | undefined> => {
    const { rows } = await db.pool.query<{ number: number }>("select number from job where id = $1", [job]);
    return (await openJobStates(db.pool)).find(({ number }) => number === rows[0]?.number)?.state;
  };
  const before = await stateOf();
  await addFacts(db.pool, job, [scope()], author);
  const after = await stateOf();
  expect(before).toBeTruthy();
  expect(after).not.toBe(before);
  await addFacts(db.pool, job, [{ ...scope(), body: { kind: "closed", rule: "proven" } }], author);
  expect(await stateOf()).toBeUndefined();
});
