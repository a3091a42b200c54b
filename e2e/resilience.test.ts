import { readFileSync } from "node:fs";
import { afterAll, beforeAll, describe, expect, it } from "@jest/globals";
import { Key, Person, journey } from "./browser";
import { openShop, type Shop } from "./shop";
import { READINGS } from "./steps";
import { up } from "../bin/serve";

let shop: Shop;
let mira: Person;

beforeAll(async () => {
  shop = await openShop();
  mira = await Person.sitDown({ keeps: true });
  await mira.sitsAs(shop, "Mira K.", shop.url);
  // What opens pages with the server gone comes a moment after the first page.
  await mira.until("return navigator.serviceWorker.ready.then(() => true)", Boolean);
}, 90_000);
afterAll(async () => {
  await mira.leave();
  await shop.close();
});

const waiting = "return Number(document.querySelector('[data-waiting]')?.dataset.waiting ?? 0)";

/** The readings of a job's chain as the database has them. */
const stored = async (number: number): Promise<{ id: string; typed: string }[]> => {
  const { rows } = await shop.pool.query<{ id: string; typed: string }>(
    `select f.id, f.body ->> 'typed' as typed from fact f join job j on j.id = f.job
      where j.number = $1 and f.kind = 'reading' and f.body ->> 'chain' = 'd1-clearance' order by f.seq`,
    [number],
  );
  return rows;
};

/** kill -9 of the whole database server; whoever keeps the cluster starts it again. */
async function killDatabase(): Promise<void> {
  const { rows } = await shop.pool.query<{ data_directory: string }>("show data_directory");
  const pid = Number(readFileSync(`${rows[0]?.data_directory}/postmaster.pid`, "utf8").split("\n")[0]);
  process.kill(pid, "SIGKILL");
}

/** Sits down at a pack's readings as found. @returns how many there are. */
async function atReadings(): Promise<number> {
  await mira.go(`${shop.url}/jobs/1030/choose/d1-clearance?show=found`);
  await mira.until("return document.activeElement.id", (id) => id === "reading-value");
  await mira.until(waiting, (n) => n === 0);
  return mira.driver.executeScript<number>(READINGS);
}

describe("nothing acknowledged is lost, nothing is doubled", () => {
  it(
    "the web server is killed while readings are taken; the page goes on and recovers by itself",
    () =>
      journey("web-killed", [mira], async () => {
        await mira.go(`${shop.url}/jobs/1030/choose/d1-clearance`);
        await mira.until("return document.activeElement.id", (id) => id === "reading-value");
        await mira.keys("1.41", Key.ENTER);
        await mira.until(READINGS, (n) => n === 1);
        await mira.until(waiting, (n) => n === 0);
        await shop.webs[0]?.kill();
        await mira.keys("1.42", Key.ENTER, "1.43", Key.ENTER);
        await mira.until(READINGS, (n) => n === 3);
        await mira.read("2 waiting, server away");
        // The tabs of the page go on working.
        await mira.keys("i");
        await mira.see("//h2[.='Trial clearance']");
        await mira.keys("a");
        await mira.until(READINGS, (n) => n === 3);
        await shop.webs[0]?.start();
        await mira.until(waiting, (n) => n === 0, 15_000);
        await mira.until(READINGS, (n) => n === 3);
        expect((await stored(1030)).map(({ typed }) => typed)).toEqual(["1.41", "1.42", "1.43"]);
      }),
    60_000,
  );

  it(
    "the database is killed while readings are taken",
    () =>
      journey("database-killed", [mira], async () => {
        const before = await atReadings();
        await mira.keys("1.44", Key.ENTER);
        await mira.until(waiting, (n) => n === 0);
        await killDatabase();
        await mira.keys("1.45", Key.ENTER, "1.46", Key.ENTER);
        await mira.until(READINGS, (n) => n === before + 3);
        await up(`${shop.url}/healthz`, 30_000);
        await mira.until(waiting, (n) => n === 0, 30_000);
        await mira.until(READINGS, (n) => n === before + 3);
        const all = await stored(1030);
        expect(all.slice(-3).map(({ typed }) => typed)).toEqual(["1.44", "1.45", "1.46"]);
        expect(new Set(all.map(({ id }) => id)).size).toBe(before + 3);
      }),
    90_000,
  );

  it(
    "the browser is reloaded with readings still waiting: they are sent once the server is back",
    () =>
      journey("reloaded", [mira], async () => {
        const before = await atReadings();
        await shop.webs[0]?.kill();
        await mira.keys("1.47", Key.ENTER);
        await mira.until(waiting, (n) => n === 1);
        await mira.driver
          .navigate()
          .refresh()
          .catch(() => {});
        await shop.webs[0]?.start();
        await mira.go(`${shop.url}/jobs/1030/choose/d1-clearance?show=found`);
        await mira.until(READINGS, (n) => n === before + 1);
        await mira.until(waiting, (n) => n === 0, 15_000);
        expect((await stored(1030)).at(-1)?.typed).toBe("1.47");
      }),
    60_000,
  );

  it(
    "a page opened while the server is away says so and comes by itself",
    () =>
      journey("away", [mira], async () => {
        await atReadings();
        await shop.webs[0]?.kill();
        await mira.press("//a[.='Shelf']");
        await mira.read("server is away");
        await shop.webs[0]?.start();
        await mira.see("//h1[contains(., 'Shelf')]", 15_000);
      }),
    60_000,
  );

  it(
    "what a page asks for besides itself leaves it standing while the server is away",
    () =>
      journey("asked-away", [mira], async () => {
        await mira.go(`${shop.url}/jobs/1030`);
        await mira.ready();
        await mira.press("//summary[contains(., 'Correct what was seen')]");
        await shop.webs[0]?.kill();
        await mira.press("//label[contains(., 'late body: two ribs')]");
        await mira.read("The shop’s server is away: what changes is told when it answers.");
        await mira.press("//button[.='Leave it']");
        await mira.see("//h2[.='The customer’s words']");
        await mira.press("//button[contains(., 'Find')]");
        await mira.keys("check balls");
        await mira.see("//li[@aria-selected='true'][contains(., 'in this version')]");
        await mira.keys(Key.ESCAPE);
        await shop.webs[0]?.start();
      }),
    60_000,
  );

  it("the same reading sent twice, and by two at once, is stored once; what can never be stored is refused for good", async () => {
    const { value } = await mira.driver.manage().getCookie("yard-key");
    const headers = {
      cookie: `yard-key=${value}`,
      origin: shop.url,
      "content-type": "application/json",
      accept: "application/json",
    };
    const fact = {
      id: "0190d3c0-0000-7000-8000-000000000001",
      at: "2026-05-04T08:00:00.000Z",
      by: "Mira K.",
      body: {
        kind: "reading",
        chain: "d3-clearance",
        phase: "found",
        fit: 0,
        method: "air and dial",
        unit: "mm",
        resolution: 10000,
        state: { soak: "soaked", facings: "run-in" },
        reading: { kind: "single", value: 1_250_000 },
      },
    };
    const send = (body: unknown, job = 1030): Promise<Response> =>
      fetch(`${shop.url}/jobs/${job}/facts`, { method: "POST", headers, body: JSON.stringify(body) });
    const answers = await Promise.all([send([fact]), send([fact]), send([fact, fact])]);
    expect(answers.map(({ status }) => status)).toEqual([200, 200, 200]);
    const { rowCount } = await shop.pool.query("select from fact where id = $1", [fact.id]);
    expect(rowCount).toBe(1);
    expect((await send([{ ...fact, id: "no" }])).status).toBe(400);
    expect((await send([{ ...fact, body: { ...fact.body, phase: "later" } }])).status).toBe(400);
    expect((await send([fact], 999_999)).status).toBe(404);
    expect((await send("nonsense")).status).toBe(400);
  });
});
