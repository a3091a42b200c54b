import {
  baseOf,
  compare,
  divide,
  rational,
  toDecimal,
  add,
  multiply,
  measureOf,
  type Measure,
  type Nm,
} from "../quantity";

/**
 * What to set a wrench to when an extension in line makes its arm longer: `T·L/(L+E)`.
 *
 * @param length from the wrench's grip to its square.
 * @param extension from the square to the fastener; 0 leaves the torque as it is.
 * @returns the setting in the torque's own unit, rounded to a tenth.
 * @throws RangeError for a wrench without length or a negative extension.
 */
export function wrenchSetting(torque: Measure<"torque">, length: Nm, extension: Nm): Measure<"torque"> {
  if (length <= 0) throw new RangeError("a wrench has a length");
  if (extension < 0) throw new RangeError("an extension adds to the arm; turned back it is not in line");
  const inUnit = divide(baseOf(torque), baseOf(measureOf(`1 ${torque.unit}`, "torque")));
  const setting = multiply(inUnit, divide(rational(length), add(rational(length), rational(extension))));
  return { quantity: "torque", unit: torque.unit, figure: toDecimal(setting, 1).figure };
}

/**
 * What reaches the fastener when a wrench with an extension in line reads so much: `T·(L+E)/L`, the way back of {@link wrenchSetting}.
 *
 * @returns the torque in the unit it was read in, rounded to a tenth.
 * @throws RangeError as {@link wrenchSetting} does.
 */
export function torqueReached(read: Measure<"torque">, length: Nm, extension: Nm): Measure<"torque"> {
  if (length <= 0) throw new RangeError("a wrench has a length");
  if (extension < 0) throw new RangeError("an extension adds to the arm; turned back it is not in line");
  if (extension === 0) return read;
  const inUnit = divide(baseOf(read), baseOf(measureOf(`1 ${read.unit}`, "torque")));
  const reached = multiply(inUnit, divide(add(rational(length), rational(extension)), rational(length)));
  return { quantity: "torque", unit: read.unit, figure: toDecimal(reached, 1).figure };
}

/** How what a wrench read stands to what was wanted. */
export type PullVerdict = "short" | "in" | "over";

/** What a hand wrench holds itself, and what a thread is let go past: four parts in a hundred short, ten over. */
const LEAST = rational(96, 100);
const MOST = rational(110, 100);

/** @returns whether a pull came to what was wanted, exactly, whatever unit either is in. */
export function pullVerdict(wanted: Measure<"torque">, read: Measure<"torque">): PullVerdict {
  const of = baseOf(wanted);
  const is = baseOf(read);
  if (compare(is, multiply(of, LEAST)) < 0) return "short";
  return compare(is, multiply(of, MOST)) > 0 ? "over" : "in";
}
