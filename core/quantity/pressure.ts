import { baseOf, type Measure } from "./measure";
import { toNumber } from "./rational";

declare const pascal: unique symbol;

/** A pressure in whole pascals. */
export type Pa = number & { readonly [pascal]: true };

/** Pascals in one of each unit. psi is rounded at the tenth digit (0.45359237 kg · 9.80665 m/s² / (25.4 mm)²). */
const PA_PER = { bar: 100_000, kPa: 1_000, MPa: 1_000_000, psi: 6_894.757293 } as const;

/** A unit pressures are written in. */
export type PressureUnit = keyof typeof PA_PER;

/** A pressure in pascals, or what is wrong with what was typed. */
export type ParsedPressure = { ok: true; pressure: Pa } | { ok: false; problem: string; remedy: string };

const WRITTEN = /^(\d+(?:[.,]\d+)?|[.,]\d+)\s*(bar|kpa|mpa|psi)?$/i;

/** Shop air never exceeds this; more is a slip of the hand. */
const MOST = 20_000_000;

/**
 * Reads a pressure as typed (`4 bar`, `60 psi`, `400`).
 *
 * @param fieldUnit the unit a bare number is taken in.
 * @returns the pressure rounded to the nearest pascal (0.00001 bar), or a problem with its remedy.
 */
export function parsePressure(text: string, fieldUnit: PressureUnit): ParsedPressure {
  const match = WRITTEN.exec(text.trim());
  if (!match?.[1])
    return { ok: false, problem: `“${text.trim()}” is not a pressure`, remedy: "write 4 bar or 60 psi" };
  const word = match[2]?.toLowerCase();
  const unit = (Object.keys(PA_PER) as PressureUnit[]).find((u) => u.toLowerCase() === word) ?? fieldUnit;
  const pressure = Math.round(Number(match[1].replace(",", ".")) * PA_PER[unit]);
  if (pressure > MOST) return { ok: false, problem: "that is over 200 bar", remedy: "check the unit" };
  return { ok: true, pressure: pressure as Pa };
}

/** A pressure of a document in pascals, to the nearest. */
export const pascalsOf = (measure: Measure<"pressure">): Pa =>
  Math.round(toNumber(baseOf(measure)) * PA_PER.kPa) as Pa;

/** The unit a pressure is shown in: the document's own, else the one that goes with its lengths. */
export const pressureUnit = (own: Measure<"pressure"> | undefined, lengths: "mm" | "in"): PressureUnit =>
  (Object.keys(PA_PER) as PressureUnit[]).find((unit) => unit === own?.unit) ??
  (lengths === "in" ? "psi" : "bar");

/** A pressure rounded to a tenth of a bar, or to a whole psi. */
export function pressureText(pressure: Pa, unit: PressureUnit): string {
  return `${(pressure / PA_PER[unit]).toFixed(unit === "bar" ? 1 : 0)} ${unit}`;
}
