import { describe, expect, it, test } from "@jest/globals";
import { resolve } from "~core/book";
import { fold } from "~core/fact";
import { worksheet } from "~core/measure";
import { nm } from "~core/quantity";
import { dunlin } from "~core/testing/dunlin";
import { BENCH, checkFacts } from "~core/fact";
import { readTyped, usualConditions } from "./typed";

const chain = resolve(dunlin(), { body: "late" }, ["full"]).packs[0]!;
const sheet = worksheet(fold([]), chain, { rule: "proven", target: "middle" });

describe("a typed reading", () => {
  test.each([
    [".043", "in", 1_092_200, "in"],
    ["43 thou", "mm", 1_092_200, "thou"],
    ["1.09", "mm", 1_090_000, "mm"],
    ["1.09mm", "in", 1_090_000, "mm"],
    ["1,09", "mm", 1_090_000, "mm"],
  ] as const)("%s in a field of %s", (text, unit, value, readIn) => {
    const read = readTyped(text, unit, sheet, "built", false);
    expect(read).toMatchObject({
      ok: true,
      body: { reading: { kind: "single", value }, unit: readIn, typed: text, fit: 0 },
    });
  });

  it("is a fact the server takes as it is", () => {
    const read = readTyped("1.09", "mm", sheet, "built", false);
    if (!read.ok) throw new Error(read.problem);
    const fact = {
      id: "0190d3c0-0000-7000-8000-000000000001",
      at: "2026-05-04T08:00:00.000Z",
      by: "Mira K.",
      body: read.body,
    };
    expect(checkFacts([fact], BENCH)).toEqual({ ok: true, facts: [fact] });
  });

  it("that cannot be is questioned with what was meant, unless the builder is sure", () => {
    const asked = readTyped("43", "mm", sheet, "built", false);
    expect(asked.ok ? null : asked.asked?.meanings.map(({ length }) => length)).toContain(1_092_200);
    expect(readTyped("43", "mm", sheet, "built", true)).toMatchObject({
      ok: true,
      body: { reading: { value: 43_000_000 } },
    });
  });

  it("in inches without a point is thousandths where inches cannot be, and is shown as such at once", () => {
    expect(readTyped("43", "in", sheet, "built", false)).toMatchObject({
      ok: true,
      body: { reading: { kind: "single", value: 1_092_200 }, unit: "thou", typed: "43" },
    });
    // With a unit, or where thousandths cannot be either, it is asked.
    expect(readTyped("43 in", "in", sheet, "built", false)).toMatchObject({ ok: false });
    expect(readTyped("999", "in", sheet, "built", false)).toMatchObject({ ok: false });
    expect(readTyped("43", "in", sheet, "built", true)).toMatchObject({ body: { unit: "thou" } });
  });

  it("that is no length has a problem and a remedy, and no question", () => {
    expect(readTyped("", "mm", sheet, "built", true)).toMatchObject({
      ok: false,
      problem: "nothing was typed; write a number such as 1.09",
    });
  });
});

describe("the usual conditions", () => {
  it("are the spec's, with facings as they must be at that stage", () => {
    expect(usualConditions(sheet, "found", sheet.found).state).toEqual({
      soak: "soaked",
      facings: "run-in",
      wave: "free",
    });
    expect(usualConditions(sheet, "built", sheet.trial).state?.facings).toBe("new");
  });

  it("are those of the last reading, once there is one", () => {
    const read = readTyped("1.09", "mm", sheet, "built", false, {
      method: "hand and dial",
      state: { soak: "dry", facings: "new", wave: "flat" },
    });
    if (!read.ok) throw new Error(read.problem);
    const fact = { id: "a", at: "2026-05-04T08:00:00.000Z", by: "Mira K.", body: read.body };
    const after = worksheet(fold([fact]), chain, { rule: "proven", target: "middle" });
    expect(usualConditions(after, "built", after.trial)).toMatchObject({
      method: "hand and dial",
      state: { soak: "dry", wave: "flat" },
    });
    expect(after.trial.assessment.corrections.map(({ name }) => name).sort()).toEqual(["soaking", "wave"]);
  });
});

describe("facts at the edge", () => {
  const fact = (body: unknown) => [
    { id: "0190d3c0-0000-7000-8000-000000000001", at: "2026-05-04T08:00:00.000Z", by: "Mira K.", body },
  ];
  test.each<[name: string, given: unknown, path: string, remedy: RegExp]>([
    ["nothing", [], "", /at least 1/],
    ["no list", { id: 1 }, "", /\[ \]/],
    [
      "a length that is no whole nanometre",
      fact({ kind: "fitting", chain: "d1", fit: 0, origin: "found", piece: { size: 0.5 } }),
      ...(["[0].body.piece.size", /from 0 to/] as const),
    ],
    [
      "a fitting that came off no shelf",
      fact({ kind: "fitting", chain: "d1", fit: 3, origin: "found", piece: { size: nm(1_750_000) } }),
      ...(["[0].body.kind", /page of its own/] as const),
    ],
    [
      "a bracket without a blade",
      fact({
        kind: "reading",
        chain: "d1",
        phase: "found",
        fit: 0,
        method: "feeler",
        reading: { kind: "bracket" },
        resolution: 0,
        unit: "mm",
      }),
      ...(["[0].body.reading", /the one that passes/] as const),
    ],
    [
      "leaving out without a reason",
      fact({ kind: "leave-out", reading: "0190d3c0-0000-7000-8000-000000000002", out: true, reason: " " }),
      ...(["[0].body.reason", /not empty/] as const),
    ],
    ["an unknown kind", fact({ kind: "gossip" }), "[0].body.kind", /use one of: /],
    ["a kind by its first letters", fact({ kind: "readin" }), "[0].body.kind", /^use one of: reading/],
    ["a kind that JavaScript knows", fact({ kind: "constructor" }), "[0].body.kind", /use one of: /],
    ["no body", [{ ...fact(0)[0], body: undefined }], "[0].body", /value/],
    [
      "a NUL in a note",
      fact({ kind: "fluid", look: "brown", smell: "old", note: "a\0b" }),
      "[0].body.note",
      /./,
    ],
    [
      "half an emoji",
      fact({ kind: "fluid", look: "brown", smell: "old", note: "\ud83d" }),
      ...(["[0].body.note", /./] as const),
    ],
    [
      "a key too many",
      [{ ...fact({ kind: "scope", depths: ["full"] })[0], seq: 4 }],
      ...(["[0].seq", /known here: id, at, by/] as const),
    ],
    [
      "a day that is none",
      [{ ...fact({ kind: "scope", depths: ["full"] })[0], at: "2026-02-30T08:00:00.000Z" }],
      ...(["[0].at", /write it as/] as const),
    ],
  ])("%s is refused with its place and a remedy", (_name, given, path, remedy) => {
    const read = checkFacts(given, BENCH);
    expect(read).toMatchObject({ ok: false });
    if (read.ok) return;
    expect(read.problems[0]?.path).toBe(path);
    expect(read.problems[0]?.remedy).toMatch(remedy);
  });
});
