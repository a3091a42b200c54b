import { describe, expect, it, test } from "@jest/globals";
import { resolve, type UnitSystem } from "~core/book";
import { answers } from "~core/find";
import { bookOf, type UnitId } from "../../demo/units";
import { searcher } from "./answering";

function ask(
  unit: UnitId,
  query: string,
  system: UnitSystem = "mm",
  configuration?: Record<string, string>,
): string[] {
  const book = bookOf(unit);
  const first = Object.fromEntries(book.traits.map(({ id, values }) => [id, Object.keys(values)[0] ?? ""]));
  const applied = resolve(book, { ...first, ...configuration }, ["full"]);
  return searcher(answers(applied, system))(query).map(({ title, answer }) => `${title}: ${answer}`);
}

describe("the one find", () => {
  test.each<[UnitId, string, UnitSystem, RegExp]>([
    ["marram-dunlin", "pump bolt torque", "mm", /^Pump bolts: 23 N·m, 7 × M8/],
    ["marram-dunlin", "pump bolts", "in", /^Pump bolts: ≈17\.0 lbf·ft/],
    ["marram-dunlin", "D2 clearance", "mm", /^D2 clearance: 1\.00 to 1\.30 mm/],
    ["marram-dunlin", "d2 clearance", "in", /^D2 clearance: 0\.0394 to 0\.0512 in/],
    ["marram-dunlin", "check balls", "mm", /^Check balls: 5 in this version/],
    ["marram-dunlin", "high-side clearance", "mm", /^D2 clearance/],
    ["marram-dunlin", "fluid level", "mm", /^Fluid level: 35 °C to 45 °C, 700 rpm/],
    ["marram-dunlin", "fluid level", "in", /^Fluid level: 95 °F to 113 °F/],
    ["marram-dunlin", "solenoid resistance", "mm", /^Solenoid resistance: 5\.0 to 5\.8 Ω/],
    ["marram-dunlin", "d1 plates", "mm", /^D1 plates: 3 frictions, 3 steels/],
    [
      "marram-whimbrel",
      "servo travel",
      "in",
      /^Low band servo travel: 0\.100 to 0\.140 in, target 0\.1150? in/,
    ],
    ["marram-whimbrel", "pan bolts", "in", /^Pan bolts: 10 lbf·ft/],
    ["selwyn-sanderling", "differential preload", "mm", /^Differential bearing preload: −0\.12 to −0\.06 mm/],
    ["selwyn-turnstone", "pulley alignment", "mm", /^Pulley alignment at 1:1/],
    ["corrie-godwit", "housing bolt", "mm", /^Housing bolts: 14 N·m \+ 90°.*new ones only/],
    ["corrie-plover", "rest position bearing 1", "mm", /^Engagement bearing 1 rest position/],
  ])("%s: “%s” in %s", (unit, query, system, first) => {
    expect(ask(unit, query, system)[0]).toMatch(first);
  });

  it("answers for the version at hand", () => {
    expect(ask("marram-dunlin", "check balls", "mm", { plate: "two" })[0]).toContain("6 in this version");
  });

  it("forgives a slip and says nothing to nonsense", () => {
    expect(ask("marram-dunlin", "clearence d1")[0]).toMatch(/^D1 clearance/);
    expect(ask("marram-dunlin", "qqqq")).toEqual([]);
  });
});
