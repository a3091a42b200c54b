import { expect, it } from "@jest/globals";
import { documentOf, UNITS } from "../../demo/units";
import { answered, answerTime, wholeUnit } from "./whole-unit";

it.each(UNITS)(
  "%s: a whole unit on trial has a piece for every seat that is chosen, and the plan is proved",
  (unit) => {
    const whole = wholeUnit(documentOf(unit));
    const plan = answered(whole);
    expect(plan.proven).toBe(true);
    expect(plan.seats.length).toBeGreaterThan(2);
  },
);

it("is timed by the clock it is given", () => {
  let at = 0;
  expect(answerTime(documentOf("selwyn-turnstone"), () => (at += 2), 8)).toBe(2);
});
