import type { Measurement } from "../book";
import { judgement } from "./items";
import type { SpecLine } from "./spec-lines";

/** Whether a figure as built is beyond where whatever runs is stopped at once, of whichever thing it was taken. */
export function isBeyondStop(
  measurement: Measurement,
  { built, items }: Pick<SpecLine, "built" | "items">,
): boolean {
  const { stop } = measurement;
  if (!stop) return false;
  const { below: min, above: max } = stop;
  const taken = items.length > 0 ? items.map((one) => one.built) : [built];
  // What is beyond it is outside its limits, too; what is no figure is not.
  return taken.some(
    ({ standing, text }) =>
      standing === "outside" && judgement({ ...measurement, min, max }, text) === "outside",
  );
}
