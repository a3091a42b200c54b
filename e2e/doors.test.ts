// A bench that was left, a browser with many tabs, a server that is away when somebody signs out, and what is meant for another database.
import { once } from "node:events";
import { request } from "node:http";
import { afterAll, beforeAll, expect, it } from "@jest/globals";
import { Key, Person, journey } from "./browser";
import { openShop, type Shop } from "./shop";
import { READINGS, WAITING } from "./steps";
import { up } from "../bin/serve";

let shop: Shop;
let mira: Person;

beforeAll(async () => {
  shop = await openShop();
  mira = await Person.sitDown({ keeps: true });
}, 90_000);
afterAll(async () => {
  await mira.leave();
  await shop.close();
});

const PACK = "/jobs/1030/choose/d1-clearance?show=found";
const AT_FIELD = "return document.activeElement.id";
const cookieOf = (person: Person): Promise<string> =>
  person.driver
    .manage()
    .getCookies()
    .then((all) => all.map(({ name, value }) => `${name}=${value}`).join("; "));
const asked = (path: string, cookie: string): Promise<Response> =>
  fetch(`${shop.url}${path}`, { headers: { cookie, accept: "application/json" }, redirect: "manual" });

it(
  "a bench that was left asks who is there: nothing typed is lost, no key acts, the server answers nothing meanwhile",
  () =>
    journey("left", [mira], async () => {
      await mira.sitsAs(shop, "Mira K.", shop.url);
      await mira.go(`${shop.url}${PACK}`);
      await mira.until(AT_FIELD, (id) => id === "reading-value");
      await mira.keys("1.3");
      const before = await cookieOf(mira);
      expect((await asked("/jobs/1030/facts?after=0", before)).status).toBe(200);
      await mira.driver.executeScript(
        "localStorage.setItem('yard-key-active', String(Date.now() - 31 * 60000))",
      );
      await mira.see("//dialog[@open]//h1[.='Who is at the bench?']");
      expect((await asked("/jobs/1030/facts?after=0", before)).status).toBe(401);
      expect(await mira.driver.executeScript("return document.activeElement.name")).toBe("pin");
      // Escape does not open it, and what is typed beside the field goes nowhere.
      await mira.keys(Key.ESCAPE, Key.ESCAPE);
      await mira.driver.executeScript("document.activeElement.blur()");
      await mira.keys("t", "x", "9");
      await mira.see("//dialog[@open]");
      await mira.see("//dialog//label[contains(., 'Tomas B.')]");
      await mira.driver.executeScript("document.querySelector('dialog[open] [name=pin]').focus()");
      await mira.keys("1111", Key.ENTER);
      await mira.read("That is not the PIN. Try again.");
      // One touch and the PIN.
      await mira.press("//dialog//label[contains(., 'Tomas B.')]");
      await mira.keys("2580", Key.ENTER);
      await mira.gone("//dialog[@open]");
      await mira.see("//header//a[contains(., 'Tomas B.')]");
      expect(await mira.driver.executeScript("return location.pathname + location.search")).toBe(PACK);
      await mira.until("return document.querySelector('#reading-value').value", (value) => value === "1.3");
      await (await mira.see("//input[@id='reading-value']")).sendKeys("1", Key.ENTER);
      await mira.until(READINGS, (n) => n === 1);
      await mira.until(WAITING, (n) => n === 0);
      const { rows } = await shop.pool.query<{ by: string; typed: string }>(
        `select by_name as by, body ->> 'typed' as typed from fact f join job j on j.id = f.job
          where j.number = 1030 and kind = 'reading' order by f.seq desc`,
      );
      expect(rows).toEqual([{ by: "Tomas B.", typed: "1.31" }]);
      // The session of before is over, not only locked.
      expect((await asked("/jobs/1030/facts?after=0", before)).status).toBe(401);
    }),
  60_000,
);

it(
  "a bench that is locked is not opened by loading the page anew",
  () =>
    journey("left-reload", [mira], async () => {
      await mira.sitsAs(shop, "Mira K.", shop.url);
      await mira.driver.executeScript(
        "localStorage.setItem('yard-key-active', String(Date.now() - 31 * 60000))",
      );
      await mira.see("//dialog[@open]");
      await mira.go(`${shop.url}${PACK}`);
      await mira.read("Measure, choose, build, prove.");
      await mira.signIn(shop.url, "Mira K.");
      await mira.ready();
      expect(await mira.driver.executeScript("return document.querySelector('dialog[open]')")).toBeNull();
    }),
  60_000,
);

it(
  "two tabs are left and found together; with the server gone meanwhile nothing is lost, and the next try opens both for good",
  () =>
    journey("left-in-two-tabs", [mira], async () => {
      await mira.sitsAs(shop, "Mira K.", shop.url);
      await mira.go(`${shop.url}${PACK}`);
      await mira.until(AT_FIELD, (id) => id === "reading-value");
      await mira.keys("1.2");
      const first = await mira.driver.getWindowHandle();
      await mira.driver.switchTo().newWindow("tab");
      const second = await mira.driver.getWindowHandle();
      await mira.go(`${shop.url}/jobs/1029`);
      await mira.ready();
      await mira.driver.executeScript(
        "localStorage.setItem('yard-key-active', String(Date.now() - 31 * 60000))",
      );
      await mira.see("//dialog[@open]//h1");
      await mira.driver.switchTo().window(first);
      await mira.see("//dialog[@open]//h1");
      await mira.keys(Key.ENTER);
      await mira.read("Type your PIN or password.");
      await shop.webs[0]?.kill();
      await mira.keys("2580", Key.ENTER);
      await mira.read("The server is away. Nothing on this page is lost");
      await shop.webs[0]?.start();
      await mira.keys("2580", Key.ENTER);
      await mira.gone("//dialog[@open]");
      await mira.driver.switchTo().window(second);
      await mira.gone("//dialog[@open]");
      // Longer than either tab looks whether it was left.
      await mira.driver.sleep(6_000);
      expect((await asked("/jobs/1030/facts?after=0", await cookieOf(mira))).status).toBe(200);
      await mira.driver.close();
      await mira.driver.switchTo().window(first);
      expect(
        await mira.driver.executeScript(
          "return [location.pathname, document.querySelector('#reading-value').value]",
        ),
      ).toEqual(["/jobs/1030/choose/d1-clearance", "1.2"]);
    }),
  90_000,
);

it(
  "eight tabs of one browser: the last one stores as the first, and an earlier one shows it when it is seen again",
  () =>
    journey("tabs", [mira], async () => {
      await mira.sitsAs(shop, "Mira K.", shop.url);
      await mira.go(`${shop.url}${PACK}`);
      await mira.until(AT_FIELD, (id) => id === "reading-value");
      const here = await mira.driver.executeScript<number>(READINGS);
      const first = await mira.driver.getWindowHandle();
      for (let i = 0; i < 7; i++) {
        await mira.driver.switchTo().newWindow("tab");
        await mira.go(`${shop.url}${PACK}`);
        await mira.until(AT_FIELD, (id) => id === "reading-value");
      }
      await mira.keys("1.29", Key.ENTER);
      await mira.until(READINGS, (n) => n === here + 1);
      await mira.until(WAITING, (n) => n === 0);
      for (const tab of await mira.driver.getAllWindowHandles()) {
        if (tab === first) continue;
        await mira.driver.switchTo().window(tab);
        await mira.driver.close();
      }
      await mira.driver.switchTo().window(first);
      await mira.until(READINGS, (n) => n === here + 1);
    }),
  90_000,
);

it(
  "signing out while the server is away leaves nothing readable here, and ends the session when it is back",
  () =>
    journey("out-while-away", [mira], async () => {
      await mira.sitsAs(shop, "Mira K.", shop.url);
      await mira.go(`${shop.url}/jobs/1030`);
      await mira.ready();
      await mira.until("return navigator.serviceWorker.ready.then(() => true)", Boolean);
      const session = await cookieOf(mira);
      await shop.webs[0]?.kill();
      await mira.press("//button[@aria-label='Sign out']");
      await mira.read("The shop’s server is away");
      await mira.go(`${shop.url}/jobs/1030`);
      await mira.read("The shop’s server is away");
      expect(await mira.driver.executeScript("return document.body.innerText")).not.toMatch(
        /1030|Mira|Dunlin/,
      );
      await shop.webs[0]?.start();
      await up(`${shop.url}/healthz`);
      await mira.go(`${shop.url}/jobs/1030`);
      await mira.read("Measure, choose, build, prove.");
      // Also for whoever kept the cookie of before.
      expect((await asked("/jobs/1030/facts?after=0", session)).status).toBe(401);
      await mira.signIn(shop.url, "Mira K.");
      await mira.go(`${shop.url}/jobs/1030`);
      await mira.read("1030");
    }),
  90_000,
);

it("what was said of a job by another id is refused, whatever its number", async () => {
  const cookie = await shop.cookieOf("Mira K.");
  const { rows } = await shop.pool.query<{ id: string }>("select id from job where number = 1030");
  const said = (meant: string): Promise<Response> =>
    fetch(`${shop.url}/jobs/1030/facts`, {
      method: "POST",
      headers: { cookie, origin: shop.url, "content-type": "application/json", "x-job": meant },
      body: JSON.stringify([
        {
          id: crypto.randomUUID(),
          at: new Date().toISOString(),
          by: "Mira K.",
          body: { kind: "holder", name: "Mira K.", staff: null },
        },
      ]),
    });
  const other = await said(crypto.randomUUID());
  expect([other.status, await other.text()]).toEqual([
    409,
    expect.stringMatching(/a job that this database does not have/),
  ]);
  const own = await said(rows[0]?.id ?? "");
  expect([400, 200]).toContain(own.status);
  expect(await own.text()).not.toMatch(/does not have under its number/);
});

it("answers to its own names only, and lets nothing of the shop be kept in a cache", async () => {
  const { port } = new URL(shop.url);
  const answered = async (host: string): Promise<number | undefined> => {
    const asking = request({ port, host: "127.0.0.1", path: "/sign-in", headers: { host } });
    asking.end();
    const [response] = (await once(asking, "response")) as [{ statusCode?: number; resume: () => void }];
    response.resume();
    return response.statusCode;
  };
  expect(await answered(`127.0.0.1:${port}`)).toBe(200);
  expect(await answered("a-strangers-page.example")).toBe(421);
  const cookie = await shop.cookieOf("Mira K.");
  for (const path of [
    "/jobs/1030",
    "/jobs/1030.data",
    "/jobs/1030/facts?after=0",
    "/jobs/1030/measure.csv",
    "/house.data",
  ])
    expect([path, (await asked(path, cookie)).headers.get("cache-control")]).toEqual([
      path,
      expect.stringMatching(/^no-store/),
    ]);
});
