import { afterAll, beforeAll, expect, it } from "@jest/globals";
import { writeFileSync } from "node:fs";
import { resolve } from "node:path";
import { journey, Key, Person } from "./browser";
import { jobOf, OF_BOOK, OF_JOB } from "./said";
import { allSent } from "./steps";
import { FIRST_RUN_CODE, openShop, type Shop } from "./shop";

let shop: Shop;
let edda: Person;
beforeAll(async () => {
  [shop, edda] = await Promise.all([openShop({ empty: true }), Person.sitDown()]);
}, 90_000);
afterAll(async () => {
  await edda.leave();
  await shop.close();
});

/** A hand, and how often it did something: touched, filled a field, typed a figure. */
class Hand {
  acts = 0;
  async press(xpath: string): Promise<void> {
    this.acts++;
    await edda.press(xpath);
  }
  async put(name: string, text: string): Promise<void> {
    this.acts++;
    await (await edda.see(`//main//input[@name='${name}']`)).sendKeys(text);
  }
  async keys(...keys: string[]): Promise<void> {
    this.acts++;
    await edda.keys(...keys);
  }
}

/** Opens every page of a job and of its book: each says something, and none has failed. */
async function readsAll(job: number, unit: string, more: readonly string[] = []): Promise<void> {
  const pages = [
    ...[...OF_JOB, ...more].map((page) => `/jobs/${job}${page}`),
    ...OF_BOOK.map((page) => `/books/${unit}${page}`),
  ];
  const failed: string[] = [];
  for (const page of pages) {
    await edda.go(`${shop.url}${page}`);
    await edda.ready();
    const [says, crashed] = await edda.driver.executeScript<[string, boolean]>(
      "return [document.querySelector('main')?.innerText ?? '', document.querySelector('[data-crashed], [data-error]') !== null]",
    );
    if (says.trim() === "" || crashed || /\b(NaN|undefined)\b|\[object/.test(says)) failed.push(page);
  }
  expect(failed).toEqual([]);
}

it(
  "a new shop writes a unit down, reads a pack, chooses its ring and prints the sheet, in under forty acts",
  () =>
    journey("new-shop", [edda], async () => {
      const hand = new Hand();
      await edda.go(shop.url);
      await edda.read("A new Yard Key");
      await edda.ready();
      await hand.put("code", FIRST_RUN_CODE);
      await hand.put("shop", "Other Quay Gearboxes");
      await hand.put("name", "Edda L.");
      await hand.put("pin", "rather-long");
      await hand.put("again", "rather-long");
      await hand.press("//button[contains(@class, 'btn-primary')]");
      await edda.read("Who is at the bench?");
      await edda.ready();
      await hand.press("//label[contains(., 'Edda L.')]");
      await hand.put("pin", "rather-long");
      await hand.keys(Key.ENTER);
      await edda.see("//h1[.='Jobs']");
      await edda.ready();
      await hand.press("//a[contains(., 'Open a job')]");
      await hand.press("//a[contains(., 'Write the unit down')]");
      await edda.see("//h1[.='A unit by hand']");
      for (const [name, text] of [
        ["name", "Dotterel"],
        ["name-0", "Low"],
        ["frictions-0", "4"],
        ["steels-0", "4"],
        ["min-0", "0.80"],
        ["max-0", "1.20"],
        ["rings-0", "1.50 1.70 1.90"],
        ["within", "0.02"],
        // Of this one nobody knows a limit.
        ["name-1", "Rev"],
        ["frictions-1", "3"],
        ["steels-1", "3"],
      ] as const)
        await hand.put(name, text);
      await hand.press("//button[contains(., 'Keep it')]");
      await edda.see("//h1[.='Open a job']");
      await hand.put("vehicle", "Teal van, TS 7");
      hand.acts++;
      await (await edda.see("//main//textarea[@name='words']")).sendKeys("Slips when warm.");
      await hand.press("//button[.='Open the job']");
      await edda.until("return location.pathname", (at) => /^\/jobs\/\d+$/.test(String(at)));
      await edda.go(`${shop.url}/jobs/1001/choose/low-clearance`);
      await edda.ready();
      for (const value of ["1.45", "1.46", "1.44"]) await hand.keys(value, Key.ENTER);
      await edda.see("//*[@data-verdict='outside']");
      await hand.press("//form[contains(., 'Which ring was in?')]//label[contains(., '1.50')]");
      await hand.press("//form[contains(., 'Which ring was in?')]//button[not(@disabled)]");
      await edda.read("Ring found:");
      await hand.press("//a[contains(., 'Trial')][.//kbd]");
      await edda.see("//h2[.='Trial clearance']");
      for (const value of ["1.30", "1.31", "1.29"]) await hand.keys(value, Key.ENTER);
      await edda.until("return document.querySelectorAll('[aria-label=Readings] li').length", (n) => n === 3);
      await hand.press("//a[contains(., 'Ring')][.//kbd]");
      await edda.see("//section[@aria-label='Candidates']//tr[contains(., '1.70')]");
      await hand.press("//section[@aria-label='Candidates']//tr[contains(., '1.70')]//label");
      // Its shelf knows nothing yet: what somebody holds is there.
      const here = "//button[contains(., 'It is here')]";
      await edda.network(false);
      await edda.press(here);
      await edda.see("//section[.//button[contains(., 'It is here')]]//*[@role='alert']");
      await edda.network(true);
      await hand.press(here);
      await hand.press("//label[contains(., 'back by its mark')]");
      await hand.press("//form[.//input[@name='reason']]//button[contains(., '1.70')]");
      await edda.until("return location.search", (at) => String(at).includes("show=built"));
      await allSent(edda);
      const { rows } = await shop.pool.query<{ quantity: number; why: string }>(
        "select quantity, why from movement where part like '%1.70%' order by quantity desc",
      );
      expect(rows.map(({ quantity }) => quantity)).toEqual([1, -1]);
      await hand.press("//a[contains(., 'Hand over')]");
      await edda.read("answers to go before it closes");
      await edda.see("//tr[@data-pack][contains(., 'Low') or contains(., 'LOW')]");
      expect(hand.acts).toBeLessThan(40);
    }),
  120_000,
);

it(
  "of a unit by hand, and of one with a name alone, no page fails for what nobody knows yet",
  () =>
    journey("little-known", [edda], async () => {
      await edda.sitsAs(shop, "Edda L.", shop.url);
      const number = await jobOf(shop, "dotterel", {});
      await readsAll(number, "dotterel", ["/choose/low-clearance"]);
      await edda.go(`${shop.url}/jobs/${number}/choose/rev-clearance`);
      await edda.ready();
      for (const value of ["1.45", "1.46", "1.44"]) await edda.keys(value, Key.ENTER);
      await edda.see("//*[@data-verdict='not stated'][contains(., 'No limit known')]");
      for (const family of ["cvt", "dual-clutch"]) {
        const file = resolve(`test-results/${family}.json`);
        const unit = { name: `Plain ${family}`, family, lengthUnit: "in" };
        writeFileSync(file, JSON.stringify({ format: "yard-key/book@1", unit }));
        await edda.go(`${shop.url}/books`);
        await edda.ready();
        await (await edda.see("//input[@type='file']")).sendKeys(file);
        await edda.press("//button[contains(., 'Import')]");
        await edda.see(`//h1[contains(., 'Plain ${family}')]`);
        await edda.see("//*[@data-able='0'][contains(., 'tear-down steps')]");
        await readsAll(await jobOf(shop, `plain-${family}`, {}), `plain-${family}`);
      }
    }),
  180_000,
);
