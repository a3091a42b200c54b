import { describe, expect, it, test } from "@jest/globals";
import { jobOf, finding, good, unitOf } from "../../demo/testing";
import { proven, runThrough } from "../../demo/proven";
import { tornDown } from "../../demo/work";
import { UNITS, type UnitId } from "../../demo/units";
import { buildOf, buildStanding } from "../build";
import { Diagnostician } from "../diagnose";
import { againstBook, asAssembled, readFact, type FactBody } from "../fact";
import { dispositions, USUAL_SCHOOLS } from "../inspect";
import { specLines } from "../measure";
import {
  codesAt,
  driveAsks,
  foreignCodes,
  provenRecord,
  provingOf,
  relearnsOf,
  slipRead,
  toldInVehicle,
  weakestOf,
} from "./index";

const HOUSE = { rule: "proven", target: "middle", ...USUAL_SCHOOLS } as const;
const renewed = (...parts: string[]): FactBody => ({ kind: "renewed", parts, there: true });
const of = (unit: UnitId, bodies: readonly FactBody[], told: Readonly<Record<string, string>> = {}) => {
  const applied = unitOf(unit, told);
  const job = jobOf(bodies);
  return { applied, job, states: dispositions(job, applied, USUAL_SCHOOLS, "proven") };
};
const called = (
  unit: UnitId,
  bodies: readonly FactBody[],
  told: Readonly<Record<string, string>> = {},
): string[] => {
  const { job, applied, states } = of(unit, bodies, told);
  return relearnsOf(job, applied, states).flatMap(({ relearn: { id }, calls }) =>
    calls.length > 0 ? [id] : [],
  );
};
const proving = (unit: UnitId, bodies: readonly FactBody[], refit: readonly string[] = []) => {
  const { job, applied, states } = of(unit, bodies);
  return provingOf(job, applied, states, refit).items;
};

describe("codes read at the end", () => {
  const OWN = { code: "slip in a range", own: true };
  const OTHER = { code: "cabin fan: no answer", own: false };
  const read = (when: "first" | "again", ...codes: (typeof OWN)[]): FactBody => ({
    kind: "codes-read",
    proof: "codes",
    when,
    codes,
  });
  const said = (yes: "yes" | "no"): FactBody => ({ kind: "proof", proof: "codes", said: yes, note: "" });
  test.each<[string, FactBody[], string, string]>([
    ["nobody read", [], "open", "to be read"],
    ["as it was said before codes were kept one by one", [said("yes")], "done", "so"],
    ["none", [read("first")], "done", "none"],
    [
      "some, whatever was said of them",
      [said("yes"), read("first", OWN, OTHER)],
      "not so",
      "1 code of this unit, 1 not: clear, and look again",
    ],
    [
      "only the neighbour’s are cleared too",
      [read("first", OTHER)],
      "not so",
      "0 codes of this unit, 1 not: clear, and look again",
    ],
    ["none came back", [read("first", OWN), read("again")], "done", "none came back"],
    [
      "the neighbour’s did",
      [read("first", OWN, OTHER), read("again", OTHER)],
      "done",
      "none of this unit; not of it: cabin fan: no answer",
    ],
    [
      "one of its own did",
      [read("first", OWN), read("again", OWN)],
      "not so",
      "came back: slip in a range. Clear it, drive again, look again.",
    ],
    [
      "and did not, once mended",
      [read("first", OWN), read("again", OWN), read("again")],
      "done",
      "none came back",
    ],
  ])("%s", (_name, bodies, at, words) => {
    const item = proving("marram-dunlin", bodies).find(({ subject }) => subject === "codes");
    expect([item?.at, item?.words]).toEqual([at, words]);
  });

  it("are asked anew, and not after clearing, where none were found", () => {
    const next = (...bodies: FactBody[]): string => codesAt(jobOf(bodies), "codes").next;
    expect([
      next(),
      next(read("first")),
      next(read("first", OWN)),
      next(read("first", OWN), read("again")),
    ]).toEqual(["first", "first", "again", "again"]);
  });

  it("of something else go on the customer’s sheet, as they were read last", () => {
    expect(foreignCodes(jobOf([read("first", OTHER, OWN)]))).toEqual([OTHER.code]);
    expect(foreignCodes(jobOf([read("first", OTHER, OWN), read("again")]))).toEqual([]);
  });

  it("are refused of a proof that reads none", () => {
    const book = unitOf("marram-dunlin").book;
    const refused = (proof: string): unknown[] =>
      againstBook(
        jobOf([{ kind: "codes-read", proof, when: "first", codes: [] }]).live.map((fact) => fact),
        book,
      );
    expect([refused("codes"), refused("battery")]).toEqual([
      [],
      [expect.objectContaining({ remedy: expect.stringContaining("codes") })],
    ]);
  });
});

describe("what is learned anew", () => {
  const donor = (part: string): FactBody => ({
    kind: "part-source",
    part,
    from: "donor",
    of: "from the yard",
    here: true,
  });
  test.each<[string, UnitId, FactBody[], Readonly<Record<string, string>>, string[]]>([
    ["nothing where nothing was opened", "marram-dunlin", [], {}, []],
    [
      "any pack’s frictions, not the first one’s",
      "marram-dunlin",
      [renewed("h2-friction")],
      {},
      ["fill-learn", "drive-learn"],
    ],
    ["solenoids alone", "marram-dunlin", [renewed("solenoids")], {}, ["identities", "drive-learn"]],
    [
      "a valve body, in the book’s order",
      "marram-dunlin",
      [renewed("body")],
      {},
      ["identities", "fill-learn", "drive-learn"],
    ],
    ["a gasket calls for none", "marram-dunlin", [renewed("pan-gasket")], {}, []],
    [
      "a new control unit is coded",
      "corrie-godwit",
      [renewed("control-unit")],
      { control: "new" },
      ["code", "forks", "drive"],
    ],
    [
      "a used one is not: it forgets the other vehicle’s",
      "corrie-godwit",
      [renewed("control-unit"), donor("control-unit")],
      { control: "used" },
      ["forget", "forks", "drive"],
    ],
    [
      "forks that were only out",
      "corrie-godwit",
      tornDown(unitOf("corrie-godwit"), 1),
      { control: "kept" },
      ["forks", "drive"],
    ],
    [
      "an actuator put back",
      "corrie-plover",
      [...tornDown(unitOf("corrie-plover", { actuator: "reused" }), 1), good("actuator")],
      { actuator: "reused" },
      ["rods", "forks", "drive"],
    ],
  ])("%s", (_name, unit, bodies, told, wanted) => expect(called(unit, bodies, told)).toEqual(wanted));

  it("says why another is not to be run", () => {
    const { job, applied, states } = of("corrie-godwit", [renewed("control-unit")], { control: "used" });
    const code = relearnsOf(job, applied, states).find(({ relearn }) => relearn.id === "code");
    expect([code?.calls, code?.not]).toEqual([[], "only for Control unit: new"]);
  });
});

describe("what is proven in the vehicle", () => {
  it.each(UNITS)("%s: in its order, the engine behind what is fitted, the road behind the level", (unit) => {
    const items = proving(unit, [], ["Bring the unit to the engine"]);
    const groups = items.map(({ group }) => group);
    expect([...new Set(groups)]).toEqual(["before the engine", "fill and level", "first start", "road"]);
    const [level] = items.filter(({ kind }) => kind === "procedure");
    const before = items.filter(({ group }) => group === "before the engine").map(({ name }) => name);
    expect(level?.after).toEqual(["Bring the unit to the engine", ...before]);
    const drives = items.filter(({ kind }) => kind === "drive");
    expect(drives[0]?.after).toContain(level?.name);
    expect(drives[1]?.after).toContain(drives[0]?.name);
  });

  it.each(UNITS)("%s: a careful shop leaves nothing of it open, and the record has all of it", (unit) => {
    const { job, applied, states } = of(unit, [renewed(...unitOf(unit).scoped.parts.map(({ id }) => id))]);
    const said = proven(job, applied, states);
    const done = jobOf([renewed(...applied.scoped.parts.map(({ id }) => id)), ...said]);
    expect(provingOf(done, applied, states, []).items.filter(({ at }) => at !== "done")).toEqual([]);
    const lines = provenRecord(done, applied).flatMap((one) => one.lines);
    expect(lines).toHaveLength(said.length);
    expect(lines.every(({ what, said: is }) => what !== "" && is !== "")).toBe(true);
  });

  it("waits no longer for what a lead has signed for", () => {
    const after = (key: string, ...bodies: FactBody[]): readonly string[] =>
      proving("marram-dunlin", [renewed("d1-friction"), ...bodies]).find((one) => one.key === key)?.after ??
      [];
    const signed = (...of: string[]): FactBody => ({
      kind: "sign-off",
      of,
      reason: "sold as it is",
      signedBy: "Edda L.",
    });
    const before = ["proof mounts", "proof cooler", "proof lever", "proof plugs", "proof battery"];
    expect(after("procedure level")).toHaveLength(before.length);
    expect(after("procedure level", signed(...before))).toEqual([]);
    expect(after("relearn drive-learn", signed(...before, "procedure level"))).toEqual([
      "Clutch fill learning",
    ]);
    expect(after("relearn drive-learn", signed(...before, "procedure level", "relearn fill-learn"))).toEqual(
      [],
    );
    expect(after("drive 2", signed("drive 1"))).not.toContain("Road test");
  });

  const D: UnitId = "marram-dunlin";
  const all = (drive: number, said: "fine" | "cured" = "fine"): FactBody => {
    const { job, applied } = of(D, []);
    return { kind: "driven", drive, of: driveAsks(job, applied).map((one) => one.of), said, note: "" };
  };
  const drove = (
    drive: number,
    driver: string,
    is: "right" | "wrong" = "right",
    distance = "20 km",
  ): FactBody => ({
    kind: "drive",
    drive,
    driver,
    distance,
    is,
    note: "",
  });
  const speeds = (output: number): FactBody => ({
    kind: "drive-speeds",
    drive: 1,
    range: "3",
    input: 1812,
    output,
  });
  test.each<[string, FactBody[], number, string]>([
    ["not driven", [], 1, "open"],
    ["asked, and nobody said who drove", [all(1)], 1, "going"],
    ["driven, and not asked", [drove(1, "Mira K.")], 1, "going"],
    ["right", [all(1), drove(1, "Mira K.")], 1, "done"],
    [
      "one range is not",
      [all(1), { kind: "driven", drive: 1, of: ["range:3"], said: "new", note: "" }, drove(1, "Mira K.")],
      1,
      "not so",
    ],
    ["it does not drive right", [all(1), drove(1, "Mira K.", "wrong")], 1, "not so"],
    ["the same driver again", [all(1), drove(1, "Mira K."), all(2), drove(2, "Mira K.")], 2, "going"],
    ["another one, too soon", [all(1), drove(1, "Mira K."), all(2), drove(2, "Runa S.")], 2, "going"],
    [
      "another one, far enough",
      [all(1), drove(1, "Mira K."), all(2), drove(2, "Runa S.", "right", "100 km")],
      2,
      "done",
    ],
    [
      "another one, far enough in miles",
      [all(1), drove(1, "Mira K."), all(2), drove(2, "Runa S.", "right", "62.2 mi")],
      2,
      "done",
    ],
    [
      "another one, not quite",
      [all(1), drove(1, "Mira K."), all(2), drove(2, "Runa S.", "right", "62.1 mi")],
      2,
      "going",
    ],
    ["speeds as listed", [all(1), speeds(1275), drove(1, "Mira K.")], 1, "done"],
    ["speeds that say it slips, whatever was said", [all(1), speeds(1160), drove(1, "Mira K.")], 1, "not so"],
    ["an output that stands", [all(1), speeds(0), drove(1, "Mira K.")], 1, "not so"],
    [
      "better is not cured",
      [all(1), { kind: "driven", drive: 1, of: ["range:2"], said: "better", note: "" }, drove(1, "Mira K.")],
      1,
      "not so",
    ],
    [
      "a symptom it was brought with",
      [
        { kind: "answer", question: "range:3", outcome: "slips", conditions: [], there: true },
        all(1),
        drove(1, "Mira K."),
      ],
      1,
      "going",
    ],
  ])("a drive: %s", (_name, bodies, drive, at) =>
    expect(proving(D, bodies).find(({ key }) => key === `drive ${drive}`)?.at).toBe(at),
  );

  it("says how much slips, and asks the diagnosis with it", () => {
    const bodies = [all(1), speeds(1160)];
    expect(proving(D, bodies).find(({ key }) => key === "drive 1")?.words).toBe(
      "not right: 3 slips: 164 of 1812 rpm",
    );
    const { job, applied } = of(D, bodies);
    expect(toldInVehicle(job, applied, [])).toContainEqual({ question: "speeds:3", outcome: "slips" });
    // Between two pulleys the ratio moves: two speeds say nothing there.
    const belt = of("selwyn-turnstone", [
      { kind: "drive-speeds", drive: 1, range: "D", input: 1800, output: 700 },
    ]);
    expect(slipRead(belt.job, belt.applied, 1, "range:D")).toBe("");
  });

  it("is proven of another unit that goes in, and learns what that one calls for", () => {
    const way = (used: "used" | "reconditioned" | "rebuild"): FactBody => ({
      kind: "way-on",
      way: used,
      reason: "told",
    });
    expect(called(D, [way("rebuild")])).toEqual([]);
    expect(called(D, [way("used")])).toEqual(["identities", "fill-learn", "drive-learn"]);
    const { job, applied, states } = of(D, [way("used")]);
    const left = buildStanding(job, applied, HOUSE, { parts: states, lines: [] }).left.map(
      ({ step }) => step,
    );
    expect(left.map(({ vehicle }) => vehicle)).toEqual(["refit", "first start"]);
  });

  it("is proven again when the unit was opened again", () => {
    const { applied, states } = of(D, []);
    const [step] = applied.scoped.build ?? [];
    const built: FactBody = { kind: "step", step: step?.id ?? "", did: "done", reason: "" };
    const level = applied.scoped.procedures?.flatMap(runThrough) ?? [];
    const opened: FactBody = { kind: "step", step: step?.id ?? "", did: "undone", reason: "leaks" };
    const at = (...bodies: FactBody[]): string | undefined => {
      const job = jobOf(bodies);
      return provingOf(asAssembled(job, applied), applied, states, []).items.find(
        ({ kind }) => kind === "procedure",
      )?.at;
    };
    expect([at(built, ...level), at(built, ...level, opened)]).toEqual(["done", "open"]);
  });
});

test.each<[string, FactBody, RegExp | null]>([
  ["an amount", { kind: "filled", amount: "7.1 l", way: "in", when: "x" }, null],
  ["an amount with a sign", { kind: "filled", amount: "−1 l", way: "in", when: "x" }, /below nothing/],
  ["an amount of something else", { kind: "filled", amount: "3 bar", way: "in", when: "x" }, /bar/],
  [
    "a fluid that is no temperature",
    {
      kind: "procedure",
      procedure: "level",
      did: "begun",
      turn: "",
      as: "seat",
      senses: { fluid: "luke" },
      note: "",
    },
    /luke/,
  ],
  [
    "a turn it has not",
    { kind: "procedure", procedure: "level", did: "done", turn: "fil", as: "seat", senses: {}, note: "" },
    /no turn "fil"/,
  ],
])("said of the vehicle, and held against what it can be: %s", (_name, body, wrong) => {
  const fact = { id: "0197-0000", at: "2026-05-04T08:00:00.000Z", by: "Mira K.", body };
  const told = againstBook([fact], unitOf("marram-dunlin").book).map(({ message }) => message);
  expect(told.join()).toMatch(wrong ?? /^$/);
});

test.each([
  ["20 km", true],
  ["12.5 mi", true],
  ["20", false],
  ["20 bananas", false],
])("a drive of %s is one: %s", (distance, is) => {
  const read = readFact("drive", { drive: "1", driver: "Mira K.", distance, is: "right", note: "" }, {});
  expect(read.ok).toBe(is);
});

describe("where a build was proven least", () => {
  const D: UnitId = "marram-dunlin";
  const leaks = (element: string, result: "leaks" | "holds"): FactBody => ({
    kind: "air",
    element,
    result,
    how: "heard",
    note: "",
  });
  const weakest = (bodies: readonly FactBody[]) => {
    const { job, applied } = of(D, bodies);
    const lines = specLines(job, applied, HOUSE, "mm");
    const build = buildOf(job, applied, HOUSE, Infinity, { lines });
    const told = toldInVehicle(job, applied, lines);
    const suspects = told.length > 0 ? new Diagnostician(applied.present).diagnose(told).suspects : [];
    return { told, weak: weakestOf(job, applied, build, lines, suspects) };
  };
  const slips = (range: string): FactBody => ({
    kind: "driven",
    drive: 1,
    of: [`range:${range}`],
    said: "new",
    outcome: "slips",
    note: "",
  });
  const twice = [leaks("d1", "leaks"), leaks("d1", "holds"), leaks("h1", "leaks"), leaks("h1", "holds")];

  it("by itself: what only a name stands for before what failed once, before what was heard", () => {
    const { weak } = weakest([
      leaks("d2", "holds"),
      ...twice.slice(0, 2),
      { kind: "sign-off", of: ["renew pan-gasket"], reason: "none to be had", signedBy: "Edda L." },
    ]);
    const why = weak.map((one) => one.why);
    expect(why.indexOf("signed by Edda L.")).toBeLessThan(why.indexOf("did not hold once, then held"));
    expect(why.indexOf("did not hold once, then held")).toBeLessThan(why.indexOf("heard to hold, not read"));
  });

  it("what was told in the vehicle points at one of two alike", () => {
    // The sixth is driven by D2 and H1, the first by D1.
    const of1 = weakest([...twice, slips("1"), slips("3")]);
    const of6 = weakest([...twice, slips("6"), slips("2")]);
    expect(of1.told).toHaveLength(2);
    expect([of1.weak[0]?.elements, of6.weak[0]?.elements]).toEqual([["d1"], ["h1"]]);
    expect(of1.weak[0]?.check).toBe("D1 pressure on a gauge: right side, front");
  });

  it("low line pressure is told as low, high as high", () => {
    const at = (text: string): FactBody => ({
      kind: "figure",
      of: "measurement",
      id: "line-idle",
      phase: "built",
      text,
      note: "",
    });
    expect(weakest([at("1.0 bar")]).told).toEqual([{ question: "tap:line", outcome: "low" }]);
    expect(weakest([at("99 bar")]).told).toEqual([{ question: "tap:line", outcome: "high" }]);
  });

  it("a part out of a donor unit, and one used again with a finding", () => {
    const { weak } = weakest([
      { kind: "part-source", part: "d1-drum", from: "donor", of: "from the yard", here: true },
      finding("d1-piston", "scored", "trace"),
      { kind: "disposition", part: "d1-piston", is: "reuse", reason: "light" },
    ]);
    expect(weak.map(({ key }) => key.replace(/^\S+ /, ""))).toEqual(
      expect.arrayContaining(["part d1-drum", "part d1-piston"]),
    );
  });
});
