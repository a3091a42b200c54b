import { openDB, type IDBPDatabase } from "idb";
import type { Fact } from "~core/job";

/** A fact that has been said here and not yet acknowledged by the server. */
export interface Waiting {
  /** Order of saying. */
  n?: number;
  job: number;
  fact: Fact;
  /** Why the server will not have it; it stays until somebody sets it aside. */
  refused?: string;
}

export interface OutboxState {
  waiting: Waiting[];
  /** Acknowledged, but perhaps not yet in what the page was loaded with. */
  sent: Waiting[];
  away: boolean;
  signedOut: boolean;
}

const EMPTY: OutboxState = { waiting: [], sent: [], away: false, signedOut: false };
const STORE = "waiting";
const RETRY = 1_000;

/**
 * Facts are kept in the browser first and sent in order, once, when the server answers. The id is made here, so a doubtful
 * sending can be repeated: the server keeps the first.
 */
export class Outbox {
  private state = EMPTY;
  private readonly listeners = new Set<() => void>();
  private database: Promise<IDBPDatabase> | null = null;
  private busy = false;
  private stopped = false;
  private timer: ReturnType<typeof setTimeout> | undefined;

  /** Once per page: reads what an earlier page left. */
  start(): void {
    if (this.database) return;
    this.database = openDB("yard-key", 1, {
      upgrade(db) {
        db.createObjectStore(STORE, { keyPath: "n", autoIncrement: true });
      },
    });
    void this.database
      .then((db) => db.getAll(STORE) as Promise<Waiting[]>)
      .then((kept) => {
        this.set({
          waiting: [...kept, ...this.state.waiting.filter(({ n }) => !kept.some((k) => k.n === n))],
        });
        void this.flush();
      });
    window.addEventListener("online", () => void this.flush());
  }

  /** Lets go of the browser's store; what waits stays in it for the next page. */
  async stop(): Promise<void> {
    clearTimeout(this.timer);
    this.stopped = true;
    (await this.database)?.close();
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly now = (): OutboxState => this.state;
  readonly onServer = (): OutboxState => EMPTY;

  /** Shows the fact at once; resolves when it is safely in the browser's store. */
  async say(job: number, fact: Fact): Promise<void> {
    this.start();
    const entry: Waiting = { job, fact };
    this.set({ waiting: [...this.state.waiting, entry] });
    const db = await this.database;
    if (db) entry.n = (await db.add(STORE, { job, fact })) as number;
    void this.flush();
  }

  async setAside(entry: Waiting): Promise<void> {
    await this.drop(entry);
    void this.flush();
  }

  async flush(): Promise<void> {
    if (this.busy) return;
    this.busy = true;
    clearTimeout(this.timer);
    try {
      for (;;) {
        const next = this.state.waiting.find(({ refused, n }) => refused === undefined && n !== undefined);
        if (!next) break;
        const answer = await this.send(next);
        if (this.stopped) break;
        if (answer === "away") {
          this.timer = setTimeout(() => void this.flush(), RETRY);
          break;
        }
        if (answer === "signed out") break;
        if (answer === "stored") {
          await this.drop(next);
          this.set({ sent: [...this.state.sent.slice(-200), next] });
        } else {
          next.refused = answer.refused;
          this.set({ waiting: [...this.state.waiting] });
        }
      }
    } finally {
      this.busy = false;
    }
  }

  private async send({
    job,
    fact,
  }: Waiting): Promise<"stored" | "away" | "signed out" | { refused: string }> {
    const response = await fetch(`/jobs/${job}/facts`, {
      method: "POST",
      headers: { "Content-Type": "application/json", Accept: "application/json" },
      body: JSON.stringify([fact]),
      signal: AbortSignal.timeout(10_000),
    }).catch(() => null);
    const away = !response || response.status >= 500;
    const signedOut = response?.status === 401;
    this.set({ away, signedOut });
    if (away) return "away";
    if (signedOut) return "signed out";
    if (response.ok) return "stored";
    const answer = (await response.json().catch(() => ({}))) as { problem?: string };
    return { refused: answer.problem ?? "the server would not take it" };
  }

  private async drop(entry: Waiting): Promise<void> {
    const db = await this.database;
    if (db && entry.n !== undefined) await db.delete(STORE, entry.n);
    this.set({ waiting: this.state.waiting.filter((other) => other !== entry) });
  }

  private set(change: Partial<OutboxState>): void {
    this.state = { ...this.state, ...change };
    for (const listener of this.listeners) listener();
  }
}

export const outbox = new Outbox();
