import { afterAll, beforeAll, expect, it } from "@jest/globals";
import { journey, Key, Person } from "./browser";
import { openShop, type Shop } from "./shop";

let shop: Shop;
let ines: Person;
beforeAll(async () => {
  shop = await openShop();
  ines = await Person.sitDown();
  await ines.sitsAs(shop, "Ines R.", shop.url);
}, 90_000);
afterAll(async () => {
  await ines.leave();
  await shop.close();
});
const PARTS = "return [...document.querySelectorAll('[data-part]')].map((row) => row.dataset.part)";
const find = async (text: string): Promise<void> => {
  await ines.press("//form[@role='search']//input[@name='find']");
  await ines.selectAll();
  await ines.keys(text, Key.ENTER);
};

it(
  "finds a size by its thickness, the emptiest first, counts it and sees every movement",
  () =>
    journey("shelf", [ines], async () => {
      await ines.go(`${shop.url}/shelf`);
      await ines.ready();
      await find("1.76");
      // The nearest first, of whichever unit: 1.75 of the Dunlin before what is a tenth off.
      await ines.until(PARTS, (parts) => Array.isArray(parts) && parts.length > 1 && parts.length < 30);
      await ines.see("(//li[@data-part])[1][contains(., '1.7')]");
      await ines.see("//li[@data-part='MD-2175'][contains(., 'two notches')][contains(., 'Marram Dunlin')]");
      await ines.press("//select[@name='unit']/option[.='Marram Dunlin']");
      await ines.press("//form[@role='search']//button[@aria-label='Find']");
      await ines.until(
        PARTS,
        (parts) => Array.isArray(parts) && parts.every((part) => String(part).startsWith("MD-")),
      );
      expect(await ines.axe()).toEqual([]);
      await ines.go(`${shop.url}/shelf?first=low`);
      await ines.ready();
      const counts =
        "return [...document.querySelectorAll('[data-part] b')].map((b) => Number(b.innerText)).filter(Number.isInteger)";
      const low = await ines.driver.executeScript<number[]>(counts);
      expect(low[0]).toBe(0);
      await find("zzz");
      await ines.read("Nothing of that lies here.");
      // A part that is scanned whole opens at once, ready for its count.
      await find("md-2175");
      await ines.see("//h1[contains(., '1.75 mm')]");
      await ines.until("return document.activeElement?.name", (name) => name === "counted");
      await ines.keys("many", Key.ENTER);
      await ines.see("//*[@role='alert'][contains(., 'whole number')]");
      expect(await (await ines.see("//input[@name='counted']")).getAttribute("value")).toBe("many");
      await ines.press("//input[@name='counted']");
      await ines.selectAll();
      await ines.keys("41");
      await ines.press("//input[@name='reason']");
      await ines.selectAll();
      await ines.keys("found a box", Key.ENTER);
      await ines.see("//tr[@data-moved][contains(., 'counted: found a box')][contains(., 'Ines R.')]");
      await ines.see("//section//b[.='41']");
      expect(await ines.axe()).toEqual([]);
    }),
  90_000,
);

it(
  "says what to keep of the shop’s own records, and takes its table in again as it went out",
  () =>
    journey("keep", [ines], async () => {
      // What moved most is counted first: a parts person begins the day with it.
      await ines.go(`${shop.url}/orders`);
      await ines.ready();
      await ines.press("//section[@aria-label='To count']//li[@data-count='MD-2190']//a");
      await ines.until("return document.activeElement?.name", (name) => name === "counted");
      await ines.go(`${shop.url}/shelf`);
      await ines.ready();
      await ines.press("//a[.='What to keep']");
      await ines.see("//*[@data-chance='then'][contains(., '90 % wanted')]");
      const chance = async (of: string): Promise<number> =>
        Number(
          /(\d+) %/.exec(
            await (await ines.see(`//*[@data-chance='${of}']//*[contains(@class, 'figure')]`)).getText(),
          )?.[1],
        );
      expect(await chance("then")).toBeGreaterThanOrEqual(90);
      expect(await chance("then")).toBeGreaterThan(await chance("now"));
      const cents = async (): Promise<number> =>
        Number(await (await ines.see("//*[@data-restock]")).getAttribute("data-restock"));
      const few = await cents();
      await ines.see("//tr[@data-keep][@data-buy='1']");
      await ines.see("//*[@data-value-chart]//*[name()='svg']");
      // Surer, and for more jobs, costs more.
      await ines.press("//nav[@aria-label='The next']//a[contains(., '20')]");
      await ines.see("//*[@data-chance='now'][contains(., 'The next 20')]");
      await ines.press("//nav[@aria-label='Ready']//a[contains(., '95')]");
      await ines.see("//*[@data-chance='then'][contains(., '95 % wanted')]");
      expect(await cents()).toBeGreaterThan(few);
      expect(await ines.axe()).toEqual([]);
      const cookie = await shop.cookieOf("Ines R.");
      const csv = await (await fetch(`${shop.url}/shelf/table.csv`, { headers: { cookie } })).text();
      expect(csv).toContain("part,name,bin,pieces,price");
      const [line = ""] = /^MD-2145,.*$/m.exec(csv) ?? [];
      const list = async (text: string): Promise<void> => {
        await ines.driver.executeScript(
          "document.querySelector('textarea[name=list]').value = arguments[0]",
          text,
        );
        await ines.press("//button[.='Take the counts in']");
      };
      await list(csv);
      await ines.see("//*[@role='alert'][contains(., 'Say why')]");
      await ines.press("//input[@name='reason']");
      await ines.keys("count of the year");
      await list(csv.replace(line, line.replace(/,(\d+),([\d.]+)$/, ",seven,$2")));
      await ines.see("//*[@role='alert'][contains(., 'MD-2145: “seven” is no number of pieces')]");
      await list("part,pieces\nMD-2145,1\nNO-1,2\n");
      await ines.see("//*[@role='alert'][contains(., 'The shelf keeps no NO-1')]");
      await list(csv);
      await ines.see("//*[@data-changed='0']");
      await list(csv.replace(line, line.replace(/,\d+,([\d.]+)$/, ",9,$1")));
      await ines.see("//*[@data-changed='1']");
      await ines.go(`${shop.url}/shelf/part/MD-2145`);
      await ines.see("//main[contains(., 'counted: count of the year')]");
    }),
  90_000,
);
