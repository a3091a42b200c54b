// Figures of a job: worksheets by their kind, gauges, the spec sheet, an earlier visit beside them.
import { afterAll, beforeAll, describe, expect, it } from "@jest/globals";
import { Key, Person, journey } from "./browser";
import { openShop, type Shop } from "./shop";
import { allSent, factsOf } from "./steps";

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

/** Of the fields of a fit, how many are filled. */
const FILLED =
  "return [...document.querySelectorAll('form[aria-label] input')].filter(({ value }) => value !== '').length";
interface Taken {
  chain: string;
  item?: string;
  method: string;
  reading: { kind: string; value?: number; passes?: number; refuses?: number };
}

it("every station of the unit says how much is open there, and leads to it", () =>
  journey("stations", [mira], async () => {
    const open = async (id: string): Promise<number> =>
      Number(await (await mira.see(`//*[@data-station='${id}']`)).getAttribute("data-open"));
    await mira.go(`${shop.url}/jobs/1026`);
    await mira.ready();
    expect(await open("differential")).toBeGreaterThan(0);
    // Read and chosen, and still to be built: its two packs’ steps and the drum’s.
    expect(await open("outer-clutch")).toBe(3);
    await mira.press("//*[@data-station='differential']");
    await mira.see("//tr[@data-row='diff-preload'] | //*[contains(., 'Differential preload')]");
    await mira.until("return location.pathname", (path) => path === "/jobs/1026/measure");
    // What the work does not reach is drawn, and is neither done nor open.
    await mira.go(`${shop.url}/jobs/1025`);
    await mira.see("//*[@data-station='pump']");
    expect(await mira.driver.findElements({ css: "[data-station=front-drum]" })).toEqual([]);
  }));

describe("a bushing by its points", () => {
  it(
    "gives the largest clearance, out of round and taper as one types, and the verdict on the sheet",
    () =>
      journey("bushing", [mira], async () => {
        await mira.go(`${shop.url}/jobs/1027/measure?work=d1-drum-bushing`);
        await mira.ready();
        const type = async (what: string, text: string): Promise<void> =>
          (await mira.see(`//input[@aria-label='${what}']`)).sendKeys(text);
        await type("bushing bore, front, 0 degrees", "52.06");
        await mira.read("One diameter of each is the least.");
        await type("bushing bore, front, 60 degrees", "52.075x");
        await mira.see("//form//p[@role='alert']");
        await type("bushing bore, front, 60 degrees", Key.BACK_SPACE);
        await type("bushing bore, rear, 0 degrees", "52.16");
        await type("stator journal, front, 0 degrees", "52.000");
        await mira.see("//*[@data-fit='160000'][contains(., 'at rear')][contains(., 'Out of round 0.015')]");
        // A gauge that types ends each diameter with Enter: that keeps nothing yet, and the next field waits.
        await mira.press("//input[@aria-label='stator journal, front, 0 degrees']");
        await mira.keys(Key.ENTER);
        expect(
          await mira.driver.executeScript("return document.activeElement.getAttribute('aria-label')"),
        ).toBe("stator journal, front, 60 degrees");
        // Called away before it is kept: what was typed is still there, until it is kept.
        await mira.go(`${shop.url}/jobs/1027/measure?work=d1-drum-bushing`);
        await mira.see("//*[@data-fit='160000'][contains(., 'Out of round 0.015')]");
        await mira.ready();
        await mira.press("//button[.='Keep it']");
        await mira.see("//tr[@data-row='d1-drum-bushing' and @data-standing='outside']");
        await allSent(mira);
        await mira.touch("//tr[@data-row='d1-drum-bushing']//button[.='By its points']");
        await mira.read("One diameter of each is the least.");
        const [kept] = await factsOf<{ points: unknown[]; reading: { value: number } }>(
          shop,
          1027,
          "reading",
        ).then((all) => all.filter((one) => "points" in one));
        expect(kept?.points).toHaveLength(4);
        expect(kept?.reading.value).toBe(160_000);
      }),
    60_000,
  );
});

/** A port as the browser would give it; what it sends comes from the test. */
const PORT = `
  const port = {
    open: async (options) => { window.opened = options; port.readable = new ReadableStream({ start: (to) => { window.line = to; } }); },
    readable: null,
    close: async () => { window.closed = true; },
  };
  Object.defineProperty(navigator, "serial", { configurable: true, value: { requestPort: async () => port } });
  window.send = (text) => window.line.enqueue(new TextEncoder().encode(text));
`;

describe("a gauge", () => {
  const standing = (row: string): string =>
    `return document.querySelector('[data-row="${row}"]').dataset.standing`;
  const itemsOf = (row: string): string =>
    `return document.querySelectorAll('[data-each="${row}"] [data-item] b').length`;

  it(
    "feeds the field in hand, simulated: blades into each pinion, micrometer and bore gauge into a fit",
    () =>
      journey("gauge-simulated", [mira], async () => {
        await mira.go(`${shop.url}/jobs/1028/measure?work=rear-pinion-play`);
        await mira.ready();
        await mira.press("//select/option[.='Simulated gauge']");
        await mira.press("//tr[@data-item='short pinion 1']//input");
        for (let n = 1; n <= 8; n++) {
          await (n % 2 ? mira.touch("//button[starts-with(normalize-space(), 'Take')]") : mira.keys("t"));
          await mira.until(itemsOf("rear-pinion-play"), (taken) => taken === n);
        }
        await allSent(mira);
        const readings = (await factsOf<Taken>(shop, 1028, "reading")).filter(
          ({ chain }) => chain === "rear-pinion-play",
        );
        expect(new Set(readings.map(({ item }) => item)).size).toBe(8);
        for (const { reading, method } of readings) {
          expect([reading.kind, method]).toEqual(["bracket", "feeler"]);
          expect(reading.refuses ?? 0).toBeGreaterThan(reading.passes ?? 0);
        }
        await mira.until(standing("rear-pinion-play"), (is) => is === "inside");

        // A figure that is no length is typed.
        await mira.go(`${shop.url}/jobs/1028/measure?work=tail-bushing`);
        await mira.ready();
        await mira.press("//input[@aria-label='bushing bore, front, 0 degrees']");
        await mira.keys("t");
        await mira.until(FILLED, (filled) => filled === 1);
        await mira.press("//input[@aria-label='output shaft, front, 0 degrees']");
        await mira.keys("t");
        await mira.until(FILLED, (filled) => filled === 2);
        await mira.touch("//button[.='Keep it']");
        await mira.until(standing("tail-bushing"), (is) => is !== "not yet");
        await shop.gauge.kill();
        await mira.press("//tr[@data-row='input-end-play']//input");
        await mira.keys("t");
        await mira.see("//*[@role='alert'][contains(., 'does not answer')]");
        await shop.gauge.start();
      }),
    60_000,
  );

  it(
    "on a serial port does the same, and says when it is unplugged",
    () =>
      journey("gauge-serial", [mira], async () => {
        await mira.go(`${shop.url}/jobs/1028/measure`);
        await mira.ready();
        await mira.driver.executeScript(PORT);
        await mira.press("//select/option[.='Serial gauge']");
        await mira.touch("//button[.='Connect …']");
        await mira.see("//*[@data-listening='true']");
        expect(await mira.driver.executeScript("return window.opened.baudRate")).toBe(9_600);
        await mira.press("//tr[@data-row='output-end-play']//input");
        // In pieces, with a greeting, as lines come over a wire.
        for (const part of ["ready\\r\\n+0.", "31 mm\\r", "\\n"])
          await mira.driver.executeScript(`window.send("${part}")`);
        await mira.until(standing("output-end-play"), (is) => is === "too few");
        await mira.press("//tr[@data-row='output-end-play']//input");
        await mira.driver.executeScript('window.send("0.0122in\\n")');
        await mira.see("//tr[@data-row='output-end-play'][contains(., '2 · Mira K.')]");
        await allSent(mira);
        const taken = (await factsOf<Taken>(shop, 1028, "reading")).filter(
          ({ chain }) => chain === "output-end-play",
        );
        expect(taken.map(({ reading }) => reading.value)).toEqual([310_000, 309_880]);
        await mira.driver.executeScript("window.line.close()");
        await mira.see("//*[@role='alert'][contains(., 'unplugged')]");

        // The same gauge reads a pack, and a figure as found.
        await mira.go(`${shop.url}/jobs/1028/choose/d1-clearance?show=found`);
        await mira.ready();
        await mira.driver.executeScript(PORT);
        await mira.touch("//button[.='Connect …']");
        await mira.see("//*[@data-listening='true']");
        for (const line of ["1.21", "1.22"]) {
          await mira.driver.executeScript(`window.send("${line}\\r\\n")`);
          await mira.read(`${line} mm`);
        }
        await mira.go(`${shop.url}/jobs/1030/before`);
        await mira.ready();
        await mira.driver.executeScript(PORT);
        await mira.touch("//button[.='Connect …']");
        await mira.see("//*[@data-listening='true']");
        await mira.driver.executeScript('window.send("0.44\\n")');
        await mira.see("//li[@data-figure='input-end-play']//*[@data-found][contains(., '0.44')]");
        await allSent(mira);
        const pack = (await factsOf<Taken>(shop, 1028, "reading")).filter(
          ({ chain }) => chain === "d1-clearance",
        );
        // After those that were there before.
        expect(pack.slice(-2).map(({ reading }) => reading.value)).toEqual([1_210_000, 1_220_000]);
        await mira.press("//select/option[starts-with(., 'Typed')]");
      }),
    60_000,
  );
});

describe("the spec sheet", () => {
  it(
    "keeps what was typed wrong with a word about it, takes letters for what cannot be measured, and leaves as a table",
    () =>
      journey("spec-sheet", [mira], async () => {
        await mira.go(`${shop.url}/jobs/1027/measure`);
        await mira.ready();
        const field = "//tr[@data-row='pump-side']//input";
        await mira.press(field);
        await mira.keys("abc", Key.ENTER);
        await mira.see("//tr[@data-row='pump-side']//p[@role='alert']");
        expect(await (await mira.see(field)).getAttribute("value")).toBe("abc");
        // Typing again replaces it: it stands marked.
        await mira.keys("0.09 0.091", Key.ENTER);
        await mira.see("//tr[@data-row='pump-side' and @data-standing='outside']");
        // A slip of the hand is left out with its reason, and no longer counts.
        const end = "//tr[@data-row='rear-pinion-play']";
        await mira.press(`${end}//input`);
        await mira.keys("4.4", Key.ENTER);
        await mira.press(`${end}//button[@aria-label='Readings of Rear pinion end play']`);
        await mira.press(`${end}//ul[@aria-label='Readings']//button[contains(., '4.4')]`);
        await mira.press(`${end}//button[.='mistyped']`);
        await mira.see(`${end}//li[contains(., 'out: mistyped')]`);
        await mira.press("//tr[@data-row='pump-tip']//input");
        await mira.keys("w", Key.ENTER);
        await mira.see(
          "//tr[@data-row='pump-tip' and @data-standing='said'][contains(., 'gauge not here yet')]",
        );
        await mira.press("//button[.='Gravest first']");
        await mira.until(
          "return document.querySelector('[data-row]')?.dataset.standing",
          (standing) => standing === "outside",
        );
        await allSent(mira);
        const csv = await mira.driver.executeAsyncScript<string>(
          "const done = arguments[0]; fetch('/jobs/1027/measure.csv').then((answer) => answer.text()).then(done)",
        );
        expect(csv).toMatch(/pump-side,Pump gear side clearance,pump clearance,pump,[^\n]*outside/);
        const pdf = await mira.driver.executeAsyncScript<string>(
          "const done = arguments[0]; fetch('/jobs/1027/measure.pdf').then((answer) => answer.text()).then((text) => done(text.slice(0, 5)))",
        );
        expect(pdf).toBe("%PDF-");
      }),
    60_000,
  );
});

describe("each of several things", () => {
  it(
    "is judged by itself; the worst decides, and says which it is",
    () =>
      journey("each-by-itself", [mira], async () => {
        await mira.go(`${shop.url}/jobs/1029/measure`);
        await mira.ready();
        await mira.touch("//tr[@data-row='valve-fall']//button[.='Each by itself']");
        await mira.touch("//button[contains(., 'All of them: falls both ways')]");
        await mira.see("//tr[@data-row='valve-fall' and @data-standing='inside'][contains(., 'in order')]");
        await mira.touch("//button[@aria-label='shift 2: hangs coming out']");
        await mira.see("//tr[@data-row='valve-fall' and @data-standing='outside'][contains(., 'shift 2')]");
        expect(await mira.axe()).toEqual([]);

        // Blades that cannot be are told at their field, and stay.
        await mira.touch("//tr[@data-row='front-pinion-play']//button[.='Each by itself']");
        await mira.press("//input[@aria-label='pinion 1, passes']");
        await mira.keys("0.50", Key.ENTER, "0.45", Key.ENTER);
        await mira.see("//*[@data-item='pinion 1']//*[@role='alert'][contains(., 'thicker')]");
        expect(await (await mira.see("//input[@aria-label='pinion 1, passes']")).getAttribute("value")).toBe(
          "0.50",
        );
        await mira.keys("0.55", Key.ENTER);
        await mira.see("//*[@data-item='pinion 1'][contains(., 'inside')]");
        await mira.touch("//button[.='Back to the sheet']");

        // Worked out from what is read: a pull at a radius, two pressures, groove and ring.
        await mira.touch("//tr[@data-row='input-turning']//button[.='From a pull and its radius']");
        await mira.press("//input[@aria-label='Input turning torque, torque, or pull']");
        await mira.keys("20", Key.ENTER, "80");
        await mira.see("//*[@data-worked='1.60 N·m']");
        await mira.keys(Key.ENTER);
        await mira.see("//tr[@data-row='input-turning' and @data-standing='inside']");
        await mira.touch("//tr[@data-row='leak-d1']//button[.='From two pressures']");
        await mira.press("//input[@aria-label='D1 leak-down, at the start']");
        await mira.keys("3", Key.ENTER, "2.45", Key.ENTER);
        await mira.see("//tr[@data-row='leak-d1' and @data-standing='outside'][contains(., '0.55 bar')]");
        await mira.touch("//tr[@data-row='ring-side-1']//button[.='Each by itself']");
        await mira.press("//input[@aria-label='ring 1, groove width']");
        await mira.keys("2.45", Key.ENTER, "2.35", Key.ENTER);
        await mira.see("//*[@data-item='ring 1'][contains(., '0.100')]");
        await allSent(mira);
        const [side] = (await factsOf<Taken>(shop, 1029, "reading")).filter(
          ({ chain }) => chain === "ring-side-1",
        );
        expect([side?.item, side?.reading.kind, side?.reading.value]).toEqual(["ring 1", "summed", 100_000]);
      }),
    60_000,
  );
});

it("figures of several things typed in one breath on a slow machine each go to their own, in order", () =>
  journey("measure-breath", [mira], async () => {
    await mira.go(`${shop.url}/jobs/1030/measure`);
    await mira.ready();
    await mira.press("//tr[@data-row='ring-side-1']//input");
    const rest = await mira.driver.executeScript<string[]>(
      "return [...document.querySelectorAll('[data-row]')].map((row) => row.dataset.row)",
    );
    await mira.slowed(8);
    try {
      for (const text of ["0.10", "0.11", "0.12", "0.13"]) await mira.keys(...text, Key.ENTER);
      // Once nothing of them is open, the cursor waits in the next row.
      await mira.until(
        "return document.activeElement.closest('[data-row]')?.dataset.row",
        (row) => row === rest[rest.indexOf("ring-side-1") + 1],
      );
    } finally {
      await mira.slowed(1);
    }
    await allSent(mira);
    const taken = (await factsOf<Taken>(shop, 1030, "reading")).filter(
      ({ chain }) => chain === "ring-side-1",
    );
    expect(taken.map(({ item, reading }) => [item, reading.value])).toEqual([
      ["ring 1", 100_000],
      ["ring 2", 110_000],
      ["ring 3", 120_000],
      ["ring 4", 130_000],
    ]);
  }));

describe("an earlier visit of the same unit", () => {
  it(
    "stands beside as found and spec, found by its vehicle; another unit is refused",
    () =>
      journey("earlier-visit", [mira], async () => {
        await mira.go(`${shop.url}/jobs/1029/measure`);
        await mira.ready();
        await mira.touch("//summary[.='Was it here before?']");
        await mira.see("//button[contains(., 'Job 1021')]");
        await (
          await mira.see("//label[.='Another job’s number']/following-sibling::input")
        ).sendKeys("1024", Key.ENTER);
        await mira.see("//*[@role='alert'][contains(., 'another kind of unit')]");
        await mira.touch("//button[contains(., 'Job 1021')]");
        await mira.see("//summary[starts-with(., 'Beside job 1021')]");
        await mira.see("//tr[@data-row='d1-clearance']//td[@data-earlier][contains(., 'since')]");
        await allSent(mira);
        const [kept] = await factsOf<{ job: number; figures: { id: string }[] }>(shop, 1029, "earlier-visit");
        expect(kept?.job).toBe(1021);
        expect(kept?.figures.map(({ id }) => id)).toContain("d1-clearance");
        const csv = await mira.driver.executeAsyncScript<string>(
          "const done = arguments[0]; fetch('/jobs/1029/measure.csv').then((answer) => answer.text()).then(done)",
        );
        expect(csv).toContain("earlier visit");
      }),
    60_000,
  );
});
