import { describe, expect, it, test } from "@jest/globals";
import fc from "fast-check";
import type { Element, GearSet } from "../book";
import { rational, toNumber } from "../quantity";
import { bookOf, UNITS, type UnitId } from "../../demo/units";
import { isPossible } from "./system";
import { behave, ratioText, slipAt, solveRanges, teethDoubt, type Train } from "./index";
import { samples } from "../testing/samples";

/** Worked by hand from the tooth counts. */
const RATIOS: [UnitId, Record<string, string>][] = [
  [
    "marram-dunlin",
    { 1: "4.1652", 2: "2.2841", 3: "1.4211", 4: "1.1125", 5: "0.8803", 6: "0.6855", R: "−3.0972" },
  ],
  ["marram-whimbrel", { 1: "2.8333", 2: "1.5994", 3: "1.0000", 4: "0.6731", R: "−2.0588" }],
  [
    "selwyn-sanderling",
    { 1: "4.2172", 2: "2.3003", 3: "1.4366", 4: "1.1155", 5: "0.8796", 6: "0.6894", R: "−3.1886" },
  ],
  ["selwyn-turnstone", { D: "1.0000", R: "−1.1304" }],
  // First: 42/12 · 73/18; seventh: 32/44 · 71/22; reverse: 42/12 · 71/22.
  ["corrie-godwit", { 1: "14.1944", 7: "2.3471", R: "−11.2955" }],
  ["corrie-plover", { 1: "15.5668", 4: "4.5450", 7: "2.4806", R: "−12.1212" }],
];

test.each(RATIOS)("the ratios of %s come out of its tooth counts", (id, expected) => {
  const solved = solveRanges(bookOf(id));
  const found = Object.fromEntries(
    solved.map(({ range, behaviour }) => [range.id, behaviour.ratio && ratioText(behaviour.ratio)]),
  );
  expect(found).toMatchObject(expected);
  expect(solved.map(({ fault }) => fault)).toEqual(solved.map(() => null));
});

const dunlin = bookOf("marram-dunlin");
const whimbrel = bookOf("marram-whimbrel");

describe("what a unit does", () => {
  test.each<[string, Train, string[], string, string | null]>([
    ["nothing applied", dunlin, [], "neutral", null],
    ["one clutch whose one-way clutch takes over", dunlin, ["d1"], "gear", "4.1652"],
    ["one clutch alone", dunlin, ["d2"], "neutral", null],
    ["three clutches that agree", dunlin, ["d1", "d2", "d3"], "tie-up", null],
    ["two brakes", dunlin, ["h1", "h2"], "output held", null],
    ["a clutch against both brakes", dunlin, ["d1", "h1", "h2"], "tie-up", null],
    ["forward alone: the roller holds", whimbrel, ["forward"], "gear", "2.8333"],
    ["forward and the band: the same gear", whimbrel, ["forward", "low-band"], "gear", "2.8333"],
    ["forward and direct: everything as one", whimbrel, ["forward", "direct"], "gear", "1.0000"],
    ["direct and band", whimbrel, ["direct", "low-band"], "tie-up", null],
  ])("%s", (_name, unit, applied, kind, ratio) => {
    const found = behave(unit, applied);
    expect([found.kind, found.ratio && ratioText(found.ratio)]).toEqual([kind, ratio]);
  });

  it("tells speeds and slips: in second the low roller runs free forwards", () => {
    const { speeds, slips, holding, fighting } = behave(whimbrel, ["forward", "hold"]);
    expect(toNumber(speeds.output ?? rational(0))).toBeCloseTo(1 / 1.5994, 4);
    expect(toNumber(slips["low-roller"] ?? rational(0))).toBeGreaterThan(0);
    expect([holding, fighting]).toEqual([[], []]);
    expect(slips.forward).toBeUndefined();
  });

  it("a one-way clutch turned round is found: it fights where it should run free", () => {
    const turned = {
      ...whimbrel,
      elements: whimbrel.elements.map((e): Element =>
        e.id === "low-roller" ? { ...e, free: "backward" } : e,
      ),
    };
    const faults = solveRanges(turned).map(({ range, fault }) => [range.id, fault]);
    expect(faults).toContainEqual(["1", expect.stringContaining("neutral")]);
    expect(faults).toContainEqual(["3", expect.stringContaining("low-roller would have to turn")]);
  });

  it("figures the slip at an element from speeds read off", () => {
    // In third of the Dunlin, input 1800 and output at 1.4211 would be 1266.6: as it should be, nothing slips.
    const third = bookOf("marram-dunlin").ranges.find(({ id }) => id === "3");
    const ratio = behave(dunlin, third?.applied ?? []).ratio ?? rational(1);
    const output = { n: 1800n * ratio.d, d: ratio.n };
    expect(
      toNumber(slipAt(dunlin, ["d1", "d3"], "d3", { input: rational(1800), output }) ?? rational(9)),
    ).toBe(0);
    const slower = slipAt(dunlin, ["d1", "d3"], "d3", { input: rational(1800), output: rational(1000) });
    expect(Math.abs(toNumber(slower ?? rational(0)))).toBeGreaterThan(100);
  });
});

/** The slow, obvious oracle: the same equations as floating-point rows, eliminated with pivoting, and the freedom counted. */
function oracle(unit: Train, applied: readonly string[]): { freedom: number; ratio: number | null } {
  const index = new Map(unit.members.map((m, i) => [m, i]));
  const row = (...terms: [string, number][]): number[] => {
    const r = unit.members.map(() => 0);
    for (const [m, c] of terms) r[index.get(m) ?? 0] = (r[index.get(m) ?? 0] ?? 0) + c;
    return r;
  };
  const rows = [row([unit.train.held, 1])];
  for (const { kind, sun, ring, carrier } of unit.gearSets as (GearSet & {
    sun: [string, number];
    ring: [string, number];
    carrier: string;
  })[]) {
    const [s, r] = [sun[1], ring[1]];
    rows.push(
      kind === "simple"
        ? row([sun[0], s], [ring[0], r], [carrier, -s - r])
        : row([sun[0], -s], [ring[0], r], [carrier, s - r]),
    );
  }
  for (const e of unit.elements)
    if (e.joins && applied.includes(e.id)) rows.push(row([e.joins[0], 1], [e.joins[1], -1]));
  const rankOf = (given: number[][]): number => {
    const m = given.map((r) => [...r]);
    let rank = 0;
    for (let c = 0; c < unit.members.length; c++) {
      let best = rank;
      for (let i = rank; i < m.length; i++)
        if (Math.abs(m[i]?.[c] ?? 0) > Math.abs(m[best]?.[c] ?? 0)) best = i;
      const [top, pivot] = [m[rank], m[best]];
      if (!top || !pivot || Math.abs(pivot[c] ?? 0) < 1e-9) continue;
      m[rank] = pivot;
      m[best] = top;
      for (let i = rank + 1; i < m.length; i++) {
        const f = m[i]![c]! / m[rank]![c]!;
        for (let k = c; k < unit.members.length; k++) m[i]![k]! -= f * m[rank]![k]!;
      }
      rank++;
    }
    return rank;
  };
  const rank = rankOf(rows);
  // In gear when the input alone decides how fast the output turns: with the input at 1, the one solution of the rows says how fast.
  const moves = (member: string): boolean => rankOf([...rows, row([member, 1])]) > rank;
  const { input, output } = unit.train;
  const freedom = unit.members.length - rank;
  if (!moves(input) || !moves(output)) return { freedom, ratio: null };
  const driven = [...rows, row([input, 1])];
  if (rankOf([...driven, row([output, 1])]) > rankOf(driven)) return { freedom, ratio: null };
  return {
    freedom,
    ratio: 1 / speedOf(rows, unit.members.length, index.get(input) ?? 0, index.get(output) ?? 0),
  };
}

/** Speed of one member where another turns at 1: least squares over the rows, by the normal equations and Gauss-Jordan. */
function speedOf(rows: readonly number[][], n: number, driving: number, wanted: number): number {
  const all = [
    ...rows.map((r) => ({ r, b: 0 })),
    { r: rows[0]!.map((_, i) => (i === driving ? 1 : 0)), b: 1 },
  ];
  // What the rows leave free does not move the wanted member: it is held still, ever so lightly.
  const m = Array.from({ length: n }, (_, i) => [
    ...Array.from({ length: n }, (_, j) =>
      all.reduce((sum, { r }) => sum + r[i]! * r[j]!, i === j ? 1e-12 : 0),
    ),
    all.reduce((sum, { r, b }) => sum + r[i]! * b, 0),
  ]);
  for (let c = 0; c < n; c++) {
    const best = m.reduce((at, _, i) => (i >= c && Math.abs(m[i]![c]!) > Math.abs(m[at]![c]!) ? i : at), c);
    [m[c], m[best]] = [m[best]!, m[c]!];
    for (let i = 0; i < n; i++) {
      if (i === c) continue;
      const f = m[i]![c]! / m[c]![c]!;
      for (let k = c; k <= n; k++) m[i]![k]! -= f * m[c]![k]!;
    }
  }
  return m[wanted]![n]! / m[wanted]![wanted]!;
}

it("agrees with plain elimination for every choice of elements, without their one-way clutches", () => {
  for (const id of ["marram-dunlin", "marram-whimbrel"] as const) {
    const book = bookOf(id);
    const unit = {
      ...book,
      elements: book.elements.filter(({ kind, outside }) => kind !== "one-way clutch" && !outside),
    };
    const ids = unit.elements.map((e) => e.id);
    for (let mask = 0; mask < 2 ** ids.length; mask++) {
      const applied = ids.filter((_, i) => mask & (1 << i));
      const found = behave(unit, applied);
      const expected = oracle(unit, applied);
      expect([applied, found.freedom, found.ratio === null]).toEqual([
        applied,
        expected.freedom,
        expected.ratio === null,
      ]);
      if (found.ratio && expected.ratio !== null)
        expect(toNumber(found.ratio) / expected.ratio).toBeCloseTo(1, 4);
    }
  }
});

it("a simple set with one member held has the textbook ratio, whatever the teeth", () => {
  fc.assert(
    fc.property(fc.integer({ min: 12, max: 60 }), fc.integer({ min: 61, max: 120 }), (s, r) => {
      const unit: Train = {
        members: ["sun", "ring", "carrier", "case"],
        gearSets: [{ id: "g", kind: "simple", sun: ["sun", s], ring: ["ring", r], carrier: "carrier" }],
        elements: [{ id: "b", kind: "brake", joins: ["ring", "case"], aka: [] }],
        train: { input: "sun", output: "carrier", held: "case" },
      };
      expect(behave(unit, ["b"]).ratio).toEqual(rational(s + r, s));
    }),
    { seed: 7 },
  );
});

type Planetary = Extract<GearSet, { kind: "simple" | "double-pinion" }>;
test.each<[string, Partial<Planetary>, RegExp | null]>([
  ["a set that fits", { sun: ["a", 32], ring: ["b", 76], pinions: 4 }, null],
  ["an odd space", { sun: ["a", 33], ring: ["b", 76] }, /no whole pinion/],
  ["a sun larger than its ring", { sun: ["a", 80], ring: ["b", 76] }, /does not go into/],
  ["pinions that do not fill", { sun: ["a", 32], ring: ["b", 76], pinion: 18 }, /need a ring of 68/],
  ["pinions that cannot be spaced", { sun: ["a", 32], ring: ["b", 76], pinions: 5 }, /evenly spaced/],
  ["a double-pinion set", { kind: "double-pinion", sun: ["a", 29], ring: ["b", 85], pinions: 4 }, null],
])("teeth: %s", (_name, set, doubt) => {
  const found = teethDoubt({
    id: "g",
    kind: "simple",
    carrier: "c",
    sun: ["a", 32],
    ring: ["b", 76],
    ...set,
  });
  if (doubt) expect(found).toMatch(doubt);
  else expect(found).toBeNull();
});

it("every range of every unit drives", () => {
  for (const id of UNITS)
    for (const { behaviour } of solveRanges(bookOf(id))) expect(behaviour.kind).toBe("gear");
});

it("the slip at an element is what its members differ by, whatever the speeds read off", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 600, max: 6000 }),
      fc.integer({ min: -2000, max: 4000 }),
      (input, output) => {
        // Second gear of the Dunlin with H1 slipping: the large sun's speed by Willis' equations, by hand.
        const carrier = (76 * input) / (76 + 32);
        // Small sun = front carrier (D1 on); the ring is the output: 85·ωr − 29·ωs = 56·ωc.
        const rear = (85 * output - 29 * carrier) / 56;
        const largeSun = (124 * rear - 85 * output) / 39;
        const found = slipAt(dunlin, ["d1", "h1"], "h1", {
          input: rational(input),
          output: rational(output),
        });
        expect(toNumber(found ?? rational(0))).toBeCloseTo(largeSun, 6);
      },
    ),
    { seed: 13 },
  );
});

describe("one-way clutches are one question", () => {
  const oneWay = (id: string, a: string, b: string, free: "forward" | "backward" = "backward"): Element => ({
    id,
    name: id,
    kind: "one-way clutch",
    joins: [a, b],
    free,
    aka: [],
  });
  const line = (elements: Element[], members: string[], gearSets: GearSet[] = []): Train => ({
    members: ["case", "in", "out", ...members],
    gearSets,
    elements,
    train: { input: "in", output: "out", held: "case" },
  });
  const pair = (id: string, driver: string, z: number, driven: string, y: number): GearSet => ({
    id,
    kind: "gear pair",
    driver: [driver, z],
    driven: [driven, y],
    idlers: 1,
  });
  const told = (unit: Train, applied: string[] = []) => {
    const { kind, ratio, holding } = behave(unit, applied);
    return { kind, ratio: ratio && ratioText(ratio), holding: [...holding].sort() };
  };

  it("two in one line of drive both hold", () => {
    const unit = line([oneWay("a", "in", "mid"), oneWay("b", "mid", "out")], ["mid"]);
    expect(told(unit)).toEqual({ kind: "gear", ratio: "1.0000", holding: ["a", "b"] });
  });

  it("one of them the other way round lets the input run free", () => {
    const unit = line([oneWay("a", "in", "mid"), oneWay("b", "mid", "out", "forward")], ["mid"]);
    expect(told(unit)).toEqual({ kind: "neutral", ratio: null, holding: [] });
  });

  it("of two gears side by side the quicker drives and the slower is overrun, also when the quicker has two", () => {
    const slow = [pair("slow", "in", 20, "low", 40)];
    const low = oneWay("low", "low", "out");
    const quick = [oneWay("a", "in", "mid"), oneWay("b", "mid", "out")];
    for (const elements of [
      [low, ...quick],
      [...quick, low],
      [quick[1], low, quick[0]],
    ] as Element[][])
      expect(told(line(elements, ["low", "mid"], slow))).toEqual({
        kind: "gear",
        ratio: "1.0000",
        holding: ["a", "b"],
      });
  });

  it("two alike share the load", () => {
    const unit = line([oneWay("a", "in", "out"), oneWay("b", "in", "out")], []);
    expect(told(unit)).toEqual({ kind: "gear", ratio: "1.0000", holding: ["a", "b"] });
  });

  it("one to the case that the input drives the wrong way stops it", () => {
    const kinds = (["backward", "forward"] as const).flatMap((free) => [
      told(line([oneWay("a", "in", "case", free)], [])).kind,
      told(line([oneWay("a", "case", "in", free)], [])).kind,
    ]);
    expect(kinds).toEqual(["tie-up", "neutral", "neutral", "tie-up"]);
  });

  it("their order in the book decides nothing", () => {
    for (const id of UNITS) {
      const book = bookOf(id);
      const turned: Train = { ...book, elements: [...book.elements].reverse() };
      const ids = book.elements.map((one) => one.id);
      for (let bits = 0; bits < 2 ** Math.min(ids.length, 9); bits++) {
        const applied = ids.filter((_, i) => (bits >> i) % 2 === 1);
        expect(told(turned, applied)).toEqual(told(book, applied));
      }
    }
  });
});

test("demands on speeds are met or not as trying them shows", () => {
  const names = ["x", "y", "z"];
  const form = fc.tuple(...names.map(() => fc.integer({ min: -3, max: 3 })));
  fc.assert(
    fc.property(
      fc.array(fc.record({ form, strict: fc.boolean() }), { minLength: 1, maxLength: 5 }),
      (all) => {
        const demands = all.map(({ form: row, strict }) => ({
          strict,
          form: new Map(names.flatMap((name, i) => (row[i] ? [[name, rational(row[i])] as const] : []))),
        }));
        // Every corner of these cones lies on a direction of small whole numbers.
        const range = Array.from({ length: 2 * 18 + 1 }, (_, i) => i - 18);
        const tried = range.some((x) =>
          range.some((y) =>
            range.some((z) =>
              all.every(({ form: [a = 0, b = 0, c = 0], strict }) => {
                const value = a * x + b * y + c * z;
                return strict ? value > 0 : value >= 0;
              }),
            ),
          ),
        );
        if (tried) expect(isPossible(demands)).toBe(true);
        else if (isPossible(demands)) expect(all.length).toBeGreaterThan(3);
      },
    ),
    { seed: 5, numRuns: samples(60) },
  );
});
