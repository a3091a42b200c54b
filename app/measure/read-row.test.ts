import { describe, expect, it, test } from "@jest/globals";
import { appliedTo, fold, type FactBody } from "~core/fact";
import { specLines, type SpecLine } from "~core/measure";
import { bookOf } from "../../demo/units";
import { readRow } from "./read-row";

const book = bookOf("marram-dunlin");
const sheet = specLines(
  fold([]),
  appliedTo(book, { configuration: { body: "late", plate: "two" }, depths: ["full"] }, []),
  { rule: "proven", target: "middle" },
  "mm",
);
const row = (id: string): SpecLine => {
  const found = sheet.find((one) => one.id === id);
  if (!found) throw new Error(`no row ${id}`);
  return found;
};
const read = (id: string, typed: string, phase: "found" | "built" = "found"): FactBody[] | string => {
  const answer = readRow(row(id), typed, phase, "mm", book);
  return answer.ok ? answer.bodies : answer.problem;
};
const values = (bodies: FactBody[] | string): unknown =>
  typeof bodies === "string"
    ? bodies
    : bodies.map((body) =>
        body.kind === "reading" && body.reading.kind === "single" ? body.reading.value : body,
      );

describe("a row of the spec sheet", () => {
  test.each<[id: string, typed: string, nanometres: number[]]>([
    ["input-end-play", "0.42", [420_000]],
    ["input-end-play", "0.42 0.43  .44", [420_000, 430_000, 440_000]],
    ["input-end-play", ".017 in", [431_800]],
    ["input-end-play", "0,42", [420_000]],
    ["d1-clearance", "1.22 1.24", [1_220_000, 1_240_000]],
  ])("%s takes “%s”", (id, typed, nanometres) => {
    expect(values(read(id, typed))).toEqual(nanometres);
  });

  it("keeps the phase it is typed in", () => {
    expect(read("pump-side", "0.03", "built")).toMatchObject([{ kind: "reading", phase: "built" }]);
    expect(read("solenoid-r", "5.4", "built")).toMatchObject([
      { kind: "figure", phase: "built", text: "5.4 Ω" },
    ]);
  });

  it("takes a figure in its own unit, and a letter for one that cannot be taken", () => {
    expect(read("line-idle", "4.6")).toMatchObject([{ text: "4.6 bar" }]);
    expect(read("d1-clearance", "f")).toMatchObject([{ of: "chain", cannot: "felt-only-in-order" }]);
    expect(read("input-end-play", "w")).toMatchObject([
      { kind: "figure", of: "chain", cannot: "gauge-not-here-yet" },
    ]);
    expect(read("range-r", "f")).toMatchObject([{ of: "measurement", cannot: "felt-only-in-order" }]);
  });

  it("goes through the things a figure is taken of, one after the other", () => {
    expect(read("front-pinion-play", "0.40 0.45/0.50")).toMatchObject([
      { item: "pinion 1", reading: { kind: "single", value: 400_000 } },
      { item: "pinion 2", method: "feeler", reading: { passes: 450_000, refuses: 500_000 } },
    ]);
    expect(read("solenoid-r", "5.4 5.5 5.6")).toMatchObject([
      { item: "shift solenoid 1", text: "5.4 Ω" },
      { item: "shift solenoid 2", text: "5.5 Ω" },
      { item: "shift solenoid 3", text: "5.6 Ω" },
    ]);
    // A letter stands for all of them that are open; an answer has its number.
    expect(read("valve-fall", "f")).toHaveLength(7);
    expect(read("valve-fall", "1 1 2")).toMatchObject([
      { item: "regulator", text: "falls both ways" },
      { item: "boost", text: "falls both ways" },
      { item: "lock-up control", text: "hangs going in" },
    ]);
    expect(read("d1-bushing-depth", "1.50 1.51")).toMatchObject([
      { kind: "reading", chain: "d1-bushing-depth" },
      { kind: "reading", chain: "d1-bushing-depth" },
    ]);
    expect(read("cover-flat", "0.03/0.04 0.05/")).toMatchObject([
      { item: "across", text: "0.03/0.04 mm" },
      { item: "along", text: "0.05/ mm" },
    ]);
  });

  test.each([
    ["d1-clearance", "12.2", "cannot be this pack’s clearance"],
    ["input-end-play", "abc", "abc"],
    ["input-end-play", "0.42 nonsense", "nonsense"],
    ["front-pinion-play", "0.4 0.4 0.4 0.4 0.4", "5 figures for 4"],
    ["front-pinion-play", "0.45/0.40", "the thicker one"],
    ["valve-fall", "9", "1 falls both ways"],
    ["line-idle", "4.6 Ω", "no unit of pressure"],
    ["input-end-play", "", "Type"],
  ])("%s refuses “%s” with a word about it", (id, typed, words) => {
    expect(read(id, typed)).toContain(words);
  });

  it("is there for every chain and measurement in scope, once", () => {
    const ids = sheet.map(({ id }) => id);
    expect(new Set(ids).size).toBe(ids.length);
    const { scoped } = appliedTo(
      book,
      { configuration: { body: "late", plate: "two" }, depths: ["full"] },
      [],
    );
    expect(ids.length).toBe(scoped.chains.length + (scoped.measurements?.length ?? 0));
  });
});
