import { chanceOf } from "../chance";
import { describe, expect, it } from "@jest/globals";
import { after, atRest, hiddenOffset, shown, STEP, valve } from "./drum";

const chance = (seed = 1): (() => number) => chanceOf(seed);

/** One lift: the highest the needle shows, and where it comes back to. */
function lift(state: ReturnType<typeof atRest>, gap: number, random: () => number) {
  const up = after(valve(state, true, gap, random), 2_500);
  const down = after(valve(up, false, gap, random), 2_500);
  return { peak: shown(up), back: shown(down), state: down };
}

describe("the simulated drum", () => {
  it("rises quickly, then creeps, and never falls while the air is on", () => {
    let state = valve(atRest(), true, 1_200_000, chance());
    const seen: number[] = [];
    for (let i = 0; i < 60; i++) {
      state = after(state, 50);
      seen.push(state.needle);
    }
    seen.forEach((value, i) => i > 0 && expect(value).toBeGreaterThanOrEqual(seen[i - 1] ?? 0));
    const [early = 0, late = 0] = [seen[15], seen[59]];
    expect(early).toBeGreaterThan(1_050_000);
    expect(late - early).toBeGreaterThan(500);
  });

  it("is the same however often it is looked at", () => {
    const begun = valve(atRest(), true, 1_200_000, chance());
    let steps = begun;
    for (let i = 0; i < 100; i++) steps = after(steps, 10);
    expect(Math.abs(steps.needle - after(begun, 1_000).needle)).toBeLessThan(STEP);
  });

  it("settles over its first lifts, then scatters about the true gap", () => {
    const random = chance(3);
    let state = atRest();
    const peaks: number[] = [];
    for (let i = 0; i < 40; i++) {
      const one = lift(state, 1_200_000, random);
      state = one.state;
      peaks.push(one.peak - one.back);
    }
    expect(peaks[0]).toBeLessThan(1_180_000);
    const later = peaks.slice(5);
    const mean = later.reduce((a, b) => a + b, 0) / later.length;
    expect(Math.abs(mean - 1_200_000)).toBeLessThan(8_000);
    expect(new Set(later).size).toBeGreaterThan(2);
  });

  it("shifts its zero a little and shows whole steps", () => {
    const random = chance(5);
    let state = atRest();
    const backs: number[] = [];
    for (let i = 0; i < 60; i++) {
      const one = lift(state, 1_000_000, random);
      state = one.state;
      backs.push(one.back);
      expect(Math.abs(one.peak % STEP)).toBe(0);
    }
    expect(new Set(backs).size).toBeGreaterThan(1);
    expect(Math.max(...backs.map(Math.abs))).toBeLessThan(100_000);
  });

  it("keeps a drum's own error, and wears one mounted as found", () => {
    expect(hiddenOffset("built 1/d1")).toBe(hiddenOffset("built 1/d1"));
    expect(hiddenOffset("built 1/d1")).not.toBe(hiddenOffset("built 2/d1"));
    expect(hiddenOffset("found 1/d1") - hiddenOffset("built 1/d1")).toBe(190_000);
  });

  it("does nothing when the valve is where it is", () => {
    const state = atRest();
    expect(valve(state, false, 1_000_000, chance())).toBe(state);
  });
});
