// Does one thing to a shop over and over until it is stopped.
import { connect } from "node:net";
import { setTimeout as pause } from "node:timers/promises";
import type { Trouble } from "./strangers-of";

export interface Aimed {
  trouble: Trouble;
  url: string;
  /** Of a builder and of a lead. */
  cookie: string;
  lead: string;
  /** Whose PIN is guessed. */
  somebody: string;
}

const { trouble, url, cookie, lead, somebody } = JSON.parse(process.env.AIM ?? "{}") as Aimed;

const post = (path: string, body: string): Promise<Response> =>
  fetch(`${url}${path}`, {
    method: "POST",
    redirect: "manual",
    headers: { origin: url, "content-type": "application/x-www-form-urlencoded" },
    body,
  });

/** Does something over and over, so many at a time. */
function again(atATime: number, what: () => Promise<Response>): void {
  for (let i = 0; i < atATime; i++)
    void (async () => {
      for (;;) {
        const answer = await what().catch(() => pause(10));
        await answer?.arrayBuffer().catch(() => {});
      }
    })();
}

/** Opens so many connections, says something on each, and holds them. */
function open(count: number, words: string): void {
  for (let i = 0; i < count; i++) {
    const socket = connect(Number(new URL(url).port), "127.0.0.1");
    socket.on("error", () => {});
    socket.write(words);
  }
}

/** @returns the beginning of a form that is sent by hand. */
const form = (path: string, rest: string): string =>
  `POST ${path} HTTP/1.1\r\nHost: localhost\r\nOrigin: ${url}\r\n${rest}`;

const TRIED: Record<Trouble, () => void | Promise<void>> = {
  "two hundred connections that say nothing": () =>
    open(200, "POST /first-run HTTP/1.1\r\nHost: localhost\r\nContent-Le"),
  "sixty sign-in forms that never end": () =>
    open(60, form("/sign-in", "Content-Length: 15000\r\n\r\nstaff=")),
  "forms of two million fields": () => {
    const body = "a=1&".repeat(2_000_000);
    again(4, () => post("/sign-in", body));
  },
  "forms as long as the door takes": () => again(8, () => post("/sign-in", "a=1&".repeat(1_990))),
  "bodies without an end": () =>
    open(40, form("/sign-in", `Transfer-Encoding: chunked\r\n\r\n${"ffff\r\n".padEnd(65_541, "x")}`)),
  "guessing a PIN, sixteen at a time": () =>
    again(16, () => post("/sign-in", `staff=${somebody}&pin=${Math.random()}`)),
  "guessing for people who are not there": () =>
    again(16, () => post("/sign-in", `staff=${crypto.randomUUID()}&pin=2580`)),
  "the door asked for, sixteen at a time": () => again(16, () => fetch(`${url}/sign-in`)),
  "a guest exports a job, four at a time": () =>
    again(4, () => fetch(`${url}/jobs/1030/export.json`, { headers: { cookie } })),
  "a guest prints sheets, four at a time": () =>
    again(4, () => fetch(`${url}/jobs/1010/sheet.pdf`, { headers: { cookie } })),
  "a lead imports a book, two at a time": async () => {
    const list = await (await fetch(`${url}/books`, { headers: { cookie } })).text();
    const unit = /\/books\/([\w-]+)/.exec(list)?.[1] ?? "";
    const exported = await fetch(`${url}/books/${unit}/export.json`, { headers: { cookie } });
    const book = await exported.text();
    again(2, () => {
      const body = new FormData();
      body.set("file", new File([book], "book.json", { type: "application/json" }));
      return fetch(`${url}/books`, { method: "POST", body, headers: { cookie: lead, origin: url } });
    });
  },
};

await TRIED[trouble]();
await pause(300);
process.send?.("begun");
