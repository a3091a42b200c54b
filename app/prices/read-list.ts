import Papa from "papaparse";
import { moneyOf } from "~core/quantity";
import { field, orNothing, readFields, whole, words, written } from "~core/shape";
import type { Price } from "~store/prices";

export type ReadList = { ok: true; prices: Price[] } | { ok: false; problems: string[] };

const MOST_LINES = 20_000;
const SHOWN = 8;

const LINE = {
  part: field(words(1, 80), "no part number of at most 80 letters."),
  price: field(written(moneyOf, "12.50"), "is no price; write 12.50."),
  days: field(orNothing(whole(0, 999)), "is no number of days; write 3, or nothing."),
  pack: field(orNothing(whole(1, 1000)), "is no number of pieces in a pack; write 5, or nothing."),
};

/**
 * A supplier's price list: a table with the columns `part`, `price` and, where they are known, `days` and `pack` (pieces that are sold together for that price); whatever else it has is passed over.
 * Commas, semicolons or tabs between them, as the spreadsheet wrote it.
 *
 * @returns every price, the last where a part stands twice; or what is wrong, by line. Nothing is taken of a list that has a fault.
 */
export function readPriceList(text: string): ReadList {
  const { data, meta } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ""), {
    header: true,
    skipEmptyLines: "greedy",
    transformHeader: (name) => name.trim().toLowerCase(),
    transform: (value) => value.trim(),
  });
  const columns = meta.fields ?? [];
  const missing = ["part", "price"].filter((name) => !columns.includes(name));
  if (missing.length > 0)
    return {
      ok: false,
      problems: [
        `The first line has no column “${missing.join("” and no “")}”; it should read: part,price,days`,
      ],
    };
  if (data.length === 0) return { ok: false, problems: ["There is no line below the first."] };
  if (data.length > MOST_LINES)
    return { ok: false, problems: [`Over ${MOST_LINES} lines; take it in as several lists.`] };
  const problems: string[] = [];
  const prices = new Map<string, Price>();
  data.forEach((typed, i) => {
    const read = readFields(LINE, typed);
    if (read.ok) {
      const { part, price, days, pack } = read.values;
      prices.set(part, { part, cents: price, days, ...(pack === null ? {} : { pack }) });
      return;
    }
    const [column = "", says] = Object.entries(read.problems)[0] ?? [];
    const of = column === "part" ? "" : `, ${typed.part}: “${typed[column] ?? ""}”`;
    // The first line names the columns.
    problems.push(`Line ${i + 2}${of}${of ? " " : ": "}${says}`);
  });
  if (problems.length === 0) return { ok: true, prices: [...prices.values()] };
  const more = problems.length - SHOWN;
  return {
    ok: false,
    problems: [...problems.slice(0, SHOWN), ...(more > 0 ? [`and ${more} more like these.`] : [])],
  };
}
