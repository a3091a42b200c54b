import { describe, expect, it, test } from "@jest/globals";
import { appliedTo, fold, rows, type FactBody, type Row } from "~core/job";
import { bookOf } from "../../demo/units";
import { readRow } from "./read-row";

const book = bookOf("marram-dunlin");
const job = fold([]);
const sheet = rows(
  { ...job, configuration: { body: "late", plate: "two" } },
  appliedTo(book, { configuration: { body: "late", plate: "two" }, depth: "full" }, []),
  { rule: "proven", target: "middle" },
  "mm",
);
const row = (id: string): Row => {
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
    expect(read("input-end-play", "w")).toMatchObject([
      { kind: "figure", of: "chain", cannot: "gauge not here yet" },
    ]);
    expect(read("valve-fall", "f")).toMatchObject([{ of: "measurement", cannot: "felt only, in order" }]);
  });

  test.each([
    ["d1-clearance", "w", "A pack is judged by readings"],
    ["d1-clearance", "12.2", "cannot be this pack’s clearance"],
    ["input-end-play", "abc", "abc"],
    ["input-end-play", "0.42 nonsense", "nonsense"],
    ["line-idle", "4.6 Ω", "no unit of pressure"],
    ["input-end-play", "", "Type"],
  ])("%s refuses “%s” with a word about it", (id, typed, words) => {
    expect(read(id, typed)).toContain(words);
  });

  it("is there for every chain and measurement in scope, once", () => {
    const ids = sheet.map(({ id }) => id);
    expect(new Set(ids).size).toBe(ids.length);
    const { work } = appliedTo(book, { configuration: { body: "late", plate: "two" }, depth: "full" }, []);
    expect(ids.length).toBe(work.chains.length + (work.measurements?.length ?? 0));
  });
});
