import { describe, expect, it, test } from "@jest/globals";
import { readFileSync } from "node:fs";
import { UNITS } from "../../demo/units";
import { bookByHand, resolve } from "../book";
import { readBook } from "../check";
import { recognise, TABLES, takeIn, writeOut, type TableName, type TableRow } from "./index";

const NAMES = Object.keys(TABLES) as TableName[];
const AS = { unit: "mm", checked: "2026-11-28" } as const;
const blank = (): object =>
  bookByHand({
    name: "Dotterel",
    family: "automatic",
    lengthUnit: "mm",
    source: "a table",
    checked: AS.checked,
    packs: [],
  });
const documentOf = (unit: string): object =>
  JSON.parse(readFileSync(`demo/books/${unit}.json`, "utf8")) as object;

describe("what a table is", () => {
  test.each<[string, string[], string[][], TableName, (string | null)[]]>([
    [
      "its own headings",
      ["name", "element", "kind", "min", "max"],
      [],
      "figures",
      ["name", "element", "kind", "min", "max"],
    ],
    [
      "as others head it",
      ["Measurement", "Pack", "From", "To", "Method"],
      [],
      "figures",
      ["name", "element", "min", "max", "how"],
    ],
    [
      "headings with their units",
      ["Item", "Pack", "Max (mm)", "Min [mm]"],
      [],
      "figures",
      ["name", "element", "max", "min"],
    ],
    [
      "figures by their cells",
      ["Figure", "a", "b"],
      [["K1", "0.80", "1.20"]],
      "figures",
      ["name", "min", "max"],
    ],
    ["bolts", ["Bolt", "Qty", "Thread", "Torque"], [], "fasteners", ["name", "count", "size", "torque"]],
    [
      "bolts by their cells",
      ["Bolts", "?", "", "tighten to"],
      [["Pan", "14", "M6", "9 N·m"]],
      "fasteners",
      ["name", "count", "size", "torque"],
    ],
    ["rings", ["Series", "Thickness", "Part No."], [], "rings", ["series", "size", "part"]],
    ["parts", ["Description", "Part number", "Qty"], [], "parts", ["name", "number", "count"]],
    [
      "a chart",
      ["Gear", "Ratio", "K1", "B2", ""],
      [],
      "chart",
      ["range", "ratio", "element:K1", "element:B2", null],
    ],
    ["a column nobody knows", ["name", "min", "max", "shelf"], [], "figures", ["name", "min", "max", null]],
  ])("is told by %s", (_name, headings, rows, table, columns) =>
    expect(recognise(headings, rows)).toEqual({ table, columns }),
  );

  it("is what somebody says it is", () =>
    expect(recognise(["name", "count"], [], "fasteners").columns).toEqual(["name", "count"]));
});

describe("a table taken in", () => {
  const figures = (...rows: TableRow[]) => takeIn(blank(), "figures", rows, AS);

  it("makes a book that the check has nothing against, and that judges and chooses", () => {
    const { document, problems, added } = figures(
      {
        name: "K1 clearance",
        element: "K1",
        min: "0.80",
        max: "1.20",
        frictions: "4",
        steels: "4",
        rings: "1.50 1.70",
        within: "0.02",
      },
      { name: "B2 clearance", element: "B2", min: ".031", max: ".047", unit: "in" },
      { name: "Input end play", kind: "end play", min: "0.3", max: "0.6", how: "dial" },
      { name: "Line solenoid", kind: "resistance", min: "5", max: "5.8", unit: "Ω" },
    );
    expect([problems, added]).toEqual([[], 4]);
    const read = readBook(document);
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    const { packs, chains } = resolve(read.book, {}, ["full"]);
    expect(packs.map(({ pack, spec, seats }) => [pack.element, spec.min, spec.max, seats.length])).toEqual([
      ["k1", 800_000, 1_200_000, 1],
      ["b2", 787_400, 1_193_800, 0],
    ]);
    expect(chains.map(({ chain }) => chain.id)).toContain("input-end-play");
    expect(read.book.measurements?.[0]).toMatchObject({ id: "line-solenoid", min: "5 Ω", max: "5.8 Ω" });
  });

  test.each<[string, TableName, TableRow, string]>([
    ["a word for a length", "figures", { name: "K1", element: "K1", min: "tight" }, "min"],
    ["max below min", "figures", { name: "K1", element: "K1", min: "1.2", max: "0.8" }, "max"],
    ["a kind there is not", "figures", { name: "K1", kind: "clearence" }, "kind"],
    ["no kind", "figures", { name: "K1" }, "kind"],
    ["a unit there is not", "figures", { name: "K1", element: "K1", min: "1", unit: "cm³" }, "unit"],
    ["a resistance in bar", "figures", { name: "S1", kind: "resistance", min: "5", unit: "bar" }, "min"],
    ["rings without their tolerance", "figures", { name: "K1", element: "K1", rings: "1.5" }, "within"],
    [
      "plates that cannot lie by turns",
      "figures",
      { name: "K1", element: "K1", frictions: "4", steels: "1" },
      "steels",
    ],
    ["no name", "figures", { name: "", min: "1" }, "name"],
    ["a name that no id can be made of", "figures", { name: "変速機", kind: "end play" }, "name"],
    ["bolts without a thread", "fasteners", { name: "Pan", count: "14" }, "size"],
    [
      "a torque that is none",
      "fasteners",
      { name: "Pan", count: "14", size: "M6", torque: "hand tight" },
      "torque",
    ],
    ["more bolts than there are", "fasteners", { name: "Pan", count: "140", size: "M6" }, "count"],
    [
      "a ring of no pack",
      "rings",
      { series: "K1 ring", size: "1.5", within: "0.02", element: "K1" },
      "element",
    ],
    ["a part of no assembly", "parts", { name: "Seal", of: "Pump" }, "of"],
    ["a ratio that is none", "chart", { range: "1", ratio: "low", "element:K1": "x" }, "ratio"],
    ["a mark nobody knows", "chart", { range: "1", ratio: "2.8", "element:K1": "?" }, "element:K1"],
  ])("tells at its row and column: %s", (_name, table, row, column) => {
    const good: TableRow = {
      figures: { name: "Fine", kind: "end play" },
      fasteners: { name: "Fine", count: "2", size: "M6" },
      rings: { series: "fine", size: "1.5", within: "0.02" },
      parts: { name: "Fine" },
      chart: { range: "2", ratio: "1.5", "element:K1": "x" },
    }[table];
    const { problems, added } = takeIn(blank(), table, [good, row], AS);
    expect([problems.map((one) => [one.row, one.column]), added]).toEqual([[[1, column]], 1]);
  });

  it.each<[TableName, TableRow, TableRow]>([
    [
      "figures",
      { name: "K1 clearance", element: "K1", min: "0.8" },
      { name: "Clearance of K1", element: "k1", min: "0.9" },
    ],
    ["figures", { name: "Input end play", kind: "end play" }, { name: "input end play", kind: "end play" }],
    ["fasteners", { name: "Pan", count: "2", size: "M6" }, { name: "Pan", count: "3", size: "M6" }],
    [
      "rings",
      { series: "a", mark: "1", size: "1.5", within: "0.02" },
      { series: "a", mark: "1", size: "1.6", within: "0.02" },
    ],
    ["parts", { name: "Seal" }, { name: "Seal", number: "X-2" }],
    ["chart", { range: "1", ratio: "2.8" }, { range: "1", ratio: "2.9" }],
  ])("%s: a thing that stands twice is told, and the first one holds", (table, one, other) => {
    const { document, problems, added } = takeIn(blank(), table, [one, other], AS);
    expect(problems.map(({ row, message }) => [row, message])).toEqual([[1, "row 1 says this already"]]);
    expect(added).toBe(1);
    expect(document).toEqual(takeIn(blank(), table, [one], AS).document);
  });

  it("changes what stands there, adds what is new, and takes nothing out", () => {
    const before = documentOf("marram-dunlin");
    const [row] = writeOut(before, "figures").filter(({ name }) => name === "Input end play");
    const { document, added, changed } = takeIn(
      before,
      "figures",
      [
        { ...row, name: "Input end play", max: "0.7 mm" },
        { name: "Another play", kind: "end play", min: "0.1", max: "0.2" },
      ],
      AS,
    );
    expect([added, changed]).toEqual([1, 1]);
    const [own, was] = [document, before].map(
      (one) => (one as { chains: { id: string; spec: object; read: object }[] }).chains,
    );
    expect(own).toHaveLength((was?.length ?? 0) + 1);
    const play = (list = own) => list?.find(({ id }) => id === "input-end-play");
    expect(play()).toMatchObject({ read: play(was)?.read, spec: { min: "0.30 mm", max: "0.7 mm" } });
  });
});

describe.each(UNITS)("%s as tables", (unit) => {
  it.each(NAMES)("%s: taken in by a book that knows nothing they say the same again", (table) => {
    const rows = writeOut(documentOf(unit), table);
    expect(rows.length).toBeGreaterThan(0);
    // What a table names of another must stand there before it.
    const first: TableName[] = table === "rings" ? ["figures"] : [];
    const begun = first.reduce<object>(
      (document, one) => takeIn(document, one, writeOut(documentOf(unit), one), AS).document,
      blank(),
    );
    const { document, problems } = takeIn(begun, table, rows, AS);
    expect(problems).toEqual([]);
    expect(sorted(writeOut(document, table))).toEqual(sorted(rows));
  });

  it.each(NAMES)("%s: taken in by the same book they change nothing", (table) => {
    const before = documentOf(unit);
    // Whatever order its columns stand in.
    const turned = writeOut(before, table).map((row) => Object.fromEntries(Object.entries(row).reverse()));
    const { document, problems, added, changed } = takeIn(before, table, turned, AS);
    expect([problems, added, changed]).toEqual([[], 0, 0]);
    expect(document).toEqual(before);
  });
});

/** Rows in some order, by what they say. */
const sorted = (rows: readonly TableRow[]): string[] =>
  rows.map((row) => JSON.stringify(Object.entries(row).sort())).sort();
