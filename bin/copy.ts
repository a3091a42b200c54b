// A copy of everything a shop has, in one file, and how it is put back. The file is a tar of two: the dump in PostgreSQL's own custom format,
// and beside it a manifest that says what is in it.
import { execFileSync, spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { createReadStream, existsSync, mkdirSync, mkdtempSync, readFileSync, readdirSync } from "node:fs";
import { chmod, rename, rm, stat, statfs, writeFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { basename, join, resolve } from "node:path";
import Joi from "joi";
import pg from "pg";
import { v7 as newId } from "uuid";
import { migrate } from "../store/database";
import { binaries, shopDatabase } from "./cluster";

const FORMAT = "yard-key/copy@1";
const MIGRATIONS = new URL("../store/migrations", import.meta.url).pathname;

/** What a copy says of itself. */
export interface Manifest {
  format: typeof FORMAT;
  made: string;
  /** Every migration the database had, in order. */
  migrations: string[];
  /** Rows of every table at the moment of the copy. */
  rows: Record<string, number>;
  bytes: number;
  sha256: string;
}

const manifestShape = Joi.object<Manifest>({
  format: Joi.valid(FORMAT).required(),
  made: Joi.string().isoDate().required(),
  migrations: Joi.array().items(Joi.string()).required(),
  rows: Joi.object().pattern(Joi.string(), Joi.number().integer().min(0)).required(),
  bytes: Joi.number().integer().min(0).required(),
  sha256: Joi.string().hex().length(64).required(),
});

const at = (url: string, database: string): string =>
  Object.assign(new URL(url), { pathname: `/${database}` }).href;
const nameOf = (url: string): string => new URL(url).pathname.slice(1);
const quoted = (name: string): string => `"${name.replaceAll('"', '""')}"`;

async function connected<T>(url: string, work: (client: pg.Client) => Promise<T>): Promise<T> {
  const client = new pg.Client({ connectionString: url, application_name: "yard-key copy" });
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
}

async function rowsOf(client: pg.Client): Promise<Record<string, number>> {
  const { rows: tables } = await client.query<{ name: string }>(
    "select tablename as name from pg_tables where schemaname = 'public' order by tablename",
  );
  const counts: Record<string, number> = {};
  for (const { name } of tables) {
    const { rows } = await client.query<{ n: number }>(`select count(*)::int as n from ${quoted(name)}`);
    counts[name] = rows[0]?.n ?? 0;
  }
  return counts;
}

const migrationsOf = async (client: pg.Client): Promise<string[]> =>
  (await client.query<{ name: string }>("select name from migration order by id")).rows.map(
    ({ name }) => name,
  );

async function digestOf(file: string): Promise<string> {
  const hash = createHash("sha256");
  for await (const chunk of createReadStream(file)) hash.update(chunk as Buffer);
  return hash.digest("hex");
}

/** A program of PostgreSQL's, told where to go by its environment: no password in a list of processes. */
function postgres(program: string, args: readonly string[], url: string): void {
  const { hostname, port, username, password, pathname } = new URL(url);
  execFileSync(join(binaries(), program), args, {
    stdio: ["ignore", "ignore", "pipe"],
    maxBuffer: 64_000_000,
    env: {
      ...process.env,
      PGHOST: hostname,
      PGPORT: port || "5432",
      PGUSER: decodeURIComponent(username),
      PGPASSWORD: decodeURIComponent(password),
      PGDATABASE: pathname.slice(1),
    },
  });
}

/**
 * Copies a database into a file, also while the shop works: dump and counts are of the same moment.
 *
 * @param folder where it goes; made where it is not there.
 * @returns the file.
 */
export async function backup(url: string, folder: string): Promise<{ file: string; manifest: Manifest }> {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const work = mkdtempSync(join(folder, ".making-"));
  try {
    const dump = join(work, "dump");
    const made = new Date().toISOString();
    const known = await connected(url, async (client) => {
      await client.query("begin isolation level repeatable read, read only");
      const { rows } = await client.query<{ id: string }>("select pg_export_snapshot() as id");
      const rowsThen = await rowsOf(client);
      if (rowsThen.migration === undefined)
        throw new NoCopy(
          "There is nothing to copy: this database was never a shop’s. `npm start` makes one; DATABASE_URL names another.",
        );
      const migrations = await migrationsOf(client);
      // Snapshot and transaction live as long as the dump reads by them.
      postgres(
        "pg_dump",
        ["-Fc", "--no-owner", "--no-privileges", `--snapshot=${rows[0]?.id}`, `--file=${dump}`],
        url,
      );
      return { rows: rowsThen, migrations };
    });
    const { size } = await stat(dump);
    const manifest: Manifest = { format: FORMAT, made, ...known, bytes: size, sha256: await digestOf(dump) };
    await writeFile(join(work, "manifest.json"), `${JSON.stringify(manifest, null, 2)}\n`);
    const whole = join(work, "whole");
    execFileSync("tar", ["-cf", whole, "-C", work, "manifest.json", "dump"]);
    const file = join(folder, `yard-key-${made.replace(/\.\d+Z$/, "Z").replaceAll(":", "")}.tar`);
    // Secrets are in it, if only hashed.
    await chmod(whole, 0o600);
    // Under its name only when it is whole.
    await rename(whole, file);
    return { file, manifest };
  } finally {
    await rm(work, { recursive: true, force: true });
  }
}

/** The copies in a folder, the oldest first. */
export const copiesIn = (folder: string): string[] =>
  existsSync(folder)
    ? readdirSync(folder)
        .filter((name) => /^yard-key-.*\.tar$/.test(name))
        .sort()
        .map((name) => join(folder, name))
    : [];

/** Drops the oldest copies of a folder, so that so many are left. */
export async function keepNewest(folder: string, keep: number): Promise<void> {
  for (const file of copiesIn(folder).slice(0, -Math.max(1, keep))) await rm(file);
}

/** Whether a disk has room for two more copies as large as the last one. */
export async function hasRoom(folder: string): Promise<boolean> {
  const last = copiesIn(folder).at(-1);
  if (!last) return true;
  const { bavail, bsize } = await statfs(folder);
  return bavail * bsize > 2 * (await stat(last)).size;
}

export class NoCopy extends Error {}

/** Does what a command asks of the shop's database; what cannot be done is told in words, as its error status says. */
export async function withShop(work: (url: string) => Promise<void>): Promise<void> {
  const { url, stop } = await shopDatabase();
  try {
    await work(url);
  } catch (error) {
    if (!(error instanceof NoCopy)) throw error;
    console.error(`\n${error.message}`);
    process.exitCode = 1;
  } finally {
    await stop();
  }
}

/** Takes a copy's file apart and holds it against what it says of itself. @throws NoCopy in words for whoever typed the command. */
async function opened(file: string, work: string): Promise<Manifest> {
  if (!existsSync(file)) throw new NoCopy(`There is no file ${file}.`);
  const { status } = spawnSync("tar", ["-xf", resolve(file), "-C", work, "manifest.json", "dump"], {
    stdio: "ignore",
  });
  if (status !== 0) throw new NoCopy(`${basename(file)} is no copy of Yard Key’s, or it is cut off.`);
  let told: unknown;
  try {
    told = JSON.parse(readFileSync(join(work, "manifest.json"), "utf8"));
  } catch {
    throw new NoCopy(`${basename(file)} does not say what is in it.`);
  }
  const checked = manifestShape.validate(told);
  if (checked.error)
    throw new NoCopy(`${basename(file)} does not say what is in it: ${checked.error.message}.`);
  const { value } = checked;
  const dump = join(work, "dump");
  const { size } = await stat(dump);
  if (size !== value.bytes || (await digestOf(dump)) !== value.sha256)
    throw new NoCopy(`${basename(file)} is damaged: its contents are not what it says they are.`);
  const own = new Set(readdirSync(MIGRATIONS).map((name) => name.replace(/\.sql$/, "")));
  const newer = value.migrations.filter((name) => !own.has(name));
  if (newer.length > 0)
    throw new NoCopy(
      `${basename(file)} was made by a newer Yard Key (${newer.at(-1)}): update this one first.`,
    );
  return value;
}

/** What a restore did: rows by table as they came back, and where what was there is kept. */
export interface Restored {
  manifest: Manifest;
  rows: Record<string, number>;
  before: string;
}

/**
 * Puts a copy back in place of a database. The file is checked before anything is touched; it is read into a database beside the old one, counted,
 * and only then the two change places. What was there stays, under another name. The key that signs cookies is made new.
 *
 * @throws NoCopy where the file is none, or the shop is at work.
 */
export async function restore(url: string, file: string): Promise<Restored> {
  const work = mkdtempSync(join(tmpdir(), "yard-key-restore-"));
  const admin = at(url, "template1");
  const name = nameOf(url);
  const stamp = new Date().toISOString().replace(/\D/g, "").slice(0, 17);
  const [fresh, before] = [`restoring_${stamp}`, `before_${stamp}`];
  let made = false;
  try {
    const manifest = await opened(file, work);
    await connected(admin, async (client) => {
      const { rowCount } = await client.query("select from pg_stat_activity where datname = $1", [name]);
      if (rowCount) throw new NoCopy("The shop is at work: stop Yard Key first, then put the copy back.");
      await client.query(`create database ${quoted(fresh)} template template0`);
      made = true;
    });
    const target = at(url, fresh);
    postgres(
      "pg_restore",
      [
        "--no-owner",
        "--no-privileges",
        "--exit-on-error",
        "--single-transaction",
        `--dbname=${fresh}`,
        join(work, "dump"),
      ],
      target,
    );
    const rows = await connected(target, async (client) => {
      const counted = await rowsOf(client);
      const wrong = Object.keys({ ...counted, ...manifest.rows }).filter(
        (table) => counted[table] !== manifest.rows[table],
      );
      if (wrong.length > 0)
        throw new NoCopy(`Not everything came back: ${wrong.join(", ")}. Nothing was changed.`);
      await client.query("delete from house_setting where key = 'cookie-key'");
      await client.query(
        "insert into house_setting (key, value, by) values ('generation', to_jsonb($1::text), 'Yard Key')",
        [newId()],
      );
      return counted;
    });
    await migrate(target);
    await connected(admin, async (client) => {
      for (const one of [name, fresh])
        await client.query(
          "select pg_terminate_backend(pid) from pg_stat_activity where datname = $1 and pid <> pg_backend_pid()",
          [one],
        );
      await client.query("begin");
      await client.query(`alter database ${quoted(name)} rename to ${quoted(before)}`);
      await client.query(`alter database ${quoted(fresh)} rename to ${quoted(name)}`);
      await client.query("commit");
    });
    made = false;
    return { manifest, rows, before };
  } finally {
    if (made)
      await connected(admin, (client) =>
        client.query(`drop database if exists ${quoted(fresh)} with (force)`),
      );
    await rm(work, { recursive: true, force: true });
  }
}
