import { randomBytes } from "node:crypto";
import pg from "pg";
import { migrate, openPool, type Pool } from "./database";

/** A migrated database of its own for one test file, on the cluster that `npm test` started. */
export async function testDatabase(): Promise<{ pool: Pool; url: string; drop: () => Promise<void> }> {
  const base = process.env.TEST_DATABASE_URL;
  if (!base) throw new Error("TEST_DATABASE_URL is not set: run the tests with npm test");
  const name = `test_${randomBytes(6).toString("hex")}`;
  await asAdmin(base, `create database ${name}`);
  const url = Object.assign(new URL(base), { pathname: `/${name}` }).href;
  await migrate(url);
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

async function asAdmin(base: string, statement: string): Promise<void> {
  const client = new pg.Client({ connectionString: base });
  await client.connect();
  try {
    await client.query(statement);
  } finally {
    await client.end();
  }
}
