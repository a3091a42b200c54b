import type { Book } from "~core/book";
import { parseReading } from "~core/reading";
import type { LengthUnit, Nm } from "~core/quantity";
import { bookById, listBooks } from "~store/books";
import type { Pool } from "~store/database";

/** A size of a series as the books that take from it have it. */
export interface KnownSize {
  part: string;
  mark: string;
  size: Nm;
  series: string;
  /** Units whose books name it: a series that several share is one stock. */
  units: string[];
}

/** Every size of every series in the books the shop works by, by part number. */
export async function knownSizes(pool: Pool): Promise<Map<string, KnownSize>> {
  const books = await Promise.all((await listBooks(pool)).map(({ id }) => bookById(pool, id)));
  const known = new Map<string, KnownSize>();
  for (const { book } of books)
    for (const { name, sizes } of book.series)
      for (const { part, mark, size } of sizes) {
        const before = known.get(part);
        if (before) before.units.push(unitName(book));
        else known.set(part, { part, mark, size, series: name, units: [unitName(book)] });
      }
  return known;
}

const unitName = ({ unit }: Book): string => `${unit.maker} ${unit.name}`;

/** Within reach of a thickness lies what is no farther from it than this. */
const REACH = 150_000;

/** Sizes near a thickness somebody typed, the nearest first; null where it is no thickness. */
export function sizesNear(known: Iterable<KnownSize>, typed: string, unit: LengthUnit): KnownSize[] | null {
  const parsed = parseReading(typed, unit);
  // A bare whole number of several digits is a part or a bin and not a thickness.
  if (!parsed.ok || (!parsed.unitTyped && parsed.length > 40_000_000)) return null;
  const off = ({ size }: KnownSize): number => Math.abs(size - parsed.length);
  return [...known]
    .filter((one) => off(one) <= REACH)
    .sort((a, b) => off(a) - off(b) || (a.part < b.part ? -1 : 1));
}
