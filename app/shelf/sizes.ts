import { unitName } from "~core/book";
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

// A book that is kept never changes, so what was read of it once stays so; small beside the book itself.
const ofBook = new Map<string, Omit<KnownSize, "units">[]>();

async function sizesOfBook(pool: Pool, id: string): Promise<Omit<KnownSize, "units">[]> {
  const known = ofBook.get(id);
  if (known) return known;
  const { book } = await bookById(pool, id);
  const sizes = book.series.flatMap(({ name, sizes: all }) =>
    all.map(({ part, mark, size }) => ({ part, mark, size, series: name })),
  );
  ofBook.set(id, sizes);
  return sizes;
}

/** Every size of every series in the books the shop works by, by part number. */
export async function knownSizes(pool: Pool): Promise<Map<string, KnownSize>> {
  const known = new Map<string, KnownSize>();
  for (const { id, maker, name } of await listBooks(pool))
    for (const size of await sizesOfBook(pool, id)) {
      const before = known.get(size.part);
      if (before) before.units.push(unitName({ maker, name }));
      else known.set(size.part, { ...size, units: [unitName({ maker, name })] });
    }
  return known;
}

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
