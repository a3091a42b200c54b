import pg from "pg";
import { Servers, type Queryable } from "./database";

const CHANNEL = "yard_key_fact";
const AGAIN_MS = 500;

/** Tells every page that something of a job has changed, once what is done here is. */
export const tellOf = (db: Queryable, job: string): Promise<unknown> =>
  db.query("select pg_notify($1, $2)", [CHANNEL, job]);

/** Told which job has more facts; null where it may be any: nobody listened for a while. */
export type Told = (job: string | null) => void;

/** Tells whoever watches which job facts were added to, by any web process. One connection per process, whatever the number of pages. */
export class Live {
  private readonly watchers = new Set<Told>();
  private client: pg.Client | null = null;
  private stopped = false;

  private readonly servers: Servers;

  constructor(urls: string) {
    this.servers = new Servers(urls);
  }

  /** Listens from now on; a lost connection is made again by itself. */
  async start(): Promise<void> {
    const { url } = this.servers;
    const client = new pg.Client({
      connectionString: url,
      application_name: "yard-key live",
      keepAlive: true,
    });
    client.on("notification", ({ payload = "" }) => this.tell(payload));
    client.on("error", () => this.lost(client));
    client.on("end", () => this.lost(client));
    try {
      await client.connect();
      await this.servers.check(client, url);
      await client.query(`listen ${CHANNEL}`);
      this.client = client;
      // What was said while nobody listened is not told again: every page looks once.
      this.tell(null);
    } catch {
      this.servers.failed(url);
      this.lost(client);
    }
  }

  /** @returns how to stop watching. */
  watch(told: Told): () => void {
    this.watchers.add(told);
    return () => void this.watchers.delete(told);
  }

  async stop(): Promise<void> {
    this.stopped = true;
    await this.client?.end().catch(() => {});
  }

  private tell(job: string | null): void {
    for (const told of this.watchers) told(job);
  }

  private lost(client: pg.Client): void {
    if (this.stopped || (this.client !== null && this.client !== client)) return;
    this.client = null;
    client.removeAllListeners();
    client.on("error", () => {});
    client.end().catch(() => {});
    setTimeout(() => void (this.stopped || this.start()), AGAIN_MS).unref();
  }
}
