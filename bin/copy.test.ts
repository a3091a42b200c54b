import { execFileSync } from "node:child_process";
import {
  cpSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  rmSync,
  truncateSync,
  utimesSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "@jest/globals";
import pg from "pg";
import { loadShop } from "../demo/load";
import { cookieKey, readHouse, setHouse } from "../store/house";
import { openPool } from "../store/database";
import { beginSession, listStaff, proveSecret } from "../store/staff";
import { testDatabase } from "../store/testing";
import { startCluster, type Cluster } from "./cluster";
import { backup, copiesIn, keepNewest, restore, type Manifest } from "./copy";
import { copyWhenDue } from "./nightly";

const NAME = `copy-${process.pid}`;
let shop: Awaited<ReturnType<typeof testDatabase>>;
let elsewhere: Cluster;
let folder: string;

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "yard-key-copies-"));
  shop = await testDatabase({ name: "demo_shop", fill: loadShop });
  const [one] = await listStaff(shop.pool);
  await beginSession(shop.pool, one!.id, "10.0.0.4");
  elsewhere = await startCluster(NAME, { fresh: true, careless: true });
}, 120_000);
afterAll(async () => {
  await elsewhere.stop();
  await shop.drop();
  rmSync(folder, { recursive: true, force: true });
  rmSync(`.yard-key/${NAME}`, { recursive: true, force: true });
});

async function ask<T extends pg.QueryResultRow>(url: string, sql: string): Promise<T[]> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return (await client.query<T>(sql)).rows;
  } finally {
    await client.end();
  }
}

/** Every row of every table as text, put in order and digested, but what a restore makes anew. */
async function contents(url: string): Promise<Record<string, string>> {
  const tables = await ask<{ name: string }>(
    url,
    "select tablename as name from pg_tables where schemaname = 'public' order by 1",
  );
  const found: Record<string, string> = {};
  for (const { name } of tables) {
    const own = name === "house_setting" ? "where key not in ('cookie-key', 'generation')" : "";
    const [row] = await ask<{ digest: string }>(
      url,
      `select count(*) || ' ' || md5(coalesce(string_agg(t, '' order by t), '')) as digest from (select x::text as t from "${name}" x ${own}) y`,
    );
    found[name] = row?.digest ?? "";
  }
  return found;
}

describe("a copy", () => {
  it("is put back on another machine row by row, keeps what was there, and signs cookies with a new key", async () => {
    const key = await cookieKey(shop.pool);
    const { file, manifest } = await backup(shop.url, folder);
    expect(manifest.rows.fact).toBeGreaterThan(1_000);
    const before = await contents(shop.url);
    await ask(elsewhere.url, "create table left_over (n int); insert into left_over values (7)");

    const restored = await restore(elsewhere.url, file);
    expect(await contents(elsewhere.url)).toEqual(before);
    expect(restored.rows).toEqual(manifest.rows);
    const kept = Object.assign(new URL(elsewhere.url), { pathname: `/${restored.before}` }).href;
    expect(await ask(kept, "select n from left_over")).toEqual([{ n: 7 }]);

    const pool = openPool(elsewhere.url, () => {});
    expect(await cookieKey(pool)).not.toBe(key);
    const mira = (await listStaff(pool)).find(({ name }) => name === "Mira K.");
    expect(await proveSecret(pool, mira!.id, "2580")).toMatchObject({ ok: true });
    // Facts are still only added.
    await expect(pool.query("update fact set by_name = 'x'")).rejects.toThrow();
    await pool.query("select");
    // With the shop at work nothing is put back.
    await expect(restore(elsewhere.url, file)).rejects.toThrow("The shop is at work");
    await pool.end();
  }, 120_000);

  it("is of one moment while the shop works", async () => {
    const [job] = await ask<{ id: string }>(shop.url, "select id from job limit 1");
    let adding = true;
    const work = (async () => {
      for (let n = 0; adding; n++)
        await shop.pool.query(
          "insert into fact (id, job, kind, by_name, at, body) values (gen_random_uuid(), $1, 'debris', 'Mira K.', now(), $2)",
          [job?.id, JSON.stringify({ kind: "debris", where: "pan", what: "brass", amount: "none", n })],
        );
    })();
    const { file } = await backup(shop.url, folder);
    adding = false;
    await work;
    // What was counted is what is in it, or it would be refused.
    await expect(restore(elsewhere.url, file)).resolves.toMatchObject({
      manifest: { format: "yard-key/copy@1" },
    });
  }, 120_000);

  it("is refused before anything is touched where it is damaged, cut off, of a newer Yard Key, or none at all", async () => {
    const [good = ""] = copiesIn(folder);
    const before = await ask(elsewhere.url, "select datname from pg_database order by 1");
    const bad = join(folder, "bad");
    mkdirSync(bad);
    const changed = (
      name: string,
      change: (manifest: Manifest) => Manifest,
      dump?: (at: string) => void,
    ): string => {
      const work = join(bad, name);
      mkdirSync(work);
      execFileSync("tar", ["-xf", good, "-C", work]);
      const at = join(work, "manifest.json");
      writeFileSync(at, JSON.stringify(change(JSON.parse(readFileSync(at, "utf8")) as Manifest)));
      dump?.(join(work, "dump"));
      execFileSync("tar", ["-cf", `${work}.tar`, "-C", work, "manifest.json", "dump"]);
      return `${work}.tar`;
    };
    const cut = join(bad, "cut.tar");
    cpSync(good, cut);
    truncateSync(cut, 5_000);
    const same = (manifest: Manifest): Manifest => manifest;
    for (const [file, words] of [
      [join(bad, "none.tar"), /There is no file/],
      [cut, /cut off|damaged/],
      [changed("flipped", same, (at) => writeFileSync(at, "PGDMP nothing")), /damaged/],
      [
        changed("newer", (m) => ({ ...m, migrations: [...m.migrations, "9999_later"] })),
        /newer Yard Key \(9999_later\)/,
      ],
      [
        changed("silent", (m) => ({ ...m, rows: undefined }) as unknown as Manifest),
        /does not say what is in it/,
      ],
      [
        changed("miscounted", (m) => ({ ...m, rows: { ...m.rows, fact: 1 } })),
        /Not everything came back: fact/,
      ],
    ] as const)
      await expect(restore(elsewhere.url, file)).rejects.toThrow(words);
    expect(await ask(elsewhere.url, "select datname from pg_database order by 1")).toEqual(before);
  }, 120_000);

  it("leaves so many as are kept, and nothing half made", async () => {
    for (const day of ["01", "02", "03"])
      writeFileSync(join(folder, `yard-key-2026-01-${day}T000000Z.tar`), "");
    const newest = copiesIn(folder).slice(-2);
    await keepNewest(folder, 2);
    expect(copiesIn(folder)).toEqual(newest);
    expect(readdirSync(folder).filter((name) => name.startsWith("."))).toEqual([]);
  });
});

describe("a copy each day", () => {
  it("is made when none is young enough, kept as many as the house wants, and said; a failed one is said too", async () => {
    const copies = join(folder, "nightly");
    await setHouse(shop.pool, { copiesKept: 2 }, "Edda L.");
    expect(await copyWhenDue(shop.url, copies)).toBe(true);
    expect(await copyWhenDue(shop.url, copies)).toBe(false);
    const yesterday = new Date(Date.now() - 25 * 3_600_000);
    for (const file of copiesIn(copies)) utimesSync(file, yesterday, yesterday);
    for (const day of ["01", "02"]) writeFileSync(join(copies, `yard-key-2026-01-${day}T000000Z.tar`), "");
    expect(await copyWhenDue(shop.url, copies)).toBe(true);
    expect(copiesIn(copies)).toHaveLength(2);
    const { copy, copyProblem } = await readHouse(shop.pool);
    expect([Date.now() - Date.parse(copy?.at ?? "") < 60_000, copyProblem]).toEqual([true, ""]);
    const blocked = join(folder, "blocked");
    writeFileSync(blocked, "");
    expect(await copyWhenDue(shop.url, join(blocked, "x"))).toBe(false);
    expect((await readHouse(shop.pool)).copyProblem).toContain("blocked");
    await shop.pool.query("alter table migration rename to migrations_gone");
    const old = join(folder, "failing");
    expect(await copyWhenDue(shop.url, old)).toBe(false);
    expect((await readHouse(shop.pool)).copyProblem).toContain("never a shop’s");
    await shop.pool.query("alter table migrations_gone rename to migration");
    expect(copiesIn(old)).toEqual([]);
  }, 120_000);
});
