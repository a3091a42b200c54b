import { describe, expect, it } from "@jest/globals";
import { chanceOf } from "../chance";
import { FAULTS, faultOf, tried } from "./rig";

describe("the simulated air-check rig", () => {
  it("finds the same in the same thing, and every fault in some", () => {
    const things = Array.from({ length: 2000 }, (_, i) => `job ${i} d1`);
    const found = things.map(faultOf);
    expect(found).toEqual(things.map(faultOf));
    for (const fault of FAULTS) expect(found).toContain(fault);
    expect(found.filter((fault) => fault === "healthy").length / found.length).toBeGreaterThan(0.75);
  });

  it("loses less than it may where it is healthy, more where it leaks, and all of it through a crack", () => {
    const chance = chanceOf(7);
    for (let n = 0; n < 200; n++) {
      expect(tried("healthy", 300_000, 50_000, chance).lost).toBeLessThan(50_000);
      expect(tried("leaking lip", 300_000, 50_000, chance)).toMatchObject({ result: "leaks" });
      expect(tried("leaking lip", 300_000, 50_000, chance).lost).toBeGreaterThan(50_000);
      expect(tried("cracked piston", 300_000, 50_000, chance).lost).toBe(300_000);
    }
    expect(tried("blocked feed", 300_000, 50_000, chance).result).toBe("does-not-apply");
    expect(tried("plugged bleed", 300_000, 50_000, chance).result).toBe("does-not-let-go");
  });
});
