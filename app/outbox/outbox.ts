import { openDB, type IDBPDatabase } from "idb";
import { keepSaid } from "~/offline/kept";
import type { Fact } from "~core/fact";

/** A fact that has been said here and not yet acknowledged by the server. */
export interface Waiting {
  /** Order of saying; absent until the browser's store has it. */
  n?: number;
  job: number;
  fact: Fact;
  /** The picture the fact tells of: the server gets it first. */
  picture?: Blob;
  /** Proves who said it, when somebody else sends it. */
  voucher?: string;
  /** The browser would not keep it: it is sent from this page, and is lost with it. */
  unkept?: true;
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
const FACT_PATIENCE = 10_000;
const PICTURE_PATIENCE = 60_000;

type Answer = "stored" | "away" | "signed out" | { refused: string };

/**
 * Facts are kept in the browser first and sent in order, once, when the server answers. The id is made here, so a doubtful
 * sending can be repeated: the server keeps the first. All tabs share what is kept; one of them sends at a time.
 */
export class Outbox {
  private state = EMPTY;
  private readonly listeners = new Set<() => void>();
  /** Null where the browser keeps nothing: private windows, a full disk, a store that is broken. */
  private database: Promise<IDBPDatabase | null> | null = null;
  private others: BroadcastChannel | null = null;
  private busy = false;
  private stopped = false;
  private timer: ReturnType<typeof setTimeout> | undefined;

  /**
   * @param name of the browser's store; all tabs of a browser share one.
   * @param send how the server is reached.
   */
  constructor(
    private readonly name = "yard-key",
    private readonly send: typeof fetch = (...request) => fetch(...request),
  ) {}

  /** Once per page: reads what an earlier page left. */
  start(): void {
    if (this.database) return;
    this.database = opened(this.name);
    void this.look().then(() => this.flush());
    window.addEventListener("online", () => void this.flush());
    // Somebody may have signed in again in another tab.
    window.addEventListener("focus", () => void this.flush());
    if (typeof BroadcastChannel !== "undefined") {
      this.others = new BroadcastChannel(`${this.name}-outbox`);
      this.others.onmessage = () => void this.look().then(() => this.flush());
      (this.others as { unref?: () => void }).unref?.();
    }
    // A browser may throw away what it was not asked to keep, when a machine runs full.
    void globalThis.navigator?.storage?.persist?.().catch(() => false);
  }

  /** Lets go of the browser's store; what waits stays in it for the next page. */
  async stop(): Promise<void> {
    clearTimeout(this.timer);
    this.stopped = true;
    this.others?.close();
    (await this.database)?.close();
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly now = (): OutboxState => this.state;
  readonly onServer = (): OutboxState => EMPTY;

  /** Shows the fact at once; resolves when it is safely in the browser's store. */
  async say(
    job: number,
    fact: Fact,
    { picture, voucher }: Pick<Waiting, "picture" | "voucher"> = {},
  ): Promise<void> {
    this.start();
    const entry: Waiting = { job, fact, ...(picture ? { picture } : {}), ...(voucher ? { voucher } : {}) };
    this.set({ waiting: [...this.state.waiting, entry] });
    const db = await this.database;
    const n = await db?.add(STORE, { ...entry }).catch(() => undefined);
    if (n === undefined) {
      this.replace(entry, { ...entry, unkept: true });
    } else entry.n = n as number;
    this.tellOthers("more");
    void this.flush();
  }

  async setAside(entry: Waiting): Promise<void> {
    await this.drop(entry);
    void this.flush();
  }

  async flush(): Promise<void> {
    if (this.busy || this.stopped) return;
    this.busy = true;
    clearTimeout(this.timer);
    try {
      await alone(`${this.name}-outbox`, () => this.sendAll());
    } finally {
      this.busy = false;
    }
  }

  private async sendAll(): Promise<void> {
    // Another tab may have sent some of them while this one waited for its turn.
    await this.look();
    for (;;) {
      const next = this.state.waiting.find(
        ({ refused, n, unkept }) => refused === undefined && (n !== undefined || unkept),
      );
      if (!next || this.stopped) return;
      const answer = await this.sendOne(next);
      if (this.stopped) return;
      if (answer === "away") {
        this.timer = setTimeout(() => void this.flush(), RETRY);
        return;
      }
      if (answer === "signed out") return;
      if (answer === "stored") {
        await keepSaid(next.job, next.fact);
        await this.drop(next, { sent: [...this.state.sent.slice(-200), next] });
      } else {
        await this.refuse(next, answer.refused);
      }
    }
  }

  /** Takes up what the browser's store has, which other tabs add to and take from. */
  private async look(): Promise<void> {
    const db = await this.database;
    if (!db || this.stopped) return;
    const kept = (await db.getAll(STORE)) as Waiting[];
    const known = new Map(this.state.waiting.map((entry) => [entry.n, entry]));
    const merged = kept.map((entry) => {
      const had = known.get(entry.n);
      return had && had.refused === entry.refused ? had : entry;
    });
    const unwritten = this.state.waiting.filter(({ n }) => n === undefined);
    // Written between the reading and now: this page knows it, the reading did not yet.
    const last = kept.at(-1)?.n ?? 0;
    const newer = this.state.waiting.filter(({ n }) => n !== undefined && n > last);
    this.set({ waiting: [...merged, ...newer, ...unwritten] });
  }

  private async sendOne({ job, fact, picture, voucher }: Waiting): Promise<Answer> {
    if (picture && fact.body.kind === "photo") {
      const stored = await this.post(`/jobs/${job}/photos/${fact.body.photo}`, picture, PICTURE_PATIENCE);
      if (stored !== "stored") return stored;
    }
    return this.post(`/jobs/${job}/facts`, JSON.stringify([fact]), FACT_PATIENCE, voucher);
  }

  private async post(path: string, body: string | Blob, patience: number, voucher?: string): Promise<Answer> {
    const type = typeof body === "string" ? "application/json" : body.type || "application/octet-stream";
    const response = await this.send(path, {
      method: "POST",
      headers: {
        "Content-Type": type,
        Accept: "application/json",
        ...(voucher ? { "X-Said-By": voucher } : {}),
      },
      body,
      signal: AbortSignal.timeout(patience),
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

  private async refuse(entry: Waiting, why: string): Promise<void> {
    const refused = { ...entry, refused: why };
    const db = await this.database;
    if (this.stopped) return;
    if (entry.n !== undefined) await db?.put(STORE, refused);
    this.replace(entry, refused);
    this.tellOthers("refused");
  }

  private replace(entry: Waiting, by: Waiting): void {
    this.set({ waiting: this.state.waiting.map((other) => (other === entry ? by : other)) });
  }

  private async drop(entry: Waiting, also: Partial<OutboxState> = {}): Promise<void> {
    const db = await this.database;
    // A page that is going leaves it to the next one, which sends it again under the same id.
    if (this.stopped) return;
    if (db && entry.n !== undefined) await db.delete(STORE, entry.n);
    this.set({ ...also, waiting: this.state.waiting.filter((other) => other !== entry) });
    this.tellOthers("fewer");
  }

  /** Other tabs look again. A page that is going has nobody to tell: they look when they are next used. */
  private tellOthers(what: "more" | "refused" | "fewer"): void {
    if (!this.stopped) this.others?.postMessage(what);
  }

  /** Tells whoever listens, once, and only where something is otherwise than before: all pages are drawn from this. */
  private set(change: Partial<OutboxState>): void {
    const news = Object.entries(change).filter(
      ([key, value]) => !same(this.state[key as keyof OutboxState], value),
    );
    if (news.length === 0) return;
    this.state = { ...this.state, ...Object.fromEntries(news) };
    for (const listener of this.listeners) listener();
  }
}

/** The same value, or a list of the very same entries. */
const same = (a: unknown, b: unknown): boolean =>
  Array.isArray(a) && Array.isArray(b) ? a.length === b.length && a.every((one, i) => one === b[i]) : a === b;

/** The browser's store; null where it refuses to have one, which some do by throwing at once. */
async function opened(name: string): Promise<IDBPDatabase | null> {
  try {
    return await openDB(name, 1, {
      upgrade(db) {
        db.createObjectStore(STORE, { keyPath: "n", autoIncrement: true });
      },
    });
  } catch {
    return null;
  }
}

/** One tab at a time, where the browser can say whose turn it is; without that the server still keeps each fact once. */
async function alone(name: string, work: () => Promise<void>): Promise<void> {
  const locks = globalThis.navigator?.locks;
  if (locks) await locks.request(name, work);
  else await work();
}

export const outbox = new Outbox();
