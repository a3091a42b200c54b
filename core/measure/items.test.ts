import { describe, expect, it, test } from "@jest/globals";
import { bookOf, UNITS, type UnitId } from "../../demo/units";
import { lengthOf, nm } from "../quantity";
import { appliedTo, fold, type EarlierFigure, type Fact, type ReadingBody } from "../fact";
import { figures, itemsOf, judgement, leftWith, specLines } from "./index";
import { said } from "../testing/said";

const reading = (chain: string, item: string | undefined, value: string): Fact =>
  said({
    kind: "reading",
    chain,
    phase: "found",
    fit: 0,
    method: "feeler",
    state: { soak: "dry", facings: "run-in" },
    reading: { kind: "single", value: lengthOf(value) },
    resolution: nm(10_000),
    unit: "mm",
    ...(item ? { item } : {}),
  });
const figure = (id: string, item: string, text: string): Fact =>
  said({ kind: "figure", of: "measurement", id, item, text, phase: "found", note: "" });

const dunlin = bookOf("marram-dunlin");
const scope = said({ kind: "scope", depths: ["full"] });
const configured = said({ kind: "configuration", traits: { body: "late", plate: "two" } });
/** The dunlin’s rows after these facts. */
function sheet(...facts: Fact[]) {
  const job = fold([scope, configured, ...facts]);
  const list = specLines(job, appliedTo(dunlin, job, []), { rule: "proven", target: "middle" }, "mm");
  return (id: string) => {
    const row = list.find((one) => one.id === id);
    if (!row) throw new Error(`no row ${id}`);
    return row;
  };
}
const pinions = (...values: string[]): Fact[] =>
  values.map((value, i) => reading("front-pinion-play", `pinion ${i + 1}`, value));

describe("a chain read of several things", () => {
  it("judges each by itself, one reading being enough, and is not inside before all are read", () => {
    const three = sheet(...pinions("0.40 mm", "0.42 mm", "0.44 mm"))("front-pinion-play");
    expect(three.items.map(({ found }) => found.standing)).toEqual(["inside", "inside", "inside", "not yet"]);
    expect([three.found.standing, three.found.text]).toEqual(["too few", "0.40 to 0.44 mm"]);
    const four = sheet(...pinions("0.40 mm", "0.42 mm", "0.44 mm", "0.41 mm"))("front-pinion-play");
    expect(four.found.standing).toBe("inside");
  });

  it("is as bad as its worst, and says which that is", () => {
    const { found } = sheet(...pinions("0.40 mm", "1.90 mm"))("front-pinion-play");
    expect(found.standing).toBe("outside");
    expect(found.text).toContain("pinion 2");
  });

  it("keeps readings that nobody told apart in sight", () => {
    const all = pinions("0.40 mm", "0.42 mm", "0.44 mm", "0.41 mm");
    const loose = [1, 2, 3].map(() => reading("front-pinion-play", undefined, "1.90 mm"));
    const { found, items } = sheet(...all, ...loose)("front-pinion-play");
    expect(items.at(-1)?.item.name).toBe("not told apart");
    expect(found.standing).toBe("outside");
  });

  it("has the way a pressed-in part is turned beside its depth", () => {
    const depth = [1, 2, 3].map(() => reading("d1-bushing-depth", undefined, "1.50 mm"));
    const turned = (text: string): Fact =>
      said({
        kind: "figure",
        of: "chain",
        id: "d1-bushing-depth",
        item: "clocking",
        text,
        phase: "found",
        note: "",
      });
    expect(sheet(...depth)("d1-bushing-depth").found.standing).toBe("too few");
    expect(sheet(...depth, turned("as the book says"))("d1-bushing-depth").found.standing).toBe("inside");
    expect(sheet(...depth, turned("turned otherwise"))("d1-bushing-depth").found.standing).toBe("outside");
  });
});

describe("a measurement taken of several things", () => {
  it("is decided when all are said, or one is outside", () => {
    const valves = ["regulator", "boost", "lock-up control", "shift 1", "shift 2", "shift 3", "manual"];
    const fall = (n: number): Fact[] =>
      valves.slice(0, n).map((valve) => figure("valve-fall", valve, "falls both ways"));
    expect(sheet(...fall(6))("valve-fall").found.standing).toBe("too few");
    expect(sheet(...fall(7))("valve-fall").found.standing).toBe("inside");
    const hangs = sheet(...fall(2), figure("valve-fall", "shift 2", "hangs going in"))("valve-fall").found;
    expect([hangs.standing, hangs.text]).toEqual(["outside", "hangs going in, shift 2"]);
  });

  it("takes every steel of every pack in scope, each against its own stack", () => {
    const job = fold([scope, configured]);
    const applied = appliedTo(dunlin, job, []);
    const thickness = applied.scoped.measurements?.find(({ id }) => id === "steel-thickness");
    if (!thickness) throw new Error("no steels are measured");
    const items = itemsOf(thickness, applied);
    const steels = applied.packs.flatMap(({ stack }) =>
      stack.flatMap((entry) => (entry.role === "steel" ? [{ ...entry, n: entry.count ?? 1 }] : [])),
    );
    expect(items).toHaveLength(steels.reduce((sum, { n }) => sum + n, 0));
    expect(items[0]).toEqual({ name: "D1 steel 1", min: (steels[0]?.thickness ?? 0) - 50_000 });
    const thin = sheet(figure("steel-thickness", "D1 steel 1", "1.70 mm"))("steel-thickness").found;
    expect(thin.standing).toBe("outside");
  });

  it("follows the version: fewer plates, fewer lines", () => {
    const of = (body: string): number => {
      const job = fold([scope, said({ kind: "configuration", traits: { body, plate: "two" } })]);
      const found = figures(job, appliedTo(dunlin, job, []), "proven", "found").find(
        ({ id }) => id === "steel-flat",
      );
      return found?.items.length ?? 0;
    };
    expect(of("early")).not.toBe(of("late"));
  });
});

describe("an earlier visit", () => {
  const left = (figures: EarlierFigure[]): Fact =>
    said({ kind: "earlier-visit", job: 1012, left: "2026-01-05T08:00:00Z", figures });

  it("stands beside each figure it has, with how far a length has moved", () => {
    const plays = ["0.30 mm", "0.31 mm", "0.32 mm"].map((value) =>
      reading("input-end-play", undefined, value),
    );
    const row = sheet(
      left([
        { of: "chain", id: "input-end-play", text: "0.250 ± 0.020 mm", value: nm(250_000) },
        { of: "measurement", id: "line-idle", text: "4.6 bar" },
      ]),
      ...plays,
    );
    expect(row("input-end-play").earlier).toEqual({ text: "0.250 mm", moved: "+0.060 mm" });
    expect(row("line-idle").earlier).toEqual({ text: "4.6 bar", moved: "" });
    expect(row("output-end-play").earlier).toBeNull();
  });

  it("takes along what the unit left with: as built, else as found, and no more than was read", () => {
    const before = (phase: "found" | "built", value: string): Fact =>
      said({ ...(reading("input-end-play", undefined, value).body as ReadingBody), phase });
    const job = fold([
      ...[
        scope,
        configured,
        before("found", "0.70 mm"),
        before("found", "0.70 mm"),
        before("found", "0.70 mm"),
      ],
      ...[before("built", "0.40 mm"), before("built", "0.40 mm"), before("built", "0.40 mm")],
      figure("solenoid-r", "shift solenoid 1", "5.4 Ω"),
    ]);
    const figures = leftWith(job, appliedTo(dunlin, job, []), { rule: "proven", target: "middle" });
    expect(figures.map(({ of, id, value }) => [of, id, value])).toEqual([
      ["chain", "input-end-play", 400_000],
      ["measurement", "solenoid-r", undefined],
    ]);
  });
});

const M: UnitId = "marram-dunlin";
test.each<[id: string, text: string, item: { name: string; min?: number } | undefined, is: string]>([
  ["solenoid-r", "5.0 Ω", undefined, "inside"],
  ["solenoid-r", "4.9 Ω", undefined, "outside"],
  ["cover-flat", "0.04/0.05 mm", undefined, "inside"],
  ["cover-flat", "0.04/0.06 mm", undefined, "too close"],
  ["cover-flat", "0.06/0.07 mm", undefined, "outside"],
  ["cover-flat", "/0.05 mm", undefined, "inside"],
  ["cover-flat", "0.03/ mm", undefined, "too close"],
  ["cover-flat", "0.06/ mm", undefined, "outside"],
  ["steel-thickness", "1.75 mm", { name: "D1 steel 1", min: 1_750_000 }, "inside"],
  ["steel-thickness", "1.74 mm", { name: "D1 steel 1", min: 1_750_000 }, "outside"],
  ["valve-fall", "does not move", undefined, "outside"],
  ["valve-fall", "as it likes", undefined, "not stated"],
])("%s: %s is %s %s", (id, text, item, is) => {
  const measurement = bookOf(M).measurements?.find((one) => one.id === id);
  if (!measurement) throw new Error(`no ${id}`);
  expect(judgement(measurement, text, item as never)).toBe(is);
});

test.each(UNITS)("%s: as many readings as are asked for are enough", (unit) => {
  const book = bookOf(unit);
  const traits = Object.fromEntries(book.traits.map(({ id, values }) => [id, Object.keys(values)[0] ?? ""]));
  const begun = [said({ kind: "configuration", traits }), said({ kind: "scope", depths: [...book.depths] })];
  const of = (facts: readonly Fact[]) => {
    const job = fold(facts);
    return specLines(
      job,
      appliedTo(book, job, []),
      { rule: "proven", target: "middle" },
      book.unit.lengthUnit,
    );
  };
  const single = of(begun).filter(({ subject: what, items }) => what === "chain" && items.length === 0);
  expect(single.length).toBeGreaterThan(3);
  for (const { id, wanted } of single) {
    const { spec } = book.chains.find((chain) => chain.id === id) ?? { spec: [] };
    const middle = nm(Math.round(((spec[0]?.min ?? 0) + (spec[0]?.max ?? 0)) / 2));
    const taken = Array.from({ length: wanted }, (): Fact => {
      const { body, ...rest } = reading(id, undefined, "1.00 mm");
      return { ...rest, body: { ...(body as ReadingBody), reading: { kind: "single", value: middle } } };
    });
    const row = of([...begun, ...taken]).find((one) => one.id === id);
    expect([id, row?.found.standing]).not.toEqual([id, "too few"]);
  }
});
