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
