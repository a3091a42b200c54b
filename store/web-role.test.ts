import { readdirSync } from "node:fs";
import { afterAll, beforeAll, describe, expect, it } from "@jest/globals";
import pg from "pg";
import { v7 as newId } from "uuid";
import type { Fact } from "~core/fact";
import { dunlinDocument } from "~core/testing/dunlin";
import { addBook } from "./books";
import { migrate, openPool, sqlState, type Pool } from "./database";
import { addFacts, factsOf } from "./facts";
import { openJob } from "./jobs";
import { againstSchema, NEWEST } from "./schema";
import { addShelfPart, listShelf, receive } from "./shelf";
import { addStaff, beginSession, changeAccount, lockSession, proveSecret, sessionStaff } from "./staff";
import { testDatabase } from "./testing";
import { webDatabase } from "./web-role";

let db: Awaited<ReturnType<typeof testDatabase>>;
let web: Pool;
let job: string;
const DENIED = "42501";

beforeAll(async () => {
  db = await testDatabase();
  web = openPool(await webDatabase(db.url), () => {});
  const added = await addBook(web, dunlinDocument());
  if (!added.ok) throw new Error("the book is wrong");
  job = newId();
  await openJob(web, { id: job, bookId: added.id, facts: [], author: { id: null, name: "Mira K." } });
});
afterAll(async () => {
  await web.end();
  await db.drop();
});

const stateOf = async (sql: string): Promise<string | null> =>
  web.query(sql).then(
    () => "done",
    (error: unknown) => sqlState(error),
  );

describe("the account of the web processes", () => {
  it("can do a shop's work: facts, people, sessions, the shelf", async () => {
    const fact: Fact = {
      id: newId(),
      at: "2026-05-04T08:00:00.000Z",
      by: "Mira K.",
      body: { kind: "scope", depths: ["full"] },
    };
    const author = { id: null, name: "Mira K." };
    expect(await addFacts(web, job, [fact], author)).toEqual({ ok: true });
    expect(await factsOf(web, job)).toHaveLength(1);
    const edda = await addStaff(web, { name: "Edda L.", role: "lead", secret: "258014" });
    await addStaff(web, { name: "Joost W.", role: "owner", secret: "258014" });
    expect(await proveSecret(web, edda, "258014")).toMatchObject({ ok: true });
    const session = await beginSession(web, edda);
    expect(await sessionStaff(web, session)).toMatchObject({ name: "Edda L." });
    await lockSession(web, session);
    expect(await sessionStaff(web, session)).toBeNull();
    expect(await changeAccount(web, edda, { what: "switched off" }, edda)).toBeNull();
    await addShelfPart(web, { part: "XX-1", name: "Snap ring", bin: "A1", priceCents: 100, orderDays: 2 });
    await receive(web, { id: newId(), part: "XX-1", quantity: 3, by: "Ines R." });
    expect((await listShelf(web)).map(({ part, onHand }) => [part, onHand])).toEqual([["XX-1", 3]]);
  });

  it("cannot change or take away a record, or what keeps one", async () => {
    for (const sql of [
      "update fact set by_name = 'x'",
      "delete from fact",
      "truncate fact cascade",
      "alter table fact disable trigger fact_is_kept",
      "drop trigger fact_is_kept on fact",
      "create or replace function fact_is_kept() returns trigger language plpgsql as 'begin return new; end'",
      "drop table fact cascade",
      "alter table fact owner to current_user",
      "set session_replication_role = replica",
      "update movement set quantity = 9",
      "update stock set on_hand = 9",
      "update house_setting set value = '1'",
      "delete from session",
      "update staff set role = 'owner'",
      "update book set document = '{}'",
      "insert into migration (name, run_on) values ('x', now())",
      "create table own (a int)",
      "create role somebody superuser",
      "alter role current_user superuser",
      "create database another",
      "copy fact to program 'cat'",
      "select pg_read_file('postgresql.conf')",
      "select rolpassword from pg_authid",
    ])
      expect([sql, await stateOf(sql)]).toEqual([sql, DENIED]);
    expect(await factsOf(db.pool, job)).toHaveLength(1);
  });

  it("is made once by many at a time, and anew when the owner's password is another one", async () => {
    const urls = await Promise.all(Array.from({ length: 6 }, () => webDatabase(db.url)));
    expect(new Set(urls).size).toBe(1);
    const client = new pg.Client({ connectionString: urls[0] });
    await client.connect();
    const { rows } = await client.query<{ super: boolean }>(
      "select rolsuper or rolcreaterole or rolcreatedb or rolreplication or rolbypassrls as super from pg_roles where rolname = current_user",
    );
    await client.end();
    expect(rows).toEqual([{ super: false }]);
  });

  it("is another one for another owner on the same server, who leaves this one as it is", async () => {
    const before = await webDatabase(db.url);
    const name = `owner "${newId().slice(-8)}"`;
    const quoted = (of: string): string => `"${of.replaceAll('"', '""')}"`;
    await db.pool.query(`create role ${quoted(name)} login superuser password 'other'`);
    const others = Object.assign(new URL(db.url), { username: encodeURIComponent(name), password: "other" });
    const made = await webDatabase(others.href);
    expect(decodeURIComponent(new URL(made).username)).toBe(`${name}_web`);
    expect(await webDatabase(db.url)).toBe(before);
    for (const url of [made, before]) {
      const pool = openPool(url, () => {});
      expect((await pool.query<{ n: number }>("select count(*)::int as n from job")).rows).toEqual([
        { n: 1 },
      ]);
      await pool.end();
    }
    await db.pool.query(`drop owned by ${quoted(`${name}_web`)}`);
    await db.pool.query(`drop role ${quoted(`${name}_web`)}, ${quoted(name)}`);
  });

  it("is not made by whoever may not: that account is used itself", async () => {
    const name = `plain_${newId().slice(-8)}`;
    await db.pool.query(`create role ${name} login password 'x'`);
    const plain = Object.assign(new URL(db.url), { username: name, password: "x" }).href;
    try {
      expect(await webDatabase(plain)).toBe(plain);
    } finally {
      await db.pool.query(`drop role ${name}`);
    }
  });
});

describe("an older or newer database", () => {
  it("is told apart, and code that is older touches nothing", async () => {
    const newest = readdirSync(new URL("./migrations", import.meta.url))
      .sort()
      .at(-1);
    expect(`${NEWEST}.sql`).toBe(newest);
    expect(await againstSchema(web)).toBe("");
    await db.pool.query("insert into migration (name, run_on) values ('0999_later', now())");
    try {
      expect(await againstSchema(web)).toMatch(/newer Yard Key \(0999_later/);
      await expect(migrate(db.url)).rejects.toThrow(/newer Yard Key/);
    } finally {
      await db.pool.query("delete from migration where name = '0999_later'");
    }
    await migrate(db.url);
    await db.pool.query("delete from migration where name = $1", [NEWEST]);
    expect(await againstSchema(web)).toMatch(/older Yard Key/);
    await db.pool.query("insert into migration (name, run_on) values ($1, now())", [NEWEST]);
  });
});
