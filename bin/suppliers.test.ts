import { afterAll, afterEach, beforeAll, describe, expect, it } from "@jest/globals";
import { once } from "node:events";
import type { AddressInfo } from "node:net";
import { createServer, type Server, type ServerResponse } from "node:http";
import { setTimeout as pause } from "node:timers/promises";
import pino from "pino";
import { v7 as newId } from "uuid";
import { addressesOf, Suppliers } from "../app/suppliers/suppliers";
import { dunlinDocument } from "../core/testing/dunlin";
import { supplierServer } from "../standins/supplier/http";
import { Trade, WELL } from "../standins/supplier/trade";
import { addBook } from "../store/books";
import { openPool, type Pool } from "../store/database";
import { openJob } from "../store/jobs";
import { arrive, order, purchase, supplyOf, type NewLine, type Purchase } from "../store/orders";
import { testDatabase } from "../store/testing";
import { stuckOrders } from "../store/suppliers";
import { webDatabase } from "../store/web-role";

const NAME = "Mudflat Gears";
const by = "Ines R.";
const log = pino({ level: "silent" });

let db: Awaited<ReturnType<typeof testDatabase>>;
let book: string;
let web: Pool;
let trade: Trade;
let server: Server;
let url: string;
const running: Suppliers[] = [];

beforeAll(async () => {
  db = await testDatabase();
  // As in the shop: under the account of the web processes.
  web = openPool(await webDatabase(db.url), () => {});
  const added = await addBook(db.pool, dunlinDocument());
  if (!added.ok) throw new Error(JSON.stringify(added.problems));
  book = added.id;
  trade = new Trade(
    new Map([
      ["A", { days: 2 }],
      ["B", { days: 9 }],
    ]),
    () => new Date(),
  );
  server = supplierServer(trade).listen(0, "127.0.0.1");
  await once(server, "listening");
  url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterEach(async () => {
  trade.behaviour = WELL;
  for (const one of running.splice(0)) await one.stop();
  await db.pool.query("delete from pgboss.job");
});
afterAll(async () => {
  server.close();
  server.closeAllConnections();
  await web.end();
  await db.drop();
});

/** A web process’s part that speaks with suppliers, not at work yet. */
function suppliers(at = url): Suppliers {
  const one = new Suppliers({
    pool: web,
    log,
    urls: addressesOf(`${NAME}=${at}`),
    retryAfter: 1,
    askEvery: 1,
  });
  running.push(one);
  return one;
}
const line = (part: string, pieces: number, supplier = NAME): NewLine => ({
  supplier,
  part,
  name: `part ${part}`,
  pieces,
  cents: 100 * pieces,
  days: 3,
});
async function ordered(to: Suppliers, ...lines: NewLine[]): Promise<{ job: string; number: number }> {
  const job = newId();
  await openJob(db.pool, { id: job, bookId: book, facts: [], author: { id: null, name: by } });
  await order(web, { id: newId(), job, by, lines, shelf: [] }, to.tell);
  return { job, number: (await supplyOf(web, job)).coming[0]?.order ?? 0 };
}
const at = async (number: number): Promise<Purchase> => {
  const one = await purchase(web, number);
  if (!one) throw new Error(`no order ${number}`);
  return one;
};
async function until(is: () => Promise<boolean>): Promise<void> {
  for (let i = 0; i < 300; i++) {
    if (await is()) return;
    await pause(50);
  }
  throw new Error("it never came");
}
const word = (number: number, what: string) => until(async () => (await at(number)).word?.what === what);
const words = async (number: number): Promise<string[]> =>
  (
    await db.pool.query<{ what: string }>(
      "select w.what from purchase_word w join purchase p on p.id = w.purchase where p.number = $1 order by w.at, w.id",
      [number],
    )
  ).rows.map(({ what }) => what);

describe("an order to a supplier with a computer", () => {
  it("is sent, and says by when it is here by the supplier’s word; what it does not have is wanted again", async () => {
    const one = suppliers();
    const { job, number } = await ordered(one, line("A", 4), line("B", 1), line("C", 2));
    expect((await at(number)).word?.what).toBe("waiting");
    await one.start();
    await word(number, "taken");
    const { word: said, lines } = await at(number);
    expect(said?.note).toMatch(/^S-\d+$/);
    expect(lines.map(({ part, pieces }) => [part, pieces])).toEqual([
      ["A", 4],
      ["B", 1],
      ["C", 0],
    ]);
    expect(lines[2]?.events).toMatchObject([
      { what: "cancelled", pieces: 2, note: "not in our list", by: NAME },
    ]);
    const days = (due: string | null | undefined): number =>
      Math.round((Date.parse(due ?? "") - Date.now()) / 86_400_000);
    expect(days(lines[1]?.due)).toBeGreaterThanOrEqual(8);
    expect((await supplyOf(web, job)).coming.map(({ part }) => part)).toEqual(["A", "B"]);
  });

  it("on paper goes to nobody", async () => {
    const one = suppliers();
    const { number } = await ordered(one, line("A", 1, "Causeway Supply"));
    await one.start();
    await pause(300);
    expect((await at(number)).word).toBeNull();
  });

  it("waits while the supplier is away, says so once, and is taken once when it is back", async () => {
    trade.behaviour = { ...WELL, down: true };
    const before = trade.count;
    const one = suppliers();
    const { number } = await ordered(one, line("A", 1));
    await one.start();
    await word(number, "failing");
    expect((await at(number)).word?.note).toBe("it answers 503");
    expect((await stuckOrders(web)).map((stuck) => stuck.number)).toContain(number);
    await pause(3_500);
    trade.behaviour = WELL;
    await word(number, "taken");
    expect(await words(number)).toEqual(["waiting", "failing", "taken"]);
    expect(trade.count - before).toBe(1);
    expect((await stuckOrders(web)).map((stuck) => stuck.number)).not.toContain(number);
  });

  it("is there once though its answers were lost, and two processes send what there is to send", async () => {
    trade.behaviour = { ...WELL, losesAnswers: true };
    const before = trade.count;
    const [one, other] = [suppliers(), suppliers()];
    const numbers = await Promise.all([1, 2, 3, 4].map(() => ordered(one, line("A", 1))));
    await Promise.all([one.start(), other.start()]);
    for (const { number } of numbers) await word(number, "failing");
    trade.behaviour = WELL;
    for (const { number } of numbers) await word(number, "taken");
    expect(trade.count - before).toBe(4);
    for (const { number } of numbers)
      expect((await words(number)).filter((what) => what === "taken")).toHaveLength(1);
  });

  it("is sent by another process where one ended in the middle of it", async () => {
    trade.behaviour = { ...WELL, slow: 9_000 };
    const one = suppliers();
    const { number } = await ordered(one, line("A", 1));
    await one.start();
    const active = async (): Promise<boolean> =>
      (await db.pool.query("select from pgboss.job where state = 'active'")).rowCount === 1;
    await until(active);
    await one.stop();
    trade.behaviour = WELL;
    // It was killed: nobody says that it is not at it any more. Some seconds later it counts as lost.
    await db.pool.query("update pgboss.job set state = 'active', started_on = now() - interval '1 minute'");
    await suppliers().start();
    await word(number, "taken");
  });

  it.each<[string, (response: ServerResponse) => void, RegExp]>([
    ["too long", (response) => response.writeHead(200).end(Buffer.alloc(3_000_000, 32)), /too long/],
    ["from elsewhere", (response) => response.writeHead(307, { location: url }).end(), /cannot be reached/],
    ["no JSON", (response) => response.writeHead(200).end("<html>"), /no answer to an order/],
  ])("waits where the answer is %s", async (_what, answer, why) => {
    const odd = createServer((request, response) => {
      request.resume();
      answer(response);
    }).listen(0, "127.0.0.1");
    await once(odd, "listening");
    try {
      const one = suppliers(`http://127.0.0.1:${(odd.address() as AddressInfo).port}`);
      const { number } = await ordered(one, line("A", 1));
      await one.start();
      await word(number, "failing");
      expect((await at(number)).word?.note).toMatch(why);
      await one.stop();
    } finally {
      odd.close();
      odd.closeAllConnections();
    }
  });

  it("that is turned away is open again, with the reason", async () => {
    trade.behaviour = { ...WELL, turnsAway: "the account is closed" };
    const one = suppliers();
    const { job, number } = await ordered(one, line("A", 2));
    await one.start();
    await word(number, "refused");
    expect((await at(number)).word?.note).toBe("the account is closed");
    expect((await supplyOf(web, job)).coming).toEqual([]);
  });

  it("says how many are on the road and when the rest comes, as often as that changes", async () => {
    const one = suppliers();
    const { number } = await ordered(one, line("A", 4));
    await one.start();
    await word(number, "taken");
    const [first] = (await at(number)).lines;
    trade.behaviour = { ...WELL, sent: { A: 3 }, late: 5 };
    await until(async () => (await at(number)).lines[0]?.sent === 3);
    const [later] = (await at(number)).lines;
    expect(Date.parse(later?.due ?? "") - Date.parse(first?.due ?? "")).toBe(5 * 86_400_000);
    const news = async (): Promise<number> =>
      (await db.pool.query("select from purchase_news where line = $1", [later?.line])).rowCount ?? 0;
    const so = await news();
    await pause(2_500);
    expect(await news()).toBe(so);
  });

  it("that is cancelled too late comes after all", async () => {
    const one = suppliers();
    const { job, number } = await ordered(one, line("A", 4));
    const [open] = (await at(number)).lines;
    // Cancelled before the order was even sent: the supplier is told after it.
    const cancel = (pieces: number) =>
      arrive(web, { id: newId(), line: open?.line ?? "", what: "cancelled", pieces, note: "", by }, one.tell);
    await cancel(1);
    await one.start();
    await word(number, "taken");
    trade.behaviour = { ...WELL, sent: { A: 3 } };
    await pause(1_500);
    await cancel(2);
    expect((await supplyOf(web, job)).coming[0]?.pieces).toBe(1);
    await until(async () => (await at(number)).lines[0]?.pieces === 3);
    const [line3] = (await at(number)).lines;
    expect(line3?.events.at(-1)).toMatchObject({
      what: "comes after all",
      pieces: 2,
      note: "3 are on the road already",
      by: NAME,
    });
  });
});

it("an address that is none is told at once", () => {
  expect(() => addressesOf("Mudflat Gears")).toThrow(/no name=address/);
  expect(() => addressesOf("Mudflat Gears=nowhere")).toThrow(/no name=address/);
  expect([...addressesOf(" A=http://a:1/ ; ;B=https://b")]).toEqual([
    ["A", "http://a:1"],
    ["B", "https://b"],
  ]);
});
