import { describe, expect, it, test } from "@jest/globals";
import { readFileSync } from "node:fs";
import { jobOf } from "../../demo/testing";
import { proven } from "../../demo/proven";
import { UNITS } from "../../demo/units";
import { resolve, type Book } from "../book";
import { buildOf, recordOf, subAssembliesOf } from "../build";
import { Diagnostician } from "../diagnose";
import type { FactBody } from "../fact";
import { answers } from "../find";
import { customerSheet } from "../handover";
import { candidateCauses, dispositions, failed, USUAL_SCHOOLS } from "../inspect";
import { CLOCKING, specLines, worksheets } from "../measure";
import { needsOf } from "../needs";
import { nm } from "../quantity";
import { provenRecord, provingOf, weakestOf } from "../prove";
import { isRecord } from "../shape";
import { hinders, openOf, standingOf, waitsFor } from "../stage";
import { readBook } from "./read-book";

const HOUSE = { rule: "proven", target: "middle", ...USUAL_SCHOOLS } as const;
type Doc = Record<string, unknown>;

const documentOf = (unit: string): Doc => JSON.parse(readFileSync(`demo/books/${unit}.json`, "utf8")) as Doc;
const keysOf = (path: string): (string | number)[] =>
  [...path.matchAll(/[^.[\]]+/g)].map(([key]) => (/^\d+$/.test(key) ? Number(key) : key));

/** Takes out what stands at a place: of a list the entry, of an object the key. */
function takeOut(document: Doc, keys: readonly (string | number)[]): void {
  const last = keys.at(-1);
  const around = keys
    .slice(0, -1)
    .reduce<unknown>(
      (value, key) => (isRecord(value) || Array.isArray(value) ? (value as Doc)[key] : undefined),
      document,
    );
  if (Array.isArray(around)) around.splice(Number(last), 1);
  else if (isRecord(around)) delete around[String(last)];
}

/** A book with one section taken away, and with it everything that leads there, as far as that must be. */
function without(document: Doc, section: string): Book {
  const left = structuredClone(document);
  delete left[section];
  for (let round = 0; round < 60; round++) {
    const read = readBook(left, "kept");
    if (read.ok) return read.book;
    // From the back, so that places before stay where they are.
    for (const { path, message } of read.problems.reverse()) {
      const keys = keysOf(path);
      // What a thing cannot be without takes the thing with it.
      takeOut(left, /nothing|is empty|needs it/.test(message) ? keys.slice(0, -1) : keys);
    }
  }
  throw new Error(`${section} cannot be taken away: ${JSON.stringify(readBook(left, "kept")).slice(0, 400)}`);
}

const versionOf = (book: Book): Record<string, string> =>
  Object.fromEntries(book.traits.map(({ id, values }) => [id, Object.keys(values).at(-1) ?? ""]));

/** Everything a page of a job or a book asks of the core. */
function everything(book: Book): unknown[] {
  const version = versionOf(book);
  const applied = resolve(book, version, book.depths.slice(-1));
  const begun: FactBody[] = [
    { kind: "configuration", traits: version },
    { kind: "scope", depths: book.depths.slice(-1) },
  ];
  const asked = (bodies: readonly FactBody[]): unknown[] => {
    const job = jobOf(bodies);
    const states = dispositions(job, applied, USUAL_SCHOOLS, "proven");
    const build = buildOf(job, applied, HOUSE, Infinity);
    const standing = standingOf(job, applied, HOUSE);
    const needs = needsOf(job, applied, states);
    const lines = specLines(job, applied, HOUSE, "mm");
    return [
      worksheets(job, applied, HOUSE),
      lines,
      failed(job, applied).map((one) => candidateCauses(job, applied, "proven", one)),
      recordOf(job, applied, build, [], "mm"),
      subAssembliesOf(build),
      provingOf(job, applied, states, []),
      provenRecord(job, applied),
      weakestOf(job, applied, build, lines, []),
      openOf(job, applied, HOUSE),
      hinders(job, applied, HOUSE),
      waitsFor(standing),
      needs,
      customerSheet(job, applied, HOUSE, "mm"),
    ];
  };
  const job = jobOf(begun);
  const done = [...begun, ...proven(job, applied, dispositions(job, applied, USUAL_SCHOOLS, "proven"))];
  return [
    ...asked([]),
    ...asked(done),
    answers(applied, "mm"),
    new Diagnostician(applied.present).diagnose(
      applied.present.ranges.slice(0, 2).map(({ id }) => ({ question: `range:${id}`, outcome: "slips" })),
    ),
  ];
}

/** No figure that is none stands anywhere in it. */
function figuresAstray(value: unknown, at = ""): string[] {
  if (typeof value === "number") return Number.isNaN(value) ? [at] : [];
  if (typeof value === "string") return /\bNaN\b|undefined|\[object/.test(value) ? [`${at}: ${value}`] : [];
  if (Array.isArray(value)) return value.flatMap((one, i) => figuresAstray(one, `${at}[${i}]`));
  if (value instanceof Map)
    return [...value].flatMap(([key, one]) => figuresAstray(one, `${at}.${String(key)}`));
  return isRecord(value)
    ? Object.entries(value).flatMap(([key, one]) => figuresAstray(one, `${at}.${key}`))
    : [];
}

describe("a book that begins with little", () => {
  it.each(["automatic", "cvt", "dual-clutch"])("of a %s needs its name, and no more", (family) => {
    const read = readBook({
      format: "yard-key/book@1",
      unit: { name: "Dotterel", family, lengthUnit: "mm" },
    });
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    const { unit, packs, depths } = read.book;
    expect([unit.id, unit.maker, unit.source, unit.revision, packs, depths]).toEqual([
      "dotterel",
      "Maker not known",
      "source not told",
      1,
      [],
      ["full"],
    ]);
    expect(figuresAstray(everything(read.book))).toEqual([]);
  });

  it("and packs alone stand along a plain axis, in their order", () => {
    const pack = (element: string): object => ({
      element,
      name: element,
      duty: "shifting",
      stack: [{ role: "friction", part: `${element}-friction`, count: 4 }],
    });
    const read = readBook(
      {
        format: "yard-key/book@1",
        unit: { name: "Dotterel", family: "automatic", lengthUnit: "mm" },
        elements: [
          { id: "low", kind: "clutch", aka: [] },
          { id: "rev", kind: "brake", aka: [] },
        ],
        packs: [pack("low"), pack("rev")],
        parts: ["low", "rev"].map((of) => ({
          id: `${of}-friction`,
          name: `${of} frictions`,
          number: "not known",
          kind: "friction",
        })),
      },
      "kept",
    );
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    expect(read.book.stations.map(({ name, from, to }) => [name, from, to])).toEqual([
      ["low", 0, 45],
      ["rev", 50, 95],
    ]);
    expect(figuresAstray(everything(read.book))).toEqual([]);
  });

  it("refuses a name that is none, and a key nobody knows", () => {
    const refused = (unit: object, more: object = {}): string[] => {
      const read = readBook({ format: "yard-key/book@1", unit, ...more });
      return read.ok ? [] : read.problems.map(({ path }) => path);
    };
    expect(refused({ family: "cvt", lengthUnit: "mm" })).toContain("unit.name");
    expect(refused({ name: "日本", family: "cvt", lengthUnit: "mm" })).toContain("unit.id");
    expect(refused({ name: "Dotterel", family: "cvt", lengthUnit: "mm" }, { stops: [] })).toContain("stops");
  });
});

describe("limits that nobody knows", () => {
  test.each(UNITS)("of %s: what is read stands for itself, and nothing is inside", (unit) => {
    const document = documentOf(unit);
    const chains = document.chains as { spec?: unknown; id: string }[];
    for (const chain of chains) delete chain.spec;
    const read = readBook(document, "kept");
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    expect(figuresAstray(everything(read.book))).toEqual([]);
    const applied = resolve(read.book, versionOf(read.book), read.book.depths.slice(-1));
    const readings = applied.chains.flatMap((chain) =>
      (chain.chain.read.each ?? [undefined]).flatMap((item) =>
        [1_000_000, 1_000_000, 1_000_000].map((value): FactBody => ({
          kind: "reading",
          chain: chain.chain.id,
          phase: "found",
          fit: 0,
          method: chain.chain.read.with[0] ?? "dial",
          state: { ...chain.spec.state, facings: chain.spec.state.facings ?? "new" },
          reading: { kind: "single", value: nm(value) },
          resolution: nm(10_000),
          unit: "mm",
          ...(item === undefined ? {} : { item }),
        })),
      ),
    );
    const lines = specLines(jobOf(readings), applied, HOUSE, "mm").filter(
      ({ subject }) => subject !== "measurement",
    );
    expect(lines.length).toBeGreaterThan(2);
    for (const { name, spec, found, items } of lines)
      // Which way a part is turned is right or not, limit or none.
      if (!items.some(({ item }) => item.name === CLOCKING))
        expect([name, spec, found.standing, found.text.slice(0, 4)]).toEqual([
          name,
          "no limit known",
          "not stated",
          "1.00",
        ]);
  });
});

describe("each section taken away in turn", () => {
  const SECTIONS = [...new Set(UNITS.flatMap((unit) => Object.keys(documentOf(unit))))].filter(
    (key) => key !== "format" && key !== "unit",
  );
  const documents = new Map(UNITS.map((unit) => [unit, documentOf(unit)]));
  test.each(SECTIONS)("%s", (section) => {
    // Two of the books with it: all of them together have each of their sections gone.
    const having = UNITS.filter((unit) => documents.get(unit)?.[section] !== undefined);
    const turn = SECTIONS.indexOf(section);
    for (const unit of new Set([having[turn % having.length], having[(turn + 3) % having.length]])) {
      const book = without(documents.get(unit ?? "marram-dunlin") ?? {}, section);
      expect([unit, figuresAstray(everything(book))]).toEqual([unit, []]);
    }
  });
});
