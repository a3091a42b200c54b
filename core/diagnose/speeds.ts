import { ratioOf } from "../fact";
import { baseOfTrain, behave, isListed, slipAt } from "../gears";
import { divide, isZero, rational, toNumber, type Rational } from "../quantity";
import { elementName, type Unit } from "./cause";
import type { Told } from "./diagnose";

/** Speeds of input and output as read off while driving in a range, in whole turns a minute. */
export interface Speeds {
  range: string;
  input: number;
  output: number;
}

/** What input and output speeds tell of a range: the ratio seen against the book’s, and the slip. */
export interface ReadSpeeds {
  /** The answer they give; null when they cannot be judged. */
  told: Told | null;
  /** Turns of the input for one of the output, as read. */
  ratio: number | null;
  listed: number;
  /** Input speed that is lost: what it turns more than the listed ratio asks. */
  slip: number;
  /** If this element alone were slipping: how fast its two halves pass each other. */
  elements: { id: string; name: string; slip: number }[];
}

/**
 * What speeds read off say of a range.
 *
 * @returns null for a range the unit does not have.
 */
export function readSpeeds(unit: Unit, { range: id, input, output }: Speeds): ReadSpeeds | null {
  const range = unit.ranges.find((one) => one.id === id);
  if (!range) return null;
  const base = baseOfTrain(unit);
  const ratioWith = (applied: readonly string[]): Rational | null => behave(unit, applied, base).ratio;
  const listed = ratioWith(range.applied);
  if (!listed) return null;
  const wanted = toNumber(listed);
  const [turnsIn, turnsOut] = [rational(input), rational(Math.sign(wanted) * Math.abs(output))];
  const ratio = isZero(turnsOut) ? null : toNumber(divide(turnsIn, turnsOut));
  const near = (a: number): boolean => ratio !== null && ratio / a > 0 && isListed(ratio, a);
  const other = unit.ranges.find(
    (one) => one.id !== id && near(toNumber(ratioWith(one.applied) ?? rational(1, 1_000_000))),
  );
  const outcome = near(wanted) ? "as-listed" : other ? ratioOf(other.id) : "slips";
  const slips = range.applied.flatMap((elementId) => {
    const element = unit.elements.find((one) => one.id === elementId);
    const slip = slipAt(unit, range.applied, elementId, { input: turnsIn, output: turnsOut });
    return element && slip
      ? [{ id: elementId, name: elementName(element), slip: Math.round(Math.abs(toNumber(slip))) }]
      : [];
  });
  return {
    told: input <= 0 ? null : { question: `speeds:${id}`, outcome },
    ratio,
    listed: wanted,
    slip: Math.round(input - wanted * toNumber(turnsOut)),
    elements: slips,
  };
}
