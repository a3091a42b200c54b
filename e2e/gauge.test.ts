import { afterAll, beforeAll, expect, it } from "@jest/globals";
import { Key, Person, journey } from "./browser";
import { openShop, type Shop } from "./shop";
import { READINGS } from "./steps";

let shop: Shop;
let mira: Person;

beforeAll(async () => {
  shop = await openShop({ devices: ["gauge"] });
  mira = await Person.sitDown();
  await mira.sitsAs(shop, "Mira K.", shop.url);
  await mira.go(`${shop.url}/jobs/1030/choose/d1-clearance?show=found`);
  await mira.ready();
  await mira.keys(Key.ESCAPE, "g");
  await mira.see("//*[@data-take='rest']//button[not(@disabled)]");
}, 90_000);
afterAll(async () => {
  await mira.leave();
  await shop.close();
});

it("a take before the needle has risen is doubted, and nothing is stored until the builder says so", () =>
  journey("doubt", [mira], async () => {
    // Taken within the same moment as the air: the needle has hardly moved.
    await mira.driver.executeScript(`
      const button = document.querySelector('[data-take] button');
      button.click(); setTimeout(() => document.querySelector('[data-take] button').click(), 30);`);
    await mira.read("Does the air reach the piston");
    expect(await mira.driver.executeScript(READINGS)).toBe(0);
    await mira.press("//button[.='Take it again']");
    await mira.gone("//button[.='Take it again']");
    expect(await mira.driver.executeScript(READINGS)).toBe(0);
  }));

/** Twenty needles a second are shown late by a machine that does much else. */
const LATE = 60_000;

it(
  "a take stores the peak with its return to zero, the air and the state of the pack",
  () =>
    journey("take", [mira], async () => {
      await mira.press("//*[@data-take='rest']//button");
      // Air builds slowly, and so does what a busy machine shows of it.
      await mira.until(
        "return parseFloat(document.querySelector('[data-take=lifted] .figure')?.innerText)",
        (shown) => Number(shown) > 1.05,
        LATE,
      );
      await mira.press("//*[@data-take='lifted']//button");
      await mira.until(READINGS, (n) => n === 1, LATE);
      await mira.until("return document.querySelector('[data-waiting]') === null", Boolean);
      const { rows } = await shop.pool.query<{ body: { reading: { value: number; back: number } } }>(
        "select f.body from fact f join job j on j.id = f.job where j.number = 1030 and f.kind = 'reading'",
      );
      expect(rows).toHaveLength(1);
      expect(rows[0]?.body).toMatchObject({
        method: "air and dial",
        air: 400_000,
        resolution: 10_000,
        state: { facings: "run-in" },
      });
      expect(rows[0]?.body.reading.value).toBeGreaterThan(1_000_000);
      expect(Math.abs(rows[0]?.body.reading.back ?? 1e9)).toBeLessThan(50_000);
    }),
  150_000,
);

it(
  "a gauge that falls silent says so, and is found again when it is back",
  () =>
    journey("silent", [mira], async () => {
      await shop.gauge.kill();
      await mira.read("The gauge does not answer");
      await shop.gauge.start();
      await mira.see("//*[@data-take='rest']//button[not(@disabled)]", LATE);
    }),
  120_000,
);
