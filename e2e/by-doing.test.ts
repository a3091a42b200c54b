import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, it } from "@jest/globals";
import sharp from "sharp";
import { journey, Key, Person } from "./browser";
import { jobOf, saidOf } from "./said";
import { allSent, factsOf } from "./steps";
import { openShop, type Shop } from "./shop";

let shop: Shop;
let edda: Person;
beforeAll(async () => {
  [shop, edda] = await Promise.all([openShop(), Person.sitDown()]);
  await edda.sitsAs(shop, "Edda L.", shop.url);
}, 120_000);
afterAll(async () => {
  await edda.leave();
  await shop.close();
});

const put = (name: string, text: string): Promise<void> =>
  edda.write(`//form[@aria-label='What comes off']//input[@name='${name}']`, text);
const more = (title: string): Promise<void> => edda.press(`//summary[contains(., '${title}')]`);
const off = (): Promise<void> => edda.press("//form[@aria-label='What comes off']//button[.='Off']");
const act = (n: number, words: string): Promise<unknown> =>
  edda.see(`//li[@data-act='${n}'][contains(., '${words}')]`);

/** Publishes the draft that is shown, once nothing is wrong with it. */
async function published(note: string): Promise<void> {
  await edda.see("//*[@role='status'][contains(., 'no problems')]");
  await edda.press("//button[starts-with(., 'Changes')]");
  await (await edda.see("//input[@name='note']")).sendKeys(note);
  await edda.press("//button[contains(., 'Publish the next revision')]");
  await edda.see("//h2[.='Revisions']");
}

/** How wide the picture is that something shows: none where it is not to be had. */
const pictureWidth = (css: string): Promise<number> =>
  edda.driver.executeAsyncScript(
    `const done = arguments[1]; const at = document.querySelector(arguments[0]);
     const image = new Image(); image.onload = () => done(image.naturalWidth); image.onerror = () => done(0);
     image.src = at.getAttribute('href') ?? at.src;`,
    css,
  );

it(
  "a unit without a book is recorded by taking it down, becomes a book, and the second one goes by it and changes it",
  () =>
    journey("by-doing", [edda], async () => {
      await edda.go(`${shop.url}/books/by-hand`);
      await edda.ready();
      await (await edda.see("//main//input[@name='name']")).sendKeys("Avocet");
      await edda.press("//button[contains(., 'Keep it')]");
      await edda.see("//h1[.='Open a job']");
      const first = await jobOf(shop, "avocet", {});
      await edda.go(`${shop.url}/jobs/${first}`);
      await edda.read("say what comes off");
      await edda.press("//*[@data-stage='take down']");

      // What is wrong is told at its field, and what was typed stays.
      await edda.ready();
      await put("what", "Pan");
      await put("way", "dent to the front");
      await more("Bolts that held it");
      await put("bolts", "many");
      await put("size", "M6");
      await off();
      await edda.see("//input[@name='bolts'][@aria-invalid='true']");
      await put("bolts", "3");
      // Where they sat is tapped on a picture.
      const picture = join(mkdtempSync(join(tmpdir(), "yard-key-face-")), "face.jpg");
      await sharp({ create: { width: 1200, height: 900, channels: 3, background: "#777777" } })
        .jpeg()
        .toFile(picture);
      await more("Where they sat");
      await (await edda.see("//form[@aria-label='What comes off']//input[@type='file']")).sendKeys(picture);
      await edda.press("//button[starts-with(@aria-label, 'On this picture')]");
      const face = await edda.see("//*[@data-tapped]");
      await edda.driver.executeScript("arguments[0].scrollIntoView({ block: 'center' })", face);
      for (const [n, x] of [-80, 0, 80].entries()) {
        await edda.driver.actions().move({ origin: face, x, y: 10 }).click().perform();
        await edda.see(`//*[@data-tapped='${n + 1}']`);
      }
      await off();
      await act(1, "3 bolts, M6");
      // The server away: it is kept here, and sent when it is back.
      await edda.network(false);
      await put("what", "Wrong thing");
      await put("what", "Valve body");
      await edda.keys(Key.ENTER);
      await act(2, "Valve body");
      await edda.network(true);
      await allSent(edda);
      await put("what", "Mistake");
      await edda.keys(Key.ENTER);
      await act(3, "Mistake");
      await edda.press("//button[@aria-label='Take back: Mistake']");
      await edda.gone("//li[@data-act='3']");
      await put("what", "Low pack");
      await more("It is a pack");
      for (const [name, text] of [
        ["pack", "Low"],
        ["frictions", "4"],
        ["steels", "4"],
        ["friction", "1.60"],
        ["steel", "1.80"],
        ["clearance", "1.32"],
      ] as const)
        await put(name, text);
      await off();
      await act(3, "Low: 4 frictions, 4 steels");
      await allSent(edda);
      const said = await factsOf<{ what: string; at: unknown[] }>(shop, first, "came-off");
      expect(said.map(({ what }) => what)).toEqual(["Pan", "Valve body", "Mistake", "Mistake", "Low pack"]);
      expect(said[0]?.at).toHaveLength(3);

      await edda.press("//button[contains(., 'Make the book')]");
      await edda.see("//h1[contains(., 'Draft of avocet')]");
      await edda.ready();
      await published("as the first one came apart");

      // The second one goes by it: down, and up the other way round.
      const second = await jobOf(shop, "avocet", {});
      await edda.go(`${shop.url}/jobs/${second}/teardown`);
      await edda.ready();
      // Its bolts stand on the picture they were tapped on, which is the book’s now.
      await edda.see("//*[@role='group'][@aria-label='Places of Pan bolts']//*[@data-place='3']");
      expect(await pictureWidth("svg image[data-picture]")).toBe(1200);
      await edda.see("//*[@data-progress][contains(., '0 of 3')]");
      await edda.read("dent to the front");
      await edda.press(
        "//main//button[contains(@class, 'btn-primary')][contains(., 'Pan') or contains(., 'Done') or contains(., 'off')]",
      );
      await edda.see("//*[@data-progress][contains(., '1 of 3')]");
      // It does two things otherwise.
      await edda.press("//summary[contains(., 'Something came off')]");
      await put("what", "Filter");
      await off();
      await act(1, "Filter");
      await edda.press("//summary[contains(., 'Skip')]");
      await (await edda.see("//input[@name='reason']")).sendKeys("off already");
      await edda.press("//button[.='Skip it']");
      await edda.see("//*[@data-progress][contains(., '2 of 3')]");
      await allSent(edda);
      await saidOf(shop, second, [
        { kind: "step", step: "t-low-pack", did: "done", reason: "", to: "bench" },
      ]);
      await edda.go(`${shop.url}/jobs/${second}/build`);
      await edda.ready();
      await edda.read("Low pack in");
      const text = await edda.driver.executeScript<string>("return document.body.innerText");
      expect(["Low pack in", "Valve body in", "Pan in"].map((name) => text.indexOf(name))).toEqual(
        ["Low pack in", "Valve body in", "Pan in"].map((name) => text.indexOf(name)).sort((a, b) => a - b),
      );
      await saidOf(
        shop,
        second,
        ["b-low-pack", "b-valve-body", "b-pan"].map((step) => ({
          kind: "step",
          step,
          did: "skipped",
          reason: "as before",
        })),
      );

      await edda.go(`${shop.url}/jobs/${second}/teardown`);
      await edda.ready();
      await edda.press("//button[contains(., 'Offer it to the book')]");
      await edda.see("//h1[contains(., 'Draft of avocet')]");
      await edda.ready();
      await published("what the second one did otherwise");
      await edda.go(`${shop.url}/books/avocet/steps`);
      await edda.ready();
      const steps = await edda.driver.executeScript<string>("return document.body.innerText");
      expect(steps).toContain("Filter off");
      expect(steps.indexOf("Pan off")).toBeLessThan(steps.indexOf("Filter off"));
      expect(steps.indexOf("Filter off")).toBeLessThan(steps.indexOf("Valve body off"));
    }),
  180_000,
);

/** What a browser that hears would say of it: the words it is asked for come out, once. */
const HEARS = `
  window.SpeechRecognition = window.webkitSpeechRecognition = class {
    start() { setTimeout(() => { this.onresult?.({ results: [[{ transcript: 'rear band servo' }]] }); this.onend?.(); }, 20); }
    abort() {}
    stop() {}
  };`;

it(
  "what comes off is spoken where the browser hears, and stands in the field to be said",
  () =>
    journey("spoken", [edda], async () => {
      const driver = edda.driver as unknown as {
        sendAndGetDevToolsCommand: (name: string, given: object) => Promise<unknown>;
      };
      await driver.sendAndGetDevToolsCommand("Page.addScriptToEvaluateOnNewDocument", { source: HEARS });
      await edda.go(`${shop.url}/books/by-hand`);
      await edda.ready();
      await (await edda.see("//main//input[@name='name']")).sendKeys("Knot");
      await edda.press("//button[contains(., 'Keep it')]");
      await edda.see("//h1[.='Open a job']");
      const job = await jobOf(shop, "knot", {});
      await edda.go(`${shop.url}/jobs/${job}/teardown`);
      await edda.ready();
      await edda.press("//button[@aria-label='Say it']");
      await edda.until(
        "return document.querySelector('input[name=what]')?.value",
        (heard) => heard === "rear band servo",
      );
      await off();
      await act(1, "rear band servo");
    }),
  60_000,
);
