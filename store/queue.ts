import PgBoss from "pg-boss";
import type { Pool, Queryable } from "./database";

/** Something to be told to, or asked of, a supplier with a computer. */
export type SupplierTask =
  | { do: "order"; purchase: string }
  | { do: "cancel"; event: string }
  /** How far it is. */
  | { do: "ask"; purchase: string };

const QUEUE = "supplier";

const through = (db: Queryable): PgBoss.Db => ({
  executeSql: (text, values) => db.query(text, values),
});

/**
 * What is to be done later, by whichever web process comes first; kept in the database, so that a process that ends takes nothing with it. What was
 * said to be done is done at least once: whoever is told must know it again by its id.
 */
export class Tasks {
  private readonly boss: PgBoss;

  /**
   * @param retryAfter seconds until something that failed is tried again.
   * @param told what goes wrong with the queue itself: the database is away.
   */
  constructor(
    pool: Pool,
    private readonly retryAfter: number,
    told: (error: unknown) => void,
  ) {
    // Its tables are made by our own migrations: the web processes may make none.
    this.boss = new PgBoss({
      db: through(pool),
      migrate: false,
      schedule: false,
      // Also what a process that ended was at is tried again.
      maintenanceIntervalSeconds: Math.max(1, Math.min(30, retryAfter)),
    });
    this.boss.on("error", told);
  }

  /**
   * @param db the transaction in which what is to be told came about: both are kept, or neither.
   */
  async add(db: Queryable, task: SupplierTask): Promise<void> {
    await this.boss.send(QUEUE, task, { db: through(db), retryDelay: this.retryAfter });
  }

  /**
   * The same for what is done again and again: of several who add it within its interval only one does.
   *
   * @param every seconds between two of them; the first is so far off.
   */
  async addOnce(db: Queryable, task: SupplierTask, of: string, every: number): Promise<void> {
    await this.boss.send(QUEUE, task, {
      db: through(db),
      startAfter: every,
      retryDelay: this.retryAfter,
      singletonKey: of,
      singletonSeconds: every,
    });
  }

  /** Does what there is to do, one after the other, until it is stopped. What throws is tried again. */
  async start(work: (task: SupplierTask) => Promise<void>): Promise<void> {
    await this.boss.start();
    await this.boss.work<SupplierTask>(
      QUEUE,
      { batchSize: 1, pollingIntervalSeconds: Math.min(2, this.retryAfter) },
      async ([job]) => {
        if (job) await work(job.data);
      },
    );
  }

  stop = (): Promise<void> => this.boss.stop({ close: false, graceful: false });
}
