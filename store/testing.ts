import { randomBytes } from "node:crypto";
import pg from "pg";
import { migrate, openPool, type Pool } from "./database";
import type { Card } from "./jobs";

/** What a database begins with: filled once on a cluster, then copied, which takes a tenth of a second. */
export interface Filled {
  name: string;
  fill: (url: string) => Promise<unknown>;
}

/** A migrated database of its own for one test file, on the cluster that `npm test` started. */
export async function testDatabase(
  filled?: Filled,
): Promise<{ pool: Pool; url: string; drop: () => Promise<void> }> {
  const base = process.env.TEST_DATABASE_URL;
  if (!base) throw new Error("TEST_DATABASE_URL is not set: run the tests with npm test");
  const name = `test_${randomBytes(6).toString("hex")}`;
  const url = databaseUrl(base, name);
  if (filled) await copied(base, filled, name);
  else {
    await asAdmin(base, `create database ${name}`);
    await migrate(url);
  }
  const pool = openPool(url, () => {});
  return {
    pool,
    url,
    drop: async () => {
      await pool.end();
      await asAdmin(base, `drop database ${name} with (force)`);
    },
  };
}

/** What a list shows of a job, where a test does not look at it. */
export const BARE_CARD: Card = {
  vehicle: "",
  unit: "",
  depth: "",
  holder: null,
  waitsFor: "",
  minutesLeft: 0,
  done: 0,
  packs: 0,
  wants: [],
};

const databaseUrl = (base: string, name: string): string =>
  Object.assign(new URL(base), { pathname: `/${name}` }).href;

/** Copies a filled database; whoever comes first fills it, the others wait. */
async function copied(base: string, { name, fill }: Filled, to: string): Promise<void> {
  const client = new pg.Client({ connectionString: base });
  await client.connect();
  try {
    await client.query("select pg_advisory_lock(hashtext($1))", [name]);
    const { rowCount } = await client.query("select from pg_database where datname = $1", [name]);
    if (!rowCount) {
      const making = `${name}_${randomBytes(4).toString("hex")}`;
      await client.query(`create database ${making}`);
      await migrate(databaseUrl(base, making));
      await fill(databaseUrl(base, making));
      await client.query(`alter database ${making} rename to ${name}`);
    }
    // Copied by way of the log, a sequence goes back to where it was copied when the server is killed: it thinks its next numbers logged already.
    await client.query(`create database ${to} template ${name} strategy file_copy`);
  } finally {
    await client.end();
  }
}

async function asAdmin(base: string, statement: string): Promise<void> {
  const client = new pg.Client({ connectionString: base });
  await client.connect();
  try {
    await client.query(statement);
  } finally {
    await client.end();
  }
}
