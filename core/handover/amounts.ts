import {
  add,
  baseOf,
  divide,
  measureText,
  negate,
  parseMeasure,
  toDecimal,
  ZERO,
  type Measure,
} from "../quantity";

interface Flowed {
  amount: string;
  way: "in" | "out";
}

/**
 * What is in, of all that went in and ran out: in the unit of the first, exactly added, to a hundredth.
 *
 * @returns empty where nothing was said; what cannot be read counts for nothing.
 */
export function nearestTotal(flows: readonly Flowed[]): string {
  const read = flows.flatMap(({ amount, way }) => {
    const parsed = parseMeasure(amount, "volume");
    return parsed.ok ? [{ measure: parsed.measure, way }] : [];
  });
  const [first] = read;
  if (!first) return "";
  const total = read.reduce(
    (sum, { measure, way }) => add(sum, way === "in" ? baseOf(measure) : negate(baseOf(measure))),
    ZERO,
  );
  const one: Measure = { quantity: "volume", unit: first.measure.unit, figure: "1" };
  const { figure } = toDecimal(divide(total, baseOf(one)), 2);
  return measureText({ ...one, figure: figure.includes(".") ? figure.replace(/\.?0+$/, "") : figure });
}
