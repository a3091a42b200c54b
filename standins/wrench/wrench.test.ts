import { describe, expect, it } from "@jest/globals";
import { chanceOf } from "../chance";
import { fresh, LOW, pull, type Pulled } from "./wrench";

const read = (pulled: Pulled): number => ("torque" in pulled ? pulled.torque : NaN);

describe("the simulated wrench", () => {
  it("clicks near what it is set to, seldom short of it or past it", () => {
    const chance = chanceOf(3);
    const pulls = Array.from({ length: 2000 }, () => read(pull(fresh(), 50, chance).pulled));
    const share = (wanted: (torque: number) => boolean): number => pulls.filter(wanted).length / pulls.length;
    expect(share((one) => one >= 48 && one <= 55)).toBeGreaterThan(0.85);
    expect(share((one) => one < 48)).toBeGreaterThan(0.02);
    expect(share((one) => one > 55)).toBeGreaterThan(0.02);
    expect(share((one) => one < 48 || one > 55)).toBeLessThan(0.15);
  });

  it("drifts as it is used, and says when its battery is empty", () => {
    const chance = chanceOf(5);
    let state = fresh();
    let last: Pulled = { torque: 0, battery: 100 };
    let pulls = 0;
    while ("torque" in last && pulls < 1000) {
      ({ state, pulled: last } = pull(state, 50, chance));
      pulls += 1;
    }
    expect(last).toMatchObject({ problem: "its battery is empty" });
    expect(last.battery).toBeLessThan(LOW);
    expect(pulls).toBeGreaterThan(100);
    expect(state.drift).toBeGreaterThan(0.01);
  });
});
