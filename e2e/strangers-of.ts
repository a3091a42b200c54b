import { fork } from "node:child_process";
import { once } from "node:events";
import { setTimeout as pause } from "node:timers/promises";
import type { Shop } from "./shop";
import type { Aimed } from "./strangers-at";

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
const PAGES = ["/", "/jobs/1030", "/jobs/1030/choose/d1-clearance", "/jobs/1030/facts?after=0"] as const;

/** What is tried, as `strangers-at.ts` knows it; the last ones by guests who mean no harm. */
export const TROUBLE = [
  "two hundred connections that say nothing",
  "sixty sign-in forms that never end",
  "forms of two million fields",
  "forms as long as the door takes",
  "bodies without an end",
  "guessing a PIN, sixteen at a time",
  "guessing for people who are not there",
  "the door asked for, sixteen at a time",
  "a guest exports a job, four at a time",
  "a guest prints sheets, four at a time",
  "a lead imports a book, two at a time",
] as const;
export type Trouble = (typeof TROUBLE)[number];

/**
 * A shop at work, first in peace and then while strangers, and guests who mean no harm, do to it what once made it stand still; each in a bounded
 * burst, by a process of its own on this machine.
 */
export async function strangers(shop: Shop, tell: (one: Tried) => void): Promise<Tried[]> {
  const cookie = await shop.cookieOf("Mira K.");
  const { rows } = await shop.pool.query<{ id: string }>("select id from staff where name = 'Tomas B.'");
  const aim: Omit<Aimed, "trouble"> = {
    url: shop.url,
    cookie,
    lead: await shop.cookieOf("Edda L."),
    somebody: rows[0]?.id ?? "",
  };
  const all: Tried[] = [];
  const during = async (what: string, trouble?: Trouble): Promise<void> => {
    const child = trouble
      ? fork(new URL("./strangers-at.ts", import.meta.url), {
          execArgv: ["--import", "tsx"],
          env: { ...process.env, AIM: JSON.stringify({ ...aim, trouble }) },
        })
      : null;
    if (child) await once(child, "message");
    const one = { what, ...(await atWork(shop, cookie)) };
    child?.kill("SIGKILL");
    tell(one);
    all.push(one);
    await pause(1_000);
  };
  // Before it is measured everything has been asked for once.
  await atWork(shop, cookie);
  await during("in peace");
  for (const one of TROUBLE) await during(one, one);
  return all;
}

/** What a bench asks for, one after another. */
async function atWork(shop: Shop, cookie: string): Promise<Omit<Tried, "what">> {
  const took: number[] = [];
  let failed = 0;
  for (let round = 0; round < ROUNDS; round++)
    for (const page of PAGES) {
      const begun = performance.now();
      const answer = await fetch(`${shop.url}${page}`, {
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
