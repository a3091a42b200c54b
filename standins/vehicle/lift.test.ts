import { afterEach, beforeEach, expect, it, jest } from "@jest/globals";
import { atLift, type Ask } from "./lift";

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

interface Told {
  running?: { routine: string; from: number; share: number };
  learned?: { routine: string; from: number; outcome: string };
}
const ask = (asked: Omit<Ask, "job"> = {}, job = "1"): Told => atLift({ job, ...asked });

it("runs a routine for its while, asked again or not, and tells how it ended until another begins", () => {
  const { running } = ask({ routine: "kiss" });
  expect(running?.share).toBe(0);
  jest.advanceTimersByTime(2_000);
  expect(ask({ routine: "forks" }).running).toMatchObject({
    routine: "kiss",
    from: running?.from,
    share: 0.5,
  });
  jest.advanceTimersByTime(2_000);
  expect(ask()).toMatchObject({ learned: { routine: "kiss", from: running?.from, outcome: "done" } });
  // The same one again is another run: what the last one came to is not told of it.
  const again = ask({ routine: "kiss" });
  expect(again.learned).toBeUndefined();
  expect(again.running?.from).not.toBe(running?.from);
});

it("learns nothing where a hand was at the vehicle meanwhile; codes are cleared without harm", () => {
  ask({ routine: "kiss" }, "2");
  ask({ control: { clear: true } }, "2");
  ask({ routine: "kiss" }, "3");
  ask({ control: { brake: "held" } }, "3");
  jest.advanceTimersByTime(4_000);
  expect([ask({}, "2").learned?.outcome, ask({}, "3").learned?.outcome]).toEqual(["done", "failed"]);
});
