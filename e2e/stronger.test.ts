import { afterAll, beforeAll, describe, expect, it } from "@jest/globals";
import { journey, Person } from "./browser";
import { foundIn, jobOf, saidOf, sheetsOf, triedAt } from "./said";
import { factsOf } from "./steps";
import { openShop, type Shop } from "./shop";

let shop: Shop;
let edda: Person;
let mira: Person;
beforeAll(async () => {
  shop = await openShop();
  [edda, mira] = await Promise.all([Person.sitDown(), Person.sitDown()]);
  await Promise.all([edda.sitsAs(shop, "Edda L.", shop.url), mira.sitsAs(shop, "Mira K.", shop.url)]);
}, 120_000);
afterAll(async () => {
  await Promise.all([edda.leave(), mira.leave()]);
  await shop.close();
});

const open = async (person: Person, path: string): Promise<void> => {
  await person.go(`${shop.url}${path}`);
  await person.ready();
};
const WHIMBREL = { body: "b", drive: "one", band: "pin" };
const way = (id: string): string => `//li[@data-way='${id}']/a`;

describe("a unit that must carry more than it was built for", () => {
  it(
    "a third clutch made stronger: planned with its wave kept by machining, decided by a lead, its parts covered, its stack changed",
    () =>
      journey("stronger", [edda, mira], async () => {
        const job = await jobOf(shop, "marram-whimbrel", WHIMBREL);
        await open(edda, `/jobs/${job}/stronger`);
        await edda.see("//li[@data-element='direct'][@data-judged='enough']");
        // No torque at all, then one for a trailer.
        await edda.write("//input[@name='torque']");
        await edda.press("//button[.='Work it out']");
        await edda.see("//*[@role='alert'][contains(., 'Write what the engine gives, such as 300 lbf·ft')]");
        await edda.press("//input[@name='torque']");
        await edda.selectAll();
        await edda.keys("a lot");
        await edda.press("//button[.='Work it out']");
        await edda.see("//*[@role='alert'][contains(., 'is no torque')]");
        expect(await (await edda.see("//input[@name='torque']")).getAttribute("value")).toBe("a lot");
        await edda.press("//input[@name='torque']");
        await edda.selectAll();
        await edda.keys("430 lbf·ft");
        await edda.press("//button[.='Work it out']");
        await edda.see("//li[@data-element='direct'][@data-judged='slips']");
        await edda.press("//li[@data-element='direct']/a");
        // Thin steels and no wave would do it; with metal off the piston the wave stays.
        await edda.press(way("direct-thin-steels"));
        await edda.see("//li[@data-way='direct-thin-steels'][contains(., 'not needed for the stack')]");
        await edda.press(way("direct-flat"));
        await edda.see("//li[@data-stack='5']");
        await edda.press(way("direct-end-plate"));
        await edda.press(way("direct-piston-cut"));
        await edda.press("//li[@data-stack='5s']/a");
        await edda.see(
          "//li[@data-stack='5s']/a[@aria-current][contains(., 'wave kept')][contains(., 'of metal off')]",
        );
        await edda.see("//li[@data-element='direct'][@data-judged='thin']");
        expect(await edda.axe()).toEqual([]);
        // A builder sees it and cannot decide it.
        const address = new URL(await edda.driver.getCurrentUrl());
        await open(mira, `${address.pathname}${address.search}`);
        await mira.read("A lead decides.");
        await edda.press("//button[.='Decide']");
        await edda.see("//*[@role='alert'][contains(., 'Say why')]");
        await edda.press("//input[@name='reason']");
        await edda.keys("tows a horse trailer");
        await edda.press("//button[.='Decide']");
        await edda.see("//*[@data-decided][contains(., 'horse trailer')]");
        await edda.see("//li[@data-stack='5s']/a[@aria-current]");
        // It is shown in the units it was asked in, and what must be seen stands there.
        expect(await (await edda.see("//input[@name='torque']")).getAttribute("value")).toBe("430 lbf·ft");
        await edda.read("Then see: the piston moves its whole way by air and comes back");
        // A builder reads it and cannot take it back.
        await open(mira, `/jobs/${job}/stronger`);
        await mira.see("//*[@data-decided][contains(., 'horse trailer')]");
        await mira.gone("//button[.='Take back']");
        // The list has the plates of the plan, and a supplier has them.
        await open(edda, `/jobs/${job}/parts`);
        await edda.see(
          "//tr[contains(., '5 × Direct clutch steel')][contains(., 'MW-9301')][contains(., 'made stronger')]",
        );
        await edda.see("//tr[contains(., 'MW-9302')]");
        await edda.see("//section[@aria-label='How to cover it'][contains(., 'MW-9301')]");
        // The pack is the plan’s: another stack, wider limits.
        await open(edda, `/jobs/${job}/choose/direct-clearance?show=trial`);
        await edda.see(
          "//section[@aria-label='Stack'][contains(., '5 f')] | //section[@aria-label='Stack'][contains(., '5 F')]",
        );
        expect(await factsOf<{ ways: string[] }>(shop, job, "stronger")).toEqual([
          expect.objectContaining({
            ways: ["direct-thin-steels", "direct-end-plate", "direct-piston-cut"],
          }),
        ]);
        // Taken back it is built as it was.
        await open(edda, `/jobs/${job}/stronger`);
        await edda.press("//button[.='Take back']");
        await edda.read("Nothing is planned");
        await open(edda, `/jobs/${job}/parts`);
        await edda.gone("//tr[contains(., 'MW-9301')]");
      }),
    90_000,
  );

  it(
    "is decided before the script has loaded too; the drum that was read leads the plan, and what breaks stands beside what slips",
    () =>
      journey("stronger-plain", [edda], async () => {
        const job = await jobOf(shop, "marram-whimbrel", WHIMBREL);
        await open(
          edda,
          `/jobs/${job}/stronger?asked=1&torque=${encodeURIComponent("700 lbf·ft")}&use=towing&at=direct&way=direct-flat`,
        );
        await edda.see("//tr[@data-through='link-drum'][@data-judged='slips']");
        await edda.see("//*[@data-start='book']");
        const found = (await sheetsOf(shop, job)).get("direct-clearance");
        if (!found) throw new Error("no such figure");
        const { spec, seats } = found.applied;
        const sizes = seats[0]?.sizes ?? [];
        const middle = sizes[Math.floor(sizes.length / 2)]?.mark ?? "";
        const inches = ((spec.min ?? 0) + (spec.max ?? 0)) / 2 / 25_400_000;
        await saidOf(shop, job, foundIn(found, [middle]));
        const sheet = (await sheetsOf(shop, job)).get("direct-clearance");
        if (sheet)
          await saidOf(
            shop,
            job,
            triedAt(sheet, ...[0, 0.0005, -0.0005].map((off) => `${(inches + off).toFixed(4)} in`)),
          );
        await open(
          edda,
          `/jobs/${job}/stronger?asked=1&torque=${encodeURIComponent("430 lbf·ft")}&use=towing&at=direct&way=direct-thin-steels&way=direct-flat&stack=direct%205&way=hard-shell`,
        );
        await edda.see("//*[@data-start='measured']");
        await edda.see("//tr[@data-through='link-drum'][contains(., 'Hardened shell')]");
        await edda.withoutScript();
        const address = new URL(await edda.driver.getCurrentUrl());
        await edda.go(`${shop.url}${address.pathname}${address.search}`);
        await edda.press("//button[.='Decide']");
        await edda.see("//*[@role='alert'][contains(., 'Say why')]");
        // What is too short is refused and stays.
        await (await edda.see("//input[@name='reason']")).sendKeys("t");
        await edda.press("//button[.='Decide']");
        await edda.see("//input[@name='reason'][@value='t']");
        await (await edda.see("//input[@name='reason']")).sendKeys("ows a horse trailer");
        await edda.press("//button[.='Decide']");
        await edda.see("//*[@data-decided][contains(., 'horse trailer')]");
        await edda.press("//button[.='Take back']");
        await edda.read("Nothing is planned");
        // A bare torque is in the units of the page.
        await edda.go(
          `${shop.url}/jobs/${job}/stronger?asked=1&torque=430&use=towing&at=direct&way=hard-shell`,
        );
        await (await edda.see("//input[@name='reason']")).sendKeys("bare");
        await edda.press("//button[.='Decide']");
        await edda.see("//*[@data-decided][contains(., 'bare')]");
        expect((await factsOf<{ torque: number }>(shop, job, "stronger")).at(-1)?.torque).toBe(583);
        await edda.withoutScript(false);
        const said = await factsOf<{ ways: string[]; packs: { predicted: number }[] }>(shop, job, "stronger");
        expect(said.slice(0, 2).map(({ ways }) => ways)).toEqual([
          ["direct-thin-steels", "direct-flat", "hard-shell"],
          [],
        ]);
      }),
    90_000,
  );
});
