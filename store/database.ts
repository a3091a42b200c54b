import { fileURLToPath } from "node:url";
import { runner } from "node-pg-migrate";
import pg from "pg";
import { forgetKept } from "./kept-texts";
import { againstNewer } from "./schema";

export type Pool = pg.Pool;
/** Something queries can be sent to: the pool, or one connection inside a transaction. */
export type Queryable = Pick<pg.Pool, "query">;

pg.types.setTypeParser(pg.types.builtins.INT8, Number);

const STANDBY = "this server is a standby";
const LEFT_BEHIND = "this server was left behind";

async function standing(
  client: Pick<pg.ClientBase, "query">,
): Promise<{ standby: boolean; timeline: number }> {
  const { rows } = await client.query<{ standby: boolean; timeline: number }>(
    // A promoted server's last checkpoint is of the timeline before until the next one, minutes later: the log it writes tells at once.
    `select pg_is_in_recovery() as standby, case
       when pg_is_in_recovery() then (select timeline_id from pg_control_checkpoint())
       else ('x' || left(pg_walfile_name(pg_current_wal_lsn()), 8))::bit(32)::int
     end as timeline`,
  );
  return rows[0] ?? { standby: true, timeline: 0 };
}

/**
 * The addresses of one database and its standbys: connections go to the one that is written to, and when it fails to the next. Which one that is
 * is asked of each new connection, so that all processes come to the same by themselves.
 */
export class Servers {
  readonly all: readonly string[];
  private at = 0;
  /** The highest timeline seen: a server of an earlier one was left behind when another was promoted, whatever it says of itself. */
  private timeline = 0;

  /** @param urls one address, or several with spaces or commas between them. */
  constructor(urls: string) {
    this.all = urls.split(/[\s,]+/).filter(Boolean);
  }

  get several(): boolean {
    return this.all.length > 1;
  }
  get url(): string {
    return this.all[this.at] ?? "";
  }

  /** A connection to `url` failed: the next one is tried, unless another failure has said so already. */
  failed(url: string): void {
    if (this.several && url === this.url) this.at = (this.at + 1) % this.all.length;
  }

  /** @throws where what was connected to is not the one that is written to. */
  async check(client: Pick<pg.ClientBase, "query">, url: string): Promise<void> {
    if (!this.several) return;
    const { standby, timeline } = await standing(client);
    if (standby || timeline < this.timeline) {
      this.failed(url);
      throw new Error(standby ? STANDBY : LEFT_BEHIND);
    }
    this.timeline = timeline;
  }
}

/**
 * The address that is written to, of a database and its standbys.
 *
 * @throws where none of them is.
 */
export async function writtenTo(urls: string): Promise<string> {
  const servers = new Servers(urls);
  if (!servers.several) return servers.url;
  const answers = await Promise.all(
    servers.all.map(async (url) => {
      const client = new pg.Client({ connectionString: url, connectionTimeoutMillis: 3_000 });
      client.on("error", () => {});
      try {
        await client.connect();
        return { url, ...(await standing(client)), why: "" };
      } catch (error) {
        const why = error instanceof Error ? error.message : String(error);
        return { url, standby: true, timeline: 0, why };
      } finally {
        await client.end().catch(() => {});
      }
    }),
  );
  // One that was left behind when another was promoted is no standby either: the others know better.
  const newest = Math.max(...answers.map(({ timeline }) => timeline));
  const written = answers.find(({ standby, timeline }) => !standby && timeline === newest);
  if (written) return written.url;
  const said = answers.map(
    ({ url, standby, why }) => `${new URL(url).host}: ${why || (standby ? STANDBY : LEFT_BEHIND)}`,
  );
  throw new Error(`None of the databases can be written to. ${said.join("; ")}.`);
}

/** The same addresses, the one that is written to first: whoever starts begins there, whichever of the others is gone. */
export async function writtenFirst(urls: string): Promise<string> {
  const first = await writtenTo(urls);
  return [first, ...new Servers(urls).all.filter((url) => url !== first)].join(" ");
}

/** A client that goes where the servers say when it is made. */
const clientOf = (servers: Servers): typeof pg.Client =>
  class extends pg.Client {
    private readonly to: string;
    constructor(options: pg.ClientConfig) {
      const to = servers.url;
      super({ ...options, connectionString: to });
      this.to = to;
    }
    override connect(): Promise<pg.Client>;
    override connect(done: (error: Error | null) => void): void;
    override connect(done?: (error: Error | null) => void): Promise<pg.Client> | void {
      const connecting = super
        .connect()
        .then(() => servers.check(this, this.to))
        .catch((error: unknown) => {
          servers.failed(this.to);
          // Connected, and not wanted: the pool forgets it without ending it.
          void this.end().catch(() => {});
          throw error;
        });
      if (!done) return connecting.then(() => this);
      connecting.then(
        () => done(null),
        (error: Error) => done(error),
      );
    }
  };

/**
 * A pool that outlives a database restart: broken connections are dropped, the next query opens a new one.
 *
 * @param urls of the database, and of its standbys where it has any.
 */
export function openPool(urls: string, onError: (error: Error) => void): Pool {
  const servers = new Servers(urls);
  const pool = new pg.Pool({
    ...(servers.several ? { Client: clientOf(servers) } : { connectionString: servers.url }),
    max: 10,
    // A process that is busy for seconds hears its clock before its sockets: what was long connected would count as too late.
    connectionTimeoutMillis: 10_000,
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
export const inTransaction = <T>(pool: Pool, work: (client: Queryable) => Promise<T>): Promise<T> =>
  within(pool, "begin", work);

/** Reads several things as they stood at one moment: what goes from one to the other meanwhile is found in one of them, and not in both. */
export const inSnapshot = <T>(pool: Pool, read: (client: Queryable) => Promise<T>): Promise<T> =>
  within(pool, "begin isolation level repeatable read, read only", read);

async function within<T>(pool: Pool, begin: string, work: (client: Queryable) => Promise<T>): Promise<T> {
  const client = await pool.connect();
  let broken: Error | undefined;
  try {
    await client.query(begin);
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
