import { ANY } from "./any";
import { outbox } from "~/outbox/outbox";

/** Which job has more facts; null where it may be any. */
type Told = (job: string | null) => void;

const NAME = "yard-key-live";
const AGAIN_MS = 5_000;

/**
 * What the shop's server says as it happens, once per browser: of all its tabs that are seen, one holds the stream and tells the others. A
 * browser opens six connections to a server and no more; a stream in each of six tabs would leave none for anything else.
 */
export class SharedLive {
  private readonly watchers = new Set<Told>();
  private channel: BroadcastChannel | null = null;
  /** Ends the waiting for the stream, or the stream. */
  private leave: AbortController | null = null;

  /** @returns how to stop watching. */
  watch(told: Told): () => void {
    if (this.watchers.size === 0) this.begin();
    this.watchers.add(told);
    return () => {
      this.watchers.delete(told);
      if (this.watchers.size === 0) this.end();
    };
  }

  private begin(): void {
    this.channel = new BroadcastChannel(NAME);
    this.channel.onmessage = ({ data }: MessageEvent<string>) => this.tell(data);
    document.addEventListener("visibilitychange", this.seen);
    this.seen();
  }

  private end(): void {
    document.removeEventListener("visibilitychange", this.seen);
    this.letGo();
    this.channel?.close();
    this.channel = null;
  }

  private letGo(): void {
    this.leave?.abort();
    this.leave = null;
  }

  /** A tab that nobody sees listens to nothing, and looks when it is seen again. */
  private readonly seen = (): void => {
    if (document.visibilityState === "hidden") return this.letGo();
    if (this.leave) return;
    this.leave = new AbortController();
    const { signal } = this.leave;
    this.tell(ANY);
    // Without locks, as over plain http, each tab has its own stream.
    if (!navigator.locks) return void this.listen(signal);
    navigator.locks.request(NAME, { signal }, () => this.listen(signal)).catch(() => {});
  };

  /** Holds the stream until this tab lets it go. */
  private listen(signal: AbortSignal): Promise<void> {
    return new Promise((ended) => {
      let events: EventSource;
      let timer: ReturnType<typeof setTimeout> | undefined;
      const connect = (): void => {
        events = new EventSource("/live");
        // The first message says that somebody listens: what was missed meanwhile is asked for.
        events.onmessage = ({ data }: MessageEvent<string>) => {
          this.tell(data);
          this.channel?.postMessage(data);
        };
        events.onerror = () => {
          // The browser tries again by itself after a lost connection, and never after a refusal, as when somebody must sign in again.
          if (events.readyState === EventSource.CLOSED) timer = setTimeout(connect, AGAIN_MS);
        };
      };
      connect();
      signal.addEventListener("abort", () => {
        clearTimeout(timer);
        events.close();
        ended();
      });
    });
  }

  private tell(data: string): void {
    // The server answers: what waits to be sent need not wait for its next try.
    if (data === ANY) void outbox.flush();
    for (const told of this.watchers) told(data === ANY ? null : data);
  }
}

export const live = new SharedLive();
