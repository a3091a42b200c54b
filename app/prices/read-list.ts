import { readTable } from "~/table/read-table";
import { moneyOf } from "~core/quantity";
import { field, orNothing, whole, words, written } from "~core/shape";
import type { Price } from "~store/prices";

export type ReadList = { ok: true; prices: Price[] } | { ok: false; problems: string[] };

const LINE = {
  part: field(words(1, 80), "no part number of at most 80 letters."),
  price: field(written(moneyOf, "12.50"), "is no price; write 12.50."),
  days: field(orNothing(whole(0, 999)), "is no number of days; write 3, or nothing."),
  deposit: field(orNothing(written(moneyOf, "12.50")), "is no deposit; write 120.00, or nothing."),
  pack: field(orNothing(whole(1, 1000)), "is no number of pieces in a pack; write 5, or nothing."),
};

/**
 * A supplier's price list: a table with the columns `part`, `price` and, where they are known, `days`, `pack` (pieces that are sold together for that price) and `deposit` (each, until the old one comes back).
 *
 * @returns every price, the last where a part stands twice; or what is wrong, by line.
 */
export function readPriceList(text: string): ReadList {
  const read = readTable(text, LINE, { must: ["part", "price"], example: "part,price,days" });
  if (!read.ok) return read;
  const prices = new Map<string, Price>();
  for (const { part, price, days, pack, deposit } of read.rows)
    prices.set(part, {
      part,
      cents: price,
      days,
      ...(pack === null ? {} : { pack }),
      ...(deposit ? { deposit } : {}),
    });
  return { ok: true, prices: [...prices.values()] };
}
