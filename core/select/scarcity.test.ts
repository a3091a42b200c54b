import { expect, test } from "@jest/globals";
import { scarcityOf } from "./index";

test.each<[string, Parameters<typeof scarcityOf>[0], number]>([
  ["none there", { onHand: 0, used: 90 }, 0],
  ["plenty, never used", { onHand: 9 }, 0],
  ["the last, never used", { onHand: 1 }, 2],
  ["the last but one", { onHand: 2 }, 1],
  // Ninety in half a year is one every other day: in ten days five are needed.
  ["five of five needed before more can come", { onHand: 5, used: 90, days: 10 }, 10],
  ["half of ten", { onHand: 10, used: 90, days: 10 }, 5],
  ["of twenty a quarter", { onHand: 20, used: 90, days: 10 }, 3],
  ["as much as can be", { onHand: 1, used: 900, days: 60 }, 12],
  // Here tomorrow, a week is looked ahead all the same; where nobody knows, two.
  ["soon here again", { onHand: 7, used: 180, days: 1 }, 10],
  ["nobody knows when", { onHand: 14, used: 180 }, 10],
])("%s", (_name, given, points) => expect(scarcityOf(given)).toBe(points));

test("more there is never scarcer, more used never less", () => {
  for (let onHand = 1; onHand < 30; onHand++)
    for (let used = 0; used < 200; used += 7) {
      const of = scarcityOf({ onHand, used, days: 9 });
      expect(scarcityOf({ onHand: onHand + 1, used, days: 9 })).toBeLessThanOrEqual(of);
      expect(scarcityOf({ onHand, used: used + 7, days: 9 })).toBeGreaterThanOrEqual(of);
    }
});
