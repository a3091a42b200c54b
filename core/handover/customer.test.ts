import { describe, expect, it, test } from "@jest/globals";
import { finding, jobOf, unitOf } from "../../demo/testing";
import { buildOf } from "../build";
import type { FactBody } from "../fact";
import { USUAL_SCHOOLS } from "../inspect";
import { specLines } from "../measure";
import { nearestTotal } from "./amounts";
import { comebackOf, customerSheet } from "./index";

const HOUSE = { rule: "proven", target: "middle" } as const;
const sheet = (...bodies: FactBody[]) => customerSheet(jobOf(bodies), unitOf("marram-dunlin"), HOUSE, "mm");
const under = (title: string, ...bodies: FactBody[]): string[] =>
  sheet(...bodies).parts.find((part) => part.title === title)?.lines ?? [];

describe("the amount that is in", () => {
  test.each<[string, [string, "in" | "out"][], string]>([
    ["nothing said", [], ""],
    [
      "what went in less what ran out",
      [
        ["9.4 l", "in"],
        ["0.35 l", "out"],
        ["400 ml", "in"],
      ],
      "9.45 l",
    ],
    [
      "in the unit of the first",
      [
        ["1 qt", "in"],
        ["946.352946 ml", "in"],
      ],
      "2 qt",
    ],
    [
      "more out than in",
      [
        ["1 l", "in"],
        ["1.5 l", "out"],
      ],
      "−0.5 l",
    ],
    [
      "what is no amount counts for nothing",
      [
        ["a bit", "in"],
        ["2 l", "in"],
      ],
      "2 l",
    ],
  ])("%s", (_name, flows, wanted) =>
    expect(nearestTotal(flows.map(([amount, way]) => ({ amount, way })))).toBe(wanted),
  );
});

describe("what the customer is told", () => {
  it("nothing under a heading that has nothing to say, and how it is run in always", () => {
    expect(sheet().parts.map(({ title }) => title)).toEqual(["Fluid", "From now on"]);
    expect(sheet().figures).toEqual([]);
  });

  it("why it failed, in plain words; that the cause was not found too", () => {
    const burnt = [finding("d3-friction", "burnt", "beyond-use")];
    const cause = (id: string, standing: "found" | "likely" | "not-found"): FactBody => ({
      kind: "cause",
      of: "d3",
      cause: id,
      standing,
      note: "lip flat",
      after: "",
    });
    const told = (...bodies: FactBody[]) =>
      under("What was found, and why it failed", ...burnt, ...bodies)[0];
    expect(told()).toMatch(/burnt$/);
    expect(told(cause("seal-leak", "likely"))).toMatch(/Because of: .*, most likely \(lip flat\)$/);
    expect(told(cause("", "not-found"))).toMatch(/The cause was not found: lip flat$/);
  });

  it("what went in, out of what, what stays although something was found on it, and whose name stands for the rest", () => {
    const bodies: FactBody[] = [
      { kind: "renewed", parts: ["pan-gasket"], there: true },
      { kind: "part-source", part: "d1-drum", from: "donor", of: "from the yard", here: true },
      finding("d1-piston", "scored", "trace"),
      { kind: "disposition", part: "d1-piston", is: "reuse", reason: "light" },
      {
        kind: "sign-off",
        of: ["relearn fill-learn"],
        reason: "driven in by the customer",
        signedBy: "Edda L.",
      },
    ];
    expect(under("What was done", ...bodies)).toEqual([
      "New: pan gasket",
      "D1 drum: out of a donor unit, from the yard",
    ]);
    expect(under("Used again, knowingly", ...bodies)).toEqual(["D1 piston: scored"]);
    expect(under("Left as it is", ...bodies)).toEqual([
      "Clutch fill learning: driven in by the customer (Edda L.)",
    ]);
  });

  it("a part by its own name, also where a figure of it bears the same id", () => {
    const applied = unitOf("selwyn-turnstone");
    const both = applied.present.parts.filter(({ id }) =>
      applied.present.chains.some((chain) => chain.id === id),
    );
    expect(both.length).toBeGreaterThan(0);
    const ids = both.map(({ id }) => id);
    const job = jobOf([
      { kind: "renewed", parts: ids, there: true },
      { kind: "sign-off", of: [`renew ${ids[0]}`], reason: "none to be had", signedBy: "Edda L." },
    ]);
    const lines = customerSheet(job, applied, HOUSE, "mm").parts.flatMap((part) => part.lines);
    expect(lines).toContain(`New: ${both.map(({ name }) => name).join(", ")}`);
    expect(lines).toContain(`${both[0]?.name}: none to be had (Edda L.)`);
  });

  it("what it left with, and who drove it", () => {
    const bodies: FactBody[] = [
      { kind: "figure", of: "measurement", id: "line-idle", phase: "built", text: "5.1 bar", note: "" },
      { kind: "drive", drive: 1, driver: "Runa S.", distance: "20 km", is: "right", note: "" },
      { kind: "filled", amount: "9.4 l", way: "in", when: "filled in the vehicle" },
    ];
    expect(sheet(...bodies).figures.map(({ is }) => is)).toEqual(["5.1 bar"]);
    expect(under("Proven by", ...bodies)).toEqual(["Drive 1: 20 km by Runa S., drives right"]);
    expect(under("Fluid", ...bodies)[0]).toBe("Marram transmission fluid M6, 9.4 l");
  });
});

describe("a unit that came back", () => {
  const booked = (odometer: string): FactBody => ({
    kind: "booking",
    vehicle: "Skerry",
    customer: "",
    words: "slips",
    odometer,
  });
  const tells = (outcome: "slips" | "harsh"): FactBody => ({
    kind: "answer",
    question: "range:1",
    outcome,
    conditions: [],
    there: true,
  });
  const air = (element: string, result: "leaks" | "holds"): FactBody => ({
    kind: "air",
    element,
    result,
    how: "heard",
    note: "",
  });
  const cameBack = (then: readonly FactBody[], now: readonly FactBody[]) => {
    const applied = unitOf("marram-dunlin");
    const job = jobOf(then);
    const lines = specLines(job, applied, HOUSE, "mm");
    const build = buildOf(job, applied, { ...HOUSE, ...USUAL_SCHOOLS }, Infinity, { lines });
    return comebackOf({ job, applied, build, lines }, jobOf(now), "2026-09-01T08:00:00.000Z");
  };

  test.each([
    ["148 200 km", "151 000 km", "2800 km"],
    ["92 100 mi", "92 100 mi", "0 mi"],
    ["148 200 km", "92 100 mi", ""],
    ["151 000 km", "148 200 km", ""],
    ["", "148 200 km", ""],
  ])("ran from %s to %s: %s", (then, now, ran) =>
    expect(cameBack([booked(then)], [booked(now)]).ran).toBe(ran),
  );

  it("says what is the same and what is new, and where that build was proven least by what is told now", () => {
    const twice = [air("d1", "leaks"), air("d1", "holds"), air("h1", "leaks"), air("h1", "holds")];
    const { same, fresh, weak, days } = cameBack(
      [booked(""), tells("slips"), ...twice, { kind: "closed", rule: "proven" }],
      [booked(""), tells("slips"), { ...tells("harsh"), question: "range:R" } as FactBody],
    );
    expect([same, fresh]).toEqual([["1: slips"], ["R: harsh"]]);
    expect(weak[0]?.elements).toEqual(["d1"]);
    expect(days).toBe(120);
  });
});
