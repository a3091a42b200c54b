import { afterAll, beforeAll, expect, it } from "@jest/globals";
import { hearHere, type Side } from "./here";
import { testDatabase } from "./testing";

let db: Awaited<ReturnType<typeof testDatabase>>;
beforeAll(async () => {
  db = await testDatabase();
}, 60_000);
afterAll(() => db.drop());

const at = (person: string, side: Side, job = 1) =>
  hearHere(db.pool, { job, procedure: "level", side, person });

it("tells each of the others once, where they were heard of last", async () => {
  expect(await at("Runa S.", "seat")).toEqual([]);
  await at("Runa S.", "both");
  expect(await at("Tomas B.", "lift")).toEqual([
    { person: "Runa S.", side: "both", ago: expect.any(Number) },
  ]);
  await at("Runa S.", "seat");
  expect(await at("Tomas B.", "lift")).toMatchObject([{ person: "Runa S.", side: "seat" }]);
  expect(await at("Runa S.", "seat")).toMatchObject([{ person: "Tomas B.", side: "lift" }]);
});

it("tells nothing of another job, nor of who was there more than an hour ago", async () => {
  await at("Mira K.", "lift", 2);
  expect(await at("Edda L.", "seat", 3)).toEqual([]);
  await db.pool.query("update here set seen = now() - interval '61 minutes' where job = 2");
  expect(await at("Edda L.", "seat", 2)).toEqual([]);
});
