import { parseLength } from "../quantity";

/** A column of a table: what it is called in the app’s own tables, and how else people head it. */
export interface Column {
  key: string;
  words: string;
  /** Headings that mean it, in small letters and digits alone. */
  also: readonly string[];
  /** Whether the table is none without it. */
  must?: true;
}

const column = (key: string, words: string, also: readonly string[] = [], must = false): Column => ({
  key,
  words,
  also,
  ...(must ? { must: true } : {}),
});

/** What an entry is kept under: of two that have one name it tells which is meant. */
const ID = column("id", "id", ["key"]);

/** The tables a book can be written from, and written to, with their columns in order. */
export const TABLES = {
  figures: [
    column("name", "name", ["figure", "measurement", "what", "description", "item"], true),
    column("element", "element", ["pack", "clutch", "brake", "clutchpack", "of"]),
    column("kind", "kind", ["type", "sort"]),
    column("min", "min", ["from", "minimum", "low", "least", "lower"]),
    column("max", "max", ["to", "maximum", "high", "most", "upper"]),
    column("unit", "unit", ["units", "in", "uom"]),
    column("how", "how read", ["how", "read", "method", "gauge", "with"]),
    column("frictions", "frictions", ["friction", "lined", "frictionplates"]),
    column("steels", "steels", ["steel", "steelplates"]),
    column("rings", "ring sizes", ["rings", "snaprings", "selectives", "sizes"]),
    column("within", "ring within", ["within", "ringtolerance"]),
    column("whose", "whose", ["source", "whosefigure", "origin"]),
    column("when", "only when", ["when", "version"]),
    ID,
  ],
  fasteners: [
    column("name", "name", ["bolt", "bolts", "group", "fastener", "what"], true),
    column("count", "count", ["qty", "quantity", "number", "pieces", "howmany"], true),
    column("size", "size", ["thread", "threadsize", "dimension"], true),
    column("length", "length", ["long"]),
    column("torque", "torque", ["tighten", "tightening", "tightento"]),
    column("angle", "then turned by", ["angle", "turn", "degrees"]),
    column("pattern", "pattern", ["order", "sequence"]),
    column("wet", "put on it", ["lubricant", "locker"]),
    column("whose", "whose", ["source", "whosefigure", "origin"]),
    ID,
  ],
  rings: [
    column("series", "series", ["ring", "washer", "shim", "selective", "set"], true),
    column("kind", "kind", ["type", "sort"]),
    column("mark", "mark", ["marking", "colour", "code"]),
    column("size", "size", ["thickness", "thick"], true),
    column("within", "within", ["tolerance", "plusminus", "tol"]),
    column("part", "part number", ["part", "partno", "number", "partnumber", "sku"]),
    column("element", "element", ["pack", "clutch", "brake", "of", "for"]),
    ID,
  ],
  parts: [
    column("name", "name", ["part", "description", "what"], true),
    column("number", "number", ["partno", "partnumber", "no", "sku"]),
    column("kind", "kind", ["type", "sort"]),
    column("count", "count", ["qty", "quantity", "pieces", "howmany"]),
    column("of", "part of", ["assembly", "belongsto", "of"]),
    ID,
  ],
  chart: [column("range", "range", ["gear", "position", "lever"], true), column("ratio", "ratio", [], true)],
} as const satisfies Record<string, readonly Column[]>;
/** The name of one of `TABLES`. */
export type TableName = keyof typeof TABLES;

/** What a table was taken for: which of them, and by place what each of its columns is; null for one that is passed over. */
export interface Recognised {
  table: TableName;
  columns: (string | null)[];
}

const plain = (heading: string): string =>
  heading
    .toLowerCase()
    // Whatever is said of it in brackets: its unit, most of the time.
    .replace(/[([].*$/, "")
    .replace(/[^\p{L}\p{N}]/gu, "");

/** What the cells of a column look like, where its heading says nothing. */
const LOOKS: readonly (readonly [RegExp, string])[] = [
  [/^\d+([.,]\d+)?\s*(n[·.* ]?m|lb[·.-]?(ft|in)|ft[·.-]?lb)$/i, "torque"],
  [/^m\d{1,2}([x×]\d|$)/i, "size"],
  [/^\d{1,3}\s*°$/, "angle"],
  [/^\d{1,2}$/, "count"],
];

/** Cells of a chart that say that an element is applied, and that it is so under braking alone. */
export const APPLIED = /^(x|●|•|\*|1|on|yes|applied)$/i;
export const BRAKING = /^(\((x|●|•|1)\)|b|braking|coast)$/i;

/**
 * Which table this is and what its columns are, by their headings, then by their cells.
 *
 * @param headings the first line.
 * @param rows the cells below it.
 * @param as where somebody has said which table it is.
 */
export function recognise(
  headings: readonly string[],
  rows: readonly (readonly string[])[],
  as?: TableName,
): Recognised {
  const guesses = (as ? [as] : (Object.keys(TABLES) as TableName[])).map((table) => {
    const columns = byHeading(TABLES[table], headings);
    const known = columns.filter((key) => key !== null).length;
    const whole = TABLES[table].every((one: Column) => !one.must || columns.includes(one.key));
    return { table, columns, score: known + (whole ? 10 : 0) };
  });
  // Of two that fit alike the one with fewer columns of its own is meant.
  const [best] = guesses.sort((a, b) => b.score - a.score || TABLES[a.table].length - TABLES[b.table].length);
  const { table, columns } = best ?? { table: "figures" as const, columns: headings.map(() => null) };
  if (table === "chart") return { table, columns: columns.map((key, i) => key ?? elementOf(headings[i])) };
  return { table, columns: byCells(table, columns, rows) };
}

/** In a chart every other column is an element’s. */
const elementOf = (heading = ""): string | null =>
  plain(heading) === "" ? null : `element:${heading.trim()}`;

function byHeading(known: readonly Column[], headings: readonly string[]): (string | null)[] {
  const taken = new Set<string>();
  const found = headings.map((heading): string | null => {
    const is = plain(heading);
    const exact = known.find(({ key, words }) => !taken.has(key) && (is === key || is === plain(words)));
    if (exact) taken.add(exact.key);
    return exact?.key ?? null;
  });
  // What is called something else comes after what is called by its name.
  return found.map((key, i) => {
    if (key !== null) return key;
    const is = plain(headings[i] ?? "");
    const other = known.find(({ key: one, also }) => !taken.has(one) && also.includes(is));
    if (other) taken.add(other.key);
    return other?.key ?? null;
  });
}

function byCells(
  table: TableName,
  columns: readonly (string | null)[],
  rows: readonly (readonly string[])[],
): (string | null)[] {
  const own = new Set<string>(TABLES[table].map(({ key }) => key));
  const taken = new Set(columns.filter((key) => key !== null));
  const take = (key: string): string => {
    taken.add(key);
    return key;
  };
  return columns.map((known, i) => {
    if (known !== null) return known;
    const cells = rows.map((row) => row[i] ?? "").filter((cell) => cell !== "");
    if (cells.length === 0) return null;
    const looks = LOOKS.find(
      ([is, key]) => own.has(key) && !taken.has(key) && cells.every((c) => is.test(c)),
    );
    if (looks) return take(looks[1]);
    // Two columns of lengths are from and to.
    const lengths = cells.every((cell) => /^\.?\d/.test(cell) && parseLength(cell, "mm").ok);
    const end = lengths ? ["min", "max"].find((key) => own.has(key) && !taken.has(key)) : undefined;
    if (end) return take(end);
    return own.has("name") && !taken.has("name") && cells.every((cell) => /\p{L}{2}/u.test(cell))
      ? take("name")
      : null;
  });
}
