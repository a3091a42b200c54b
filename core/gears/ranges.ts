import type { Book, Range } from "../book";
import { compare, parseDecimal, subtract, toDecimal, toNumber, ZERO, type Rational } from "../quantity";
import { baseOfTrain, behave, type Behaviour, type Train } from "./train";

/** A range as the train solves it beside what the book states. */
export interface SolvedRange {
  range: Range;
  behaviour: Behaviour;
  /** What is wrong with the listing, in words; null when it agrees. */
  fault: string | null;
}

/** Half of the fourth decimal: ratios are listed to four. */
const TOLERANCE = 0.000_06;

/** Every range of a book solved, and held against what the book lists. */
export function solveRanges(unit: Train & Pick<Book, "ranges">): SolvedRange[] {
  const base = baseOfTrain(unit);
  return unit.ranges.map((range) => {
    const behaviour = behave(unit, range.applied, base);
    const braked = range.braking ? behave(unit, [...range.applied, ...range.braking], base) : null;
    // Without gears nothing is solved, and nothing said against what is listed.
    const fault = unit.gearSets.length === 0 ? null : faultOf(unit, range, behaviour, braked);
    return { range, behaviour, fault };
  });
}

function faultOf(unit: Train, range: Range, found: Behaviour, braked: Behaviour | null): string | null {
  if (found.kind !== "gear" || !found.ratio)
    return `${range.applied.join(" + ") || "nothing applied"} gives ${KIND[found.kind]}, not a gear`;
  if (Math.abs(toNumber(subtract(found.ratio, parseDecimal(`${range.ratio}`) ?? ZERO))) > TOLERANCE)
    return `the ratio is ${ratioText(found.ratio)} by the tooth counts, listed is ${range.ratio}`;
  if (found.fighting.length > 0)
    return `${found.fighting.join(" and ")} would have to turn the way it cannot`;
  const idle = range.applied.find(
    (id) =>
      unit.elements.some((e) => e.id === id && e.kind === "one-way clutch") &&
      !found.holding.includes(id) &&
      !holdsBeside(unit, range, id),
  );
  if (idle) return `${idle} is listed and does not hold here`;
  if (braked && braked.kind !== "gear")
    return `${range.braking?.join(" + ")} under engine braking gives ${KIND[braked.kind]}`;
  if (braked?.ratio && compare(braked.ratio, found.ratio) !== 0)
    return `${range.braking?.join(" + ")} under engine braking gives another gear, ${ratioText(braked.ratio)}`;
  return null;
}

/** A one-way clutch beside an element that does the same is held already: let the other go and see whether it takes over. */
function holdsBeside(unit: Train, range: Range, oneWay: string): boolean {
  return range.applied
    .filter((id) => id !== oneWay)
    .some((id) =>
      behave(
        unit,
        range.applied.filter((other) => other !== id),
      ).holding.includes(oneWay),
    );
}

const KIND: Readonly<Record<Behaviour["kind"], string>> = {
  gear: "a gear",
  neutral: "neutral",
  "tie-up": "a tie-up",
  "output held": "a held output",
};

/** A ratio as charts list it: four decimals, reverse with its sign. */
export const ratioText = (ratio: Rational): string => toDecimal(ratio, 4).figure;
