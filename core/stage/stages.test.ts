import { describe, expect, it } from "@jest/globals";
import { bookOf, UNITS } from "../../demo/units";
import { answered, good, jobOf, read, unitOf } from "../../demo/testing";
import { tornDown } from "../../demo/work";
import { appliedTo, type FactBody } from "../fact";
import { LOOKED_AT, USUAL_SCHOOLS } from "../inspect";
import { nm } from "../quantity";
import { hinders, standingOf, STAGES, waitsFor } from "./index";

const HOUSE = { rule: "proven", target: "middle", ...USUAL_SCHOOLS } as const;
const UNIT = "marram-dunlin";
const unit = unitOf(UNIT);
const steps = unit.scoped.teardown ?? [];
const told: FactBody = { kind: "answer", question: "range:R", outcome: "harsh", there: true, conditions: [] };
const step = (n: number, did: "done" | "skipped" | "undone" = "done"): FactBody => ({
  kind: "step",
  step: steps[n]?.id ?? "",
  did,
  reason: "seen",
});
const standing = (...bodies: FactBody[]) => standingOf(jobOf(bodies), unit, HOUSE);
const waits = (...bodies: FactBody[]): string => waitsFor(standing(...bodies));

/** Everything that is read before the unit is opened. */
const before: FactBody[] = standing()
  .open.filter(({ stage, kind }) => stage === "book in" && kind === "figure")
  .map(({ subject: id }): FactBody => ({
    kind: "figure",
    of: unit.chains.some(({ chain }) => chain.id === id) ? "chain" : "measurement",
    id,
    phase: "found",
    cannot: "gauge-not-here-yet",
    note: "",
  }));
const found = (chain: string): FactBody => ({
  kind: "reading",
  chain,
  phase: "found",
  fit: 0,
  method: "air and dial",
  state: { soak: "soaked", facings: "run-in", wave: "free" },
  reading: { kind: "single", value: nm(1_480_000) },
  resolution: nm(10_000),
  unit: "mm",
});

describe("where a job stands", () => {
  it.each(UNITS)("%s: what is open in the stages is what hinders closing, each once", (id) => {
    const applied = unitOf(id);
    for (const bodies of [[], tornDown(applied, 1), [good(...applied.scoped.parts.map((part) => part.id))]]) {
      const job = jobOf(bodies);
      const { stages, open } = standingOf(job, applied, HOUSE);
      expect(stages.map((one) => one.id)).toEqual([...STAGES]);
      expect(stages.reduce((sum, one) => sum + one.open, 0)).toBe(hinders(job, applied, HOUSE).length);
      expect(new Set(open.map(({ key }) => key)).size).toBe(open.length);
      for (const one of stages) if (one.state === "done" && one.id !== "hand over") expect(one.open).toBe(0);
    }
  });

  it("asks for the symptoms first, then for what is read before opening, then for the first step", () => {
    expect(waits()).toBe("Tell the symptoms");
    expect(waits(told)).toContain(": before the unit is opened");
    expect(waits(told, ...before)).toBe(`${steps[0]?.name}: step 1 of ${steps.length}`);
  });

  it("says the next step while the unit comes apart; what was passed over comes when the end is reached", () => {
    const at = (n: number): string => `${steps[n]?.name}: step`;
    expect(waits(told, step(0), step(1, "skipped"))).toContain(`${at(2)} 3 of`);
    expect(waits(told, step(0), step(2))).toContain(`${at(3)} 3 of`);
    expect(waits(told, ...before, step(0), step(0, "undone"))).toContain(`${at(0)} 1 of`);
  });

  it("goes on with the pack that is begun, and says how many are left", () => {
    const taken = tornDown(unit, 1);
    expect(waits(told, ...taken)).toMatch(/nobody has looked at it, \d+ to answer/);
    // Apart, it can no longer be read as it was found.
    expect(waits(told, ...taken, found("h1-clearance"))).toMatch(/^H1: trial reading, 5 to go/);
    expect(waits(told, found("h1-clearance"))).toMatch(/^H1: as found, more readings, 5 to go/);
    // Read without a step ticked, the unit is taken as it is.
    expect(waits(found("d3-clearance"))).toMatch(/^D3/);
  });

  it("follows the order of the work: inspect, measure, choose, and the build sheet at the end", () => {
    const taken = [told, ...before, ...tornDown(unit, 1)];
    const looked = [
      good(...unit.scoped.parts.map(({ id }) => id)),
      ...(unit.scoped.weakPoints ?? []).map(({ id }) => answered(id, LOOKED_AT)),
    ];
    expect(standing(...taken).next).toMatchObject({ stage: "inspect", what: "part" });
    expect(standing(...taken, ...looked).next).toMatchObject({ stage: "measure", what: "figure" });
    const signed: FactBody = {
      kind: "sign-off",
      of: standing(...taken, ...looked)
        .open.filter(({ stage }) => stage !== "choose")
        .map(({ key }) => key),
      reason: "as it is",
      signedBy: "Edda L.",
    };
    expect(standing(...taken, ...looked, signed).next).toMatchObject({ stage: "choose", what: "pack" });
    const all: FactBody = { ...signed, of: standing(...taken, ...looked).open.map(({ key }) => key) };
    expect(waits(...taken, ...looked, all)).toBe("Build sheet and closing");
    // A pack that was begun and is signed for is not asked for again.
    expect(waits(...taken, ...looked, found("d1-clearance"), all)).toBe("Build sheet and closing");
    const closed: FactBody = { kind: "closed", rule: "proven" };
    expect(waits(...taken, closed)).toBe("nothing, closed");
    expect(standing(closed).stages.every(({ state }) => state === "done")).toBe(true);
  });

  it("a stage waits for those before it until something is done in it", () => {
    const states = (...bodies: FactBody[]) =>
      Object.fromEntries(standing(...bodies).stages.map(({ id, state }) => [id, state]));
    expect(states(told)).toMatchObject({ "take down": "open", inspect: "waits", choose: "waits" });
    expect(states(told, found("d1-clearance"))).toMatchObject({ inspect: "waits", choose: "open" });
    expect(states(...read("input-end-play", "0.42 mm"))).toMatchObject({ measure: "open" });
  });

  it("a partial job has no packs to choose for", () => {
    const book = bookOf(UNIT);
    const job = jobOf([
      { kind: "configuration", traits: { body: "late", plate: "two" } },
      { kind: "scope", depths: ["pan and body"] },
    ]);
    const { stages } = standingOf(job, appliedTo(book, job, []), HOUSE);
    expect(stages.find(({ id }) => id === "choose")?.state).toBe("out of scope");
  });
});
