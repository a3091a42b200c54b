import { afterAll, beforeAll, describe, expect, it } from "@jest/globals";
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sharp from "sharp";
import { v7 as newId } from "uuid";
import { arrive } from "../store/orders";
import { journey, Person } from "./browser";
import { burnt } from "../core/testing/said";
import { jobOf, saidOf } from "./said";
import { openShop, type Shop } from "./shop";
import { allSent } from "./steps";

let shop: Shop;
let ines: Person;
let mira: Person;
beforeAll(async () => {
  shop = await openShop({ webs: 2 });
  [ines, mira] = await Promise.all([Person.sitDown(), Person.sitDown()]);
  await Promise.all([ines.sitsAs(shop, "Ines R.", shop.url), mira.sitsAs(shop, "Mira K.", shop.url)]);
}, 120_000);
afterAll(async () => {
  await Promise.all([ines.leave(), mira.leave()]);
  await shop.close();
});

const open = async (person: Person, path: string): Promise<void> => {
  await person.go(`${shop.url}${path}`);
  await person.ready();
};
/** Replaces what stands in a field. */
async function types(person: Person, field: string, text: string): Promise<void> {
  await person.press(field);
  await person.selectAll();
  await person.keys(text);
}
const textOf = async (person: Person, xpath: string): Promise<string> => (await person.see(xpath)).getText();
const count = async (text: string, ...values: unknown[]): Promise<number> =>
  Number((await shop.pool.query<{ n: string }>(`select count(*) as n from ${text}`, values)).rows[0]?.n);
/** A picture as a telephone takes it. */
async function pictureFile(): Promise<string> {
  const file = join(mkdtempSync(join(tmpdir(), "yard-key-part-")), "part.jpg");
  await sharp({ create: { width: 800, height: 600, channels: 3, background: "#8a5a2b" } })
    .jpeg()
    .toFile(file);
  return file;
}
const FAMILIES = [
  ["an automatic", "marram-dunlin", { body: "late", plate: "two" }, "d1-friction"],
  ["a variable one", "selwyn-turnstone", {}, null],
  ["a dual-clutch", "corrie-godwit", {}, null],
] as const;

describe("what a unit needs", () => {
  for (const [what, unit, traits, friction] of FAMILIES)
    it(
      `${what}: from the list to goods in`,
      () =>
        journey(`parts ${unit}`, [ines], async () => {
          const job = await jobOf(shop, unit, traits);
          if (friction) await saidOf(shop, job, [burnt(friction)]);
          // A parts person begins the day with what is to order.
          await open(ines, "/orders");
          await ines.press(`//li[@data-to-order='${job}']//a`);
          await ines.see("//*[@data-needs]");
          if (friction) {
            await ines.see(`//tr[@data-need='part ${friction}'][contains(., 'burnt, beyond use')]`);
            await ines.see(`//tr[@data-need='part ${friction}'][contains(., 'Build the D1 drum')]`);
          }
          // The soonest costs more than the cheapest, and what is shown is what is ordered.
          await ines.press("//button[@data-way][contains(., 'Soonest') or contains(., 'The one way')]");
          const bought = await ines.driver.executeScript<number>(
            "return [...document.querySelectorAll('[data-supplier]:not([data-supplier=shelf]) [data-take]')].length",
          );
          await ines.press("//button[starts-with(., 'Order')]");
          await ines.see("//*[@data-needs][contains(., 'on the way')]");
          expect(await count("purchase_line l join job j on j.id = l.job where j.number = $1", job)).toBe(
            bought,
          );
          // The list of jobs says what is on its way.
          await open(ines, "/");
          await ines.see(`//li[contains(., '${job}')]//*[@data-coming='${bought}']`);
          await open(ines, "/orders");
          await ines.gone(`//li[@data-to-order='${job}']`);
          // Every order comes in, line by line.
          const { rows } = await shop.pool.query<{ order: number }>(
            "select distinct p.number::int as order from purchase p join purchase_line l on l.purchase = p.id join job j on j.id = l.job where j.number = $1",
            [job],
          );
          for (const { order } of rows) {
            await open(ines, `/orders/${order}`);
            for (;;) {
              const left = await ines.driver.executeScript(
                "return document.querySelectorAll('button[value=arrived]').length",
              );
              if (left === 0) break;
              await ines.press("(//button[@value='arrived'])[1]");
              await ines.until(
                "return document.querySelectorAll('button[value=arrived]').length",
                (n) => n === Number(left) - 1,
              );
            }
            await ines.see("//*[@role='status'][.='All of it is here']");
          }
          await open(ines, `/jobs/${job}/parts`);
          await ines.see("//*[@data-needs][contains(., 'all of it here')]");
          await ines.see("//*[@data-needs][contains(., 'nothing holds the build up')]");
          expect(
            await count(
              "purchase_line l join purchase_open o on o.line = l.id join job j on j.id = l.job where j.number = $1 and o.pieces > 0",
              job,
            ),
          ).toBe(0);
        }),
      120_000,
    );

  it(
    "comes short, and a wrong friction is caught before it counts: it goes back with its reason and is still to come",
    () =>
      journey("goods in", [ines, mira], async () => {
        const job = await jobOf(shop, "marram-dunlin", { body: "late", plate: "two" });
        await saidOf(shop, job, [burnt("d1-friction"), burnt("h2-friction")]);
        await open(ines, `/jobs/${job}/parts`);
        await ines.press("//button[@data-way='0']");
        // Sent twice, by an impatient hand: one order.
        await ines.press("//button[starts-with(., 'Order')]");
        await ines.see("//*[@data-needs][contains(., 'on the way')]");
        const line = "//li[@data-line='MD-1112']";
        const { rows } = await shop.pool.query<{ order: number }>(
          "select p.number::int as order from purchase p join purchase_line l on l.purchase = p.id join job j on j.id = l.job where j.number = $1 and l.part = 'MD-1112'",
          [job],
        );
        const order = rows[0]?.order ?? 0;
        await open(ines, `/orders/${order}`);
        expect(await textOf(ines, line)).toContain("thickness of the whole stack, clamped");
        // Two of four come, one of them too thick.
        const field = `${line}//input[@name='pieces']`;
        await types(ines, field, "none");
        await ines.press(`${line}//button[@value='arrived']`);
        await ines.see(`${line}//*[@role='alert'][contains(., 'whole number')]`);
        await types(ines, field, "9");
        await ines.press(`${line}//button[@value='arrived']`);
        await ines.see(`${line}//*[@role='alert'][contains(., 'So many are not to come')]`);
        await types(ines, field, "1");
        await ines.press(`${line}//button[contains(., 'Not right')]`);
        await ines.press(`${line}//button[@value='wrong']`);
        await ines.see(`${line}//*[@role='alert'][contains(., 'Say what is wrong')]`);
        await types(ines, `${line}//input[@name='note']`, "0.1 mm thicker than the old one");
        const camera = await ines.driver.findElement({
          css: "[data-line='MD-1112'] [data-photo-input=camera]",
        });
        await camera.sendKeys(await pictureFile());
        await allSent(ines);
        await ines.press(`${line}//button[@value='wrong']`);
        await ines.see(`${line}//li[@data-event='wrong'][contains(., '0.1 mm thicker')]`);
        await ines.see(`${line}[contains(., '4 to come')]`);
        await open(ines, `/orders/${order}`);
        await ines.see(`${line}//img[contains(@alt, 'as it came')]`);
        await ines.press(`${line}//button[contains(., 'Not right')]`);
        // Whoever orders next sees how that supplier was.
        await open(mira, "/orders");
        await mira.see("//li[@data-supplier][contains(., '1 piece wrong')]");
        await types(ines, field, "1");
        await ines.press(`${line}//button[@value='arrived']`);
        await ines.see(`${line}[contains(., '3 to come')]`);
        // On paper and as a table for who has no computer of ours; and the quote for the customer.
        const cookie = await shop.cookieOf("Ines R.");
        const file = (path: string) => fetch(`${shop.url}${path}`, { headers: { cookie } });
        expect(await (await file(`/orders/files/${order}.csv`)).text()).toMatch(/MD-1112,D1 friction,4,/);
        for (const path of [`/orders/files/${order}.pdf`, `/jobs/${job}/quote.pdf`])
          expect((await file(path)).headers.get("content-type")).toBe("application/pdf");
        for (const odd of [
          "/orders/files/999999.pdf",
          "/orders/abc",
          "/orders/99999999999999999999",
          "/orders/1.5",
        ])
          expect([odd, (await file(odd)).status]).toEqual([odd, 404]);
        // While the server cannot be reached nothing is booked in, and the page stays and says so.
        await ines.network(false);
        await ines.press(`${line}//button[@value='arrived']`);
        await ines.see(`${line}//*[@role='alert'][contains(., 'server is away')]`);
        await ines.network(true);
        await ines.see(`${line}[contains(., '3 to come')]`);
        // At the bench it says so, and what holds the build up.
        await open(mira, `/jobs/${job}/parts`);
        await mira.see(
          "//tr[@data-need='part d1-friction'][contains(., '1 in the box')][contains(., '3 comes')]",
        );
        await mira.see("//*[@data-needs][contains(., 'the build can go on to step')]");
        // A builder does not order, and is told who does.
        await open(mira, "/jobs/1030/parts");
        await mira.see("//section[@aria-label='How to cover it'][contains(., 'a lead, orders it here')]");
        await mira.gone("//button[starts-with(., 'Order')]");
        expect(
          await count(
            "purchase_event e join purchase_line l on l.id = e.line where l.part = 'MD-1112' and e.what = 'wrong'",
          ),
        ).toBe(1);
        // The web process it was booked in with dies; nothing is lost, nothing is there twice.
        await shop.webs[0]?.kill();
        await shop.webs[0]?.start();
        await open(ines, `/orders/${order}`);
        await ines.see(`${line}[contains(., '3 to come')]`);
      }),
    120_000,
  );

  it(
    "is over when the job no longer wants it: one touch puts it on the shelf",
    () =>
      journey("left over", [ines], async () => {
        const job = await jobOf(shop, "marram-dunlin", { body: "late", plate: "two" });
        await saidOf(shop, job, [burnt("d1-friction")]);
        await open(ines, `/jobs/${job}/parts`);
        await ines.press("//button[@data-way][contains(., 'Soonest')]");
        await ines.press("//button[starts-with(., 'Order')]");
        await ines.see("//*[@data-needs][contains(., 'on the way')]");
        const { rows } = await shop.pool.query<{ order: number; part: string }>(
          "select p.number::int as order, l.part from purchase p join purchase_line l on l.purchase = p.id join job j on j.id = l.job where j.number = $1 and (l.part = 'MD-1112' or l.part in ('MD-9802', 'MD-9803'))",
          [job],
        );
        const [{ order, part } = { order: 0, part: "" }] = rows;
        await open(ines, `/orders/${order}`);
        await ines.press(`//li[@data-line='${part}']//button[@value='arrived']`);
        await ines.see(`//li[@data-line='${part}'][contains(., 'all here')]`);
        // Two tabs at one line: the second is told, and sees what is left.
        const next = "(//button[@value='arrived'])[1]";
        const left = () =>
          ines.driver.executeScript<number>(
            "return document.querySelectorAll('button[value=arrived]').length",
          );
        const before = await left();
        if (before > 0) {
          const [open] = (
            await shop.pool.query<{ line: string; pieces: number }>(
              "select o.line, o.pieces from purchase_open o join purchase_line l on l.id = o.line join purchase p on p.id = l.purchase where p.number = $1 and o.pieces > 0 order by l.part limit 1",
              [order],
            )
          ).rows;
          await arrive(shop.pool, {
            id: newId(),
            line: open?.line ?? "",
            what: "arrived",
            pieces: open?.pieces ?? 0,
            note: "",
            by: "Edda L.",
          });
          await ines.press(next);
          await ines.until(
            "return document.querySelectorAll('button[value=arrived]').length",
            (n) => n === before - 1,
          );
        }
        // They can be used again after all.
        await saidOf(shop, job, [
          { kind: "disposition", part: "d1-friction", is: "reuse", reason: "only the fluid was dark" },
        ]);
        await open(ines, `/jobs/${job}/parts`);
        await ines.press("//li[@data-over='MD-1112']//button[contains(., 'To the shelf')]");
        await ines.gone("//li[@data-over='MD-1112']");
        await open(ines, "/shelf/part/MD-1112");
        await ines.see("//main[contains(., 'left over')]");
      }),
    90_000,
  );

  it("is quoted, and what it came to is held against that on the customer’s sheet", () =>
    journey("parts-quoted", [ines], async () => {
      const job = await jobOf(shop, "marram-dunlin", { body: "late", plate: "two" });
      const gone = (part: string) =>
        ({ kind: "disposition", part, is: "replace", reason: "worn out" }) as const;
      await saidOf(shop, job, [gone("d1-friction")]);
      await open(ines, `/jobs/${job}/parts`);
      await ines.press("//button[contains(., 'Given to the customer')]");
      await types(ines, "//dialog[@open]//input[@name='promised']", "12 months, or 20 000 km");
      await ines.press("//dialog[@open]//button[.='Keep it as given']");
      await ines.see("//button[@data-quoted][starts-with(., 'Quoted ')]");
      await allSent(ines);
      await open(ines, `/jobs/${job}/customer`);
      await ines.see("//section[@data-told='What it costs'][contains(., 'Nothing has changed since')]");
      await saidOf(shop, job, [gone("d3-friction")]);
      await open(ines, `/jobs/${job}/customer`);
      await ines.see("//section[@data-told='What it costs']//li[contains(., 'added: ')]");
      await ines.see("//section[@data-told='What is promised'][contains(., '12 months, or 20 000 km')]");
    }));

  it("comes from elsewhere than a supplier: a later plate the job follows, a donor’s converter, a cover that is machined; another unit altogether", () =>
    journey("parts-elsewhere", [ines], async () => {
      const job = await jobOf(shop, "marram-dunlin", { body: "late", plate: "one" });
      const gone = (part: string, is: "replace" | "machine") =>
        ({ kind: "disposition", part, is, reason: "worn out" }) as const;
      await saidOf(shop, job, [
        gone("plate-one", "replace"),
        gone("converter", "replace"),
        gone("pump-cover", "machine"),
      ]);
      const row = (part: string, words = ""): string =>
        `//tr[@data-need='part ${part}'][contains(., '${words}')]`;
      await open(ines, `/jobs/${job}/parts`);
      await ines.see(row("pump-cover", "not here yet"));
      await ines.press(`${row("plate-one")}//a`);
      await ines.press("//button[@data-later='MD-9002']");
      await ines.see(row("plate-two", "in place of separator plate, first"));
      await ines.see(row("plate-two", "sixth check ball"));
      await ines.gone(row("plate-one"));
      // It is taken down as it was found, and built as it will be.
      await ines.see(
        "//section[@aria-label='Where it comes from'][contains(., 'separator plate, first again')]",
      );
      await allSent(ines);
      await open(ines, `/jobs/${job}`);
      await ines.read("second plate goes in");

      await open(ines, `/jobs/${job}/parts`);
      await ines.see(row("converter", "120.00 on the old one"));
      await ines.press(`${row("converter")}//a`);
      await ines.press("//summary[.='Out of a donor unit']");
      // Out of which one is asked for, and what was typed stays.
      await types(ines, "//input[@name='distance']", "92 000 km");
      await ines.press("//button[.='Take it from there']");
      await ines.see("//*[@role='alert'][contains(., 'out of which unit')]");
      await types(ines, "//input[@name='of']", "a Dunlin from the yard");
      await ines.press("//button[.='Take it from there']");
      await ines.see(row("converter", "out of a donor unit: a Dunlin from the yard, 92 000 km"));
      await ines.press("//button[.='It is here']");
      await ines.see(`${row("converter")}//td[last()][contains(., 'here') and not(contains(., 'not'))]`);
      await ines.press("//button[.='kept for stock']");
      await ines.see("//*[@data-old='stock']");

      await ines.press(`${row("pump-cover")}//a`);
      await types(ines, "//input[@name='of']", "Fenside Grinding");
      await ines.press("//section[@aria-label='Where it comes from']//button[.='Keep']");
      await ines.see(row("pump-cover", "the old one, machined: Fenside Grinding"));
      await ines.press("//button[.='It is back']");
      await ines.gone(row("pump-cover", "not here yet"));
      await allSent(ines);

      // A lead gives it up for another unit, which is all the list has then.
      const edda = ines;
      await edda.sitsAs(shop, "Edda L.", shop.url);
      await open(edda, `/jobs/${job}/cause`);
      await edda.press("//summary[.='Write an offer']");
      await edda.press("//summary[starts-with(., 'Of another unit')]");
      for (const [name, text] of [
        ["cents", "1800"],
        ["hours", "6"],
        ["risk", "20"],
        ["source", "Saltings Dismantlers"],
        ["distance", "far"],
      ] as const)
        await types(edda, `//input[@name='${name}']`, text);
      await edda.press("//label[normalize-space(.)='converter seal']");
      await edda.press("//section[@aria-label='Rebuild or replace']//button[@name='way'][.='Used unit']");
      await edda.see("//*[@role='alert'][contains(., '92 000 km')]");
      await types(edda, "//input[@name='distance']", "61 000 km");
      await edda.press("//section[@aria-label='Rebuild or replace']//button[@name='way'][.='Used unit']");
      await edda.see("//tr[@data-option='used'][contains(., 'Saltings Dismantlers, 61 000 km')]");
      await types(edda, "//input[@name='reason']", "metal everywhere");
      await edda.press(
        "(//section[@aria-label='Rebuild or replace']//button[@name='way'][.='Used unit'])[last()]",
      );
      await edda.see("//*[@data-way='used']");
      await allSent(edda);
      await open(edda, `/jobs/${job}/parts`);
      await edda.see("//tr[@data-need='unit used'][contains(., 'Saltings Dismantlers, 61 000 km')]");
      await edda.see(row("converter-seal", "renewed before the other unit goes in"));
      expect(await edda.driver.executeScript("return document.querySelectorAll('[data-need]').length")).toBe(
        3,
      );
      // The sheet says what goes in, and lists no clearance of what does not.
      await open(edda, `/jobs/${job}/sheet`);
      await edda.see("//h1[starts-with(., 'Another unit')]");
      await edda.read("renewed: converter seal; metal everywhere (Edda L.)");
      expect(await edda.driver.findElements({ xpath: "//tr[@data-pack]" })).toEqual([]);
      await edda.press("//li[@data-open='renew']//button");
      await edda.gone("//li[@data-open='renew']");
      await allSent(edda);
      await edda.sitsAs(shop, "Ines R.", shop.url);
    }));
});
