// What parts cost: lists as suppliers send them, and the one price that is missing when a unit is weighed.
import { afterAll, beforeAll, expect, it } from "@jest/globals";
import { Key, Person, journey } from "./browser";
import { openShop, type Shop } from "./shop";
import { fill } from "./steps";

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

const FORM = "//form[@aria-label='Take in a price list']";
const LIST = "part;price\nMD-1392;219,90\nMD-9000;12,50";
const takeIn = (): Promise<void> => ines.press(`${FORM}//button[.='Take it in']`);

it(
  "a list with faults is told line by line and stays as typed; mended it is taken in, twice it changes nothing",
  () =>
    journey("price-list", [ines], async () => {
      await ines.go(`${shop.url}/shelf/prices`);
      await ines.ready();
      await takeIn();
      await ines.read("Say whose prices these are.");
      await fill(ines, FORM, "supplier", "Mudflat Gears");
      await takeIn();
      await ines.read("no column “part” and no “price”");
      await fill(ines, FORM, "list", LIST.replace("219,90", "two hundred"));
      await takeIn();
      await ines.read("Line 2, MD-1392: “two hundred” is no price; write 12.50.");
      expect(await (await ines.see(`${FORM}//textarea`)).getAttribute("value")).toContain("two hundred");
      await fill(ines, FORM, "list", LIST);
      await takeIn();
      await ines.see("//*[@data-added='2']");
      await fill(ines, FORM, "supplier", "Mudflat Gears");
      await fill(ines, FORM, "list", LIST);
      await takeIn();
      await ines.see("//*[@data-added='0']");
      await (await ines.see("//input[@name='begins']")).sendKeys("MD-139", Key.ENTER);
      await ines.see("//tr[@data-price='MD-1392'][contains(., '219.90') and contains(., 'Mudflat Gears')]");
      await ines.gone("//tr[@data-price='MD-9000']");
      expect(await ines.axe()).toEqual([]);
    }),
  60_000,
);

it(
  "a part without a price keeps the rebuild open until somebody types it where it is missed",
  () =>
    journey("missing-price", [ines], async () => {
      await ines.go(`${shop.url}/jobs/1029/inspect?at=centre-support&part=f1`);
      await ines.ready();
      await ines.touch("//li[@data-wear='rollers-galled']//button[.='beyond use']");
      await ines.see("//li[@data-inspect='f1' and @data-is='replace']");
      await ines.go(`${shop.url}/jobs/1029/cause`);
      await ines.ready();
      await ines.see("//tr[@data-option='rebuild'][contains(., 'no price yet')]");
      await ines.press("//details[@data-unpriced='1']/summary");
      const need = "//li[@data-need and .//form]";
      await fill(ines, need, "supplier", "Tidewater Parts");
      await fill(ines, need, "price", "a lot");
      await ines.press(`${need}//button[.='Keep']`);
      await ines.read("Write the price as 12.50.");
      await fill(ines, need, "price", "86.00");
      await ines.press(`${need}//button[.='Keep']`);
      await ines.see("//details[@data-unpriced='0']");
      await ines.see("//tr[@data-option='rebuild'][contains(., 'by the price list')]");
    }),
  60_000,
);
