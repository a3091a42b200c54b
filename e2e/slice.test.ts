import { afterAll, beforeAll, expect, it } from "@jest/globals";
import { getDocument } from "pdfjs-dist/legacy/build/pdf.mjs";
import { writeFileSync } from "node:fs";
import { resolve } from "node:path";
import { readJobDocument } from "../app/jobs/job-document";
import { Key, Person, Story, journey } from "./browser";
import { FIRST_RUN_CODE, openShop, type Shop } from "./shop";
import { answerWeakPoints } from "./steps";

let shop: Shop;
let mira: Person;

beforeAll(async () => {
  shop = await openShop({ devices: ["gauge"] });
  mira = await Person.sitDown();
}, 90_000);
afterAll(async () => {
  await mira.leave();
  await shop.close();
});

/** Types a reading into the field that waits and sees it among the readings. */
async function typed(person: Person, text: string, count: number): Promise<void> {
  await person.keys(text, Key.ENTER);
  await person.until(
    "return document.querySelectorAll('[aria-label=Readings] li').length",
    (n) => n === count,
  );
}
const verdict = (person: Person): Promise<string> =>
  person.driver.executeScript("return document.querySelector('[data-verdict]').dataset.verdict");

const story = new Story();
story.chapter("signs in: the wrong PIN is told at its field, the name stays chosen", () =>
  journey("sign-in", [mira], async () => {
    await mira.go(shop.url);
    await mira.ready();
    await mira.tabTo("input[name=staff]");
    await mira.keys(Key.ARROW_DOWN);
    await mira.until(
      "return document.querySelector('input[name=staff]:checked')?.closest('label').innerText",
      (t) => Boolean(t),
    );
    await mira.keys(Key.TAB, "1111", Key.ENTER);
    await mira.read("That is not the PIN");
    const chosen = "return document.querySelector('input[name=staff]:checked')?.closest('label').innerText";
    await mira.until(chosen, (t) => Boolean(t));
    await mira.signIn(shop.url, "Mira K.");
  }),
);

story.chapter("opens a job: what is missing is told, what was typed stays", () =>
  journey("open-job", [mira], async () => {
    await mira.tabTo("a[href='/jobs/new']");
    await mira.keys(Key.ENTER);
    await mira.see("//h1[.='Open a job']");
    await mira.tabTo("input[name=vehicle]");
    await mira.keys(
      "Teal van, TS 7",
      Key.TAB,
      "R. Holm",
      Key.TAB,
      "many",
      Key.TAB,
      "Slips in third when warm.",
    );
    await mira.tabTo("button.btn-primary");
    await mira.keys(Key.ENTER);
    await mira.read("Write the odometer as a number");
    await mira.read("Choose the unit.");
    expect(await mira.driver.executeScript("return document.querySelector('[name=words]').value")).toBe(
      "Slips in third when warm.",
    );
    await mira.tabTo("input[name=odometer]");
    await mira.selectAll();
    await mira.keys("148 200 km");
    // The units by name: two of Corrie’s, then the Dunlin.
    await mira.tabTo("input[name=book]");
    await mira.keys(Key.SPACE, Key.ARROW_DOWN, Key.ARROW_DOWN);
    await mira.tabTo("button.btn-primary");
    await mira.keys(Key.ENTER);
    await mira.read("Look, and choose what you see.");
    await mira.read("Choose how deep the work goes.");
    await mira.tabTo("input[name=trait-body]");
    await mira.keys(Key.ARROW_DOWN);
    await mira.tabTo("input[name=trait-plate]");
    await mira.keys(Key.SPACE);
    await mira.tabTo("input[name=depth][value='front drums']");
    await mira.keys(Key.SPACE);
    await mira.tabTo("button.btn-primary");
    await mira.keys(Key.ENTER);
    await mira.read("Teal van, TS 7");
    await mira.read("Tell the symptoms");
    const quiet = await mira.driver.executeScript(
      "return document.querySelectorAll('nav[aria-label^=\"The unit\"] a.border-dashed').length",
    );
    expect(quiet).toBe(3);
  }),
);

story.chapter("reads D1 as found: nonsense is told, another unit is questioned, one touch answers", () =>
  journey("as-found", [mira], async () => {
    await mira.keys("]");
    await mira.see("//h1[contains(., 'D1')]");
    await mira.until("return document.activeElement.id", (id) => id === "reading-value");
    await mira.keys("1 or so", Key.ENTER);
    await mira.read("is not a length");
    expect(await mira.driver.executeScript("return document.activeElement.value")).toBe("1 or so");
    await mira.selectAll();
    await mira.keys(Key.BACK_SPACE);
    await typed(mira, "1,46", 1);
    await mira.keys(".058", Key.ENTER);
    await mira.read("cannot be this pack");
    expect(await mira.focused()).toContain("0.058 in");
    await mira.keys(Key.ENTER);
    await mira.until("return document.querySelectorAll('[aria-label=Readings] li').length", (n) => n === 2);
    expect(await verdict(mira)).toBe("too few");
    await typed(mira, "58 thou", 3);
    expect(await verdict(mira)).toBe("outside");
    await mira.read("bedding");
  }),
);

story.chapter("leaves a reading out with a reason; it stays, struck", () =>
  journey("leave-out", [mira], async () => {
    await typed(mira, "1.90", 4);
    await mira.tabTo("[aria-label=Readings] li:nth-child(4) button");
    await mira.keys(Key.ENTER);
    await mira.read("Leave it out, because");
    await mira.tabTo("input[aria-label='Another reason']");
    await mira.keys("x", Key.ENTER);
    await mira.read("A reading is left out with a reason");
    await mira.keys(" lip caught", Key.ENTER);
    await mira.read("out: x lip caught");
    await mira.read("3 of 4 count");
  }),
);

story.chapter("says which ring was in, then reads the trial by gauge with the space bar alone", () =>
  journey("trial", [mira], async () => {
    await mira.tabTo("input[name^='found-']");
    await mira.keys(Key.ARROW_DOWN, Key.ARROW_DOWN);
    await mira.tabTo("section + section ~ form button, form.plate button");
    await mira.keys(Key.ENTER);
    await mira.read("Ring found:");
    await mira.driver.executeScript("document.activeElement.blur()");
    await mira.keys("i");
    await mira.see("//h2[.='Trial clearance']");
    await mira.keys(Key.ESCAPE, "g");
    await mira.see("//*[@data-take='rest']//button[not(@disabled)]");
    for (let n = 1; n <= 5; n++) {
      await mira.until("return document.activeElement.innerText ?? ''", (t) => String(t).includes("Air on"));
      await mira.keys(" ");
      await mira.see("//*[@data-take='lifted']");
      await mira.driver.sleep(900);
      // The foot switch does the same from wherever the focus is.
      await mira.keys(n === 2 ? Key.F8 : " ");
      await mira.until(
        "return document.querySelectorAll('[aria-label=Readings] li').length",
        (count) => count === n,
      );
    }
    await mira.read("back to");
    expect(await verdict(mira)).not.toBe("too few");
  }),
);

story.chapter("chooses a ring from the shelf: the one taken out must be measured, the shelf counts it", () =>
  journey("choose", [mira], async () => {
    await mira.keys(Key.ESCAPE);
    await mira.driver.executeScript("document.activeElement.blur()");
    await mira.keys("r");
    await mira.see("//th[.='Predicted']");
    // The first that is not the one fitted.
    const key = await mira.driver.executeScript<number>(
      "return [...document.querySelectorAll('main tbody tr')].findIndex((r) => /(last|\\d) on shelf/.test(r.innerText))",
    );
    await mira.tabTo("input[name=candidate]");
    for (let i = 0; i < 20; i++) {
      const at = await mira.driver.executeScript(
        "return [...document.querySelectorAll('input[name=candidate]')].findIndex((r) => r.checked)",
      );
      if (at === key) break;
      await mira.keys(Key.ARROW_DOWN);
    }
    const before = await shop.pool.query<{ n: number }>(
      "select sum(on_hand)::int as n from stock where piece is null",
    );
    await mira.tabTo("input[name=reason]");
    await mira.keys(Key.ENTER);
    await mira.read("Measure what came out");
    await mira.tabTo("input[name=removed]");
    await mira.keys("2.757", Key.ENTER);
    await mira.read("far from its mark");
    await mira.tabTo("input[name=removed]");
    await mira.selectAll();
    await mira.keys("1.757");
    await mira.keys(Key.ENTER);
    await mira.see("//h2[.='Clearance as built']");
    const after = await shop.pool.query<{ n: number }>(
      "select sum(on_hand)::int as n from stock where piece is null",
    );
    expect((before.rows[0]?.n ?? 0) - (after.rows[0]?.n ?? 0)).toBe(1);
    const piece = await shop.pool.query("select from piece where measured_nm = 1757000");
    expect(piece.rowCount).toBe(1);
  }),
);

story.chapter("measures again: a prediction was never shown as the result", () =>
  journey("as-built", [mira], async () => {
    expect(
      await mira.driver.executeScript("return document.querySelector('[data-verdict] p').innerText"),
    ).toBe("—");
    await mira.until("return document.activeElement.id", (id) => id === "reading-value");
    const ring = await mira.driver.executeScript<string>(
      "return [...document.querySelectorAll('section p')].find((p) => /Predicted/.test(p.innerText)).innerText",
    );
    const predicted = Number(/Predicted\s+([\d.]+)/.exec(ring)?.[1]);
    for (const [i, off] of [0, 0.01, -0.01].entries()) await typed(mira, (predicted + off).toFixed(2), i + 1);
    await mira.read("came out");
    expect(await verdict(mira)).toBe("inside");
  }),
);

story.chapter("does D3 by feeler and by the numbers, keeps its ring, and closes the job with the sheet", () =>
  journey("second-pack", [mira], async () => {
    await mira.driver.executeScript("document.activeElement.blur()");
    await mira.keys("]");
    await mira.see("//h1[contains(., 'D3')]");
    await mira.keys(Key.ESCAPE);
    await mira.keys("f");
    await mira.until("return document.activeElement.id", (id) => id === "blade-passes");
    await mira.keys("1.30", Key.TAB, "1.20", Key.ENTER);
    await mira.read("this blade must be the thicker one");
    await mira.selectAll();
    await mira.keys("1.35", Key.ENTER);
    await mira.until("return document.querySelectorAll('[aria-label=Readings] li').length", (n) => n === 1);
    await mira.keys("1.35", Key.ENTER, "1.40", Key.ENTER);
    await mira.until("return document.querySelectorAll('[aria-label=Readings] li').length", (n) => n === 2);
    expect(await verdict(mira)).toBe("outside");
    await mira.tabTo("input[name^='found-']");
    await mira.keys(Key.ARROW_DOWN, Key.ARROW_DOWN);
    await mira.tabTo("form.plate button");
    await mira.keys(Key.ENTER);
    await mira.read("Ring found:");
    await mira.driver.executeScript("document.activeElement.blur()");
    await mira.keys("i");
    await mira.see("//h2[.='Trial clearance']");
    await mira.keys(Key.ESCAPE);
    await mira.keys("n");
    await mira.until("return document.activeElement.id", (id) => id === "link-depth");
    // 17.12 − (3·1.80 + 3·1.60 + 4.20) − 1.76 = 0.96
    // As a gauge does it: every value ends with Enter. Tab leaves the steels one short.
    await mira.keys("17.12", Key.ENTER, "1.80", Key.ENTER, "1.80", Key.TAB);
    for (let n = 0; n < 3; n++) await mira.keys("1.60", Key.ENTER);
    await mira.keys("4.20", Key.ENTER, "1.76", Key.ENTER);
    await mira.read("3 values with spaces between, got 2");
    await mira.tabTo("#link-plate-0");
    await mira.selectAll();
    await mira.keys("1.80 1,80 1.80", Key.ENTER, Key.ENTER, Key.ENTER, Key.ENTER);
    await mira.until("return document.querySelectorAll('[aria-label=Readings] li').length", (n) => n === 1);
    await mira.read("0.960 mm");
    expect(await verdict(mira)).toBe("inside");
    await mira.driver.executeScript("document.activeElement.blur()");
    await mira.keys("r");
    await mira.see("//td[contains(., 'fitted now')]");
    await mira.tabTo("input[name=candidate]");
    for (let i = 0; i < 20; i++) {
      const fitted = await mira.driver.executeScript(
        "return /fitted now/.test(document.querySelector('input[name=candidate]:checked').closest('tr').innerText)",
      );
      if (fitted) break;
      await mira.keys(Key.ARROW_DOWN);
    }
    await mira.tabTo("input[name=reason]");
    await mira.keys(Key.ENTER);
    await mira.read("Ring kept");
    expect(await verdict(mira)).toBe("inside");

    await mira.driver.executeScript("document.activeElement.blur()");
    await mira.keys("b");
    await mira.read("answers to go before it closes");
    const rows = await mira.driver.executeScript(
      "return [...document.querySelectorAll('tr[data-pack]')].map((r) => r.innerText)",
    );
    // The packs in scope, and beside them the end play and the gears that a piece is chosen for.
    expect(String(rows).match(/D1|D3|Input end play|Pump gear side clearance/g)).toHaveLength(4);
    expect(String(rows)).toContain("Inside");
    // Nothing was taken down, looked at or renewed: two taps do not close it.
    const open = "return [...document.querySelectorAll('[data-open]')].map((e) => e.dataset.open)";
    expect(await mira.driver.executeScript(open)).toEqual(
      expect.arrayContaining(["step", "part", "renew", "figure", "weak point"]),
    );
    expect(
      await mira.driver.executeScript(
        "return [...document.querySelectorAll('button')].find((b) => b.innerText === 'Close the job').disabled",
      ),
    ).toBe(true);
    await answerWeakPoints(mira);
    await mira.keys("b");
    await mira.read("answers to go before it closes");
    await mira.gone("//*[@data-open='weak point']");
    // A lead answers for the rest, with a reason and their own PIN.
    await mira.tabTo("details.plate summary");
    await mira.keys(Key.ENTER);
    await mira.tabTo("input[name=reason]");
    await mira.keys("drums alone, the rest was not touched");
    await mira.tabTo("input[name=lead]");
    await mira.keys(Key.SPACE);
    await mira.tabTo("input[name=pin]");
    await mira.keys("2580", Key.ENTER);
    await mira.read("Everything in scope is answered.");
    await mira.read("drums alone, the rest was not touched");
    await mira.tabTo("button.btn-primary");
    await mira.keys(Key.ENTER);
    await mira.read("Closed by Mira K.");
  }),
);
const fetched = async (path: string): Promise<Response> => {
  const cookies = await mira.driver.manage().getCookies();
  const cookie = cookies.map(({ name, value }) => `${name}=${value}`).join("; ");
  return fetch(`${shop.url}${path}`, { headers: { cookie } });
};

story.chapter("the build sheet fits one A4 and one Letter page, as PDF and in print", async () => {
  const response = await fetched("/jobs/1031/sheet.pdf");
  expect(response.headers.get("content-type")).toBe("application/pdf");
  const pdf = await getDocument({ data: new Uint8Array(await response.arrayBuffer()), verbosity: 0 }).promise;
  expect(pdf.numPages).toBe(1);
  const page = await pdf.getPage(1);
  const { items } = await page.getTextContent();
  const words = items.map((item) => ("str" in item ? item.str : "")).join(" ");
  for (const part of [
    "Build sheet",
    "1031",
    "Teal van, TS 7",
    "D1",
    "D3",
    "Inside",
    "Mira K.",
    "0.960 ±",
    "made up for the demo",
  ])
    expect(words).toContain(part);
  // Letter is 792 points high: nothing may stand below that on the 842 of A4.
  for (const item of items)
    if ("transform" in item && item.str.trim()) expect(item.transform[5]).toBeGreaterThan(842 - 792 + 20);

  await mira.go(`${shop.url}/jobs/1031/sheet`);
  for (const [paperWidth, paperHeight] of [
    [8.27, 11.69],
    [8.5, 11],
  ]) {
    const printed = await (
      mira.driver as unknown as {
        sendAndGetDevToolsCommand: (c: string, p: object) => Promise<{ data: string }>;
      }
    ).sendAndGetDevToolsCommand("Page.printToPDF", { paperWidth, paperHeight, preferCSSPageSize: false });
    const sheet = await getDocument({
      data: new Uint8Array(Buffer.from(printed.data, "base64")),
      verbosity: 0,
    }).promise;
    expect(sheet.numPages).toBe(1);
  }
});

story.chapter("the exported job comes into another Yard Key whole, and twice is once", async () => {
  const text = await (await fetched("/jobs/1031/export.json")).text();
  const read = readJobDocument(text);
  if (!read.ok) throw new Error(read.problems.join("\n"));
  const other = await openShop({ empty: true });
  const edda = await Person.sitDown();
  try {
    await journey("import", [edda], async () => {
      await edda.go(other.url);
      await edda.read("A new Yard Key");
      await edda.ready();
      await (await edda.see("//input[@name='shop']")).sendKeys("Other Quay Gearboxes");
      await (await edda.see("//input[@name='name']")).sendKeys("Edda L.");
      await (await edda.see("//input[@name='code']")).sendKeys("7KX4QP2");
      await (await edda.see("//input[@name='pin']")).sendKeys("123", Key.ENTER);
      await edda.read("At least 6 digits");
      await edda.read("That is not the code the server’s console shows.");
      await edda.write("//input[@name='code']", FIRST_RUN_CODE.toLowerCase());
      await edda.write("//input[@name='pin']", "rather-long", Key.TAB, "rather-long", Key.ENTER);
      await edda.read("Who is at the bench?");
      await edda.signIn(other.url, "Edda L.", "rather-long");
      const good = resolve("test-results/job-1031.json");
      writeFileSync(good, text);
      writeFileSync(
        resolve("test-results/job-bad.json"),
        text.replace('"min":"1.05 mm"', '"min":"1.05"').replace('"fit":1', '"fit":-1'),
      );
      for (const [file, words] of [
        ["test-results/job-bad.json", "must be one of"],
        [good, "Teal van, TS 7"],
        [good, "Teal van, TS 7"],
      ] as const) {
        await edda.go(`${other.url}/jobs/import`);
        await edda.ready();
        await (await edda.see("//input[@type='file']")).sendKeys(resolve(file));
        await (await edda.see("//button[.='Import']")).click();
        if (words === "must be one of") await edda.see("//ul[@role='alert']/li");
        else await edda.read(words);
      }
      await edda.go(`${other.url}/jobs/1001/sheet`);
      await edda.read("Closed by Mira K.");
      const { rows } = await other.pool.query<{ jobs: number; facts: number }>(
        "select (select count(*) from job)::int as jobs, (select count(*) from fact)::int as facts",
      );
      expect(rows[0]).toEqual({ jobs: 1, facts: read.document.facts.length });
    });
  } finally {
    await edda.leave();
    await other.close();
  }
});

it(
  "from opening a job to the printed record and another shop, by keyboard alone",
  () => story.told(),
  300_000,
);
