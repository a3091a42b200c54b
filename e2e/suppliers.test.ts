import { afterAll, afterEach, beforeAll, describe, expect, it } from "@jest/globals";
import { journey, Person } from "./browser";
import { burnt } from "../core/testing/said";
import { jobOf, saidOf } from "./said";
import { openShop, type Shop } from "./shop";

let shop: Shop;
let ines: Person;
let edda: Person;
beforeAll(async () => {
  shop = await openShop({ webs: 2, devices: ["supplier"] });
  [ines, edda] = await Promise.all([Person.sitDown(), Person.sitDown()]);
  await Promise.all([
    ines.sitsAs(shop, "Ines R.", shop.url),
    edda.sitsAs(shop, "Edda L.", shop.webs[1]?.url ?? ""),
  ]);
}, 120_000);
afterEach(() => behaves({}));
afterAll(async () => {
  await Promise.all([ines.leave(), edda.leave()]);
  await shop.close();
});

/** Has the supplier behave as on a bad day. */
async function behaves(how: object): Promise<void> {
  await fetch(`${shop.supplier.url}/behave`, { method: "POST", body: JSON.stringify(how) });
}
const taken = async (): Promise<number> =>
  ((await (await fetch(`${shop.supplier.url}/taken`)).json()) as { count: number }).count;
const open = async (person: Person, path: string): Promise<void> => {
  await person.go(`${person === edda ? (shop.webs[1]?.url ?? "") : shop.url}${path}`);
  await person.ready();
};
/** A job whose D1 frictions burnt, ordered the soonest way: of the supplier that is near, and has a computer. */
async function ordered(): Promise<{ job: number; order: number }> {
  const job = await jobOf(shop, "marram-dunlin", { body: "late", plate: "two" });
  await saidOf(shop, job, [burnt("d1-friction")]);
  await open(ines, `/jobs/${job}/parts`);
  await ines.press("//button[@data-way][contains(., 'Soonest')]");
  await ines.press("//button[starts-with(., 'Order')]");
  // Some of it comes; a supplier that turns the rest away may have done so already.
  await ines.see("//tr[@data-need][contains(., 'comes')]");
  const { rows } = await shop.pool.query<{ number: number }>(
    "select p.number::int as number from purchase p join purchase_line l on l.purchase = p.id join job j on j.id = l.job where j.number = $1 and p.supplier = 'Tidewater Parts' limit 1",
    [job],
  );
  return { job, order: rows[0]?.number ?? 0 };
}

/** Opens a page again until something stands there: what a supplier says comes by itself. */
async function comes(person: Person, path: string, xpath: string): Promise<void> {
  // What a killed process was at is taken up again after some twenty seconds.
  const until = Date.now() + 60_000;
  while (Date.now() < until) {
    await open(person, path);
    if ((await person.driver.findElements({ xpath })).length > 0) return;
  }
  throw new Error(`never there: ${xpath}`);
}

describe("a supplier with a computer", () => {
  it(
    "that is away loses no order and gets none twice, though every web process is killed meanwhile",
    () =>
      journey("supplier away", [ines], async () => {
        await behaves({ down: true });
        const before = await taken();
        const { job, order } = await ordered();
        await comes(ines, `/orders/${order}`, "//*[@data-word='failing'][contains(., 'it answers 503')]");
        await open(ines, "/orders");
        await ines.see(`//li[@data-stuck='${order}'][contains(., 'does not have it yet')]`);
        // Two hours: everything that ran is killed, and the supplier’s own computer too.
        for (const web of shop.webs) await web.kill();
        await shop.supplier.kill();
        await shop.supplier.start();
        await behaves({ down: true });
        for (const web of shop.webs) await web.start();
        await open(ines, `/orders/${order}`);
        await ines.see("//*[@data-word='failing']");
        await behaves({ losesAnswers: true });
        await comes(
          ines,
          `/orders/${order}`,
          "//*[@data-word='failing'][contains(., 'it cannot be reached')]",
        );
        await behaves({});
        await comes(ines, `/orders/${order}`, "//*[@data-word='taken'][contains(., 'S-')]");
        expect(await taken()).toBe(before + 1);
        await open(ines, "/orders");
        await ines.gone(`//li[@data-stuck='${order}']`);
        await open(ines, `/jobs/${job}/parts`);
        await ines.see("//*[@data-needs][contains(., 'on the way')]");
      }),
    150_000,
  );

  it(
    "does not send one part: it is wanted again, and the parts person sees why",
    () =>
      journey("supplier refuses", [ines], async () => {
        // The frictions come loose, or in one of two kits.
        const why = "none until spring";
        await behaves({ refuses: { "MD-1112": why, "MD-9802": why, "MD-9803": why } });
        const { job, order } = await ordered();
        await comes(ines, `/orders/${order}`, "//*[@data-word='taken']");
        const refused = "//li[@data-line][.//li[@data-event='cancelled'][contains(., 'none until spring')]]";
        const part = await (await ines.see(refused)).getAttribute("data-line");
        await open(ines, "/orders");
        await ines.see(`//*[@data-came='${part}'][contains(., 'does not come: none until spring')]`);
        await ines.see(`//li[@data-to-order='${job}']`);
        await open(ines, `/jobs/${job}/parts`);
        await ines.see("//tr[@data-need='part d1-friction'][not(contains(., 'comes'))]");
      }),
    120_000,
  );

  it(
    "a job that is called off: what is put aside is free, what can be is cancelled, what is on the road comes to the shelf",
    () =>
      journey("called off", [ines, edda], async () => {
        const { job, order } = await ordered();
        await comes(ines, `/orders/${order}`, "//*[@data-word='taken']");
        const lines = (
          await shop.pool.query<{ part: string; pieces: number }>(
            "select l.part, o.pieces from purchase_line l join purchase_open o on o.line = l.id join purchase p on p.id = l.purchase where p.number = $1 and o.pieces > 0 order by l.part",
            [order],
          )
        ).rows;
        const [road] = lines;
        if (!road) throw new Error("nothing was ordered");
        // One part of it is on the road already.
        await behaves({ sent: { [road.part]: road.pieces } });
        await open(edda, `/jobs/${job}/sheet`);
        await edda.press("//summary[contains(., 'called off')]");
        const form = "//form[.//input[@value='call-off']]";
        await edda.press(`${form}//button[.='Sign']`);
        await edda.see(`${form}//*[@role='alert'][contains(., 'Say why it is called off')]`);
        const field = (name: string) => edda.see(`${form}//input[@name='${name}']`);
        await (await field("reason")).sendKeys("the customer bought another car");
        await edda.press(`${form}//label[contains(., 'Edda L.')] | ${form}//button[contains(., 'Edda L.')]`);
        await (await field("pin")).sendKeys("1111");
        await edda.press(`${form}//button[.='Sign']`);
        await edda.see(`${form}//*[@role='alert'][contains(., 'not this lead')]`);
        // What is typed next is the next try, and not added to the last; the reason stays.
        expect(await (await field("reason")).getAttribute("value")).toBe("the customer bought another car");
        await (await field("pin")).sendKeys("2580");
        await edda.press(`${form}//button[.='Sign']`);
        await edda.see(
          "//*[@role='status'][contains(., 'Called off by Edda L: the customer bought another car')]",
        );
        await edda.see("//h1[contains(., 'Called off')]");
        await comes(
          ines,
          `/orders/${order}`,
          `//li[@data-line='${road.part}']//li[@data-event='comes after all'][contains(., 'on the road already')]`,
        );
        // It came: nobody’s box wants it, it lies on the shelf.
        await ines.press(`//li[@data-line='${road.part}']//button[@value='arrived']`);
        await ines.see("//*[@role='status'][.='All of it is here']");
        const shelf = await shop.pool.query<{ n: number }>(
          "select coalesce(sum(on_hand), 0)::int as n from stock where part = $1 or part in (select c ->> 'number' from purchase_line l cross join jsonb_array_elements(l.contents) c where l.part = $1)",
          [road.part],
        );
        expect(shelf.rows[0]?.n).toBeGreaterThanOrEqual(road.pieces);
        const held = await shop.pool.query(
          "select from reservation r join job j on j.id = r.job where j.number = $1 and r.ended is null",
          [job],
        );
        expect(held.rowCount).toBe(0);
        await open(ines, `/jobs/${job}/parts`);
        await ines.gone("//tr[@data-need]");
        await ines.gone("//button[starts-with(., 'Order')]");
      }),
    120_000,
  );
});
