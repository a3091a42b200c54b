import { statedIn, type Applied, type AppliedChain, type Measurement } from "../book";
import { plates } from "../pack";
import { compareMeasures, lengthOf, measureOf, nearestNm, nm, type Nm, type Quantity } from "../quantity";
import type { Reading, TakenReading } from "../reading";

/** One of the things a figure is taken of, each judged by itself. */
export interface Item {
  name: string;
  /** Limits of this one, where they are its own. */
  min?: Nm;
}

/** The item that says how a pressed-in part is turned. */
export const CLOCKING = "clocking";
/** The figure beside it: the chain’s own readings. */
export const DEPTH = "depth";

/** What is answered where nothing is measured, and whether it is in order; the best answer first. */
export const ANSWERS: Readonly<Record<string, Readonly<Record<string, boolean>>>> = {
  "valve drop": {
    "falls both ways": true,
    "hangs going in": false,
    "hangs coming out": false,
    "does not move": false,
  },
  seen: { "as it should be": true, "not as it should be": false },
  [CLOCKING]: { "as the book says": true, "turned otherwise": false },
};

/**
 * What a measurement is taken of: the book’s list, or every plate of a role in every pack in scope. Empty where it is one figure.
 *
 * @param applied the book as it holds for the job.
 */
export function itemsOf(
  { each, over, under }: Pick<Measurement, "each" | "over" | "under">,
  applied: Applied,
): Item[] {
  if (each) return each.map((name) => ({ name }));
  if (!over) return [];
  const role = over === "steels" ? "steel" : "friction";
  return applied.packs
    .filter(({ inScope }) => inScope)
    .flatMap(({ pack, stack }) =>
      plates(stack)
        .filter((plate) => plate.role === role)
        .map(({ thickness }, i) => ({
          name: `${pack.element.toUpperCase()} ${role} ${i + 1}`,
          ...(under === undefined || thickness === null ? {} : { min: nm(thickness - under) }),
        })),
    );
}

/** What a chain is read of, piece by piece; empty where it has one figure. */
export const itemsOfChain = ({ chain }: AppliedChain): Item[] =>
  (chain.read.each ?? []).map((name) => ({ name }));

/**
 * One reading of one thing out of several is all there will be of it: what the gauge may be off by is taken for what it scatters, a step of it
 * as standard uncertainty (GUM 4.3.7 for the blades). A blade that only passes or only does not stays a bound.
 */
export function alone(taken: TakenReading): TakenReading {
  const { reading, resolution } = taken;
  return { ...taken, reading: aloneReading(reading, resolution) };
}

function aloneReading(reading: Reading, resolution: Nm): Reading {
  if (reading.kind === "summed") return reading;
  if (reading.kind === "single") return { kind: "summed", value: reading.value, uncertainty: resolution };
  const { passes, refuses } = reading;
  if (passes === undefined || refuses === undefined) return reading;
  const uncertainty = nm(Math.ceil((refuses - passes) / 2 / Math.sqrt(3)));
  return { kind: "summed", value: nearestNm((passes + refuses) / 2), uncertainty };
}

/** How a figure in its own unit stands. */
export type Judgement = "inside" | "outside" | "too close" | "not stated";

/**
 * A figure as it was said against its limits: `5.2 Ω`; feelers `0.04/0.05 mm`, passes and does not; or one of the answers of its kind.
 *
 * @param item its own limit, where it has one.
 * @throws RangeError where the text is no figure of its kind.
 */
export function judgement(measurement: Measurement, text: string, item?: Item): Judgement {
  const quantity = statedIn(measurement.kind);
  if (quantity === null) return answered(measurement.kind, text);
  const min = item?.min ?? measurement.min;
  const { max } = measurement;
  if (min === undefined && max === undefined) return "not stated";
  const [low, high] = ends(text, quantity);
  const less = (one: string | null, limit: string | Nm, open: boolean): boolean =>
    one === null ? open : compareIn(one, limit, quantity) < 0;
  const more = (one: string | null, limit: string | Nm, open: boolean): boolean =>
    one === null ? open : compareIn(one, limit, quantity) > 0;
  if (min !== undefined && less(high, min, false)) return "outside";
  if (max !== undefined && more(low, max, false)) return "outside";
  const doubtful =
    (min !== undefined && less(low, min, true)) || (max !== undefined && more(high, max, true));
  return doubtful ? "too close" : "inside";
}

/** What passes and what does not, where feelers were said, null where one of them was not; else twice the figure. */
function ends(text: string, quantity: Quantity | "length"): [low: string | null, high: string | null] {
  const blades = /^([\d.,]*)\s*\/\s*([\d.,]*)\s*([^\d.,\s/]+)$/.exec(text.trim());
  if (!blades || quantity !== "length") return [text, text];
  const [, passes, refuses, unit = ""] = blades;
  return [passes ? `${passes} ${unit}` : null, refuses ? `${refuses} ${unit}` : null];
}

const compareIn = (one: string, limit: string | Nm, quantity: Quantity | "length"): number =>
  quantity === "length" || typeof limit === "number"
    ? lengthOf(one) - (typeof limit === "number" ? limit : lengthOf(limit))
    : compareMeasures(measureOf(one, quantity), measureOf(limit, quantity));

export function answered(kind: string, text: string): Judgement {
  const answers = ANSWERS[kind] ?? {};
  const good = Object.hasOwn(answers, text) ? answers[text] : undefined;
  return good === undefined ? "not stated" : good ? "inside" : "outside";
}
