import { describe, expect, it } from "@jest/globals";
import fc from "fast-check";
import { Trade, WELL } from "./trade";

const today = (): Date => new Date("2026-05-04T10:00:00Z");
const trade = (): Trade =>
  new Trade(
    new Map([
      ["A", { days: 2 }],
      ["B", { days: null }],
    ]),
    today,
  );

describe("a simulated supplier", () => {
  it("takes what it has, with the day it is there, and says of the rest why it does not come", () => {
    expect(
      trade().place("k", [
        { part: "A", pieces: 4 },
        { part: "B", pieces: 1 },
        { part: "C", pieces: 1 },
      ]),
    ).toEqual({
      order: "S-7001",
      lines: [
        { part: "A", due: "2026-05-06", sent: 0, refused: "" },
        { part: "B", due: null, sent: 0, refused: "" },
        { part: "C", due: null, sent: 0, refused: "not in our list" },
      ],
    });
  });

  it("takes one order of one key, however often it is told", () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom("x", "y", "z"), { minLength: 1 }), (keys) => {
        const one = trade();
        const numbers = keys.map((key) => {
          const answer = one.place(key, [{ part: "A", pieces: 1 }]);
          return [key, "order" in answer ? answer.order : ""] as const;
        });
        expect(one.count).toBe(new Set(keys).size);
        for (const [key, number] of numbers)
          expect(numbers.filter(([, other]) => other === number).every(([other]) => other === key)).toBe(
            true,
          );
      }),
    );
  });

  it("cancels what is not on the road yet, once", () => {
    const one = trade();
    one.place("k", [{ part: "A", pieces: 4 }]);
    one.behaviour = { ...WELL, sent: { A: 3 } };
    expect(one.cancel("k", "c1", { part: "A", pieces: 2 })).toBe("3 are on the road already");
    expect(one.cancel("k", "c2", { part: "A", pieces: 1 })).toBe("");
    expect(one.cancel("k", "c2", { part: "A", pieces: 1 })).toBe("");
    expect(one.cancel("k", "c3", { part: "A", pieces: 1 })).toBe("3 are on the road already");
    expect(one.cancel("k", "c4", { part: "Z", pieces: 1 })).toBe("not ordered here");
  });

  it("turns a whole order away, and takes it when it is told again on a better day", () => {
    const one = trade();
    one.behaviour = { ...WELL, turnsAway: "the account is closed" };
    expect(one.place("k", [{ part: "A", pieces: 1 }])).toEqual({ why: "the account is closed" });
    one.behaviour = WELL;
    expect(one.place("k", [{ part: "A", pieces: 1 }])).toMatchObject({ order: "S-7001" });
  });
});
