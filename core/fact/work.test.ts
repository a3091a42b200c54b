import { describe, expect, it } from "@jest/globals";
import { good, jobOf } from "../../demo/testing";
import type { FactBody, Severity } from "./index";

const glazed = (severity: Severity, pieces?: number[], there = true, note = ""): FactBody => ({
  kind: "finding",
  part: "d1-friction",
  wear: "glazed",
  severity,
  sure: true,
  note,
  there,
  ...(pieces ? { pieces } : {}),
});
const stands = (...facts: FactBody[]): string[] =>
  jobOf(facts).findings.map(
    ({ body: { severity, pieces, note } }) =>
      `${pieces?.join(",") ?? "all"}: ${severity}${note && `, ${note}`}`,
  );

describe("what was found on several pieces", () => {
  it("is kept for each: a word on one leaves the others", () => {
    expect(stands(glazed("trace", [1, 2]), glazed("beyond-use", [4]))).toEqual([
      "1,2: trace",
      "4: beyond-use",
    ]);
    expect(stands(glazed("trace", [1, 2]), glazed("worn", [2]))).toEqual(["1: trace", "2: worn"]);
    expect(stands(glazed("trace", [1]), glazed("worn", [1]))).toEqual(["1: worn"]);
  });

  it("has exceptions beside what was said of all, until all are judged anew", () => {
    const both = [glazed("trace"), glazed("beyond-use", [3])];
    expect(stands(...both)).toEqual(["all: trace", "3: beyond-use"]);
    expect(stands(...both, glazed("worn"))).toEqual(["all: worn"]);
  });

  it("is taken back for the pieces named, or for all", () => {
    const both = [glazed("trace", [1, 2]), glazed("beyond-use", [4])];
    expect(stands(...both, glazed("beyond-use", [4], false))).toEqual(["1,2: trace"]);
    expect(stands(...both, glazed("trace", undefined, false))).toEqual([]);
    expect(stands(...both, good("d1-friction"))).toEqual([]);
    expect(stands(...both, good("d1-steel"))).toHaveLength(2);
  });

  it("takes a note said afterwards", () => {
    expect(stands(glazed("trace", [1]), glazed("trace", [1], true, "outer edge only"))).toEqual([
      "1: trace, outer edge only",
    ]);
  });
});
