import { packId, PART_KINDS } from "../book";
import { parseMeasure } from "../quantity";
import { codeFor } from "../shape";
import { APPLIED, BRAKING, type TableName } from "./columns";
import { toldBy, whoseOf, writeFigure } from "./write-figure";
import {
  idOf,
  isBelow,
  Writing,
  type Entry,
  type TableRow,
  type TakenAs,
  type TakenIn,
  type Write,
} from "./writing";

/** What a row says something of: of two rows of one thing one is too many. */
const keyOf = (
  table: TableName,
  { id, name, series, mark, size, range, when, element, kind }: TableRow,
): string =>
  JSON.stringify(
    {
      // A clearance is its pack's, whatever it is called.
      figures: [
        id ??
          (element && (!kind || codeFor(kind) === "pack-clearance")
            ? `of ${packId(element)}`
            : codeFor(name ?? "")),
        when,
      ],
      fasteners: [id ?? codeFor(name ?? "")],
      rings: [id ?? codeFor(series ?? ""), mark ?? size],
      parts: [id ?? codeFor(name ?? "")],
      chart: [range],
    }[table],
  );

/**
 * Writes the rows of a table into a book’s document. What stands there under the same name is changed; what is new is added; nothing is taken
 * out, and what a row does not say stays.
 *
 * @param rows by their columns.
 * @returns the document, which is still to be checked like any other, and what is wrong by row; a row with a fault is left out.
 */
export function takeIn(document: unknown, table: TableName, rows: readonly TableRow[], as: TakenAs): TakenIn {
  const writing = new Writing(document, as, rows);
  const first = new Map<string, number>();
  rows.forEach((cells, row) => {
    const before = writing.problems.length;
    const must = { figures: "name", fasteners: "name", rings: "series", parts: "name", chart: "range" }[
      table
    ];
    if (!cells[must]) writing.tell(row, must, "is empty");
    else if (codeFor(cells[must]) === "" && table !== "chart")
      writing.tell(row, must, "has no letter a to z and no digit to keep it under");
    else {
      const key = keyOf(table, cells);
      const other = first.get(key);
      first.set(key, other ?? row);
      // Which of the two is meant nobody can tell.
      if (other !== undefined) writing.tell(row, must, `row ${other + 1} says this already`);
      else WRITE[table](writing, cells, row, () => writing.problems.length === before);
    }
  });
  const { problems, rowOf, added, changed } = writing;
  return { document: writing.document, problems, rowOf, added, changed };
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
    const whose = whoseOf(writing, cells, row);
    if (!isGood()) return;
    const id = idOf(writing, "fasteners", cells);
    const known = writing.list("fasteners").find((one) => one.id === id);
    const isTold = Boolean(cells.torque) && known?.torque !== cells.torque;
    writing.put(
      "fasteners",
      "id",
      {
        ...(known ? {} : { id, name, count, size: cells.size }),
        id,
        count,
        size: cells.size,
        length,
        torque: cells.torque || undefined,
        angle: cells.angle || undefined,
        pattern,
        thread,
        ...(isTold ? toldBy(writing, whose) : { from: whose }),
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
    // In the order they stand there already: that of the columns says nothing.
    const known = writing.list("ranges").find(({ id }) => id === range);
    const ordered = (key: "applied" | "braking", ids: readonly string[]): readonly string[] => {
      const before = known?.[key];
      const same =
        Array.isArray(before) && before.length === ids.length && ids.every((id) => before.includes(id));
      return same ? (before as string[]) : ids;
    };
    const braking = ordered("braking", said(BRAKING));
    writing.put(
      "ranges",
      "id",
      {
        id: range,
        applied: ordered("applied", said(APPLIED)),
        ...(braking.length > 0 ? { braking } : {}),
        ratio: Number(ratio.replace("−", "-").replace(",", ".")),
      },
      row,
    );
  },
};
