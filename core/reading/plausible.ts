import { nm, parseLength, type LengthUnit, type Nm, type ParsedLength } from "../quantity";

/** What a reading could possibly be here, from the stack and the series. */
export interface Plausible {
  min: Nm;
  max: Nm;
}

/** Another way to understand what was typed, for a one-touch answer. */
export interface Meaning {
  length: Nm;
  /** The unit it was likely meant in. */
  unit: LengthUnit;
  why: string;
}

/** The slips of hand and unit that happen: a factor of 25.4 or 1000 either way, both at once, or a lost decimal point. */
const SLIPS: readonly { times: bigint; over: bigint; unit: LengthUnit | "same"; why: string }[] = [
  { times: 254n, over: 10n, unit: "in", why: "inches, typed where millimetres are read" },
  {
    times: 254n,
    over: 10_000n,
    unit: "thou",
    why: "thousandths of an inch, typed where millimetres are read",
  },
  { times: 10n, over: 254n, unit: "mm", why: "millimetres, typed where inches are read" },
  { times: 1n, over: 1000n, unit: "same", why: "thousandths of the unit" },
  { times: 1000n, over: 1n, unit: "same", why: "a thousand times that" },
  { times: 10_000n, over: 254n, unit: "mm", why: "millimetres, typed where thousandths are read" },
  { times: 1n, over: 100n, unit: "same", why: "hundredths, the decimal point left out" },
];

/**
 * A length as it is read on a bench. In inches a whole number of two or three digits is thousandths: nothing here is ten inches, and an inch shop
 * says twenty-eight.
 *
 * @returns as `parseLength`; `thou` is the unit of what was understood so.
 */
export function parseReading(text: string, unit: LengthUnit): ParsedLength {
  const parsed = parseLength(text, unit);
  return parsed.ok && !parsed.unitTyped && unit === "in" && /^\d{2,3}$/.test(text.trim())
    ? { ...parsed, length: nm(parsed.length / 1_000), unit: "thou" }
    : parsed;
}

/**
 * Questions an implausible value before it is stored.
 *
 * @param length as typed, in the field's unit.
 * @returns null when it is plausible; otherwise the meanings that would be, likeliest first (maybe none).
 */
export function question(length: Nm, unit: LengthUnit, plausible: Plausible): Meaning[] | null {
  if (length >= plausible.min && length <= plausible.max) return null;
  const meanings: Meaning[] = [];
  for (const slip of SLIPS) {
    const scaled = BigInt(length) * slip.times;
    if (scaled % slip.over !== 0n) continue;
    const other = Number(scaled / slip.over);
    if (other < plausible.min || other > plausible.max || meanings.some((m) => m.length === other)) continue;
    const meantIn = slip.unit === "same" ? unit : slip.unit;
    meanings.push({ length: nm(other), unit: meantIn, why: slip.why });
  }
  const middle = (plausible.min + plausible.max) / 2;
  return meanings.sort((a, b) => Math.abs(a.length - middle) - Math.abs(b.length - middle));
}
