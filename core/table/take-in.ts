import {
  CHAIN_KINDS,
  MEASUREMENT_KINDS,
  ORIGINS,
  originWords,
  packEntries,
  packId,
  PART_KINDS,
  statedIn,
  type Origin,
} from "../book";
import { exactLength, parseLength, parseMeasure, type LengthUnit } from "../quantity";
import { GAUGES } from "../reading";
import { codeFor, isRecord, nearest } from "../shape";
import { APPLIED, BRAKING, type TableName } from "./columns";

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

type Entry = Record<string, unknown>;
type Section = "elements" | "series" | "packs" | "chains" | "parts" | "measurements" | "fasteners" | "ranges";

/** A document while a table is written into it. */
class Writing {
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

/**
 * Writes the rows of a table into a book’s document. What stands there under the same name is changed; what is new is added; nothing is taken
 * out, and what a row does not say stays.
 *
 * @param rows by their columns.
 * @returns the document, which is still to be checked like any other, and what is wrong by row; a row with a fault is left out.
 */
export function takeIn(document: unknown, table: TableName, rows: readonly TableRow[], as: TakenAs): TakenIn {
  const writing = new Writing(document, as, rows);
  rows.forEach((cells, row) => {
    const before = writing.problems.length;
    const must = { figures: "name", fasteners: "name", rings: "series", parts: "name", chart: "range" }[
      table
    ];
    if (!cells[must]) writing.tell(row, must, "is empty");
    else if (codeFor(cells[must]) === "" && table !== "chart")
      writing.tell(row, must, "has no letter a to z and no digit to keep it under");
    else WRITE[table](writing, cells, row, () => writing.problems.length === before);
  });
  const { problems, rowOf, added, changed } = writing;
  return { document: writing.document, problems, rowOf, added, changed };
}

type Write = (writing: Writing, cells: TableRow, row: number, isGood: () => boolean) => void;

const unitOf = (writing: Writing, cells: TableRow, row: number): LengthUnit => {
  const { unit } = cells;
  if (!unit) return writing.as.unit;
  const known = { mm: "mm", in: "in", inch: "in", thou: "thou", µm: "µm", um: "µm" } as const;
  const is = unit.toLowerCase().replace(/[."″]/g, (c) => (c === "." ? "" : "in"));
  if (Object.hasOwn(known, is)) return known[is as keyof typeof known];
  writing.tell(row, "unit", `“${unit}” is no unit of length: mm, in or thou`);
  return "mm";
};

/** `body late; plate two` → which version it is of. */
const versionOf = (cell: string | undefined): Record<string, string[]> | undefined =>
  cell
    ? Object.fromEntries(
        cell.split(";").map((one): [string, string[]] => {
          const [trait = "", ...values] = one.trim().split(/\s+/);
          return [trait, values];
        }),
      )
    : undefined;

function writeFigure(writing: Writing, cells: TableRow, row: number, isGood: () => boolean): void {
  const { name = "", element } = cells;
  const kinds = [...CHAIN_KINDS, ...MEASUREMENT_KINDS];
  const kind =
    writing.oneOf(row, "kind", cells.kind, kinds) ?? (cells.kind ? undefined : kindOf(name, element));
  if (kind === undefined)
    return cells.kind ? undefined : writing.tell(row, "kind", "what kind of figure is it?");
  const origins = ORIGINS.map(originWords);
  const whose = writing.oneOf(row, "whose", cells.whose, [...ORIGINS, ...origins]);
  const from = ORIGINS.find((one) => one === whose || originWords(one) === whose) ?? writing.as.from;
  const told = { source: writing.as.source, from, checked: writing.as.checked };
  const measured = MEASUREMENT_KINDS.find((one) => one === kind);
  const quantity = measured && statedIn(measured);
  if (measured && quantity !== "length") {
    const figure = (column: "min" | "max"): string | undefined => {
      const cell = cells[column];
      if (!cell || !quantity) return cell;
      const text = cells.unit && /^[-−\d.,\s]+$/.test(cell) ? `${cell} ${cells.unit}` : cell;
      const read = parseMeasure(text, quantity);
      if (!read.ok) writing.tell(row, column, `${read.problem}${read.remedy && `; ${read.remedy}`}`);
      return text;
    };
    const [min, max] = [figure("min"), figure("max")];
    if (isGood())
      writing.put(
        "measurements",
        "id",
        { id: idOf(writing, "measurements", cells), name, kind, min, max },
        row,
      );
    return;
  }
  const unit = unitOf(writing, cells, row);
  const [min, max] = (["min", "max"] as const).map((end) => writing.length(row, end, cells[end], unit));
  if (min !== undefined && max !== undefined && !isBelow(min, max))
    writing.tell(row, "max", "is not above min");
  if (measured) {
    if (isGood())
      writing.put(
        "measurements",
        "id",
        { id: idOf(writing, "measurements", cells), name, kind, min, max },
        row,
      );
    return;
  }
  const spec = { ...(min || max ? { min, max, ...told } : {}) };
  const gauge = GAUGES.find((one) => codeFor(one) === codeFor(cells.how ?? ""));
  if (kind === "pack clearance") {
    writePack(writing, cells, row, { min, max, told, unit, isGood });
    return;
  }
  if (!isGood()) return;
  const id = idOf(writing, "chains", cells);
  const known = writing.list("chains").find((one) => one.id === id);
  writing.put(
    "chains",
    "id",
    {
      id,
      name,
      kind,
      ...(known ? {} : { links: [["+", "measured", name]], read: { with: [gauge ?? "dial"] } }),
      ...(cells.how && !gauge && !known ? { read: { with: ["dial"], how: cells.how } } : {}),
      spec: specsWith(known?.spec, spec, versionOf(cells.when)),
    },
    row,
  );
}

/** Where nobody says what kind of figure it is: what its name says, `Input end play`; of an element it is its pack's clearance. */
const kindOf = (name: string, element: string | undefined) =>
  element
    ? "pack clearance"
    : [...CHAIN_KINDS, ...MEASUREMENT_KINDS].find(
        (kind) => kind.includes(" ") && name.toLowerCase().includes(kind),
      );

const isBelow = (a: string, b: string): boolean => {
  const [low, high] = [a, b].map((text) => parseLength(text, "mm"));
  return low?.ok === true && high?.ok === true && low.length < high.length;
};

const sameLength = (a: unknown, b: unknown): boolean => {
  const [one, other] = [a, b].map((text) => (typeof text === "string" ? parseLength(text, "mm") : null));
  return one?.ok === true && other?.ok === true && one.length === other.length;
};

/** What a figure is held against, once one version of it is said. */
function specsWith(known: unknown, spec: Entry, when: Entry | undefined): unknown {
  const before = Array.isArray(known) ? (known as Entry[]) : isRecord(known) ? [known as Entry] : [];
  const version = JSON.stringify(when ?? {});
  const versionsOf = ({ when: of }: Entry): string =>
    JSON.stringify(
      Object.fromEntries(
        Object.entries(isRecord(of) ? of : {}).map(([trait, values]) => [
          trait,
          Array.isArray(values) ? values : [values],
        ]),
      ),
    );
  const at = before.findIndex((one) => versionsOf(one) === version);
  const said = Object.fromEntries(Object.entries(spec).filter(([, value]) => value !== undefined));
  const old = before[at];
  const isSame = (key: string): boolean =>
    said[key] === undefined || said[key] === old?.[key] || sameLength(said[key], old?.[key]);
  // What says no more than what stands there was not checked anew.
  if (old && ["min", "max", "from"].every(isSame)) return known;
  const next =
    at >= 0
      ? before.map((one, i) => (i === at ? { ...one, ...said } : one))
      : [...(when ? [{ ...said, when }] : []), ...before, ...(when ? [] : [said])];
  return next.length === 1 ? next[0] : next;
}

function writePack(
  writing: Writing,
  cells: TableRow,
  row: number,
  {
    min,
    max,
    told,
    unit,
    isGood,
  }: {
    min: string | undefined;
    max: string | undefined;
    told: { source: string | undefined; from: Origin | undefined; checked: string };
    unit: LengthUnit;
    isGood: () => boolean;
  },
): void {
  const name = (cells.element || cells.name || "").trim();
  const frictions = writing.count(row, "frictions", cells.frictions, 20) ?? 0;
  const steels = writing.count(row, "steels", cells.steels, 20) ?? 0;
  if (frictions > 0 && cells.steels && Math.abs(frictions - steels) > 1)
    writing.tell(
      row,
      "steels",
      `with ${frictions} frictions ${frictions - 1} to ${frictions + 1} lie by turns`,
    );
  const rings = (cells.rings ?? "")
    .split(/[;\s]+(?!mm|in\b)/)
    .filter((one) => one !== "")
    .flatMap((one) => writing.length(row, "rings", one, unit) ?? []);
  const within = writing.length(row, "within", cells.within, unit);
  if (rings.length > 0 && !within) writing.tell(row, "within", "how far may a ring be off its mark?");
  if (!isGood()) return;
  const id = packId(name);
  const chain = writing.list("chains").find((one) => one.kind === "pack clearance" && one.of === id);
  const spec = { ...(min || max ? { min, max, ...told } : {}) };
  if (chain) {
    const when = versionOf(cells.when);
    writing.put("chains", "id", { id: chain.id, spec: specsWith(chain.spec, spec, when) }, row);
    return;
  }
  const sorted = [...new Set(rings)].sort((a, b) => (isBelow(a, b) ? -1 : 1));
  const entries = packEntries(
    {
      name,
      kind: writing.list("elements").some((one) => one.id === id && one.kind === "brake")
        ? "brake"
        : "clutch",
      frictions,
      steels: frictions === 0 ? 0 : steels,
      ...(min ? { min } : {}),
      ...(max ? { max } : {}),
      soak: "soaked",
      rings: sorted,
      within: within ?? "",
    },
    {
      checked: told.checked,
      ...(told.from ? { from: told.from } : {}),
      ...(told.source ? { source: told.source } : {}),
    },
  );
  for (const section of ["elements", "series", "packs", "parts"] as const)
    for (const entry of entries[section]) {
      const key = section === "packs" ? "element" : "id";
      if (!writing.list(section).some((one) => one[key] === entry[key]))
        writing.put(section, key, { ...entry }, row, false);
    }
  for (const entry of entries.chains) writing.put("chains", "id", { ...entry, name: cells.name }, row);
}

/** The id of an entry: as the row says, else that of the one that has this name already, else made of it. */
function idOf(writing: Writing, section: Section, { id, name = "" }: TableRow): string {
  if (id) return id;
  const known = writing.list(section).find((one) => one.name === name);
  return typeof known?.id === "string" ? known.id : codeFor(name);
}

const PATTERNS = ["star", "crosswise", "spiral", "in line", "any order"] as const;
const WET = ["dry", "transmission fluid", "grease", "anti-seize", "thread locker", "sealer"] as const;

const WRITE: Readonly<Record<TableName, Write>> = {
  figures: writeFigure,
  fasteners: (writing, cells, row, isGood) => {
    const { name = "" } = cells;
    const count = writing.count(row, "count", cells.count, 80);
    if (!cells.count) writing.tell(row, "count", "how many are there?");
    if (!cells.size) writing.tell(row, "size", "which thread? such as M6");
    const length = writing.length(row, "length", cells.length, writing.as.unit);
    for (const [column, quantity] of [
      ["torque", "torque"],
      ["angle", "angle"],
    ] as const) {
      const read = cells[column] ? parseMeasure(cells[column], quantity) : null;
      if (read && !read.ok) writing.tell(row, column, `${read.problem}${read.remedy && `; ${read.remedy}`}`);
    }
    const pattern = writing.oneOf(row, "pattern", cells.pattern, PATTERNS);
    const thread = writing.oneOf(row, "wet", cells.wet, WET);
    if (!isGood()) return;
    const id = idOf(writing, "fasteners", cells);
    const known = writing.list("fasteners").find((one) => one.id === id);
    writing.put(
      "fasteners",
      "id",
      {
        ...(known ? {} : { id, name, count, size: cells.size, pattern: "any order", thread: "dry" }),
        id,
        count,
        size: cells.size,
        length,
        torque: cells.torque || undefined,
        angle: cells.angle || undefined,
        pattern,
        thread,
      },
      row,
    );
  },
  rings: (writing, cells, row, isGood) => {
    const { series: name = "" } = cells;
    const size = writing.length(row, "size", cells.size, writing.as.unit);
    if (!cells.size) writing.tell(row, "size", "how thick is it?");
    const kind = writing.oneOf(row, "kind", cells.kind, [
      ...(["snap ring", "plate", "washer", "shim", "pin", "gear"] as const),
    ]);
    const within = writing.length(row, "within", cells.within, writing.as.unit);
    const id = idOf(writing, "series", { ...cells, name });
    const known = writing.list("series").find((one) => one.id === id);
    if (!known && !within) writing.tell(row, "within", "how far may one be off its mark?");
    const pack = cells.element
      ? writing.list("packs").find((one) => one.element === packId(cells.element ?? ""))
      : undefined;
    if (cells.element && !pack)
      writing.tell(row, "element", "no pack of this name; take its figure in first");
    if (!isGood() || size === undefined) return;
    const mark = cells.mark || size;
    const before = (Array.isArray(known?.sizes) ? known.sizes : []) as Entry[];
    const old = before.find((each) => each.mark === mark);
    const one = { ...old, mark, size, part: cells.part || (old?.part ?? `not known, ${name} ${mark}`) };
    const sizes = [...before.filter((each) => each.mark !== mark), one].sort((a, b) =>
      isBelow(String(a.size), String(b.size)) ? -1 : 1,
    );
    writing.put(
      "series",
      "id",
      { id, name, kind: kind ?? known?.kind ?? "snap ring", tolerance: within, sizes },
      row,
    );
    if (!pack) return;
    const element = String(pack.element);
    if (!pack.grooves)
      writing.put(
        "packs",
        "element",
        { element, grooves: [{ id: `${element}-groove`, ring: id }] },
        row,
        false,
      );
    const chain = writing
      .list("chains")
      .find((each) => each.kind === "pack clearance" && each.of === element);
    const links = (Array.isArray(chain?.links) ? chain.links : []) as unknown[][];
    if (chain && !links.some(([, of]) => of === "series" || of === "seat"))
      writing.put("chains", "id", { id: chain.id, links: [...links, ["-", "series", id]] }, row, false);
  },
  parts: (writing, cells, row, isGood) => {
    const { name = "" } = cells;
    const kind = writing.oneOf(row, "kind", cells.kind, PART_KINDS);
    const count = writing.count(row, "count", cells.count, 60);
    const of = cells.of ? writing.partOf(cells.of) : undefined;
    if (cells.of && !of) writing.tell(row, "of", "there is no part of this name");
    if (!isGood()) return;
    const id = idOf(writing, "parts", cells);
    const known = writing.list("parts").find((one) => one.id === id);
    const number = cells.number || (known ? undefined : `not known, ${name}`);
    writing.put("parts", "id", { id, name, number, kind, count, of }, row);
  },
  chart: (writing, cells, row, isGood) => {
    const { range = "", ratio = "" } = cells;
    if (!/^[-−]?\d{1,2}([.,]\d+)?$/.test(ratio)) writing.tell(row, "ratio", "write the ratio, such as 2.80");
    const said = (is: RegExp): string[] =>
      Object.entries(cells).flatMap(([key, cell]) =>
        key.startsWith("element:") && is.test(cell.trim()) ? [packId(key.slice("element:".length))] : [],
      );
    for (const [key, cell] of Object.entries(cells))
      if (key.startsWith("element:") && cell !== "" && !APPLIED.test(cell) && !BRAKING.test(cell))
        writing.tell(row, key, `“${cell}”: write x where it is applied, (x) under braking alone, or nothing`);
    if (!isGood()) return;
    for (const key of Object.keys(cells).filter((one) => one.startsWith("element:"))) {
      const id = packId(key.slice("element:".length));
      if (!writing.list("elements").some((one) => one.id === id))
        writing.put("elements", "id", { id, kind: "clutch", aka: [] }, row, false);
    }
    const braking = said(BRAKING);
    writing.put(
      "ranges",
      "id",
      {
        id: range,
        applied: said(APPLIED),
        ...(braking.length > 0 ? { braking } : {}),
        ratio: Number(ratio.replace("−", "-").replace(",", ".")),
      },
      row,
    );
  },
};
