import { exactLength, parseLength, type LengthUnit } from "../quantity";
import { codeFor, isRecord, nearest } from "../shape";
import type { Origin } from "../book";

/** A row by its columns; what is empty may be left out. */
export type TableRow = Readonly<Record<string, string>>;

/** What is wrong with a row: counted from 0, at one of its columns. */
export interface RowProblem {
  row: number;
  column: string;
  message: string;
}

/** What a table made of a document. */
export interface TakenIn {
  document: Record<string, unknown>;
  problems: RowProblem[];
  /** Of the document, which row its place is from: `chains[3]` → 12. */
  rowOf: ReadonlyMap<string, number>;
  added: number;
  changed: number;
}

/** How bare figures are meant, and what is said of where they are from. */
export interface TakenAs {
  unit: "mm" | "in" | "thou";
  from?: Origin;
  /** The day it is taken in. */
  checked: string;
  source?: string;
}

/** An entry of a document. */
export type Entry = Record<string, unknown>;
/** A section of a document that tables are written into. */
export type Section =
  | "elements"
  | "series"
  | "packs"
  | "chains"
  | "parts"
  | "measurements"
  | "fasteners"
  | "ranges";

/** A document while a table is written into it. */
export class Writing {
  readonly document: Record<string, unknown>;
  readonly problems: RowProblem[] = [];
  readonly rowOf = new Map<string, number>();
  readonly lengthUnit: "mm" | "in";
  added = 0;
  changed = 0;
  private readonly lists = new Map<Section, Entry[]>();

  constructor(
    document: unknown,
    readonly as: TakenAs,
    readonly rows: readonly TableRow[],
  ) {
    this.document = isRecord(document) ? { ...document } : {};
    const { unit } = this.document;
    this.lengthUnit = isRecord(unit) && unit.lengthUnit === "in" ? "in" : "mm";
  }

  list(section: Section): Entry[] {
    const own = this.lists.get(section);
    if (own) return own;
    const known = this.document[section];
    // What was given stays as it was: entries are replaced here, never changed.
    const fresh = Array.isArray(known) ? [...(known as Entry[])] : [];
    this.lists.set(section, fresh);
    if (fresh.length > 0) this.document[section] = fresh;
    return fresh;
  }

  /** Puts an entry in, or what it says over what stands there; a key without a value changes nothing. */
  put(section: Section, key: string, entry: Entry, row: number, counts = true): Entry {
    const list = this.list(section);
    const said = Object.fromEntries(Object.entries(entry).filter(([, value]) => value !== undefined));
    let at = list.findIndex((one) => one[key] === entry[key]);
    if (at < 0) {
      at = list.push(said) - 1;
      this.document[section] = list;
      if (counts) this.added++;
    } else {
      const before = list[at] ?? {};
      list[at] = { ...before, ...said };
      if (counts && JSON.stringify(before) !== JSON.stringify(list[at])) this.changed++;
    }
    this.rowOf.set(`${section}[${at}]`, row);
    return list[at] ?? said;
  }

  /** A part by its name or id, in the document or anywhere in the table. */
  partOf(name: string): string | undefined {
    const known = this.list("parts").find((one) => one.name === name || one.id === name);
    if (typeof known?.id === "string") return known.id;
    const row = this.rows.find((one) => one.name === name || one.id === name);
    return row && (row.id || codeFor(row.name ?? ""));
  }

  tell(row: number, column: string, message: string): void {
    this.problems.push({ row, column, message });
  }

  /** A length as the document writes it; undefined where the cell is empty, or no length, which is told. */
  length(row: number, column: string, cell: string | undefined, unit: LengthUnit): string | undefined {
    if (!cell) return undefined;
    const read = parseLength(cell, unit);
    if (!read.ok) {
      this.tell(row, column, `${read.problem}; ${read.remedy}`);
      return undefined;
    }
    // What was written with its unit stays as it was written.
    if (read.unitTyped) return cell;
    const { figure, unit: shown } = exactLength(read.length, this.lengthUnit);
    return `${figure} ${shown}`;
  }

  count(row: number, column: string, cell: string | undefined, most: number): number | undefined {
    if (!cell) return undefined;
    if (/^\d{1,3}$/.test(cell) && Number(cell) <= most) return Number(cell);
    this.tell(row, column, `how many: 0 to ${most}`);
    return undefined;
  }

  oneOf<T extends string>(
    row: number,
    column: string,
    cell: string | undefined,
    known: readonly T[],
  ): T | undefined {
    if (!cell) return undefined;
    const is = codeFor(cell);
    const found = known.find((one) => codeFor(one) === is || `${codeFor(one)}s` === is);
    if (!found) this.tell(row, column, `“${cell}” is not known; ${nearest(cell.toLowerCase(), known)}`);
    return found;
  }
}

/** Whether one length, as written, is below another. */
export const isBelow = (a: string, b: string): boolean => {
  const [low, high] = [a, b].map((text) => parseLength(text, "mm"));
  return low?.ok === true && high?.ok === true && low.length < high.length;
};

/** The id of an entry: as the row says, else that of the one that has this name already, else made of it. */
export function idOf(writing: Writing, section: Section, { id, name = "" }: TableRow): string {
  if (id) return id;
  const known = writing.list(section).find((one) => one.name === name);
  return typeof known?.id === "string" ? known.id : codeFor(name);
}

/** Writes one row; `isGood` tells whether nothing is wrong with it so far. */
export type Write = (writing: Writing, cells: TableRow, row: number, isGood: () => boolean) => void;
