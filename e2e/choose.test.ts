import { middleOf } from "../core/reading";
import { afterAll, beforeAll, expect, it } from "@jest/globals";
import { journey, Person } from "./browser";
import { foundIn, saidOf, sheetsOf, triedAt } from "./said";
import { openShop, type Shop } from "./shop";
import { factsOf, openPack } from "./steps";

const JOB = 1028;
let shop: Shop;
let mira: Person;
beforeAll(async () => {
  shop = await openShop();
  mira = await Person.sitDown();
  await mira.sitsAs(shop, "Mira K.", shop.url);
}, 90_000);
afterAll(async () => {
  await mira.leave();
  await shop.close();
});

/** Says at another bench which ring was in, and three trial readings that would be on the target with another one. */
async function trial(chain: string, found: string, wanted: string): Promise<void> {
  const sheet = (await sheetsOf(shop, JOB)).get(chain);
  const ring = (mark: string) => sheet?.seats[0]?.link.sizes.find((one) => one.mark === mark);
  const [piece, other] = [ring(found), ring(wanted)];
  if (!sheet || !piece || !other) throw new Error(`${chain} has no such ring`);
  const value = (middleOf(sheet.applied.spec) ?? 0) + other.size - piece.size;
  const values = [-10_000, 0, 10_000].map((off) => `${(value + off) / 1_000_000} mm`);
  await saidOf(shop, JOB, [...foundIn(sheet, [found]), ...triedAt(sheet, ...values)]);
}
const row = (chain: string): string => `//tr[@data-seat='${chain}']`;
const ringOf = async (chain: string): Promise<string> =>
  (await (await mira.see(`${row(chain)}/td[3]`)).getText()).split("\n")[0] ?? "";

it(
  "all packs of a unit are chosen together from one shelf, and anew as readings come from another bench",
  () =>
    journey("choose", [mira], async () => {
      await mira.press(`//a[contains(., '${JOB}')]`);
      await mira.press("//nav[@aria-label='Stages of the job']//a[contains(., 'Choose')]");
      await mira.press("//a[.='All together']");
      await mira.read("Nothing to choose for just now.");
      // Said at another bench: it stands here without anything being touched.
      await trial("d3-clearance", "two notches", "three notches");
      await mira.see(row("d3-clearance"));
      expect(await ringOf("d3-clearance")).toBe("1.90 mm");
      await mira.see("//*[@data-plan='proved'][contains(., '1 figure') and contains(., 'all inside')]");
      // There is one ring of 1.90: a second pack wants it as well.
      await trial("d2-clearance", "one notch", "three notches");
      await mira.see(row("d2-clearance"));
      // Both are surest with it: one has the last, the other waits for what is ordered.
      await mira.see(
        "//*[@data-plan='proved'][contains(., '2 figures') and contains(., '1 to order, 2 days')]",
      );
      expect([await ringOf("d3-clearance"), await ringOf("d2-clearance")]).toEqual(["1.90 mm", "1.90 mm"]);
      await mira.see("//tr[@data-seat][contains(., 'last on shelf')]/td[6][contains(., 'changes too')]");
      expect(await mira.axe()).toEqual([]);
      // With what is here one of them has something else.
      await mira.press("//nav[@aria-label='What to choose for']//a[.='With what is here']");
      await mira.see("//*[@data-plan='proved'][contains(., 'nothing to order')]");
      const rings = [await ringOf("d3-clearance"), await ringOf("d2-clearance")];
      expect(rings.filter((ring) => ring === "1.90 mm")).toHaveLength(1);
      const [has, other] = rings[0] === "1.90 mm" ? ["d3", "d2"] : ["d2", "d3"];

      // To the pack, where the proposed one is picked already and is put in.
      await mira.press(`//a[@aria-label='Choose for ${has?.toUpperCase()}']`);
      await mira.until(
        "return document.querySelector('[name=candidate]:checked')?.closest('tr').innerText ?? ''",
        (text) => String(text).includes("1.90 mm"),
      );
      await mira.press("//label[contains(., 'by its mark')]");
      await mira.press("//form[.//input[@name='byMark']]//button[contains(., 'Fit')]");
      await mira.see("//a[@aria-current='step'][contains(., 'built')]");
      expect((await factsOf(shop, JOB, "choice")).length).toBe(1);
      // It is no longer asked for, and the last 1.90 is gone for the other.
      await mira.press("//a[.='All together']");
      await mira.see(`//section[@aria-label='Not yet']//a[contains(., '${has?.toUpperCase()}')]`);
      await mira.see(`${row(`${other}-clearance`)}[contains(., 'to order')]`);
      await openPack(mira, "H1");
    }),
  120_000,
);

it(
  "moves nothing but itself, whichever job of the same book was looked at between",
  () =>
    journey("choose-between", [mira], async () => {
      const page = `${shop.url}/jobs/1029/choose/h1-clearance?show=choose`;
      for (const other of ["1030/choose/h1-clearance", "1030/measure", "1027"]) {
        await mira.go(page);
        await mira.go(`${shop.url}/jobs/${other}`);
        await mira.ready();
      }
      await mira.go(page);
      await mira.ready();
      await mira.see("//section[@aria-label='Candidates']");
      await mira.gone("//*[@data-moves]");
      const drawn = await mira.driver.executeAsyncScript<string>(
        "const done = arguments[0]; fetch(location.href).then((answer) => answer.text()).then(done);",
      );
      expect(drawn).toContain('aria-label="Candidates"');
      expect(drawn).not.toContain("data-moves");
    }),
  60_000,
);
