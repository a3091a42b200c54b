import { connect, type Socket } from "node:net";
import { setTimeout as pause } from "node:timers/promises";
import type { Shop } from "./shop";

/** What a shop at work waits while something is tried on it. */
export interface Tried {
  what: string;
  /** Milliseconds, of the middle answer and of the slowest. */
  median: number;
  worst: number;
  /** Answers that were no success. */
  failed: number;
}

/** So many times each of a shop's usual requests is made while something is tried. */
const ROUNDS = 12;
const PAGES = ["/jobs", "/jobs/1030", "/jobs/1030/pack/d1-clearance", "/jobs/1030/facts?after=0"] as const;

/**
 * A shop at work, first in peace and then while strangers, and guests who mean no harm, do to it what once made it stand still; each in a bounded
 * burst, all on this machine.
 */
export async function strangers(shop: Shop, tell: (one: Tried) => void): Promise<Tried[]> {
  const cookie = await shop.cookieOf("Mira K.");
  const lead = await shop.cookieOf("Edda L.");
  const all: Tried[] = [];
  const during = async (what: string, trouble?: (until: AbortSignal) => Promise<unknown>): Promise<void> => {
    const end = new AbortController();
    const going = trouble?.(end.signal).catch(() => {});
    await pause(200);
    const measured = await atWork(shop, cookie);
    end.abort();
    await going;
    const one = { what, ...measured };
    tell(one);
    all.push(one);
    await pause(500);
  };
  await atWork(shop, cookie);
  await during("in peace");
  await during("two hundred connections that say nothing", (until) =>
    open(shop, 200, "POST /first-run HTTP/1.1\r\nHost: localhost\r\nContent-Le", until),
  );
  await during("sixty sign-in forms that never end", (until) =>
    open(
      shop,
      60,
      `POST /sign-in HTTP/1.1\r\nHost: localhost\r\nOrigin: ${shop.url}\r\nContent-Length: 15000\r\n\r\nstaff=`,
      until,
    ),
  );
  await during("forms of two million fields", (until) =>
    again(until, 4, () => post(shop, "/sign-in", "a=1&".repeat(2_000_000))),
  );
  await during("forms of sixteen kilobytes of fields", (until) =>
    again(until, 8, () => post(shop, "/sign-in", "a=1&".repeat(3_900))),
  );
  await during("bodies without an end", (until) =>
    open(
      shop,
      40,
      `POST /sign-in HTTP/1.1\r\nHost: localhost\r\nOrigin: ${shop.url}\r\nTransfer-Encoding: chunked\r\n\r\n${"ffff\r\n".padEnd(65_541, "x")}`,
      until,
    ),
  );
  const { rows } = await shop.pool.query<{ id: string }>("select id from staff where name = 'Tomas B.'");
  await during("guessing a PIN, sixteen at a time", (until) =>
    again(until, 16, () => post(shop, "/sign-in", `staff=${rows[0]?.id}&pin=${Math.random()}`)),
  );
  await during("guessing for people who are not there", (until) =>
    again(until, 16, () => post(shop, "/sign-in", `staff=${crypto.randomUUID()}&pin=2580`)),
  );
  await during("the door asked for, sixteen at a time", (until) =>
    again(until, 16, () => fetch(`${shop.url}/sign-in`)),
  );
  await during("a guest exports a job, four at a time", (until) =>
    again(until, 4, () => fetch(`${shop.url}/jobs/1030/export.json`, { headers: { cookie } })),
  );
  await during("a guest prints sheets, four at a time", (until) =>
    again(until, 4, () => fetch(`${shop.url}/jobs/1010/sheet.pdf`, { headers: { cookie } })),
  );
  const book = await (await fetch(`${shop.url}/books/dunlin/export.json`, { headers: { cookie } })).text();
  await during("a lead imports a book, two at a time", (until) =>
    again(until, 2, () => {
      const form = new FormData();
      form.set("file", new File([book], "book.json", { type: "application/json" }));
      return fetch(`${shop.url}/books`, {
        method: "POST",
        body: form,
        headers: { cookie: lead, origin: shop.url },
      });
    }),
  );
  return all;
}

/** What a bench asks for, one after another. */
async function atWork(shop: Shop, cookie: string): Promise<Omit<Tried, "what">> {
  const took: number[] = [];
  let failed = 0;
  for (let round = 0; round < ROUNDS; round++)
    for (const page of PAGES) {
      const begun = performance.now();
      const answer = await fetch(`${shop.url}${page === "/jobs" ? "/" : page}`, {
        headers: { cookie },
        signal: AbortSignal.timeout(30_000),
      }).catch(() => null);
      await answer?.arrayBuffer().catch(() => {});
      if (!answer?.ok) failed++;
      took.push(performance.now() - begun);
    }
  took.sort((a, b) => a - b);
  return { median: took[took.length >> 1] ?? Infinity, worst: took.at(-1) ?? Infinity, failed };
}

const post = (shop: Shop, path: string, body: string): Promise<Response> =>
  fetch(`${shop.url}${path}`, {
    method: "POST",
    redirect: "manual",
    headers: { origin: shop.url, "content-type": "application/x-www-form-urlencoded" },
    body,
  });

/** Does something over and over, so many at a time, until told to end. */
async function again(until: AbortSignal, atATime: number, what: () => Promise<Response>): Promise<void> {
  await Promise.all(
    Array.from({ length: atATime }, async () => {
      while (!until.aborted) {
        const answer = await what().catch(() => null);
        await answer?.arrayBuffer().catch(() => {});
      }
    }),
  );
}

/** Opens so many connections, says something on each, and holds them. */
async function open(shop: Shop, count: number, words: string, until: AbortSignal): Promise<void> {
  const { port } = new URL(shop.url);
  const sockets: Socket[] = [];
  for (let i = 0; i < count; i++) {
    const socket = connect(Number(port), "127.0.0.1");
    socket.on("error", () => {});
    socket.write(words);
    sockets.push(socket);
  }
  await new Promise((done) => until.addEventListener("abort", done));
  for (const socket of sockets) socket.destroy();
}
