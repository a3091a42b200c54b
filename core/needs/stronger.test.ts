import { ends } from "../reading";
import { describe, expect, it } from "@jest/globals";
import { bookOf } from "../../demo/units";
import { strongerPlan } from "../capacity";
import { appliedTo, fold, type Fact, type FactBody } from "../fact";
import { dispositions, USUAL_SCHOOLS } from "../inspect";
import { ofStackNow, worksheet } from "../measure";
import { counts, nominalGap, thicknessOf } from "../pack";
import { nm } from "../quantity";
import { counts as counted } from "../steps";
import { said } from "../testing/said";
import { comparedBy, needsOf } from "./index";

const book = bookOf("marram-whimbrel");
const HOUSE = { rule: "proven", target: "middle" } as const;
const OPENED: FactBody[] = [
  {
    kind: "configuration",
    traits: Object.fromEntries(book.traits.map(({ id, values }) => [id, Object.keys(values)[0] ?? ""])),
  },
  { kind: "scope", depths: ["full"] },
];
const WAYS = ["direct-thin-steels", "direct-end-plate", "direct-piston-cut", "boost-area", "hard-shell"];

/** The plan as somebody decides it. */
function decided(ways: readonly string[]): FactBody {
  const asBuilt = appliedTo(book, fold(OPENED.map(said)), []);
  const plan = strongerPlan(asBuilt, { ways, turns: 0, packs: new Map() });
  return {
    kind: "stronger",
    ways: plan.ways,
    torque: 520,
    use: "towing",
    packs: plan.packs,
    cuts: plan.cuts,
    reason: "tows a trailer",
  };
}

const direct = (facts: readonly Fact[]) => {
  const job = fold(facts);
  const applied = appliedTo(book, job, []);
  const pack = applied.packs.find((one) => one.pack.element === "direct");
  if (!pack) throw new Error("no direct clutch");
  return { job, applied, pack };
};

const read = (value: number, fit = 0): FactBody => ({
  kind: "reading",
  chain: "direct-clearance",
  phase: "built",
  fit,
  method: "air and dial",
  state: { soak: "soaked", facings: "new", wave: "flat" },
  reading: { kind: "single", value: nm(value) },
  resolution: nm(10_000),
  unit: "in",
});

describe("a unit that is made stronger", () => {
  const opened = OPENED.map(said);
  const made = [...opened, said(decided(WAYS))];
  const [before, after] = [direct(opened), direct(made)];

  it("has another stack, whose clearance the plan foretold, and limits that grew with its frictions", () => {
    expect([counts(before.pack.stack).frictions, counts(after.pack.stack).frictions]).toEqual([4, 5]);
    const plan = after.job.stronger?.body;
    const [pack] = plan?.packs ?? [];
    const off = (plan?.cuts ?? []).reduce((sum, one) => sum + one.off, 0);
    expect(off).toBeGreaterThan(0);
    // The drum is as deep as it was; what came off the piston and the thinnest ring make room besides.
    const sizes = (before.pack.seats[0]?.sizes ?? []).map(({ size }) => size);
    const rings = (sizes[Math.floor(sizes.length / 2)] ?? 0) - Math.min(...sizes);
    expect(
      nominalGap(before.pack, null) +
        (thicknessOf(before.pack.stack) ?? NaN) -
        (thicknessOf(after.pack.stack) ?? NaN) +
        rings +
        off,
    ).toBe(pack?.predicted);
    expect(after.pack.spec.min).toBe(pack?.min);
    expect(ends(after.pack.spec).min / ends(before.pack.spec).min).toBeCloseTo(5 / 4, 1);
  });

  it("needs the plates of the plan, the regulator’s part and the other shell; the piston is machined", () => {
    const states = dispositions(after.job, after.applied, USUAL_SCHOOLS, "proven");
    const is = (id: string) => states.find(({ part }) => part.id === id)?.is;
    expect([is("direct-steel"), is("direct-reaction"), is("direct-piston"), is("link-drum")]).toEqual([
      "upgrade",
      "upgrade",
      "machine",
      "upgrade",
    ]);
    const lines = needsOf(after.job, after.applied, states).lines;
    const line = (id: string) => lines.find((one) => one.id === id);
    expect(line("part direct-steel")).toMatchObject({ number: "MW-9301", count: 5 });
    expect(line("part direct-steel")?.because[0]).toContain("Thin steels");
    expect(line("part direct-reaction")).toMatchObject({ number: "MW-9302" });
    expect(line("part link-drum")).toMatchObject({ number: "MW-9311" });
    expect(line("stronger boost-area")).toMatchObject({ number: "MW-9308", count: 1 });
    expect(line("stronger hard-shell")).toBeUndefined();
    // What comes is held against what it must be.
    expect(comparedBy(book, "MW-9301")).toContain("thickness of the whole stack, clamped");
    expect(comparedBy(book, "MW-9310")).toContain("race of the rear carrier: machine");
  });

  it("is proven at the step that builds it, and what comes out of it is held against what was built", () => {
    const step = after.applied.scoped.build?.find(({ parts = [] }) => parts.includes("direct-steel"));
    expect(step?.check?.map(({ what }) => what).join()).toMatch(
      /Thin steels in the direct clutch: clearance the same at three places/,
    );
    expect(
      after.applied.scoped.build?.flatMap(({ check = [] }) => check.map(({ what }) => what)).join(),
    ).toMatch(/in off, lathe/);
    const expected = (at: typeof after) =>
      counted(at.job, at.applied)
        .filter(({ element }) => element === "direct")
        .map((one) => one.expected);
    expect(expected(after)).toEqual(expected(before));
  });

  it("counts no reading of the stack that was in before, nor a piece chosen from it; taken back, none of the other one", () => {
    const trial = [read(940_000), read(950_000), read(940_000)].map(said);
    const sheetOf = (facts: readonly Fact[]) => {
      const { job, pack } = direct(facts);
      return { set: worksheet(job, pack, HOUSE).trial, isOfNow: ofStackNow(job, pack) };
    };
    expect(sheetOf([...opened, ...trial]).set.readings).toHaveLength(3);
    const planned = [...opened, ...trial, said(decided(WAYS))];
    expect(sheetOf(planned).set.readings).toEqual([]);
    const again = [...planned, ...[read(1_200_000), read(1_210_000)].map(said)];
    expect(sheetOf(again).set.readings).toHaveLength(2);
    // Another reason, another pressure: the plates are the same.
    expect(
      sheetOf([...again, said(decided(WAYS.filter((one) => one !== "boost-area")))]).set.readings,
    ).toHaveLength(2);
    const back = said({
      kind: "stronger",
      ways: [],
      torque: 520,
      use: "towing",
      packs: [],
      cuts: [],
      reason: "taken back",
    });
    expect(sheetOf([...again, back]).set.readings).toEqual([]);
    expect(direct([...again, back]).pack.stack).toEqual(before.pack.stack);
  });

  it("is held to the plan’s limits where the house has its own for the stock stack: they are in the plan already", () => {
    const own = {
      of: "chain",
      id: "direct-clearance",
      min: nm(800_000),
      max: nm(1_000_000),
      reason: "crisper",
      by: "Edda L.",
      at: "2026-05-04T08:00:00.000Z",
    } as const;
    const pack = appliedTo(book, fold(made), [own]).packs.find((one) => one.pack.element === "direct");
    expect(pack?.spec).toEqual(after.pack.spec);
    expect(pack?.asFound).toMatchObject({ min: own.min, max: own.max });
  });

  it("was found as it was built: those limits judge what was read then", () => {
    const found = [940_000, 950_000, 940_000].map((value) =>
      said({ ...read(value), phase: "found" } as FactBody),
    );
    const verdict = (facts: readonly Fact[]) => {
      const { job, pack } = direct(facts);
      return worksheet(job, pack, HOUSE).found.assessment.verdict;
    };
    expect(verdict([...made, ...found])).toEqual(verdict([...opened, ...found]));
  });
});
