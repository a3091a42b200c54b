import { afterAll, beforeAll, expect, it } from "@jest/globals";
import type { Book } from "../core/book";
import { UNITS } from "../demo/units";
import { fold, jobWithBook } from "../core/fact";
import { jobByNumber } from "../store/jobs";
import { journey, Person } from "./browser";
import { OF_BOOK, OF_JOB } from "./said";
import { openShop, type Shop } from "./shop";

let shop: Shop;
let edda: Person;
beforeAll(async () => {
  shop = await openShop();
  edda = await Person.sitDown();
  await edda.sitsAs(shop, "Edda L.", shop.url);
}, 90_000);
afterAll(async () => {
  await edda.leave();
  await shop.close();
});

/** Everything a page says, with what is folded shut; codes are meant to look like codes. */
const SAID =
  "for (const one of document.querySelectorAll('main details')) one.open = true;" +
  "for (const one of document.querySelectorAll('main code, main kbd, main svg, main option')) one.remove();" +
  "return document.querySelector('main')?.innerText ?? ''";

/** What no sentence has: two stops, a comma with nothing before it, a value the program has no words for, a unit twice. */
const SLIPS =
  /\.\.(?!\.)|,,|\bundefined\b|\bNaN\b|\[object|\b(?<unit>mm|in|bar|psi|N·m|°C) \k<unit>\b|:\s*[.,;]|\(\s*\)/gm;

/** Pages of which a part is worked out in the browser alone; the others come as they are read. */
const WORKED_OUT_THERE: readonly string[] = ["/fault", "/choose"];

/** Ids that are written with hyphens and are no words of the book itself. */
function idsOf(book: Book): Set<string> {
  const text = JSON.stringify(book, (key, value: unknown) => (key === "id" ? undefined : value));
  const words = new Set(text.match(/[a-zA-Z][\w-]*/g));
  const found = new Set<string>();
  JSON.stringify(book, (key, value: unknown) => {
    if (key === "id" && typeof value === "string" && value.includes("-")) found.add(value);
    return value;
  });
  const referred = (id: string): boolean =>
    words.has(id) && new RegExp(`"[^"]* ${id}\\b[^"]*"|"[^"]*\\b${id} [^"]*"`).test(text);
  // By its id a book is known beside others.
  return new Set([...found].filter((id) => id !== book.unit.id && !referred(id)));
}

it.each(UNITS)(
  "%s: no page of a job or of the book says an id, a slip of the pen, or what the program has no words for",
  async (unit) =>
    journey(`words-${unit}`, [edda], async () => {
      const { rows } = await shop.pool.query<{ number: number }>(
        "select j.number from job j join book b on b.id = j.book where b.unit = $1 order by j.number desc limit 1",
        [unit],
      );
      const wrong: string[] = [];
      for (const { number } of rows) {
        const record = await jobByNumber(shop.pool, number);
        if (!record) throw new Error(`no job ${number}`);
        const { applied } = jobWithBook(record.book, fold(record.facts), record.houseValues);
        const ids = idsOf(applied.book);
        const pages = [
          ...OF_JOB.map((page) => `/jobs/${number}${page}`),
          ...OF_BOOK.map((page) => `/books/${unit}${page}`),
        ];
        for (const page of pages) {
          const hasScript = WORKED_OUT_THERE.some((one) => page.endsWith(one));
          await edda.withoutScript(!hasScript);
          await edda.go(`${shop.url}${page}`);
          if (hasScript) await edda.ready();
          const said = String(await edda.driver.executeScript(SAID));
          for (const line of said.split("\n")) {
            const raw = (line.match(/[a-z][a-z0-9]*(?:-[a-z0-9]+)+/g) ?? []).filter((one) => ids.has(one));
            const slips = line.match(SLIPS) ?? [];
            if (raw.length > 0 || slips.length > 0)
              wrong.push(
                `${page} ${[...raw, ...slips.map((slip) => JSON.stringify(slip))].join(" ")}: ${line.slice(0, 160)}`,
              );
          }
        }
      }
      expect(wrong).toEqual([]);
    }),
  240_000,
);
