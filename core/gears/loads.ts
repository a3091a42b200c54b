import type { Element } from "../book";
import { divide, isZero, negate, ONE, ZERO, type Rational } from "../quantity";
import { baseOfTrain, behave, isOneWay, type Train } from "./train";
import { combine, tied, type LinearSystem } from "./system";

/** What one element carries of the torque at the input. */
export interface Load {
  element: string;
  /** Torque it puts on its first member for one at the input, which drives forward; the second member has as much the other way. */
  share: Rational;
  /** Elements that hold the same: how they share it is not decided by the train, and any of them may carry all of it. */
  beside: string[];
}

/** Torques in one range, for one at the input, without losses. */
export interface Loads {
  /** What drives the load at the output; against the input’s sense in reverse. */
  output: Rational;
  loads: Load[];
}

/**
 * What every applied element has to carry, from the gear train alone. By virtual work: with the element let go and the output standing, what the
 * input puts in is what the element would take out, `T·ωin + Te·(ωa − ωb) = 0` for every motion that is left.
 *
 * @param applied ids of elements; one-way clutches among them carry where they hold.
 * @param base a train’s base, when many ranges are asked of one train.
 * @returns null where the output is not driven.
 */
export function loadsOf(unit: Train, applied: readonly string[], base = baseOfTrain(unit)): Loads | null {
  const { kind, ratio, holding } = behave(unit, applied, base);
  if (kind !== "gear" || !ratio) return null;
  const { input, output } = unit.train;
  const carrying = unit.elements.filter((one) =>
    isOneWay(one) ? holding.includes(one.id) : applied.includes(one.id),
  );
  const standing = base.with(new Map([[output, ONE]]));
  const without = (open: readonly Element[]): LinearSystem =>
    carrying
      .filter((one) => !open.includes(one))
      .reduce((system, { joins }) => (joins ? system.with(tied(joins[0], joins[1])) : system), standing);
  const loads = carrying.map((one): Load => {
    const beside = holdingWith(one, carrying, without);
    return {
      element: one.id,
      share: shareOf(one, without([one, ...beside]), input),
      beside: beside.map(({ id }) => id),
    };
  });
  return { output: ratio, loads };
}

/** How two members would turn against each other: empty where they cannot. */
const slip = ({ joins }: Element, system: LinearSystem): ReadonlyMap<string, Rational> =>
  joins ? combine(system.row(joins[0]), system.row(joins[1]), negate(ONE)) : new Map<string, Rational>();

/** The others that keep its members together though it is let go, each by itself. */
function holdingWith(
  one: Element,
  carrying: readonly Element[],
  without: (open: readonly Element[]) => LinearSystem,
): Element[] {
  if (slip(one, without([one])).size > 0) return [];
  return carrying.filter((other) => other !== one && slip(one, without([one, other])).size > 0);
}

function shareOf(one: Element, system: LinearSystem, input: string): Rational {
  const turns = slip(one, system);
  const [lead] = turns;
  // What can turn without the input carries nothing.
  const k = lead && divide(system.row(input).get(lead[0]) ?? ZERO, lead[1]);
  return !k || isZero(k) || combine(system.row(input), turns, negate(k)).size > 0 ? ZERO : negate(k);
}
