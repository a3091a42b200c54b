import { describe, expect, it, test } from "@jest/globals";
import { resolve } from "~core/book";
import { fold, worksheet } from "~core/job";
import { nm } from "~core/quantity";
import { dunlin } from "~core/testing/dunlin";
import { readBenchFacts } from "./fact-schema";
import { readTyped, usualConditions } from "./typed";

const chain = resolve(dunlin(), { body: "late" }, "full").packs[0]!;
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
    expect(readBenchFacts([fact])).toEqual({ ok: true, facts: [fact] });
  });

  it("that cannot be is questioned with what was meant, unless the builder is sure", () => {
    const asked = readTyped("43", "mm", sheet, "built", false);
    expect(asked.ok ? null : asked.asked?.meanings.map(({ length }) => length)).toContain(1_092_200);
    expect(readTyped("43", "mm", sheet, "built", true)).toMatchObject({
      ok: true,
      body: { reading: { value: 43_000_000 } },
    });
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
    expect(usualConditions(sheet, "built", sheet.trial).state.facings).toBe("new");
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
  test.each([
    ["nothing", []],
    ["no list", { id: 1 }],
    [
      "a length that is no whole nanometre",
      fact({ kind: "fitting", chain: "d1", fit: 0, origin: "found", piece: { size: 0.5 } }),
    ],
    [
      "a fitting that came off no shelf",
      fact({ kind: "fitting", chain: "d1", fit: 3, origin: "found", piece: { size: nm(1_750_000) } }),
    ],
    [
      "a bracket without a blade",
      fact({
        kind: "reading",
        chain: "d1",
        phase: "found",
        fit: 0,
        method: "feeler",
        state: { soak: "dry", facings: "new" },
        reading: { kind: "bracket" },
        resolution: 0,
        unit: "mm",
      }),
    ],
    [
      "leaving out without a reason",
      fact({ kind: "leave-out", reading: "0190d3c0-0000-7000-8000-000000000002", out: true, reason: " " }),
    ],
    ["an unknown kind", fact({ kind: "gossip" })],
    ["a key too many", [{ ...fact({ kind: "scope", depth: "full" })[0], seq: 4 }]],
  ])("%s is refused with its place", (_name, given) => {
    const read = readBenchFacts(given);
    expect(read.ok).toBe(false);
    if (!read.ok) expect(read.problem).not.toBe("");
  });
});
