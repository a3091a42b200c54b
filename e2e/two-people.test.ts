import { afterAll, beforeAll, describe, expect, it } from "@jest/globals";
import { Key, Person, journey } from "./browser";
import { openPack, READINGS } from "./steps";
import { openShop, type Shop } from "./shop";

let shop: Shop;
let mira: Person;
let tomas: Person;

beforeAll(async () => {
  // Two web processes on one database, each builder on another.
  shop = await openShop({ webs: 2 });
  mira = await Person.sitDown();
  tomas = await Person.sitDown();
  await mira.sitsAs(shop, "Mira K.", shop.webs[0]?.url ?? "");
  await tomas.sitsAs(shop, "Tomas B.", shop.webs[1]?.url ?? "");
}, 90_000);
afterAll(async () => {
  await mira.leave();
  await tomas.leave();
  await shop.close();
});

/** Brings a fresh job's D1 to the candidates, with the last ring of its size picked. */
async function toTheLastRing(person: Person, base: string): Promise<void> {
  await person.go(`${base}/jobs/new`);
  await person.ready();
  await (await person.see("//input[@name='vehicle']")).sendKeys("Teal van");
  await (await person.see("//textarea")).sendKeys("No third gear.");
  await person.press("//label[contains(., 'Marram Dunlin')]");
  await person.press("//label[contains(., 'late body')]");
  await person.press("//label[contains(., 'first plate')]");
  await person.press("//label[contains(., 'front drums')]");
  await person.press("//button[.='Open the job']");
  await openPack(person, "D1");
  await person.press("//label[contains(., 'two notches')]");
  await person.press("//button[.='Keep']");
  await person.read("Ring found:");
  await person.press("//a[contains(., 'Trial')]");
  await person.see("//h2[.='Trial clearance']");
  for (const [i, text] of ["1.38", "1.37", "1.38"].entries()) {
    await (await person.see("//input[@id='reading-value']")).sendKeys(text, Key.ENTER);
    await person.until(READINGS, (n) => n === i + 1);
  }
  await person.press("//a[contains(., 'Next: choose its size')]");
  await person.press("//tr[contains(., 'last on shelf') and contains(., '1.90 mm')]//input");
  await (await person.see("//input[@name='removed']")).sendKeys("1.757");
}

describe("two at once", () => {
  it(
    "reach for the last ring: one gets it, the other is told",
    () =>
      journey("last-ring", [mira, tomas], async () => {
        await toTheLastRing(mira, shop.webs[0]?.url ?? "");
        await toTheLastRing(tomas, shop.webs[1]?.url ?? "");
        const fit = "//button[starts-with(., 'Fit ')]";
        const [one, two] = [await mira.see(fit), await tomas.see(fit)];
        await Promise.all([one.click(), two.click()]);
        const outcome =
          "return document.querySelector('h2')?.innerText === undefined ? '' : /just taken/.test(document.body.innerText) ? 'told' : /as built/i.test([...document.querySelectorAll('h2')].map((h) => h.innerText).join()) ? 'fitted' : ''";
        for (const person of [mira, tomas]) await person.until(outcome, Boolean);
        const outcomes = await Promise.all(
          [mira, tomas].map((person) => person.driver.executeScript<string>(outcome)),
        );
        expect(outcomes.sort()).toEqual(["fitted", "told"]);
        const { rows } = await shop.pool.query<{ on_hand: number }>(
          "select on_hand from stock where part = 'MD-2190' and piece is null",
        );
        expect(rows[0]?.on_hand).toBe(0);
      }),
    90_000,
  );

  it("see each other's readings when the page is opened, whichever process serves it", () =>
    journey("shared", [mira, tomas], async () => {
      await mira.go(`${shop.webs[0]?.url ?? ""}/jobs/1030/choose/d3-clearance`);
      await mira.until("return document.activeElement.id", (id) => id === "reading-value");
      await mira.keys("1.20", Key.ENTER);
      await mira.until("return document.querySelector('[data-waiting]') === null", Boolean);
      await tomas.go(`${shop.webs[1]?.url ?? ""}/jobs/1030/choose/d3-clearance`);
      await tomas.until(READINGS, (n) => n === 1);
      await tomas.press("//ul[@aria-label='Readings']//button");
      await tomas.read("Mira K.");
    }));

  it("correct what was seen and take a job over: the stacks and the list follow, on the other process too", () =>
    journey("correct", [mira, tomas], async () => {
      await mira.go(`${shop.webs[0]?.url ?? ""}/jobs/1028`);
      await mira.ready();
      await mira.press("//summary[contains(., 'Correct what was seen')]");
      await mira.press("//label[contains(., 'early body: one rib')]");
      await mira.read("friction d1-friction count 4 → 3");
      await mira.press("//button[.='Correct it']");
      await mira.press("//label[.='front drums']");
      await mira.press("//label[contains(., '✓')][contains(., 'full')]");
      await mira.read("taken out");
      // Less work on a unit that is open is a lead's to decide: Edda says it, and the page follows.
      await mira.read("a lead decides that less is done to it");
      expect(await mira.driver.findElements({ xpath: "//button[.='Correct it']" })).toEqual([]);
      const scope = { kind: "scope", depths: ["front drums"] };
      const at = new Date().toISOString();
      const said = await fetch(`${shop.url}/jobs/1028/facts`, {
        method: "POST",
        headers: {
          cookie: await shop.cookieOf("Edda L."),
          origin: shop.url,
          "content-type": "application/json",
        },
        body: JSON.stringify([{ id: crypto.randomUUID(), at, by: "Edda L.", body: scope }]),
      });
      expect(said.status).toBe(200);
      await mira.press("//button[.='Leave it']");
      await mira.press("//button[.='Take it over']");
      await mira.until(
        "return document.querySelectorAll('nav[aria-label^=\"The unit\"] a.border-dashed').length",
        (n) => n === 3,
      );
      await mira.gone("//button[.='Take it over']");
      await mira.until("return document.querySelector('[data-waiting]') === null", Boolean);
      await tomas.go(`${shop.webs[1]?.url ?? ""}/jobs/1028/choose/d1-clearance?show=found`);
      await tomas.read("front drums");
      await tomas.see("//*[local-name()='svg'][contains(@aria-label, '3 frictions, 3 steels')]");
      await tomas.go(`${shop.webs[1]?.url ?? ""}/?holder=Mira%20K.`);
      await tomas.see("//li[contains(., '1028')][contains(., 'front drums')]");
    }));

  it("a session ended on one process is over on the other", async () => {
    const { value } = await mira.driver.manage().getCookie("yard-key");
    const visit = (): Promise<Response> =>
      fetch(`${shop.webs[1]?.url}/shelf`, { headers: { cookie: `yard-key=${value}` }, redirect: "manual" });
    expect((await visit()).status).toBe(200);
    await mira.press("//button[@aria-label='Sign out']");
    await mira.read("Who is at the bench?");
    expect((await visit()).status).toBe(302);
  });
});
