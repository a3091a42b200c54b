import type { Nm } from "./length";
import { plainSign, whichComma } from "./written";
import {
  add,
  divide,
  multiply,
  parseDecimal,
  rational,
  subtract,
  toDecimal,
  ZERO,
  type Rational,
} from "./rational";

/**
 * Everything a book states that is not a length: kept in the figure and unit of its source, converted exactly, and marked where
 * the figure shown had to be rounded.
 */
export interface Measure<Q extends Quantity = Quantity> {
  quantity: Q;
  unit: string;
  /** The decimal as the source prints it. */
  figure: string;
}

interface Unit {
  /** How many of the quantity's base unit it is. */
  factor: Rational;
  /** Where its zero lies in base units: Fahrenheit only. */
  zero?: Rational;
  /** Decimals of a rounded figure. */
  round: number;
}

const unit = (factor: Rational, round: number, zero?: Rational): Unit => ({ factor, round, zero });

/** 1 lbf = 0.45359237 kg · 9.80665 m/s² and 1 in = 0.0254 m, both exact by definition. */
const LBF = multiply(rational(45359237n, 100_000_000n), rational(980665n, 100_000n));
const INCH = rational(254n, 10_000n);

/** The first unit of each quantity is its base. */
const UNITS = {
  torque: {
    "N·m": unit(rational(1), 1),
    "N·cm": unit(rational(1, 100), 0),
    "lbf·ft": unit(multiply(LBF, multiply(INCH, rational(12))), 1),
    "lbf·in": unit(multiply(LBF, INCH), 0),
  },
  pressure: {
    kPa: unit(rational(1), 0),
    bar: unit(rational(100), 1),
    MPa: unit(rational(1000), 2),
    psi: unit(divide(divide(LBF, multiply(INCH, INCH)), rational(1000)), 0),
  },
  temperature: {
    "°C": unit(rational(1), 0),
    "°F": unit(rational(5, 9), 0, rational(-160, 9)),
  },
  resistance: { Ω: unit(rational(1), 2), kΩ: unit(rational(1000), 3), MΩ: unit(rational(1_000_000), 3) },
  area: {
    "mm²": unit(rational(1), 0),
    "cm²": unit(rational(100), 1),
    "in²": unit(rational(64516n, 100n), 3),
  },
  force: { N: unit(rational(1), 0), kN: unit(rational(1000), 2), lbf: unit(LBF, 1) },
  angle: { "°": unit(rational(1), 0) },
  speed: { rpm: unit(rational(1), 0) },
  volume: {
    l: unit(rational(1), 2),
    ml: unit(rational(1, 1000), 0),
    // The US liquid quart, 57.75 cubic inches.
    qt: unit(rational(946352946n, 1_000_000_000n), 2),
  },
  time: { s: unit(rational(1), 0), min: unit(rational(60), 1), h: unit(rational(3600), 1) },
  voltage: { V: unit(rational(1), 1), mV: unit(rational(1, 1000), 0) },
} as const satisfies Record<string, Record<string, Unit>>;

/** What can be measured besides length: see `UNITS`. */
export type Quantity = keyof typeof UNITS;
/** Every quantity there is a unit for. */
export const QUANTITIES = Object.keys(UNITS) as Quantity[];

/** What people write for a unit besides its name. */
const ALIASES: ReadonlyMap<string, string> = new Map(
  Object.entries({
    nm: "N·m",
    "n.m": "N·m",
    "n*m": "N·m",
    ncm: "N·cm",
    "ft-lb": "lbf·ft",
    "ft·lb": "lbf·ft",
    "lb-ft": "lbf·ft",
    "lb·ft": "lbf·ft",
    "lbf-ft": "lbf·ft",
    "in-lb": "lbf·in",
    "in·lb": "lbf·in",
    "lb-in": "lbf·in",
    "lb·in": "lbf·in",
    "lbf-in": "lbf·in",
    ohm: "Ω",
    "\u2126": "Ω",
    kohm: "kΩ",
    "k\u2126": "kΩ",
    c: "°C",
    f: "°F",
    "1/min": "rpm",
    litre: "l",
    litres: "l",
    minutes: "min",
    deg: "°",
  }),
);

/** The units a quantity is written in, its base first. */
export const unitsOf = (quantity: Quantity): string[] => Object.keys(UNITS[quantity]);

const unitOf = (quantity: Quantity, name: string): Unit => {
  const found = Object.entries<Unit>(UNITS[quantity]).find(([known]) => known === name)?.[1];
  if (!found) throw new RangeError(`${quantity} is not measured in ${name}`);
  return found;
};

/** A figure as read, or what is wrong with it and what would be right. */
export type ParsedMeasure<Q extends Quantity> =
  | { ok: true; measure: Measure<Q> }
  | { ok: false; problem: string; remedy: string };

const WRITTEN = /^([+-]?[\d.,]+)\s*(.*)$/u;
const EXAMPLES: Readonly<Record<Quantity, string>> = {
  torque: "42 N·m",
  pressure: "4 bar",
  temperature: "40 °C",
  resistance: "5.2 Ω",
  area: "32.5 cm²",
  force: "850 N",
  angle: "90 °",
  speed: "800 rpm",
  volume: "6.2 l",
  time: "15 min",
  voltage: "12 V",
};

/**
 * Reads a figure with its unit: `42 N·m`, `31 lbf·ft`, `75 lbf-in`.
 *
 * @param fieldUnit the unit a bare number is taken in; without it the unit must be written.
 * @returns the measure in the unit it was written in, or a problem with its remedy; never throws.
 */
export function parseMeasure<Q extends Quantity>(
  text: string,
  quantity: Q,
  fieldUnit?: string,
): ParsedMeasure<Q> {
  const fail = (problem: string, remedy = ""): ParsedMeasure<Q> => ({
    ok: false,
    problem,
    remedy: remedy || `write it as "${EXAMPLES[quantity]}", in ${unitsOf(quantity).join(", ")}`,
  });
  const match = WRITTEN.exec(plainSign(text.trim()));
  const digits = match?.[1] ?? "";
  if (!match || parseDecimal(digits) === null) return fail(`“${text.trim().slice(0, 40)}” is no ${quantity}`);
  const which = whichComma(digits);
  if (which) return fail(which.problem, which.remedy);
  const word = match[2] ?? "";
  const known = unitsOf(quantity);
  const named =
    word === ""
      ? fieldUnit
      : (known.find((u) => u.toLowerCase() === word.toLowerCase()) ?? ALIASES.get(word.toLowerCase()));
  if (named === undefined || !known.includes(named))
    return fail(word === "" ? `“${digits}” has no unit` : `“${word}” is no unit of ${quantity}`);
  const figure = digits.replace(",", ".").replace(/^\+/, "");
  return { ok: true, measure: { quantity, unit: named, figure } };
}

/** A measure as a document writes it. @throws RangeError with the remedy when it is not one. */
export function measureOf<Q extends Quantity>(text: string, quantity: Q): Measure<Q> {
  const parsed = parseMeasure(text, quantity);
  if (!parsed.ok) throw new RangeError(`${parsed.problem}; ${parsed.remedy}`);
  return parsed.measure;
}

/** In base units, exactly. */
export function baseOf({ quantity, unit: name, figure }: Measure): Rational {
  const { factor, zero = ZERO } = unitOf(quantity, name);
  return add(multiply(parseDecimal(figure) ?? ZERO, factor), zero);
}

/** Below zero, zero or above as a is less than, equal to or more than b. Both of one quantity. */
export function compareMeasures(a: Measure, b: Measure): number {
  const difference = subtract(baseOf(a), baseOf(b));
  return difference.n < 0n ? -1 : difference.n > 0n ? 1 : 0;
}

/** What is lost between two measures of one quantity, in the unit of the first: `3 bar` less `2.7 bar`. */
export function difference(from: Measure, to: Measure): Measure {
  const { factor } = unitOf(from.quantity, from.unit);
  const { figure } = toDecimal(divide(subtract(baseOf(from), baseOf(to)), factor), 4);
  return { ...from, figure: figure.includes(".") ? figure.replace(/\.?0+$/, "") : figure };
}

/** The torque of a pull at a radius, `M = F·r`, to a hundredth of the unit asked for. */
export function torqueOf(pull: Measure<"force">, radius: Nm, inUnit: string): Measure<"torque"> {
  const newtonMetres = multiply(baseOf(pull), rational(radius, 1_000_000_000n));
  const { factor } = unitOf("torque", inUnit);
  return { quantity: "torque", unit: inUnit, figure: toDecimal(divide(newtonMetres, factor), 2).figure };
}

/**
 * Shows a measure in a unit: the source's digits in its own unit, exact digits where the other unit can write them, else rounded
 * and marked `≈`.
 */
export function measureText(measure: Measure, inUnit = measure.unit): string {
  const spaced = (figure: string): string => `${figure}${inUnit === "°" ? "" : " "}${inUnit}`;
  if (inUnit === measure.unit) return spaced(measure.figure.replace("-", "−"));
  const { factor, zero = ZERO, round } = unitOf(measure.quantity, inUnit);
  const value = divide(subtract(baseOf(measure), zero), factor);
  for (let places = 0; places <= Math.max(round, 3); places++) {
    const { figure, exact } = toDecimal(value, places);
    if (exact) return spaced(figure);
  }
  // Rounded to nothing it would say what is not so: then with as many places as its first figure needs.
  const places = Array.from({ length: 4 }, (_, i) => round + i).find((n) =>
    /[1-9]/.test(toDecimal(value, n).figure),
  );
  return `≈${spaced(toDecimal(value, places ?? round).figure)}`;
}

/** Two limits, the unit once where both have the same: `35 to 45 °C`; one alone as `at most` or `at least`. */
export function limitsText(min: Measure | undefined, max: Measure | undefined, inUnit?: string): string {
  const show = (m: Measure): string => measureText(m, inUnit ?? m.unit);
  if (min && max) {
    const [low, high] = [show(min), show(max)];
    const unitName = inUnit ?? max.unit;
    return low.endsWith(unitName) && high.endsWith(unitName)
      ? `${low.slice(0, -unitName.length).trim()} to ${high}`
      : `${low} to ${high}`;
  }
  if (min) return `at least ${show(min)}`;
  return max ? `at most ${show(max)}` : "no limit stated";
}

/** The units of the two ways people measure, in the order they are preferred. */
const SYSTEMS: Readonly<Record<"mm" | "in", Partial<Record<Quantity, readonly string[]>>>> = {
  mm: {
    torque: ["N·m", "N·cm"],
    pressure: ["bar", "kPa", "MPa"],
    temperature: ["°C"],
    area: ["cm²", "mm²"],
    force: ["N", "kN"],
    volume: ["l", "ml"],
  },
  in: {
    torque: ["lbf·ft", "lbf·in"],
    pressure: ["psi"],
    temperature: ["°F"],
    area: ["in²"],
    force: ["lbf"],
    volume: ["qt"],
  },
};

/** Below this a torque is read off a small wrench, in pound-inches. */
const SMALL_TORQUE = measureOf("12 lbf·ft", "torque");

/** The unit a person who works in millimetres or inches reads a measure in: the source's own where it belongs there. */
export function unitFor(measure: Measure, system: "mm" | "in"): string {
  const known = SYSTEMS[system][measure.quantity];
  if (!known || known.includes(measure.unit)) return measure.unit;
  if (measure.quantity === "torque" && system === "in")
    return compareMeasures(measure, SMALL_TORQUE) < 0 ? "lbf·in" : "lbf·ft";
  return known[0] ?? measure.unit;
}
