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
    expect([codesOf(parked()), codesOf(through({ planted: "plug-off" }))]).toEqual([
      [],
      ["range sensor: no signal"],
    ]);
    const [well, not] = [
      learned(parked(), "1030", "kiss"),
      learned(through({ planted: "not-learning" }), "1030", "kiss"),
    ];
    expect([well.outcome, not.outcome, not.after]).toEqual(["done", "failed", not.before]);
    expect(well).toEqual(learned(parked(), "1030", "kiss"));
  });
});
