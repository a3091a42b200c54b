import { afterAll, beforeAll, describe, expect, it } from "@jest/globals";
import { Key, Person, journey } from "./browser";
import { openShop, type Shop } from "./shop";
import { allSent, READINGS } from "./steps";

let shop: Shop;
let mira: Person;
beforeAll(async () => {
  shop = await openShop({ devices: ["gauge"] });
  mira = await Person.sitDown();
  await mira.sitsAs(shop, "Mira K.", shop.url);
}, 90_000);
afterAll(async () => {
  await mira.leave();
  await shop.close();
});

const PACK = "/jobs/1030/choose/d1-clearance";
const VALUE = "return document.getElementById('reading-value')?.value ?? null";
const CONTROL = (key: string): string =>
  `return [...document.querySelectorAll('main kbd')].find((k) => k.innerText === '${key}')?.parentElement`;
/** Whether the control a key is printed on is the one in force. */
const inForce = (key: string): string =>
  `${CONTROL(key)}.matches('[aria-pressed=true], [aria-current=step]')`;

/** Every letter and sign that does something anywhere, by the key sheet. */
const ALL_KEYS = [..."tfngairlu[]x/bdaojkm?"];
/** Pages with fields, in jobs at several stages. */
const PAGES = [
  `${PACK}?show=found`,
  `${PACK}?show=trial`,
  "/jobs/1029/choose/d1-clearance?show=trial",
  "/jobs/1029/choose/d3-clearance?show=choose",
  "/jobs/1029/measure",
  "/jobs/1030/before",
  "/jobs/1030/book-in",
  "/jobs/1023/prove?item=drive-1",
  "/jobs/1023/prove/level?as=both",
];
/** Puts the cursor at the end of the first field that is in sight. @returns what it holds; null where there is none. */
const ENTER_FIELD = `const field = [...document.querySelectorAll("main input:not([type=radio]):not([type=checkbox]):not([type=hidden]):not([type=file]), main textarea")]
    .filter((one) => one.checkVisibility() && !one.disabled && !one.readOnly)[0];
  if (!field) return null;
  field.focus();
  field.setSelectionRange?.(field.value.length, field.value.length);
  return field.value;`;
const HERE = "return document.activeElement.value";

it.each(PAGES)("on %s no key takes what is half typed, says anything or leads away", (page) =>
  journey("keys-half-typed", [mira], async () => {
    const said = async (): Promise<unknown> =>
      (await shop.pool.query("select count(*)::int as n from fact")).rows[0];
    await mira.go(`${shop.url}${page}`);
    await mira.ready();
    const [before, url] = [await said(), await mira.driver.getCurrentUrl()];
    const held = await mira.driver.executeScript<string | null>(ENTER_FIELD);
    expect([page, held === null]).toEqual([page, false]);
    await mira.keys("1");
    // One by one, as a hand does: what comes in a burst is a scanner's.
    for (const key of ALL_KEYS) await mira.keys(key);
    expect([page, await mira.driver.executeScript(HERE)]).toEqual([page, `${held}1${ALL_KEYS.join("")}`]);
    expect([await said(), await mira.driver.getCurrentUrl()]).toEqual([before, url]);
  }),
);

describe("keys printed on a pack page", () => {
  it("are letters, each once, and none a figure can begin with", () =>
    journey("keys-printed", [mira], async () => {
      await mira.go(`${shop.url}${PACK}?show=found`);
      await mira.ready();
      const printed = await mira.driver.executeScript<string[]>(
        "return [...document.querySelectorAll('main kbd')].filter((k) => k.checkVisibility()).map((k) => k.innerText).filter((k) => k.length === 1)",
      );
      expect([...printed].sort()).toEqual(["a", "f", "g", "i", "l", "n", "r", "t"]);
    }));

  it.each(["t", "f", "g", "n", "a", "i", "r", "l"])(
    "%s works while the cursor waits in the empty field; once a figure is begun it is the field’s",
    (key) =>
      journey(`keys-${key}`, [mira], async () => {
        await mira.go(`${shop.url}${PACK}?show=found`);
        await mira.ready();
        await mira.until("return document.activeElement.id", (id) => id === "reading-value");
        await mira.keys("1");
        await mira.keys(key);
        expect(await mira.driver.executeScript(VALUE)).toBe(`1${key}`);
        await mira.keys(Key.BACK_SPACE);
        await mira.keys(Key.BACK_SPACE);
        await mira.keys(key);
        await mira.until(inForce(key), Boolean);
        expect(await mira.driver.executeScript(READINGS)).toBe(0);
        expect((await mira.driver.executeScript<string | null>(VALUE)) ?? "").toBe("");
      }),
  );

  it("x and b, which no button bears, lead nowhere while the cursor waits in the empty field", () =>
    journey("keys-unprinted", [mira], async () => {
      const url = `${shop.url}${PACK}?show=found`;
      await mira.go(url);
      await mira.ready();
      await mira.until("return document.activeElement.id", (id) => id === "reading-value");
      for (const key of ["x", "b", "["]) await mira.keys(key);
      expect(await mira.driver.getCurrentUrl()).toBe(url);
      await mira.selectAll();
      await mira.keys(Key.BACK_SPACE);
      await mira.keys(Key.ESCAPE);
      await mira.keys("x");
      await mira.see("//section[@aria-label='Next']");
    }));

  it("a reading typed on blank paper goes into the field, none of it lost, and stays in its stage", () =>
    journey("keys-blank", [mira], async () => {
      await mira.go(`${shop.url}${PACK}?show=found`);
      await mira.ready();
      for (const [i, text] of ["1.15", "2", ".45"].entries()) {
        await mira.press("//h1[contains(., 'D1')]");
        await mira.driver.executeScript("document.activeElement.blur()");
        await mira.keys(...text);
        expect(await mira.driver.executeScript(VALUE)).toBe(text);
        if (i === 0) {
          await mira.keys(Key.ENTER);
          await mira.until(READINGS, (n) => n === 1);
        } else {
          await mira.selectAll();
          await mira.keys(Key.BACK_SPACE);
        }
      }
      expect(await mira.driver.getCurrentUrl()).toContain("show=found");
    }));

  it("readings typed in one breath on a slow machine all count, and the verdict does not wait for what is drawn with them", () =>
    journey("keys-breath", [mira], async () => {
      await mira.go(`${shop.url}/jobs/1030/choose/d2-clearance?show=found`);
      await mira.ready();
      await mira.until("return document.activeElement.id", (at) => at === "reading-value");
      // What of the readings is shown each time the verdict changes.
      await mira.driver.executeScript(`
        const section = document.querySelector('[aria-label="Verdict"]');
        const counted = () => Number(/ of (\\d+) *count/.exec(section.querySelector('[data-verdict]').textContent)[1]);
        window.steps = [];
        let last = counted();
        new MutationObserver(() => {
          if (counted() === last) return;
          last = counted();
          window.steps.push([last, section.querySelectorAll('[aria-label=Readings] li').length]);
        }).observe(section, { subtree: true, childList: true, characterData: true });`);
      await mira.slowed(8);
      try {
        await mira.keys("1.20", Key.ENTER, "1.21", Key.ENTER, "1.22", Key.ENTER);
        await mira.until(READINGS, (n) => n === 3);
      } finally {
        await mira.slowed(1);
      }
      const steps = await mira.driver.executeScript<[number, number][]>("return window.steps");
      expect(steps.map(([count]) => count)).toEqual([1, 2, 3]);
      for (const [count, shown] of steps) expect(shown).toBeLessThan(count);
      expect(await mira.driver.executeScript(VALUE)).toBe("");
      await allSent(mira);
      await mira.go(`${shop.url}/jobs/1030/choose/d2-clearance?show=found`);
      await mira.until(READINGS, (n) => n === 3);
    }));

  /** A figure’s page as it stands at each point of the work: before and after a choice, with its piece out, in a job that is closed. */
  const STATES: [what: string, page: string, first: string][] = [
    ["as found, read", "/jobs/1029/choose/d1-clearance?show=found", ""],
    ["a trial, read and chosen from", "/jobs/1029/choose/d1-clearance?show=trial", ""],
    ["a trial to be read", "/jobs/1029/choose/h2-clearance?show=trial", ""],
    ["a size to be chosen", "/jobs/1029/choose/h1-clearance?show=choose", ""],
    ["as built, proven", "/jobs/1029/choose/d1-clearance?show=built", ""],
    ["as built, its piece out", "/jobs/1029/choose/d3-clearance?show=built", "Taken out again"],
    ["an end play", "/jobs/1029/choose/input-end-play?show=trial", ""],
    ["a closed job", "/jobs/1010/choose/d1-clearance?show=built", ""],
  ];
  it.each(STATES)("every one does what its button does, and says nothing: %s", (what, page, first) =>
    journey(`keys-state-${what.replaceAll(" ", "-")}`, [mira], async () => {
      const go = async (): Promise<void> => {
        await mira.go(`${shop.url}${page}`);
        await mira.ready();
      };
      await go();
      if (first) {
        await mira.press(`//button[.='${first}']`);
        await mira.see("//form[@data-out]");
        await allSent(mira);
      }
      const facts = async (): Promise<unknown> =>
        (await shop.pool.query("select count(*)::int as n from fact")).rows[0];
      const before = await facts();
      const printed = await mira.driver.executeScript<string[]>(
        "return [...document.querySelectorAll('main kbd')].filter((k) => k.checkVisibility() && !k.closest('[disabled]')).map((k) => k.innerText).filter((k) => k.length === 1)",
      );
      expect(printed.length).toBeGreaterThanOrEqual(4);
      expect(new Set(printed).size).toBe(printed.length);
      const url = await mira.driver.getCurrentUrl();
      for (const key of printed) {
        // What a key changes within the page is no hindrance to the next one.
        if ((await mira.driver.getCurrentUrl()) !== url) await go();
        await mira.keys(key);
        await mira.until(
          `${CONTROL(key)}?.matches('[aria-pressed=true], [aria-current=step]') ?? null`,
          Boolean,
        );
        expect([key, (await mira.driver.executeScript<string | null>(VALUE)) ?? ""]).toEqual([key, ""]);
      }
      expect(await facts()).toEqual(before);
    }),
  );
});

it("the rail stands and leads where it says before its script is there, and hears its keys once it has come", async () => {
  // A browser that has nothing yet: what was fetched once would come from its own store.
  const runa = await Person.sitDown();
  try {
    await journey("keys-frame", [runa], async () => {
      await runa.sitsAs(shop, "Runa S.", shop.url);
      await runa.hears(true, ["*/assets/frame-*"]);
      await runa.go(`${shop.url}${PACK}?show=found`);
      const stage = (name: string): string =>
        `//nav[@aria-label='Stages of the job']//a[contains(., '${name}')]`;
      // What one reads is taken though the rail's script never came.
      await (await runa.see("//*[@id='reading-value']")).sendKeys("1.15", Key.ENTER);
      await runa.see("//section[@aria-label='Verdict']//*[@data-verdict]");
      await runa.see("//ul[@aria-label='Readings']/li[contains(., '1.15 mm')]");
      await allSent(runa);
      expect(await runa.driver.executeScript("return 'listens' in document.documentElement.dataset")).toBe(
        false,
      );
      await (await runa.see(stage("Take down"))).click();
      await runa.until("return location.pathname", (at) => at === "/jobs/1030/teardown");
      await runa.see(`${stage("Take down")}[@aria-current]`);
      await runa.hears();
      await runa.ready();
      await runa.keys("]");
      await runa.until("return location.pathname", (at) => /choose\//.test(String(at)));
    });
  } finally {
    await runa.leave();
  }
}, 60_000);
