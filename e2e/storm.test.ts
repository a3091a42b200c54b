import { afterAll, beforeAll, expect, it } from "@jest/globals";
import { openShop, type Shop } from "./shop";
import { storm } from "./storm-of";

let shop: Shop;
beforeAll(async () => {
  shop = await openShop({ webs: 2 });
}, 90_000);
afterAll(() => shop.close());

it("every fact is there exactly once and in order, whatever was killed, cut and repeated", async () => {
  const weather = await storm(shop, { benches: 8, each: 45, seed: 11 });
  // It was a storm: otherwise this says nothing.
  expect(weather.webKills + weather.databaseKills).toBeGreaterThan(2);
  // How much of each falls within it depends on the machine's pace; some of each must.
  expect(Math.min(weather.cut, weather.unanswered, weather.repeated, weather.browserCrashes)).toBeGreaterThan(
    2,
  );
  expect(weather.said).toBeGreaterThanOrEqual(360);
  expect(weather).toMatchObject({
    once: weather.said,
    doubled: 0,
    lost: 0,
    acknowledgedLost: 0,
    picturesLost: 0,
    outOfOrder: 0,
  });
}, 120_000);
