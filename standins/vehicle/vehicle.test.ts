import { describe, expect, it, test } from "@jest/globals";
import { chanceOf } from "../chance";
import {
  atPlug,
  codesOf,
  handled,
  later,
  learned,
  parked,
  pressureAt,
  speedsIn,
  standsInPark,
  type Control,
  type Vehicle,
} from "./vehicle";

const through = (...steps: (Control | number)[]): Vehicle =>
  steps.reduce<Vehicle>(
    (vehicle, step) => (typeof step === "number" ? later(vehicle, step) : handled(vehicle, step)),
    parked(),
  );
const START: Control = { engine: "running", brake: "held" };
const ROUND: Control[] = [{ lever: "R" }, { lever: "N" }, { lever: "D" }, { lever: "P" }];

describe("a vehicle on a lift", () => {
  test.each<[string, Vehicle, ReturnType<typeof atPlug>]>([
    ["closed, whatever stands in it", through({ pour: 3 }), "closed"],
    ["overfilled, it runs", through({ pour: 2 }, { plug: "out" }), "runs"],
    ["and drips when it has run out", through({ pour: 2 }, { plug: "out" }, 60_000), "drips"],
    [
      "falls once it has been in every range",
      through({ pour: 0.6 }, START, ...ROUND, { plug: "out" }),
      "nothing",
    ],
    ["but not a second time", through({ pour: 1.5 }, START, ...ROUND, ...ROUND, { plug: "out" }), "runs"],
    ["too little", through({ planted: "low-fluid" }, { pour: 1 }, { plug: "out" }), "nothing"],
    ["a leak", through({ pour: 0.5 }, { planted: "leak" }, START, 60_000, { plug: "out" }), "nothing"],
  ])("%s", (_name, vehicle, seen) => expect(atPlug(vehicle)).toBe(seen));

  it("warms while it runs and cools while it stands, never below the shop", () => {
    const warm = through(START, 120_000);
    expect(warm.fluid).toBeCloseTo(22 + 14.4);
    expect(later(handled(warm, { engine: "off" }), 3_600_000).fluid).toBe(22);
    expect([warm.revs, handled(warm, { engine: "off" }).revs]).toEqual([700, 0]);
  });

  it("has the pressure, codes and learning of what is planted in it", () => {
    const low = through({ planted: "low-pressure" });
    expect(pressureAt(low, 400_000, 500_000, chanceOf(1))).toBeLessThan(400_000);
    expect(pressureAt(parked(), 400_000, 500_000, chanceOf(1))).toBeGreaterThan(440_000);
    const stored = ["supply voltage was low"];
    expect([codesOf(parked(), "1"), codesOf(through({ planted: "plug-off" }), "1")]).toEqual([
      stored,
      [...stored, "range sensor: no signal"],
    ]);
    expect(codesOf(through({ planted: "plug-off" }, { clear: true }), "1")).toEqual([
      "range sensor: no signal",
    ]);
    // Something else in some vehicles, cleared or not.
    const foreign = ["0", "1", "2", "3"].map((job) => codesOf(through({ clear: true }), job));
    expect(foreign.filter((codes) => codes.length === 1)).toHaveLength(2);
    const [well, not] = [
      learned(parked(), "1030", "kiss"),
      learned(through({ planted: "not-learning" }), "1030", "kiss"),
    ];
    expect([well.outcome, not.outcome, not.after]).toEqual(["done", "failed", not.before]);
    expect(well).toEqual(learned(parked(), "1030", "kiss"));
  });

  it("slips in the ranges of one element, and in no other", () => {
    const of = ["d1", "d2", "d3"];
    const slips = (planted: "slipping" | "nothing", elements: string[]): boolean => {
      const { input, output } = speedsIn(
        through({ planted }),
        "1030",
        { ratio: -2, elements, of },
        chanceOf(3),
      );
      return output * 2 < input * 0.95;
    };
    expect(of.filter((one) => slips("slipping", [one]))).toHaveLength(1);
    expect(slips("slipping", of)).toBe(true);
    expect(slips("nothing", of)).toBe(false);
  });

  it("stands in P, or rolls; in gear or with the brake held nobody knows", () => {
    expect(standsInPark(parked())).toBe(true);
    expect(standsInPark(through({ planted: "park-not-holding" }))).toBe(false);
    expect([standsInPark(through({ brake: "held" })), standsInPark(through({ lever: "N" }))]).toEqual([
      null,
      null,
    ]);
  });

  it("learns nothing, and says so, while a solenoid is not the one written for its place", () => {
    const wrong = through({ planted: "wrong-identity" });
    expect(learned(wrong, "1030", "kiss").outcome).toBe("failed");
    expect(codesOf(wrong, "1")).toContainEqual(expect.stringContaining("identity"));
  });
});
