import { describe, expect, it, test } from "@jest/globals";
import { UNITS, type UnitId } from "../../demo/units";
import type { Disposition, FactBody } from "../fact";
import { all, answered, debris, figure, finding, good, jobOf, read, unitOf, wrong } from "../../demo/testing";
import { unanswered, unlooked, USUAL_SCHOOLS, type Because, type Schools } from "./index";

describe("what becomes of a part", () => {
  const NEW_STEELS: Schools = { ...USUAL_SCHOOLS, steels: "always new" };
  const ALL_BUSHINGS: Schools = { ...USUAL_SCHOOLS, bushings: "always new" };
  test.each<
    [
      unit: UnitId,
      said: string,
      facts: FactBody[],
      part: string,
      is: Disposition | null,
      rule?: Because["rule"],
      schools?: Schools,
    ]
  >([
    ["marram-dunlin", "nothing said", [], "d1-steel", null],
    ["marram-dunlin", "a one-time seal", [], "tail-seal", "replace", "one-time part"],
    [
      "marram-dunlin",
      "a one-time seal called good is still replaced",
      [good("tail-seal")],
      "tail-seal",
      "replace",
      "one-time part",
    ],
    ["marram-dunlin", "the filter", [], "filter", "replace"],
    [
      "marram-dunlin",
      "steel with heat spots",
      [finding("d1-steel", "heat-spots")],
      "d1-steel",
      "replace",
      "worn",
    ],
    [
      "marram-dunlin",
      "steel with a trace",
      [finding("d1-steel", "scored", "trace")],
      "d1-steel",
      "reuse",
      "worn",
    ],
    ["marram-dunlin", "steel in good order", [good("d1-steel")], "d1-steel", "reuse", "in good order"],
    [
      "marram-dunlin",
      "steel in good order in a house of new steels",
      [good("d1-steel")],
      "d1-steel",
      "replace",
      "house",
      NEW_STEELS,
    ],
    [
      "marram-dunlin",
      "friction burnt",
      [finding("d3-friction", "burnt", "beyond-use")],
      "d3-friction",
      "replace",
      "worn",
    ],
    [
      "marram-dunlin",
      "steel in good order beside burnt frictions",
      [finding("d3-friction", "burnt", "beyond-use"), good("d3-steel")],
      "d3-steel",
      "measure-first",
      "to be measured",
    ],
    [
      "marram-dunlin",
      "steel in good order beside frictions with a burnt trace",
      [finding("d3-friction", "burnt", "trace"), good("d3-steel")],
      "d3-steel",
      "reuse",
      "in good order",
    ],
    [
      "marram-dunlin",
      "friction suspected",
      [finding("d3-friction", "glazed", "worn", false)],
      "d3-friction",
      "measure-first",
      "suspected",
    ],
    [
      "marram-dunlin",
      "drum with notches, worn",
      [finding("d1-drum", "lug-slots-notched")],
      "d1-drum",
      "measure-first",
      "to be measured",
    ],
    [
      "marram-dunlin",
      "drum with notches, beyond use",
      [finding("d1-drum", "lug-slots-notched", "beyond-use")],
      "d1-drum",
      "replace",
      "worn",
    ],
    [
      "marram-dunlin",
      "bushing read outside",
      read("d1-drum-bushing", "0.18 mm", "0.181 mm", "0.182 mm"),
      "d1-bushing",
      "replace",
      "measured",
    ],
    [
      "marram-dunlin",
      "bushing read inside",
      read("d1-drum-bushing", "0.08 mm", "0.081 mm", "0.08 mm"),
      "d1-bushing",
      "reuse",
      "measured",
    ],
    [
      "marram-dunlin",
      "bushing read once",
      read("d1-drum-bushing", "0.08 mm"),
      "d1-bushing",
      "measure-first",
      "to be measured",
    ],
    [
      "marram-dunlin",
      "bushing inside in a house that replaces all",
      read("d1-drum-bushing", "0.08 mm", "0.081 mm", "0.08 mm"),
      "d1-bushing",
      "replace",
      "house",
      ALL_BUSHINGS,
    ],
    [
      "marram-dunlin",
      "pump cover scored",
      [finding("pump-cover", "face-scored")],
      "pump-cover",
      "machine",
      "worn",
    ],
    [
      "marram-dunlin",
      "pump gears, tips worn beyond use: a set",
      [finding("pump-gears", "tips-worn", "beyond-use")],
      "pump-gears",
      "replace",
      "sold as a set",
    ],
    [
      "marram-dunlin",
      "carrier with play",
      [finding("front-carrier", "pinion-play")],
      "front-carrier",
      "measure-first",
      "to be measured",
    ],
    [
      "marram-dunlin",
      "carrier measured outside",
      read("rear-pinion-play", "1.40 mm", "1.41 mm", "1.40 mm"),
      "rear-carrier",
      "replace",
      "measured",
    ],
    [
      "marram-dunlin",
      "solenoid outside",
      [figure("solenoid-r", "7.9 Ω")],
      "solenoids",
      "replace",
      "measured",
    ],
    ["marram-dunlin", "solenoid inside", [figure("solenoid-r", "5.4 Ω")], "solenoids", "reuse", "measured"],
    [
      "marram-dunlin",
      "springs too short",
      [figure("spring-d1", "30.9 mm")],
      "d1-spring",
      "replace",
      "measured",
    ],
    ["marram-dunlin", "converter without metal", [], "converter", null],
    [
      "marram-dunlin",
      "converter after chunks",
      [debris("chunks", "some")],
      "converter",
      "replace",
      "metal everywhere",
    ],
    [
      "marram-dunlin",
      "converter after facing material only",
      [debris("friction", "much")],
      "converter",
      null,
    ],
    [
      "marram-dunlin",
      "converter after brass in the cooler",
      [debris("brass", "some", "cooler")],
      "converter",
      "replace",
      "metal everywhere",
    ],
    [
      "marram-dunlin",
      "regulator valve sticking",
      [finding("regulator-valve", "sticking")],
      "regulator-valve",
      "clean",
      "worn",
    ],
    [
      "marram-dunlin",
      "valve seized beyond use",
      [finding("regulator-valve", "sticking", "beyond-use")],
      "regulator-valve",
      "replace",
      "worn",
    ],
    [
      "marram-dunlin",
      "the other version’s plate was in",
      [wrong("d1-reaction", "another-versions-part")],
      "d1-reaction",
      "replace",
      "another version",
    ],
    ["marram-whimbrel", "band glazed", [finding("band", "glazed")], "band", "replace", "worn"],
    ["marram-whimbrel", "band in order", [good("band")], "band", "reuse", "in good order"],
    [
      "marram-whimbrel",
      "thrust washers grooved: the set",
      [finding("thrust-set", "grooved", "beyond-use")],
      "thrust-set",
      "replace",
      "sold as a set",
    ],
    [
      "marram-whimbrel",
      "one-way clutch galled",
      [finding("low-roller", "rollers-galled", "beyond-use")],
      "low-roller",
      "replace",
      "worn",
    ],
    [
      "marram-dunlin",
      "tail housing bore spun",
      [finding("tail-housing", "bushing-spun")],
      "tail-housing",
      "machine",
      "worn",
    ],
    [
      "marram-whimbrel",
      "steel flat and good",
      [good("direct-steel")],
      "direct-steel",
      "reuse",
      "in good order",
    ],
    [
      "selwyn-sanderling",
      "transfer bearing gone: its gear goes too",
      [finding("transfer-bearing", "pitted", "beyond-use")],
      "transfer-gear",
      "replace",
      "not sold alone",
    ],
    ["selwyn-sanderling", "transfer bearing good", [good("transfer-bearing")], "transfer-gear", null],
    ["selwyn-sanderling", "dividing seal", [], "divide-seal-a", "replace", "one-time part"],
    [
      "selwyn-sanderling",
      "differential pinions outside",
      read("diff-pinion-play", "2.00 mm", "2.00 mm", "2.01 mm"),
      "differential",
      "replace",
      "measured",
    ],
    [
      "selwyn-turnstone",
      "belt gap outside",
      read("element-gap", "4.00 mm", "4.01 mm", "4.00 mm"),
      "belt-wide",
      "replace",
      "measured",
    ],
    ["selwyn-turnstone", "primary scored", [finding("primary", "face-scored")], "primary", "replace", "worn"],
    ["selwyn-turnstone", "fine filter of paper", [], "fine-filter", "replace", "always replaced"],
    [
      "selwyn-turnstone",
      "flow valve drifts",
      [finding("flow-valve", "sticking", "trace")],
      "flow-valve",
      "clean",
      "worn",
    ],
    [
      "corrie-godwit",
      "inner piston cracked takes its drum",
      [finding("k2-piston-2", "cracked", "beyond-use")],
      "k2-piston-2",
      "replace",
      "worn",
    ],
    [
      "corrie-godwit",
      "synchroniser gap outside",
      read("sync-2", "0.10 mm", "0.10 mm", "0.11 mm"),
      "rings-2-4",
      "replace",
      "measured",
    ],
    [
      "corrie-godwit",
      "fork pads worn",
      [finding("forks-1-3", "pads-worn")],
      "forks-1-3",
      "measure-first",
      "to be measured",
    ],
    ["corrie-plover", "oil on a disc", [finding("cassette", "oil-on-a-disc")], "cassette", "replace", "worn"],
    ["corrie-plover", "dry cassette in order", [good("cassette")], "cassette", "reuse", "in good order"],
    [
      "corrie-plover",
      "shaft bearing rough",
      [finding("odd-bearing", "rough")],
      "odd-bearing",
      "replace",
      "worn",
    ],
  ])("%s, %s: %#", (...[unit, , facts, part, is, rule, schools]) => {
    const state = all(unit, facts, schools).find((one) => one.part.id === part);
    expect(state).toBeDefined();
    expect({ is: state?.is, rule: state?.because.find((one) => one.rule === rule)?.rule }).toEqual({
      is,
      rule,
    });
  });

  it("is what the person decides, with the proposal beside it", () => {
    const facts: FactBody[] = [
      finding("d1-steel", "heat-spots"),
      { kind: "disposition", part: "d1-steel", is: "reuse", reason: "only the outermost; turned over" },
    ];
    const state = all("marram-dunlin", facts).find(({ part }) => part.id === "d1-steel");
    expect(state).toMatchObject({ proposed: "replace", is: "reuse" });
  });

  it("is open again when a finding comes after the good word, and good when the word comes after", () => {
    const is = (facts: FactBody[]): Disposition | null | undefined =>
      all("marram-dunlin", facts).find(({ part }) => part.id === "d3-steel")?.is;
    expect(is([good("d3-steel"), finding("d3-steel", "bluing")])).toBe("replace");
    expect(is([finding("d3-steel", "bluing"), good("d3-steel")])).toBe("reuse");
    expect(
      is([finding("d3-steel", "bluing"), { ...finding("d3-steel", "bluing"), there: false } as FactBody]),
    ).toBeNull();
  });

  it.each(UNITS)("%s: follows the answer to a known weak point, and nothing before there is one", (unit) => {
    const applied = unitOf(unit);
    const DOES = { replace: "replace", machine: "machine", clean: "clean", look: "reuse" };
    const parts = applied.scoped.parts.map(({ id }) => id);
    for (const { id, parts: own = [], answers } of applied.scoped.weakPoints ?? []) {
      expect(own.length).toBeGreaterThan(0);
      for (const answer of answers) {
        const states = all(unit, [good(...parts), answered(id, answer.id)]);
        const speaks = states.filter(({ because }) =>
          because.some(({ rule, words }) => rule === "known weak point" && words.endsWith(answer.name)),
        );
        expect(speaks.map(({ part }) => part.id).sort()).toEqual(
          (answer.parts ?? own).filter((part) => parts.includes(part)).sort(),
        );
        for (const { because } of speaks)
          expect(because.find(({ rule }) => rule === "known weak point")?.is).toBe(DOES[answer.does]);
      }
      const before = all(unit, [good(...parts)]);
      expect(before.flatMap(({ because }) => because.map(({ rule }) => rule))).not.toContain(
        "known weak point",
      );
    }
  });

  it("is looked at where the book says to look when another part is worn", () => {
    const of = (...facts: FactBody[]) => {
      const { is, because } = all("corrie-godwit", facts).find(({ part }) => part.id === "odd-shaft")!;
      return [is, because.some(({ rule }) => rule === "linked look")];
    };
    expect(of()).toEqual([null, false]);
    expect(of(finding("odd-bearing", "rough"))).toEqual(["measure-first", true]);
    expect(of(finding("odd-bearing", "rough", "trace"))).toEqual([null, false]);
    // Once somebody has looked, what was seen there holds.
    expect(of(finding("odd-bearing", "rough"), good("odd-shaft"))).toEqual(["reuse", false]);
  });

  it.each(UNITS)("%s: marking everything good leaves nothing unlooked", (unit) => {
    const applied = unitOf(unit);
    const everything = good(...applied.scoped.parts.map(({ id }) => id));
    expect(unlooked(all(unit, []))).not.toEqual([]);
    expect(unlooked(all(unit, [everything]))).toEqual([]);
  });
});

describe("closing", () => {
  it("waits for the weak points of this version and a cause for every failure", () => {
    const applied = unitOf("marram-dunlin");
    const points = (applied.scoped.weakPoints ?? []).map(({ id, answers }) =>
      answered(id, answers[0]?.id ?? ""),
    );
    const kinds = (facts: FactBody[]): string[] => unanswered(jobOf(facts), applied).map(({ kind }) => kind);
    expect(new Set(kinds([]))).toEqual(new Set(["weak point"]));
    expect(kinds(points)).toEqual([]);
    const failure = finding("d1-friction", "burnt", "beyond-use");
    expect(kinds([...points, failure])).toEqual(["cause"]);
    const cause = (standing: "found" | "not-found"): FactBody => ({
      kind: "cause",
      of: "d1",
      cause: "seal-leak",
      standing,
      note: "",
      after: "",
    });
    expect(kinds([...points, failure, cause("not-found")])).toEqual(["not found"]);
    expect(kinds([...points, failure, cause("found")])).toEqual([]);
  });
});
