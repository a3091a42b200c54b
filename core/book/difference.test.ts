import { isDeepStrictEqual } from "node:util";
import { describe, expect, it, test } from "@jest/globals";
import { bookOf, documentOf, UNITS, type UnitId } from "../../demo/units";
import { configurations } from "./resolve";
import { difference, differenceText, holding, resolve, within, type Configuration } from "./index";

const lines = (before: unknown, after: unknown): string[] => difference(before, after).map(differenceText);

describe("the difference between two documents", () => {
  it("calls a tip by what it says", () => {
    const tips = (text: string) => ({ tips: [{ id: "t", text }] });
    expect(lines({ tips: [] }, tips("look behind the tray"))[0]).toMatch(/^tip: look behind the tray added/);
    expect(lines(tips("look behind the tray"), tips("mind the ball"))).toEqual([
      "tip: look behind the tray text look behind the tray → mind the ball",
    ]);
  });

  it("says nothing of equal ones", () => {
    expect(lines(documentOf("marram-dunlin"), documentOf("marram-dunlin"))).toEqual([]);
  });

  test.each<[string, (d: Document) => void, string]>([
    ["a limit", (d) => (spec(d, "d1-clearance").max = "1.35 mm"), "D1 clearance max 1.40 → 1.35 mm"],
    [
      "a limit in another unit",
      (d) => (spec(d, "d1-clearance").max = "0.053 in"),
      "D1 clearance max 1.40 mm → 0.053 in",
    ],
    [
      "a target that is new",
      (d) => (spec(d, "d1-clearance").target = "1.20 mm"),
      "D1 clearance target now 1.20 mm",
    ],
    ["a torque", (d) => (d.fasteners[0].torque = "10 N·m"), "Pan bolts torque 9 → 10 N·m"],
    [
      "a note gone",
      (d) => delete d.fasteners[1].note,
      expect.stringMatching(/^Valve body bolts note no longer the three/) as never,
    ],
    [
      "a part gone",
      (d) =>
        d.parts.splice(
          d.parts.findIndex((p) => p.id === "magnet"),
          1,
        ),
      "pan magnet taken out",
    ],
    [
      "a size come",
      (d) => d.series[0].sizes.push({ mark: "four dots", size: "2.50 mm", part: "MD-2250" }),
      "drum ring size four dots added",
    ],
    [
      "a plate count",
      (d) => (d.packs[1].stack[0].count = 4),
      "d3 third and reverse clutch steel d3-steel count 3 → 4",
    ],
    ["an order of steps", (d) => d.teardown.reverse(), "teardown order as it was → changed"],
    [
      "a depth",
      (d) => (d.packs[1].depth = ["full"]),
      "d3 third and reverse clutch holds for front drums, full → full",
    ],
  ])("%s, in the trade's words", (_name, change, words) => {
    const after = documentOf("marram-dunlin");
    change(after as unknown as Document);
    const found = lines(documentOf("marram-dunlin"), after);
    expect(found).toHaveLength(1);
    if (typeof words === "string") expect(found[0]).toContain(words);
    else expect(found[0]).toEqual(words);
  });
});

interface Document {
  chains: { id: string; spec: Record<string, string> }[];
  fasteners: Record<string, string>[] & { 0: Record<string, string>; 1: Record<string, string> };
  parts: { id: string }[];
  series: { sizes: unknown[] }[] & { 0: { sizes: unknown[] } };
  packs: Pack[] & { 1: Pack };
  teardown: unknown[];
}
interface Pack {
  stack: { count?: number }[] & { 0: { count?: number } };
  depth?: string[];
}
const spec = (d: Document, id: string): Record<string, string> =>
  d.chains.find((c) => c.id === id)?.spec ?? {};

/** The slow, obvious oracle: walk the document and take the entries out one by one, telling which. */
function expected(value: unknown, gone: (entry: Record<string, unknown>) => boolean): unknown {
  if (Array.isArray(value))
    return value
      .filter(
        (v) => typeof v !== "object" || v === null || Array.isArray(v) || !gone(v as Record<string, unknown>),
      )
      .map((v) => expected(v, gone));
  if (typeof value !== "object" || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, expected(v, gone)]));
}

const meets = (when: unknown, configuration: Configuration): boolean =>
  Object.entries((when ?? {}) as Record<string, string | string[]>).every(([trait, values]) =>
    [values].flat().includes(configuration[trait] ?? ""),
  );

test.each(UNITS)(
  "%s holds what its `when` and `depth` say and nowhere else, in every version and depth",
  (id: UnitId) => {
    const document = documentOf(id);
    const book = bookOf(id);
    const { traits, depths } = book;
    const all = configurations(traits, new Set(traits.map((trait) => trait.id)));
    expect(all.length).toBe(traits.reduce((n, { values }) => n * Object.keys(values).length, 1));
    for (const configuration of all) {
      const unit = expected(document, (entry) => !meets(entry.when, configuration));
      expect(holding(document, configuration)).toEqual(unit);
      const read = expected(book, (entry) => !meets(entry.when, configuration));
      for (const depth of depths) {
        const isOut: Parameters<typeof expected>[1] = (entry) =>
          Array.isArray(entry.depth) && !entry.depth.includes(depth);
        expectSame(within(holding(document, configuration), [depth]), expected(unit, isOut));
        const { present, scoped } = resolve(book, configuration, [depth]);
        expectSame([present, scoped], [read, expected(read, isOut)]);
      }
    }
  },
);

/** Of whole books, in hundreds of versions: what shows where two differ takes ten times as long to say that they do not. */
function expectSame(one: unknown, other: unknown): void {
  if (!isDeepStrictEqual(one, other)) expect(one).toEqual(other);
}

test("a book made out of one that was looked at already is looked at anew", () => {
  const book = bookOf("marram-dunlin");
  const late = { body: "late", plate: "one" };
  expect(resolve(book, late, ["full"]).present.parts).toContainEqual(book.parts[0]);
  const [first, ...others] = book.parts;
  const early = { ...book, parts: [{ ...first!, when: { body: ["early"] } }, ...others] };
  expect(resolve(early, late, ["full"]).present.parts).toEqual(
    resolve(book, late, ["full"]).present.parts.slice(1),
  );
  expect(resolve(early, { ...late, body: "early" }, ["full"]).present.parts[0]?.id).toBe(first?.id);
});

describe("one book for two versions and two depths", () => {
  it("differs where it should: the early Dunlin has three plates, a thicker reaction plate and a weak point of its own", () => {
    const document = documentOf("marram-dunlin");
    const found = difference(
      holding(document, { body: "late", plate: "one" }),
      holding(document, { body: "early", plate: "one" }),
      true,
    ).map(differenceText);
    expect(found).toEqual(
      expect.arrayContaining([
        "d1 low-side clutch friction d1-friction count 4 → 3",
        expect.stringContaining("reaction plate d1-reaction-thick added"),
        expect.stringContaining("Early D1 piston loses its bond added"),
      ]),
    );
    expect(found.every((line) => /d1|D1/.test(line))).toBe(true);
  });

  it("a ball more with the second plate, and its steps", () => {
    const { book } = { book: bookOf("marram-dunlin") };
    const balls = (plate: string) =>
      resolve(book, { body: "late", plate }, ["full"]).present.checkBalls?.length;
    expect([balls("one"), balls("two")]).toEqual([5, 6]);
  });

  it("less work asks for less: no drum step, no drum chain, fewer tools", () => {
    const book = bookOf("marram-dunlin");
    const [shallow, deep] = ["pan and body", "full"].map((depth) =>
      resolve(book, { body: "late", plate: "one" }, [depth]),
    );
    expect(shallow?.scoped.teardown?.length).toBeLessThan(deep?.scoped.teardown?.length ?? 0);
    expect(shallow?.packs.every(({ inScope }) => !inScope)).toBe(true);
    expect(deep?.packs.every(({ inScope }) => inScope)).toBe(true);
    expect(shallow?.scoped.tools?.map(({ id }) => id)).not.toContain("compressor");
  });

  it("a spec of its own for one version", () => {
    const book = bookOf("corrie-plover");
    const limits = (actuator: string) => {
      const { spec: found } =
        resolve(book, { levers: "cast", actuator }, ["full"]).chains.find(
          ({ chain }) => chain.id === "rod-one",
        ) ?? {};
      return [found?.min, found?.max];
    };
    expect(limits("preset")).toEqual([12_000_000, 12_800_000]);
    expect(limits("reused")).toEqual([11_600_000, 13_200_000]);
  });

  it("tells what nobody has looked at", () => {
    expect(resolve(bookOf("marram-dunlin"), { body: "late" }, ["full"]).unseen.map(({ id }) => id)).toEqual([
      "plate",
    ]);
  });

  it("a house limit goes before the book's, and both are kept", () => {
    const own = {
      of: "chain",
      id: "d1-clearance",
      max: 1_300_000,
      reason: "crisper",
      by: "Edda L.",
      at: "2026-11-01",
    } as never;
    const d1 = resolve(bookOf("marram-dunlin"), { body: "late", plate: "one" }, ["full"], [own]).packs[0];
    expect([d1?.spec.min, d1?.spec.max, d1?.book.max, d1?.house?.by]).toEqual([
      1_050_000,
      1_300_000,
      1_400_000,
      "Edda L.",
    ]);
  });
});
