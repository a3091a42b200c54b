import { afterAll, beforeAll, expect, it } from "@jest/globals";
import { v7 as newId } from "uuid";
import { migrate } from "./database";
import { cookieKey, readHouse, setHouse } from "./house";
import {
  addFirstLead,
  addStaff,
  beginSession,
  endSession,
  listStaff,
  proveSecret,
  sessionStaff,
  TRIES,
} from "./staff";
import { testDatabase } from "./testing";

let db: Awaited<ReturnType<typeof testDatabase>>;
beforeAll(async () => {
  db = await testDatabase();
});
afterAll(() => db.drop());

it("makes one first lead, however many ask at once", async () => {
  const made = await Promise.all(
    ["Edda L.", "Joost W.", "Runa S."].map((name) => addFirstLead(db.pool, name, "secret-1")),
  );
  expect(made.filter(Boolean)).toHaveLength(1);
  expect(await listStaff(db.pool)).toHaveLength(1);
});

it("keeps secrets hashed and salted, and proves only the right one", async () => {
  const one = await addStaff(db.pool, { name: "Mira K.", role: "builder", secret: "2580" });
  await addStaff(db.pool, { name: "Tomas B.", role: "builder", secret: "2580" });
  const { rows } = await db.pool.query<{ secret: string }>(
    "select secret from staff where name in ('Mira K.', 'Tomas B.')",
  );
  expect(new Set(rows.map(({ secret }) => secret)).size).toBe(2);
  for (const { secret } of rows) expect(secret).toMatch(/^scrypt\$32768\$8\$1\$/);
  expect(await proveSecret(db.pool, one, "2580")).toMatchObject({ ok: true, staff: { name: "Mira K." } });
  expect(await proveSecret(db.pool, one, "2581")).toEqual({ ok: false, why: "wrong" });
  expect(await proveSecret(db.pool, newId(), "2580")).toEqual({ ok: false, why: "wrong" });
});

it("limits guessing, also by many at the same moment, and then refuses the right one too", async () => {
  const id = await addStaff(db.pool, { name: "Ines R.", role: "parts", secret: "2580" });
  const results = await Promise.all(
    Array.from({ length: 12 }, (_, i) => proveSecret(db.pool, id, `guess ${i}`)),
  );
  expect(results.filter((result) => !result.ok && result.why === "wrong")).toHaveLength(TRIES);
  expect(await proveSecret(db.pool, id, "2580")).toEqual({ ok: false, why: "wait" });
});

it("forgets wrong tries after a right one", async () => {
  const id = await addStaff(db.pool, { name: "Aila M.", role: "builder", secret: "2580" });
  for (let round = 0; round < 2; round++) {
    for (let i = 0; i < TRIES - 1; i++) await proveSecret(db.pool, id, "wrong");
    expect((await proveSecret(db.pool, id, "2580")).ok).toBe(true);
  }
});

it("knows a session until it is ended", async () => {
  const id = await addStaff(db.pool, { name: "Olin P.", role: "lead", secret: "2580" });
  const session = await beginSession(db.pool, id);
  expect(await sessionStaff(db.pool, session)).toMatchObject({ name: "Olin P.", role: "lead" });
  await endSession(db.pool, session);
  expect(await sessionStaff(db.pool, session)).toBeNull();
});

it("lets a session run out", async () => {
  const id = await addStaff(db.pool, { name: "Sanne T.", role: "builder", secret: "2580" });
  const session = await beginSession(db.pool, id);
  await db.pool.query("update session set begun = now() - interval '17 hours' where id = $1", [session]);
  expect(await sessionStaff(db.pool, session)).toBeNull();
});

it("keeps every setting that ever held, and reads the newest", async () => {
  expect((await readHouse(db.pool)).rule).toBe("proven");
  await setHouse(db.pool, { rule: "plain" }, "Edda L.");
  await setHouse(db.pool, { rule: "plain" }, "Edda L.");
  await setHouse(db.pool, { rule: "proven" }, "Joost W.");
  expect((await readHouse(db.pool)).rule).toBe("proven");
  const { rowCount } = await db.pool.query("select from house_setting where key = 'rule'");
  expect(rowCount).toBe(2);
});

it("signs cookies with one key for all processes, and does not tell it with the settings", async () => {
  const keys = await Promise.all(Array.from({ length: 8 }, () => cookieKey(db.pool)));
  expect(new Set(keys).size).toBe(1);
  expect(JSON.stringify(await readHouse(db.pool))).not.toContain(keys[0]);
});

it("migrates again, and by several at once, without harm", async () => {
  await Promise.all([1, 2, 3].map(() => migrate(db.url)));
  expect((await listStaff(db.pool)).length).toBeGreaterThan(0);
});
