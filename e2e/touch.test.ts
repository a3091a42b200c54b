import { afterAll, beforeAll, expect, it } from "@jest/globals";
import { Person, journey } from "./browser";
import { openShop, type Shop } from "./shop";
import { READINGS } from "./steps";

let shop: Shop;
let runa: Person;

beforeAll(async () => {
  shop = await openShop();
  // A ten-inch tablet.
  runa = await Person.sitDown({ width: 1024, height: 768 });
}, 90_000);
afterAll(async () => {
  await runa.leave();
  await shop.close();
});

async function pad(digits: string): Promise<void> {
  for (const digit of digits) await runa.touch(`//*[@aria-label='Number pad']/button[.='${digit}']`);
}

it(
  "from sign-in to the build sheet with fingers alone",
  () =>
    journey("touch", [runa], async () => {
      await runa.go(shop.url);
      await runa.ready();
      await runa.touch("//label[contains(., 'Runa S.')]");
      await pad("2580");
      await runa.touch("//button[.='Sign in']");
      await runa.touch("//a[contains(., 'Linnet hatch')]");
      // D1 is done, D3 has its trial readings.
      await runa.touch("//a[contains(., 'Go to D3')]");
      await runa.see("//th[.='Predicted']");
      await runa.touch("//tr[contains(., 'on shelf')][1]//label");
      await runa.touch("//label[contains(., 'back by its mark')]");
      await runa.touch("//button[starts-with(., 'Fit ')]");
      await runa.see("//h2[.='Clearance as built']");
      await runa.touch("//button[@aria-label='Number pad']");
      // Nonsense is told and can be taken back with the pad's own key.
      await pad("9");
      await runa.touch("//button[contains(., 'Store')]");
      await runa.read("cannot be this pack");
      await runa.touch("//button[@aria-label='Delete the last character']");
      const text = await runa.driver.executeScript<string>(
        "return [...document.querySelectorAll('section p')].find((p) => /Predicted/.test(p.innerText)).innerText",
      );
      const predicted = Number(/Predicted\s+([\d.]+)/.exec(text)?.[1]);
      for (const [i, off] of [0, 0.01, -0.01].entries()) {
        await pad((predicted + off).toFixed(2));
        await runa.touch("//button[contains(., 'Store')]");
        await runa.until(READINGS, (n) => n === i + 1);
      }
      await runa.touch("//nav[@aria-label='Stages of the job']//a[contains(., 'Hand over')]");
      await runa.see("//h1[contains(., 'Build sheet')]");
      expect(
        await runa.driver.executeScript("return document.documentElement.scrollWidth <= innerWidth"),
      ).toBe(true);
    }),
  90_000,
);

it(
  "among two hundred people one finds oneself by a part of the name",
  () =>
    journey("many-people", [runa], async () => {
      await shop.pool.query(
        `insert into staff (id, name, role, secret) select gen_random_uuid(), 'Hand ' || n, 'builder', 'none' from generate_series(1, 200) n`,
      );
      await runa.driver.manage().deleteAllCookies();
      await runa.go(`${shop.url}/sign-in`);
      await runa.ready();
      await runa.read("more: type a part of the name.");
      await (await runa.see("//input[@type='search']")).sendKeys("una s");
      await runa.gone("//label[contains(., 'Hand')]");
      await runa.touch("//label[contains(., 'Runa S.')]");
      // Whoever is chosen stays chosen while one types on.
      await (await runa.see("//input[@type='search']")).sendKeys("xyz");
      await pad("2580");
      await runa.touch("//button[.='Sign in']");
      await runa.see("//a[contains(., 'Open a job')]");
      await shop.pool.query("update staff set active = false where name like 'Hand %'");
    }),
  60_000,
);

it(
  "a lead signs for what cannot be proven, with the PIN that is theirs alone",
  () =>
    journey("waiver", [runa], async () => {
      await runa.sitsAs(shop, "Runa S.", shop.url);
      await runa.go(`${shop.url}/jobs/1030/choose/d1-clearance?show=built`);
      await runa.ready();
      await runa.touch("//summary[contains(., 'a lead signs')]");
      await runa.touch("//button[.='Sign']");
      await runa.read("Say why it may leave");
      await (await runa.see("//input[@name='reason']")).sendKeys("customer takes it as it is");
      await runa.touch("//label[contains(., 'Edda L.')]");
      await (await runa.see("//details//input[@name='pin']")).sendKeys("0000");
      await runa.touch("//button[.='Sign']");
      await runa.read("not this lead’s PIN");
      expect(await (await runa.see("//input[@name='reason']")).getAttribute("value")).toBe(
        "customer takes it as it is",
      );
      await runa.write("//details//input[@name='pin']", "2580");
      await runa.touch("//button[.='Sign']");
      await runa.read("A lead has signed for it.");
      await runa.go(`${shop.url}/jobs/1030/sheet`);
      await runa.read("Signed: customer takes it as it is");
      await runa.read("Not ready to leave");
    }),
  60_000,
);

it("before any script has loaded: signing in and storing a typed reading work as plain forms", async () => {
  const plain = await Person.sitDown();
  try {
    await journey("no-script", [plain], async () => {
      await plain.withoutScript();
      await plain.go(`${shop.url}/jobs/1030/choose/d3-clearance?show=found`);
      await plain.press("//label[contains(., 'Mira K.')]");
      await (await plain.see("//input[@name='pin']")).sendKeys("2580");
      await plain.press("//button[.='Sign in']");
      await plain.see("//h1[contains(., 'D3')]");
      // The rail and the way to what is next stand there too.
      await plain.press("//nav[@aria-label='Stages of the job']//b[.='Measure']");
      await plain.see("//button[@aria-pressed='true'][.='As found']");
      await plain.go(`${shop.url}/jobs/1030/choose/d3-clearance?show=found`);
      await (await plain.see("//input[@name='value']")).sendKeys("43");
      await plain.press("//button[contains(., 'Store')]");
      await plain.read("cannot be this pack");
      await plain.write("//input[@name='value']", "1.25");
      await plain.press("//button[contains(., 'Store')]");
      await plain.see("//ul[@aria-label='Readings']/li[contains(., '1.25 mm')]");
    });
  } finally {
    await plain.leave();
  }
}, 60_000);
