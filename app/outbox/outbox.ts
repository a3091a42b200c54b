import { openDB, type IDBPDatabase } from "idb";
import { keepSaid } from "~/offline/kept";
import type { Fact } from "~core/fact";

/** A fact that has been said here and not yet acknowledged by the server. */
export interface Waiting {
  /** Order of saying; absent until the browser's store has it. */
  n?: number;
  job: number;
  /** The job's id: numbers are given anew in another database. Absent from what an older page left. */
  jobId?: string;
  fact: Fact;
  /** The picture the fact tells of: the server gets it first. */
  picture?: Blob;
  /** Proves who said it, when somebody else sends it. */
  voucher?: string;
  /** The browser would not keep it: it is sent from this page, and is lost with it. */
  unkept?: true;
  /** Why the server will not have it; it stays until somebody sets it aside. */
  refused?: string;
  /** How often the server broke over it while it was well otherwise. */
  failed?: number;
  /** Somebody has set it aside: it is kept to be read, and not sent. */
  aside?: true;
}

export interface OutboxState {
  waiting: Waiting[];
  /** Kept to be read, and sent no more. */
  aside: Waiting[];
  /** Acknowledged, but perhaps not yet in what the page was loaded with. */
  sent: Waiting[];
  away: boolean;
  signedOut: boolean;
}

const EMPTY: OutboxState = { waiting: [], aside: [], sent: [], away: false, signedOut: false };
const STORE = "waiting";
/** How long to wait before the next try after so many that failed, in ms: double each time, up to the longest. */
const waitAfter = (failed: number, longest: number): number => Math.min(1_000 * 2 ** (failed - 1), longest);
const LONGEST_AWAY = 15_000;
const LONGEST_FAILING = 60_000;
const HEALTH_PATIENCE = 3_000;
/** So many facts of a job go in one request: a tablet that was away a weekend has hundreds. */
const AT_ONCE = 50;
const FACT_PATIENCE = 10_000;
const PICTURE_PATIENCE = 60_000;

/** `broke`: the server is well and cannot take this one. */
type Answer = "stored" | "away" | "broke" | "signed out" | { refused: string };

/**
 * Facts are kept in the browser first and sent in order, once, when the server answers. The id is made here, so a doubtful
 * sending can be repeated: the server keeps the first. All tabs share what is kept; one of them sends at a time. A fact the server breaks
 * over holds up its own job and no other.
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
  /** How often in a row the server was away. */
  private missed = 0;
  /** When the facts of a job are next tried, after the server broke over one. */
  private readonly heldUntil = new Map<number, number>();

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
    { picture, voucher, jobId }: Pick<Waiting, "picture" | "voucher" | "jobId"> = {},
  ): Promise<void> {
    this.start();
    const entry: Waiting = {
      job,
      fact,
      ...(jobId ? { jobId } : {}),
      ...(picture ? { picture } : {}),
      ...(voucher ? { voucher } : {}),
    };
    this.set({ waiting: [...this.state.waiting, entry] });
    const db = await this.database;
    // Whoever looks at what is shown of it comes first.
    await Promise.resolve();
    const n = await db?.add(STORE, { ...entry }).catch(() => undefined);
    if (n === undefined) {
      this.replace(entry, { ...entry, unkept: true });
    } else entry.n = n as number;
    this.tellOthers("more");
    void this.flush();
  }

  /** Sends it no more, so that what waits behind it goes on; it stays in this browser to be read, tried again or thrown away. */
  async setAside(entry: Waiting): Promise<void> {
    await this.change(entry, { ...entry, aside: true });
    this.heldUntil.delete(entry.job);
    void this.flush();
  }

  /** Takes up again what was set aside, under the same id. */
  async tryAgain(entry: Waiting): Promise<void> {
    const anew = { ...entry };
    delete anew.refused;
    delete anew.failed;
    delete anew.aside;
    await this.change(entry, anew);
    void this.flush();
  }

  async throwAway(entry: Waiting): Promise<void> {
    await this.drop([entry]);
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
        ({ refused, n, unkept, job }) =>
          refused === undefined && (n !== undefined || unkept) && !this.isHeld(job),
      );
      if (this.stopped) return;
      if (!next) return this.againForHeld();
      const [answer, those] = await this.sendFrom(next);
      if (this.stopped) return;
      if (answer === "away") return this.again(waitAfter(++this.missed, LONGEST_AWAY));
      this.missed = 0;
      if (answer === "signed out") return;
      if (answer === "broke") {
        const failed = (next.failed ?? 0) + 1;
        this.heldUntil.set(next.job, Date.now() + waitAfter(failed, LONGEST_FAILING));
        this.replace(next, { ...next, failed });
        continue;
      }
      if (answer === "stored") {
        await keepSaid(those);
        await this.drop(those, { sent: [...this.state.sent.slice(-200), ...those] });
      } else {
        await this.refuse(next, answer.refused);
      }
    }
  }

  private isHeld(job: number): boolean {
    return (this.heldUntil.get(job) ?? 0) > Date.now();
  }

  private again(ms: number): void {
    this.timer = setTimeout(() => void this.flush(), ms);
  }

  /** Comes back when the first job that is held may be tried. */
  private againForHeld(): void {
    const held = this.state.waiting.flatMap(({ job, refused }) =>
      refused === undefined && this.isHeld(job) ? [this.heldUntil.get(job) ?? 0] : [],
    );
    if (held.length > 0) this.again(Math.max(50, Math.min(...held) - Date.now()));
  }

  /** Takes up what the browser's store has, which other tabs add to and take from. */
  private async look(): Promise<void> {
    const db = await this.database;
    if (!db || this.stopped) return;
    const kept = (await db.getAll(STORE)) as Waiting[];
    const known = new Map([...this.state.waiting, ...this.state.aside].map((entry) => [entry.n, entry]));
    const merged = kept.map((entry) => {
      const had = known.get(entry.n);
      return had && had.refused === entry.refused && had.aside === entry.aside ? had : entry;
    });
    const unwritten = this.state.waiting.filter(({ n }) => n === undefined);
    // Written between the reading and now: this page knows it, the reading did not yet.
    const last = kept.at(-1)?.n ?? 0;
    const newer = this.state.waiting.filter(({ n }) => n !== undefined && n > last);
    this.set({
      waiting: [...merged.filter(({ aside }) => !aside), ...newer, ...unwritten],
      aside: merged.filter(({ aside }) => aside),
    });
  }

  /** Sends this one and what can go with it; by itself where the server will not have them together. */
  private async sendFrom(next: Waiting): Promise<[Answer, Waiting[]]> {
    const those = this.together(next);
    const answer = await this.sendAtOnce(those);
    if (those.length === 1 || answer === "stored" || answer === "away" || answer === "signed out")
      return [answer, those];
    return [await this.sendAtOnce([next]), [next]];
  }

  /** The next ones of the same job, said by the same person, up to the first with a picture. */
  private together(next: Waiting): Waiting[] {
    if (next.picture) return [next];
    const those: Waiting[] = [];
    for (const entry of this.state.waiting.slice(this.state.waiting.indexOf(next))) {
      if (entry.job !== next.job || entry.refused !== undefined) continue;
      if (entry.picture || entry.voucher !== next.voucher || entry.jobId !== next.jobId) break;
      if (entry.n === undefined && !entry.unkept) break;
      those.push(entry);
      if (those.length === AT_ONCE) break;
    }
    return those;
  }

  private async sendAtOnce(those: readonly Waiting[]): Promise<Answer> {
    const [entry] = those;
    if (!entry) return "stored";
    const { job, fact, picture } = entry;
    if (picture && fact.body.kind === "photo") {
      const path = `/jobs/${job}/photos/${fact.body.photo}`;
      const stored = await this.post(path, picture, PICTURE_PATIENCE, entry);
      if (stored !== "stored") return stored;
    }
    return this.post(
      `/jobs/${job}/facts`,
      JSON.stringify(those.map((one) => one.fact)),
      FACT_PATIENCE,
      entry,
    );
  }

  private async post(
    path: string,
    body: string | Blob,
    patience: number,
    { voucher, jobId }: Waiting,
  ): Promise<Answer> {
    const type = typeof body === "string" ? "application/json" : body.type || "application/octet-stream";
    const response = await this.send(path, {
      method: "POST",
      headers: {
        "Content-Type": type,
        Accept: "application/json",
        ...(voucher ? { "X-Said-By": voucher } : {}),
        ...(jobId ? { "X-Job": jobId } : {}),
      },
      body,
      signal: AbortSignal.timeout(patience),
    }).catch(() => null);
    const broke = response?.status === 500 && (await this.isWell());
    const away = !broke && (!response || response.status >= 500);
    const signedOut = response?.status === 401;
    this.set({ away, signedOut });
    if (broke) return "broke";
    if (away) return "away";
    if (signedOut) return "signed out";
    if (response.ok) return "stored";
    const answer = (await response.json().catch(() => ({}))) as { problem?: string };
    return { refused: answer.problem ?? "the server would not take it" };
  }

  /** Whether the server answers otherwise, its database too. */
  private async isWell(): Promise<boolean> {
    const signal = AbortSignal.timeout(HEALTH_PATIENCE);
    const answer = await this.send("/healthz", { signal }).catch(() => null);
    return answer?.ok === true;
  }

  private async refuse(entry: Waiting, why: string): Promise<void> {
    await this.change(entry, { ...entry, refused: why });
  }

  /** Has the browser's store and this page know an entry as `by`, in the place it had. */
  private async change(entry: Waiting, by: Waiting): Promise<void> {
    const db = await this.database;
    if (this.stopped) return;
    if (entry.n !== undefined) await db?.put(STORE, by);
    const all = [...this.state.waiting, ...this.state.aside].map((other) => (other === entry ? by : other));
    // The order of saying; what the browser would not keep has no number and stays behind.
    all.sort((a, b) => (a.n ?? Infinity) - (b.n ?? Infinity) || 0);
    this.set({ waiting: all.filter(({ aside }) => !aside), aside: all.filter(({ aside }) => aside) });
    this.tellOthers("changed");
  }

  private replace(entry: Waiting, by: Waiting): void {
    this.set({ waiting: this.state.waiting.map((other) => (other === entry ? by : other)) });
  }

  private async drop(those: readonly Waiting[], also: Partial<OutboxState> = {}): Promise<void> {
    const db = await this.database;
    // A page that is going leaves them to the next one, which sends them again under the same ids.
    if (this.stopped) return;
    if (db) {
      const taken = db.transaction(STORE, "readwrite");
      for (const { n } of those) if (n !== undefined) void taken.store.delete(n);
      await taken.done;
    }
    const gone = new Set(those);
    const others = (list: Waiting[]): Waiting[] => list.filter((other) => !gone.has(other));
    this.set({ ...also, waiting: others(this.state.waiting), aside: others(this.state.aside) });
    this.tellOthers("fewer");
  }

  /** Other tabs look again. A page that is going has nobody to tell: they look when they are next used. */
  private tellOthers(what: "more" | "changed" | "fewer"): void {
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
