import { afterAll, beforeAll, expect, it } from "@jest/globals";
import { scryptSync } from "node:crypto";
import { v7 as newId } from "uuid";
import { migrate } from "./database";
import { cookieKey, readHouse, setHouse } from "./house";
import {
  addFirstLead,
  addStaff,
  beginSession,
  changeAccount,
  endSession,
  FREE_TRIES,
  listAccounts,
  listStaff,
  proveSecret,
  sessionsOf,
  sessionStaff,
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
  // All of them have begun before the first is counted.
  const first = await db.pool.connect();
  await first.query("begin");
  await first.query("select pg_advisory_xact_lock(hashtext($1))", [`sign-in ${id}`]);
  const tries = Array.from({ length: 9 }, (_, i) => proveSecret(db.pool, id, `guess ${i}`));
  for (let waiting = 0; waiting < 9;) {
    const { rows } = await first.query<{ n: number }>(
      "select count(*)::int as n from pg_locks where locktype = 'advisory' and not granted",
    );
    waiting = rows[0]?.n ?? 0;
  }
  await first.query("commit");
  first.release();
  const results = await Promise.all(tries);
  expect(results.filter((result) => !result.ok && result.why === "wrong")).toHaveLength(FREE_TRIES);
  expect(await proveSecret(db.pool, id, "2580")).toMatchObject({ ok: false, why: "wait" });
});

const back = (id: string, seconds: number) =>
  db.pool.query("update sign_in_attempt set at = at - make_interval(secs => $2) where staff = $1", [
    id,
    seconds,
  ]);

it("lets the wait double with each wrong try, up to five minutes, and forgets them after a right one", async () => {
  const id = await addStaff(db.pool, { name: "Aila M.", role: "builder", secret: "2580" });
  for (let i = 0; i < FREE_TRIES; i++) await proveSecret(db.pool, id, "wrong");
  const waits: number[] = [];
  for (let i = 0; i < 9; i++) {
    const refused = await proveSecret(db.pool, id, "2580");
    if (refused.ok || refused.why !== "wait") throw new Error("let in");
    waits.push(refused.seconds);
    await back(id, refused.seconds);
    expect(await proveSecret(db.pool, id, "wrong")).toEqual({ ok: false, why: "wrong" });
  }
  // What passed between the try and the question on a busy machine is no longer waited for.
  const whole = [2, 4, 8, 16, 32, 64, 128, 256, 300];
  expect(waits.map((wait, i) => wait <= (whole[i] ?? 0) && wait > (whole[i] ?? 0) - 2)).toEqual(
    whole.map(() => true),
  );
  await back(id, 300);
  expect((await proveSecret(db.pool, id, "2580")).ok).toBe(true);
  expect(await proveSecret(db.pool, id, "wrong")).toEqual({ ok: false, why: "wrong" });
});

it("a stranger’s tries hold up strangers, and nobody at the bench they sign in at", async () => {
  const id = await addStaff(db.pool, { name: "Piet V.", role: "lead", secret: "258036" });
  expect((await proveSecret(db.pool, id, "258036", "10.0.0.7")).ok).toBe(true);
  for (let i = 0; i < 9; i++) await proveSecret(db.pool, id, `${i}`, `10.0.9.${i}`);
  expect(await proveSecret(db.pool, id, "258036", "10.0.9.77")).toMatchObject({ why: "wait" });
  expect((await proveSecret(db.pool, id, "258036", "10.0.0.7")).ok).toBe(true);
});

it("one address that tries everybody waits, whoever it tries next", async () => {
  const people = await Promise.all(
    Array.from({ length: 16 }, (_, i) =>
      addStaff(db.pool, { name: `Hand ${i}`, role: "builder", secret: "2580" }),
    ),
  );
  // What a try costs is not what this is about.
  const salt = Buffer.alloc(16);
  const key = scryptSync("2580", salt, 32, { N: 256, r: 1, p: 1 });
  const cheap = ["scrypt", 256, 1, 1, salt.toString("base64"), key.toString("base64")].join("$");
  await db.pool.query("update staff set secret = $1 where id = any($2)", [cheap, people]);
  for (const id of people)
    for (let i = 0; i < FREE_TRIES; i++) await proveSecret(db.pool, id, "wrong", "10.0.66.6");
  const fresh = await addStaff(db.pool, { name: "Hand 99", role: "builder", secret: "2580" });
  expect(await proveSecret(db.pool, fresh, "2580", "10.0.66.6")).toMatchObject({ why: "wait" });
  expect((await proveSecret(db.pool, fresh, "2580", "10.0.0.8")).ok).toBe(true);
}, 60_000);

it("a clock that was ahead and is set right neither locks anybody out nor opens guessing", async () => {
  const id = await addStaff(db.pool, { name: "Vera H.", role: "builder", secret: "2580" });
  for (let i = 0; i < FREE_TRIES; i++) await proveSecret(db.pool, id, "wrong");
  await back(id, -7_200);
  // Two hours ahead: the next try is let through, and is the one that counts from then on.
  expect(await proveSecret(db.pool, id, "wrong")).toEqual({ ok: false, why: "wrong" });
  expect(await proveSecret(db.pool, id, "2580")).toMatchObject({ why: "wait" });
});

it("an account is changed and who did it is kept; the last one who leads stays", async () => {
  const leads = (await listAccounts(db.pool)).filter(({ role }) => role === "lead");
  const [by] = leads;
  const id = await addStaff(db.pool, { name: "Nora F.", role: "builder", secret: "2580" });
  const [one, two] = [await beginSession(db.pool, id, "10.0.0.4"), await beginSession(db.pool, id)];
  expect((await sessionsOf(db.pool, id)).map(({ address }) => address).sort()).toEqual(["", "10.0.0.4"]);
  expect(await changeAccount(db.pool, id, { what: "secret", secret: "8046" }, by!.id, two)).toBeNull();
  expect((await proveSecret(db.pool, id, "2580")).ok).toBe(false);
  expect((await proveSecret(db.pool, id, "8046")).ok).toBe(true);
  expect([await sessionStaff(db.pool, one), (await sessionStaff(db.pool, two))?.name]).toEqual([
    null,
    "Nora F.",
  ]);
  expect(await changeAccount(db.pool, id, { what: "switched off" }, by!.id)).toBeNull();
  expect(await sessionStaff(db.pool, two)).toBeNull();
  expect((await proveSecret(db.pool, id, "8046")).ok).toBe(false);
  expect((await listStaff(db.pool)).map(({ name }) => name)).not.toContain("Nora F.");
  expect(await changeAccount(db.pool, id, { what: "switched on" }, by!.id)).toBeNull();
  for (let i = 0; i < FREE_TRIES; i++) await proveSecret(db.pool, id, "wrong");
  expect(await proveSecret(db.pool, id, "8046")).toMatchObject({ why: "wait" });
  await changeAccount(db.pool, id, { what: "cleared" }, by!.id);
  expect((await proveSecret(db.pool, id, "8046")).ok).toBe(true);
  const { rows } = await db.pool.query<{ what: string }>(
    "select what from account_change where staff = $1 and by = $2 order by seq",
    [id, by!.id],
  );
  expect(rows.map(({ what }) => what)).toEqual(["secret", "switched off", "switched on", "cleared"]);
  // All but one who lead, each by all the others at once: one is left.
  await Promise.all(leads.map((lead) => changeAccount(db.pool, lead.id, { what: "switched off" }, by!.id)));
  expect((await listAccounts(db.pool)).filter(({ role, active }) => role === "lead" && active)).toHaveLength(
    1,
  );
  expect(await changeAccount(db.pool, newId(), { what: "cleared" }, by!.id)).toBe("not there");
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
