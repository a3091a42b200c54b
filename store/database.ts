import { fileURLToPath } from "node:url";
import { runner } from "node-pg-migrate";
import pg from "pg";
import { forgetKept } from "./kept-texts";
import { againstNewer } from "./schema";

export type Pool = pg.Pool;
/** Something queries can be sent to: the pool, or one connection inside a transaction. */
export type Queryable = Pick<pg.Pool, "query">;

pg.types.setTypeParser(pg.types.builtins.INT8, Number);

/** A pool that outlives a database restart: broken connections are dropped, the next query opens a new one. */
export function openPool(connectionString: string, onError: (error: Error) => void): Pool {
  const pool = new pg.Pool({
    connectionString,
    max: 10,
    connectionTimeoutMillis: 3_000,
    statement_timeout: 15_000,
    application_name: "yard-key",
  });
  pool.on("error", (error) => {
    // What answers next may be a copy put back.
    forgetKept(pool);
    onError(error);
  });
  return pool;
}

const folder = fileURLToPath(new URL("./migrations", import.meta.url));

/** Brings the database to the newest migration. Several processes may start at once: one migrates, the others wait. */
export async function migrate(databaseUrl: string, dir = folder): Promise<void> {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  try {
    await client.query("select pg_advisory_lock(hashtext('yard-key migrations'))");
    if (dir === folder) await againstNewer(client);
    await runner({
      dbClient: client,
      dir,
      direction: "up",
      migrationsTable: "migration",
      noLock: true,
      log: () => {},
      checkOrder: true,
    });
  } finally {
    await client.end();
  }
}

/** Runs `work` in one transaction; anything thrown rolls it back and is thrown on. */
export async function inTransaction<T>(pool: Pool, work: (client: Queryable) => Promise<T>): Promise<T> {
  const client = await pool.connect();
  let broken: Error | undefined;
  try {
    await client.query("begin");
    const result = await work(client);
    await client.query("commit");
    return result;
  } catch (error) {
    await client.query("rollback").catch((lost: Error) => (broken = lost));
    throw error;
  } finally {
    client.release(broken);
  }
}

/** SQLSTATE of a database error, or null for any other: decisions are made on it, never on message text. */
export function sqlState(error: unknown): string | null {
  return error instanceof pg.DatabaseError ? (error.code ?? null) : null;
}
export const constraintOf = (error: unknown): string | null =>
  error instanceof pg.DatabaseError ? (error.constraint ?? null) : null;

export const UNIQUE_VIOLATION = "23505";
export const FOREIGN_KEY_VIOLATION = "23503";
export const CHECK_VIOLATION = "23514";
