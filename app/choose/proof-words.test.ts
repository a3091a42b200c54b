import { describe, expect, it } from "@jest/globals";
import { TERMS, termsWith, type Values } from "~core/select";
import { proofText } from "./proof-words";

const values: Values = {
  outside: 0,
  order: 0,
  chance: 3,
  ready: 4,
  money: 1250,
  changed: 7,
  scarce: 2,
  target: 90,
};
const all = TERMS.map((term) => values[term]);

describe("how far a plan is proved", () => {
  it("is told whole where it is", () =>
    expect(proofText({ proven: true, values, bound: all })).toBe("Proved: nothing on this shelf is better."));
  it("names what nothing is better in, and the first that could be, in the order the shop has", () => {
    const bound = all.with(TERMS.indexOf("money"), 950);
    expect(proofText({ proven: false, values, bound })).toMatch(
      /^Not proved: the search was stopped\. Nothing is better in figures outside, their order, the chance of being outside and when all is ready; what it costs could be better by .*3\.00.* at most\.$/,
    );
    const terms = termsWith("money");
    const other = terms.map((term) => (term === "ready" ? 3 : values[term]));
    expect(proofText({ proven: false, values, bound: other }, terms)).toMatch(
      /and what it costs; when all is ready could be better by 1 day at most\.$/,
    );
  });
  it("begins with what could be better where nothing is sure, and gives no amount nobody could read", () => {
    expect(proofText({ proven: false, values, bound: all.with(0, -1) })).toBe(
      "Not proved: the search was stopped. Figures outside could be better by 1 at most.",
    );
    expect(proofText({ proven: false, values, bound: all.with(7, 0) })).toMatch(
      /being near the target could be better\.$/,
    );
  });
});
