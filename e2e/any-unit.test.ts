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

/** Sixty figures as a spreadsheet has them, five of them with a fault. */
function sixty(mended: boolean): string {
  const rows = [
    "Item;Pack;Min (mm);Max (mm);Frictions;Steels;Ring sizes;Ring within;Shelf",
    "Low clearance;Low;0.80;1.20;4;4;1.50 1.70 1.90;0.02;A1",
    ...Array.from({ length: 54 }, (_, i) => `Shaft ${i + 1} end play;;0.${10 + i};0.${20 + i};;;;;B${i}`),
    `Rev clearance;Rev;${mended ? "0.9" : "tight"};1.4;3;3;;;A2`,
    `High clearance;High;${mended ? "0.9" : "1.6"};1.4;3;3;;;A3`,
    `Fourth clearance;Fourth;0.9;1.4;3;${mended ? 3 : 9};;;A4`,
    `Pump side;${mended ? "Fifth" : ""};0.02;0.05;;;;;A5`,
    `${mended ? "Sixth clearance" : ""};Sixth;;;3;3;;;A6`,
  ];
  return rows.join("\n");
}

it(
  "a unit from a table of sixty figures: five rows are told with their faults, mended, and a ring is chosen on it",
  () =>
    journey("from-table", [edda], async () => {
      await edda.sitsAs(shop, "Edda L.", shop.url);
      await edda.go(`${shop.url}/books/from-table`);
      await edda.ready();
      const hand = new Hand();
      await hand.put("name", "Phalarope");
      const file = resolve("test-results/sixty.csv");
      writeFileSync(file, sixty(false));
      await (await edda.see("//input[@type='file']")).sendKeys(file);
      await hand.press("//button[.='Look at it']");
      await edda.read("60 rows of figures");
      await edda.read("5 have a fault");
      for (const [row, words] of [
        [56, "has no digits"],
        [57, "is not above min"],
        [58, "2 to 4 lie by turns"],
        [59, "what kind of figure"],
        [60, "is empty"],
      ] as const)
        await edda.see(`//tr[@data-row='${row}'][.//*[@role='alert'][contains(., '${words}')]]`);
      expect(
        await edda.driver.executeScript(
          "return document.querySelectorAll('[data-faults]:not([data-faults=\"0\"])').length",
        ),
      ).toBe(5);
      // Nobody means the shelf: it is passed over, and can be told otherwise.
      await edda.see("//select[@aria-label='What Shelf is']/option[@value=''][.='passed over']");
      await hand.press("//button[contains(., 'Keep it')]");
      await edda.read("5 have a fault");
      await edda.driver.executeScript("document.querySelector('#text').value = arguments[0]", sixty(true));
      await hand.press("//button[contains(., 'Keep it')]");
      await edda.see("//h1[.='Open a job']");
      const number = await jobOf(shop, "phalarope", {});
      await edda.go(`${shop.url}/jobs/${number}/choose/low-clearance`);
      await edda.ready();
      await hand.press("//form[contains(., 'Which ring was in?')]//label[contains(., '1.50')]");
      // Of this one nobody knows a limit: what is read is kept, and judged by nothing.
      await edda.go(`${shop.url}/jobs/${number}/choose/sixth-clearance`);
      await edda.ready();
      for (const value of ["1.45", "1.46", "1.44"]) await edda.keys(value, Key.ENTER);
      await edda.see("//*[@data-verdict='not stated'][contains(., 'No limit known')]");
      await edda.go(`${shop.url}/books/phalarope/chains`);
      await edda.see("//button[contains(., 'Shaft 54 end play')][contains(., '0.63 to 0.73')]");
      // As it went out it comes in again: nothing to say of it.
      await edda.go(`${shop.url}/books/from-table?unit=phalarope`);
      await edda.ready();
      await edda.driver.executeAsyncScript(
        "const done = arguments[0]; fetch('/books/phalarope/tables/figures.csv').then((r) => r.text()).then((t) => { document.querySelector('#text').value = t; done(); })",
      );
      await hand.press("//button[.='Look at it']");
      await edda.read("60 rows of figures");
      await hand.press("//button[.='Into a draft']");
      await edda.see("//h1[contains(., 'Draft of phalarope')]");
      await edda.see("//button[.='Changes (0)']");
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
