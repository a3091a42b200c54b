import { middleOf } from "../reading";
import { describe, expect, it, test } from "@jest/globals";
import { bookOf, UNITS, type UnitId } from "../../demo/units";
import { answered, finding, good, jobOf, read, unitOf } from "../../demo/testing";
import { proven } from "../../demo/proven";
import { stepBuilt, tornDown } from "../../demo/work";
import { buildOf } from "../build";
import { appliedTo, fold, type FactBody } from "../fact";
import { dispositions, LOOKED_AT, USUAL_SCHOOLS } from "../inspect";
import { figures } from "../measure";
import { nm } from "../quantity";
import { hinders, hindersElsewhere, openOf, type Open } from "./index";

const HOUSE = { rule: "proven", target: "middle", ...USUAL_SCHOOLS } as const;
const kinds = (list: readonly Open[]): Record<string, number> =>
  list.reduce<Record<string, number>>((all, { kind }) => ({ ...all, [kind]: (all[kind] ?? 0) + 1 }), {});
const open = (unit: UnitId, bodies: readonly FactBody[]): Open[] =>
  hinders(jobOf(bodies), unitOf(unit), HOUSE);

const question = (waits: boolean, answer = ""): FactBody => ({
  kind: "part-question",
  part: "body",
  asks: "sleeve it, or another one?",
  options: ["sleeve", "another"],
  until: "2026-06-01",
  waits,
  answer,
});

it("an open question about a part must be answered: first where the build waits for it, before the unit leaves where it does not", () => {
  const of = (...facts: FactBody[]) =>
    open("marram-dunlin", facts)
      .filter(({ kind }) => kind === "question")
      .map(({ stage, subject, words }) => [stage, subject, words]);
  expect(of()).toEqual([]);
  expect(of(question(true))).toEqual([
    ["inspect", "body", "open: sleeve it, or another one? By 2026-06-01."],
  ]);
  expect(of(question(false))).toEqual([
    ["hand over", "body", "open: sleeve it, or another one? By 2026-06-01."],
  ]);
  expect(of(question(true), question(true, "sleeve"))).toEqual([]);
});

/** A job of which everything in scope has been answered, as a careful shop would. */
function answeredJob(unit: UnitId): FactBody[] {
  const applied = unitOf(unit);
  const { scoped } = applied;
  const bodies: FactBody[] = [
    ...tornDown(applied, 1),
    good(...scoped.parts.map(({ id }) => id)),
    ...(scoped.weakPoints ?? []).map(({ id }) => answered(id, LOOKED_AT)),
    { kind: "renewed", parts: scoped.parts.map(({ id }) => id), there: true },
  ];
  for (const { chain, spec, seats } of applied.packs.filter(({ inScope }) => inScope)) {
    const middle = middleOf(spec)!;
    const reading = (): FactBody => ({
      kind: "reading",
      chain: chain.id,
      phase: "built",
      fit: 0,
      method: "air and dial",
      state: { ...spec.state, facings: spec.state.facings ?? "new" },
      reading: { kind: "single", value: middle },
      resolution: nm(1_000),
      unit: "mm",
    });
    bodies.push(reading(), reading(), reading());
    const predictions = [{ chain: chain.id, mean: middle, expanded: nm(10_000), chance: 1 }];
    for (const seat of seats)
      bodies.push({ kind: "choice", seat: seat.id, fit: 0, kept: true, reason: "", predictions });
  }
  for (const one of figures(fold([]), applied, "proven", "found")) {
    const items = one.items.length > 0 ? one.items.map(({ item }) => item.name) : [undefined];
    const clocking = one.kind === "chain" && one.clocking ? [one.clocking.item.name] : [];
    for (const item of [...items, ...clocking])
      bodies.push({
        kind: "figure",
        of: one.kind,
        id: one.id,
        phase: "found",
        cannot: "felt-only-in-order",
        note: "",
        ...(item === undefined ? {} : { item }),
      });
  }
  const { steps } = buildOf(jobOf(bodies), applied, HOUSE, Infinity);
  bodies.push(...steps.flatMap(stepBuilt));
  const job = jobOf(bodies);
  return [...bodies, ...proven(job, applied, dispositions(job, applied, USUAL_SCHOOLS, "proven"))];
}

describe("whether a job may be closed", () => {
  it.each(UNITS)("%s: not one on which nothing was done", (unit) => {
    const list = kinds(open(unit, []));
    expect(list.step).toBe(unitOf(unit).scoped.teardown?.length);
    for (const kind of ["part", "renew", "figure", "weak point"]) expect(list[kind]).toBeGreaterThan(0);
  });

  it.each(UNITS)("%s: one of which everything in scope is answered", (unit) => {
    expect(open(unit, answeredJob(unit))).toEqual([]);
  });

  const UNIT: UnitId = "marram-dunlin";
  const done = answeredJob(UNIT);
  const friction = "d1-friction";
  test.each<[string, FactBody[], kind: Open["kind"], key: string]>([
    ["a step undone", [{ kind: "step", step: "t-body", did: "undone", reason: "" }], "step", "step t-body"],
    ["a suspicion", [finding("d1-drum", "cracked", "worn", false)], ...(["part", "part d1-drum"] as const)],
    [
      "a part to be replaced that is not new",
      [{ kind: "renewed", parts: ["pan-gasket"], there: false }],
      ...(["renew", "renew pan-gasket"] as const),
    ],
    [
      "a build step laid open again",
      [{ kind: "step", step: "b-pump-in", did: "undone", reason: "" }],
      ...(["build", "build b-pump-in"] as const),
    ],
    [
      "a check that is not so",
      [{ kind: "check", step: "b-body", check: "manual-valve-in-its-pin", said: "no", note: "" }],
      ...(["build", "build b-body"] as const),
    ],
    ["a burnt pack without a cause", [finding(friction, "burnt", "beyond-use")], "cause", "cause d1"],
    [
      "a figure outside",
      read("input-end-play", "4.00 mm", "4.01 mm", "4.00 mm"),
      ...(["figure", "figure input-end-play"] as const),
    ],
  ])("not with %s", (_name, more, kind, key) => {
    expect(open(UNIT, [...done, ...more]).map((one) => [one.kind, one.key])).toContainEqual([kind, key]);
  });

  it("a trait nobody has seen stands in its way", () => {
    const book = bookOf(UNIT);
    const job = jobOf([
      { kind: "configuration", traits: { body: "late" } },
      { kind: "scope", depths: ["full"] },
    ]);
    const list = openOf(job, appliedTo(book, job, []), HOUSE);
    expect(list[0]).toMatchObject({ kind: "trait", key: "trait plate" });
  });

  it("a lead answers for what is open, and for nothing that comes later", () => {
    const all = open(UNIT, []);
    const signed: FactBody = {
      kind: "sign-off",
      of: all.map(({ key }) => key),
      reason: "sold as it is",
      signedBy: "Edda L.",
    };
    expect(open(UNIT, [signed])).toEqual([]);
    expect(openOf(jobOf([signed]), unitOf(UNIT), HOUSE)).toHaveLength(all.length);
    expect(kinds(open(UNIT, [signed, finding(friction, "burnt", "beyond-use")]))).toEqual({
      cause: 1,
      renew: 1,
    });
  });

  it("a partial job answers for its scope alone, and one of two depths for both, once", () => {
    const book = bookOf(UNIT);
    const stepsAt = (...depths: string[]): string[] => {
      const job = jobOf([
        { kind: "configuration", traits: { body: "late", plate: "two" } },
        { kind: "scope", depths },
      ]);
      return openOf(job, appliedTo(book, job, []), HOUSE)
        .filter(({ kind }) => kind === "step")
        .map(({ key }) => key);
    };
    const [pan = [], front = []] = [stepsAt("pan and body"), stepsAt("front drums")];
    const both = stepsAt("pan and body", "front drums");
    expect(pan.length).toBeLessThan(stepsAt("full").length);
    expect(new Set(both)).toEqual(new Set([...pan, ...front]));
    expect(both).toHaveLength(new Set(both).size);
  });
});

describe("ending a job because the fault lies elsewhere", () => {
  const elsewhere: FactBody = { kind: "conclusion", fault: "elsewhere", reason: "misfire", fee: "95.00" };
  it.each<[string, FactBody[], RegExp]>([
    ["nothing said", [], /Say first/],
    ["only said", [elsewhere], /^$/],
    ["a step done", [elsewhere, { kind: "step", step: "t-pan", did: "done", reason: "" }], /opened/],
    ["a new part in", [elsewhere, { kind: "renewed", parts: ["pan-gasket"], there: true }], /fitted/],
    [
      "a ring off the shelf",
      [
        elsewhere,
        { kind: "fitting", seat: "d1-clearance", fit: 1, origin: "shelf", piece: { size: nm(1_750_000) } },
      ],
      /fitted/,
    ],
  ])("%s", (_name, bodies, words) => expect(hindersElsewhere(jobOf(bodies))).toMatch(words));
});
