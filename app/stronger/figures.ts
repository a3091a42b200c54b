import {
  baseOf,
  measureOf,
  rational,
  toDecimal,
  toNumber,
  type LengthUnit,
  type Quantity,
} from "~core/quantity";

/** The unit a torque is typed and shown in. */
export const torqueUnit = (unit: LengthUnit): string => (unit === "in" ? "lbf·ft" : "N·m");
/** The unit a pressure is drawn in. */
export const pressureUnit = (unit: LengthUnit): string => (unit === "in" ? "psi" : "bar");

/** How many of a quantity’s base unit one of these is. */
const factorOf = (quantity: Quantity, name: string): number =>
  toNumber(baseOf(measureOf(`1 ${name}`, quantity)));

/** A torque as a number of the unit it is shown in. */
export const torqueIn = (newtonMetres: number, unit: LengthUnit): number =>
  newtonMetres / factorOf("torque", torqueUnit(unit));

/** A pressure as a number of the unit it is drawn in. */
export const pressureIn = (pascals: number, unit: LengthUnit): number =>
  pascals / 1_000 / factorOf("pressure", pressureUnit(unit));

/** A torque that was worked out, in whole units of whoever reads it: `543 N·m`. */
export const torqueText = (newtonMetres: number, unit: LengthUnit): string =>
  `${Math.round(torqueIn(newtonMetres, unit))} ${torqueUnit(unit)}`;

/** What it holds over what it must: `1.18×`. Never told as more than it is. */
export const marginText = (margin: number): string =>
  `${toDecimal(rational(Math.floor(margin * 100), 100), 2).figure}×`;

/** A rise of temperature in the degrees of whoever reads it. */
export const riseText = (kelvin: number, unit: LengthUnit): string =>
  unit === "in" ? `${Math.round(kelvin * 1.8)} °F` : `${Math.round(kelvin)} °C`;
