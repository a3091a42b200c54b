import { middleOf } from "../core/reading";
// A whole journey: a unit from the first step of taking down to the last measurement.
import { afterAll, afterEach, beforeAll, expect, it } from "@jest/globals";
import { bookOf, type UnitId } from "../demo/units";
import { appliedTo, fold, type Fact } from "../core/fact";
import { CLOCKING, DEPTH, specLines, type Item } from "../core/measure";
import { lengthText, nm } from "../core/quantity";
import { Key, Person, journey } from "./browser";
import { openShop, type Shop } from "./shop";
import { allSent, factsOf, openJob } from "./steps";

let shop: Shop;
let mira: Person;

const STEP = "return document.querySelector('[data-shown-step]')?.dataset.shownStep";
const LEFT = "return Number(document.querySelector('[data-left]')?.dataset.left)";
const TAKEN = "return Number(document.querySelector('[data-taken]')?.dataset.taken)";

/** Everything a job’s facts say, as the database has them. */
async function appliedOf(unit: UnitId, number: number) {
  const { rows: stored } = await shop.pool.query<Fact & { by_name: string }>(
    "select f.id, f.at, f.by_name, f.body from fact f join job j on j.id = f.job where j.number = $1 order by f.seq",
    [number],
  );
  const job = fold(stored.map(({ id, at, by_name: by, body }) => ({ id, at: String(at), by, body })));
  return { job, applied: appliedTo(bookOf(unit), job, []) };
}

/** What a careful builder would read: the middle of what the book allows, each of several things by itself. */
async function sensible(unit: UnitId, number: number): Promise<Map<string, string[]>> {
  const { job, applied } = await appliedOf(unit, number);
  const system = applied.present.unit.lengthUnit;
  const figure = (length: number): string => lengthText(nm(length), system).replace(/[^\d.-]+$/, "");
  return new Map(
    specLines(job, applied, { rule: "proven", target: "middle" }, system).map((row): [string, string[]] => {
      const names = row.items.length > 0 ? row.items.map(({ item }) => item) : [{ name: "" }];
      const chain = applied.chains.find((one) => one.chain.id === row.id);
      if (chain) {
        const step = system === "in" ? 2_540 : 1_000;
        const middle = figure(Math.round((middleOf(chain.spec) ?? 0) / step) * step);
        // The depth of a pressed-in part is read three times, then the way it is turned is told by its number.
        return [
          row.id,
          names.flatMap(({ name }) =>
            name === DEPTH ? [middle, middle, middle] : name === CLOCKING ? ["1"] : [middle],
          ),
        ];
      }
      const measurement = applied.scoped.measurements?.find(({ id }) => id === row.id);
      if (measurement?.kind === "valve drop" || (measurement?.each && measurement.kind === "seen"))
        return [row.id, names.map(() => "1")];
      if (measurement?.expect !== undefined) return [row.id, ["f"]];
      const usual = (measurement?.min ?? measurement?.max ?? "0").replace(/[^\d.].*$/, "");
      return [row.id, names.map(({ min }: Item) => (min === undefined ? usual : figure(min)))];
    }),
  );
}

/** How one gets through the same work: without a mouse, or with a finger on what is large enough for it. */
interface Hand {
  /** All groups of a step out, one after the other. */
  bolts: (groups: readonly string[]) => Promise<void>;
  done: () => Promise<void>;
  allGood: () => Promise<void>;
  /** Types into the row that is next and keeps it. */
  figure: (row: string, text: string) => Promise<void>;
}
const ALL_OUT = "//section[@aria-label='This step']//button[starts-with(normalize-space(), 'All ')]";
const DONE = "//section[@aria-label='This step']//button[starts-with(normalize-space(), 'Done')]";
const ALL_GOOD = "//button[contains(., 'in good order') and starts-with(normalize-space(), 'All ')]";
const allOut = (group: string): string =>
  `const [out, of] = document.querySelector('[data-bolts="${group}"]').innerText.match(/\\d+ of \\d+ out/)[0].match(/\\d+/g); return out === of`;
const hands: Readonly<Record<"keyboard" | "touch", Hand>> = {
  keyboard: {
    bolts: async (groups) => {
      for (const group of groups) {
        await mira.keys("f");
        await mira.until(allOut(group), Boolean);
      }
    },
    done: () => mira.keys("d"),
    allGood: () => mira.keys("a"),
    figure: (_, text) => mira.keys(text, Key.ENTER),
  },
  touch: {
    bolts: async () => {
      for (const all of await mira.driver.findElements({ xpath: ALL_OUT })) {
        expect(await all.isDisplayed()).toBe(true);
        await mira.touch(`(${ALL_OUT})[1]`);
      }
    },
    done: () => mira.touch(DONE),
    allGood: () => mira.touch(ALL_GOOD),
    figure: async (row, text) => {
      await mira.touch(`//tr[@data-row='${row}']//input`);
      await mira.keys(text);
      await mira.touch(`//tr[@data-row='${row}']//button[starts-with(@aria-label, 'Keep ')]`);
    },
  },
};

/** Who goes, by what, through which unit; with the network cut in the middle, or on a tablet. */
export interface Trip {
  told: string;
  by: keyof typeof hands;
  unit: UnitId;
  name: string;
  cut?: boolean;
  small?: boolean;
}

/** The tests of one family, in a file of their own so that files can run side by side. */
export function wholeJourneys(trips: readonly Trip[]): void {
  beforeAll(async () => {
    shop = await openShop();
    mira = await Person.sitDown();
    await mira.sitsAs(shop, "Mira K.", shop.url);
  }, 90_000);
  afterAll(async () => {
    await mira.leave();
    await shop.close();
  });
  // A journey that failed without network must not fail those after it.
  afterEach(() => mira.network(true));

  it.each(trips.map((trip) => [trip.told, trip] as const))(
    "%s, from the first step to the last measurement",
    (_told, { by, unit, name, cut, small }) =>
      journey(`bench-${unit}-${by}`, [mira], async () => {
        const hand = hands[by];
        if (small) await mira.screen(1024, 768);
        const number = await openJob(shop, mira, name, "Does not drive as it should.");
        const steps = (await appliedOf(unit, number)).applied.scoped.teardown ?? [];
        expect(steps.length).toBeGreaterThan(20);
        await mira.go(`${shop.url}/jobs/${number}/teardown`);
        await mira.ready();
        for (const [i, { id, fasteners = [] }] of steps.entries()) {
          await mira.until(STEP, (at) => at === id);
          if (cut && i === 5) await mira.network(false);
          if (fasteners.length > 0) {
            await hand.bolts(fasteners);
            for (const group of fasteners) await mira.until(allOut(group), Boolean);
          }
          expect(await mira.driver.findElements({ css: "[data-notices]" })).toEqual([]);
          await hand.done();
          if (cut && i === 12) await mira.network(true);
        }
        await mira.read(`${steps.length} of ${steps.length} steps`);
        await allSent(mira);
        expect((await factsOf<{ did: string }>(shop, number, "step")).map(({ did }) => did)).toEqual(
          steps.map(() => "done"),
        );

        // Looked at: a whole sub-assembly in good order is one touch.
        await mira.go(`${shop.url}/jobs/${number}/inspect`);
        await mira.ready();
        for (let touches = 0; ; touches++) {
          const left = Number(await mira.driver.executeScript(LEFT));
          if (left === 0) break;
          expect(touches).toBeLessThan(16);
          await hand.allGood();
          await mira.until(LEFT, (now) => Number(now) < left);
        }

        // Measured: the digits, Enter, and nothing else.
        const values = await sensible(unit, number);
        expect(values.size).toBeGreaterThan(30);
        await mira.go(`${shop.url}/jobs/${number}/measure`);
        await mira.ready();
        await mira.press("(//tbody//input)[1]");
        const order = await mira.driver.executeScript<string[]>(
          "return [...document.querySelectorAll('[data-row]')].map((row) => row.dataset.row)",
        );
        for (const id of order) for (const text of values.get(id) ?? []) await hand.figure(id, text);
        await mira.until(TAKEN, (taken) => taken === order.length);
        await allSent(mira);
        const outside = await mira.driver.executeScript(
          "return [...document.querySelectorAll('[data-standing=outside]')].map((row) => row.dataset.row)",
        );
        expect(outside).toEqual([]);
        const figures = [
          ...(await factsOf(shop, number, "reading")),
          ...(await factsOf(shop, number, "figure")),
        ];
        expect(figures).toHaveLength([...values.values()].flat().length);
        if (small) await mira.screen(1280, 800);
      }),
    240_000,
  );
}
