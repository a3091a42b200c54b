import { toDecimal, rational, type LengthUnit } from "~core/quantity";

const LBF_FT = 1.355_817_948_331_400_4;

/** A torque that was worked out, in whole units of whoever reads it: `543 N·m`. */
export const torqueText = (newtonMetres: number, unit: LengthUnit): string =>
  `${Math.round(inUnit(newtonMetres, unit))} ${unit === "in" ? "lbf·ft" : "N·m"}`;

/** What it holds over what it must: `1.18×`. */
export const marginText = (margin: number): string =>
  `${toDecimal(rational(Math.floor(margin * 100), 100), 2).figure}×`;

/** A rise of temperature in the degrees of whoever reads it. */
export const riseText = (kelvin: number, unit: LengthUnit): string =>
  unit === "in" ? `${Math.round(kelvin * 1.8)} °F` : `${Math.round(kelvin)} °C`;

const PSI = 6_894.757_293_168;

/** A torque as a number of the unit it is drawn in. */
export const inUnit = (newtonMetres: number, unit: LengthUnit): number =>
  unit === "in" ? newtonMetres / LBF_FT : newtonMetres;

/** A pressure as a number of the unit it is drawn in. */
export const pressureIn = (pascals: number, unit: LengthUnit): number =>
  unit === "in" ? pascals / PSI : pascals / 1e5;
