import { expect, test } from "@jest/globals";
import { bookOf } from "../../demo/units";
import { appliedTo, fold, type Fact } from "../fact";
import { nm } from "../quantity";
import { chosenSheets, movedSinceFound, nextReading, outsides, together, type House } from "./index";
import { chooseJointly, type Stock } from "../select";
import { said } from "../testing/said";

const HOUSE: House = { rule: "proven", target: "middle" };
const book = bookOf("marram-dunlin");
const version = { body: "late", plate: "two" };
const CHAIN = "output-end-play";
const reads = (phase: "found" | "built", fit: number, ...um: number[]): Fact[] =>
  um.map((value) =>
    said({
      kind: "reading",
      chain: CHAIN,
      phase,
      fit,
      method: "dial",
      reading: { kind: "single", value: nm(value * 1_000) },
      resolution: nm(10_000),
      unit: "mm",
    }),
  );
const fitted = (fit: number, part: string, um: number): Fact =>
  said({
    kind: "fitting",
    seat: CHAIN,
    fit,
    origin: fit === 0 ? "found" : "shelf",
    piece: { part, size: nm(um * 1_000) },
  });
const chosen = said({
  kind: "choice",
  seat: CHAIN,
  fit: 1,
  kept: false,
  reason: "",
  predictions: [{ chain: CHAIN, mean: nm(270_000), expanded: nm(20_000), chance: 1 }],
});
const met = (fit: number): Fact =>
  said({ kind: "conditions", chain: CHAIN, phase: "built", fit, met: ["gasket in"] });
function sheetOf(facts: Fact[]) {
  const job = fold([
    said({ kind: "configuration", traits: version }),
    said({ kind: "scope", depths: ["full"] }),
    ...facts,
  ]);
  const sheets = chosenSheets(job, appliedTo(book, job, []), HOUSE);
  const sheet = sheets.find(({ applied }) => applied.chain.id === CHAIN)!;
  return { job, sheets, sheet };
}
const moved = (...facts: Fact[]) => {
  const { job, sheet } = sheetOf(facts);
  return movedSinceFound(job, sheet);
};
const found = [fitted(0, "MD-1056", 3_000), ...reads("found", 0, 70, 71, 70)];

test("a figure that moved by what its piece was changed by needs no word", () => {
  expect(moved(...found)).toBeNull();
  const as = [...found, fitted(1, "MD-1049", 2_800), chosen, met(1), ...reads("built", 1, 270, 271, 270)];
  expect(moved(...as)).toMatchObject({ by: 200_000, byPieces: 200_000, unexplained: null });
});

test("one that moved otherwise says by how much, and one that did not move though it should have too", () => {
  const swapped = [...found, fitted(1, "MD-1049", 2_800), chosen, met(1)];
  expect(moved(...swapped, ...reads("built", 1, 350, 351, 350))?.unexplained).toBe(80_000);
  expect(moved(...swapped, ...reads("built", 1, 72, 71, 72))?.unexplained).toBeLessThan(-190_000);
  // Nothing was changed, and it moved.
  expect(moved(...found, met(0), ...reads("built", 0, 120, 121, 120))).toMatchObject({
    byPieces: 0,
    unexplained: 50_000,
  });
});

const stock = (parts: Record<string, number>): Stock[] =>
  book.series.flatMap(({ sizes }) => sizes.map(({ part }) => ({ part, onHand: parts[part] ?? 0 })));
const asked = (facts: Fact[], parts: Record<string, number>) => {
  const { job, sheets } = sheetOf(facts);
  const question = together({ job, sheets, orders: [], stock: stock(parts) });
  return { question, plan: chooseJointly(question.question) };
};
const tried = (...um: number[]): Fact[] => [fitted(0, "MD-1056", 3_000), met(0), ...reads("built", 0, ...um)];

test("the next reading worth taking is that of what is nearest its limit, and none where all is sure", () => {
  // 2.80 mm would bring it to the middle: nothing is worth another reading.
  const sure = asked(tried(100, 101, 100), { "MD-1049": 3 });
  expect(nextReading(sure.question, sure.plan)).toBeNull();
  // Only 2.60 mm lies there: by its mark it may well be beyond the limit, and a micrometer would tell.
  const near = asked(tried(90, 94, 89), { "MD-1042": 3 });
  const next = nextReading(near.question, near.plan);
  expect(next?.gain).toBeGreaterThanOrEqual(2);
  expect(["piece in", "piece out", "read again"]).toContain(next?.what);
});

test("what cannot be met says what would have to be in, and what stands against that", () => {
  const none = asked(tried(70, 71, 70), {});
  expect(outsides(none.question, none.plan)).toMatchObject([
    { side: "tight", ways: [{ against: "nobody", marks: ["1", "2"] }] },
  ]);
  // So tight that no size of the series is thin enough.
  const far = asked(tried(-600, -601, -600), { "MD-1042": 1, "MD-1049": 1 });
  const [way] = outsides(far.question, far.plan)[0]?.ways ?? [];
  expect(way?.against).toBe("series");
  expect([way?.from, way?.to]).toEqual([1_900_000, 2_250_000].map((size) => expect.closeTo(size, -3)));
});
