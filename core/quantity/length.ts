import { plainSign, whichComma } from "./written";

/**
 * Lengths as integer nanometres. 1 in = 25 400 000 nm exactly (the international inch, 1959), so every thousandth of an
 * inch and every micrometre is a whole number, and "equal to the limit" is decided without rounding.
 */
declare const nanometre: unique symbol;

/** A length in whole nanometres. Make one with {@link nm}, {@link parseLength} or {@link lengthOf}. */
export type Nm = number & { readonly [nanometre]: true };

/** The units a bench speaks: millimetres, inches (three decimals are thousandths), thousandths, micrometres. */
export type LengthUnit = "mm" | "in" | "thou" | "µm";

/** Nanometres in one of each unit; all exact. */
export const NM_PER: Readonly<Record<LengthUnit, number>> = {
  mm: 1_000_000,
  in: 25_400_000,
  thou: 25_400,
  µm: 1_000,
};

/** No unit in any gearbox is ten metres long; above it a slip of the hand is certain. */
const LONGEST = 10_000_000_000;

/** @returns `value` as a length. @throws RangeError when it is not a whole number of nanometres below ten metres. */
export function nm(value: number): Nm {
  if (!Number.isInteger(value) || Math.abs(value) > LONGEST) {
    throw new RangeError(`${value} is not a whole number of nanometres below ten metres`);
  }
  return (value === 0 ? 0 : value) as Nm;
}

/** The nearest whole nanometre, halves away from zero: for shown values, never before a comparison. */
export function nearestNm(value: number): Nm {
  return nm(Math.sign(value) * Math.round(Math.abs(value)));
}

/** The outcome of reading what someone typed: a length, or what is wrong with it and what to write instead. */
export type ParsedLength =
  | { ok: true; length: Nm; unit: LengthUnit; unitTyped: boolean }
  | { ok: false; problem: string; remedy: string };

/** What people write for a unit; feet and the like have no place in a gearbox. */
const UNIT_WORDS: ReadonlyMap<string, LengthUnit> = new Map(
  Object.entries({
    mm: ["mm", "millimetre", "millimetres", "millimeter", "millimeters"],
    in: ["in", "inch", "inches", '"', "″", "”", "“", "''", "’’", "‘‘", "′′"],
    thou: ["thou", "thousandth", "thousandths", "mil", "mils"],
    // The micro sign and the Greek letter look alike.
    µm: ["µm", "μm", "um", "micron", "microns", "micrometre", "micrometres", "micrometer", "micrometers"],
  } satisfies Record<LengthUnit, string[]>).flatMap(([unit, words]) =>
    words.map((word) => [word, unit as LengthUnit] as const),
  ),
);

const WRITTEN = /^([+-]?)(\d*)(?:[.,](\d*))?\s*([a-zµμ"″”“'’‘′]*)\.?$/iu;
/** `3/64`, `1 3/64 in`, `1-3/64"`: as old rules and drill sets are marked. */
const FRACTION = /^([+-]?)(?:(\d+)[\s-]+)?(\d+)\s*[/⁄]\s*(\d+)\s*([a-zµμ"″”“'’‘′]*)\.?$/iu;
/** The finest a rule is divided. */
const DIVISIONS: readonly number[] = [2, 4, 8, 16, 32, 64];

/**
 * Reads a length as people type it: `.043`, `43 thou`, `1.09`, `1.09mm`, `1,09`, `0.043"`, `3/64 in`.
 *
 * @param text what was typed.
 * @param fieldUnit the unit a bare number is taken in.
 * @returns the exact length, or a problem with its remedy; never throws. A comma before exactly three digits is asked about.
 */
export function parseLength(text: string, fieldUnit: LengthUnit): ParsedLength {
  const example = `write a number such as ${EXAMPLE[fieldUnit]}`;
  const fail = (problem: string, remedy = example): ParsedLength => ({ ok: false, problem, remedy });

  const trimmed = plainSign(text.trim());
  if (trimmed === "") return fail("nothing was typed");
  const fraction = FRACTION.exec(trimmed);
  if (fraction) return parseFraction(fraction, fieldUnit);
  const match = WRITTEN.exec(trimmed);
  if (!match) return fail(`“${trimmed.slice(0, 40)}” is not a length`);
  const [, sign = "", whole = "", decimals = "", word = ""] = match;
  if (whole === "" && decimals === "") return fail(`“${trimmed.slice(0, 40)}” has no digits`);

  const unit = word === "" ? fieldUnit : UNIT_WORDS.get(word.toLowerCase());
  if (unit === undefined) return fail(`“${word}” is not a unit known here`, "use mm, µm, in or thou");
  const which = whichComma(/^[\d.,+-]*/.exec(trimmed)?.[0] ?? "");
  if (which) return fail(which.problem, which.remedy);

  const digits = BigInt(`${whole}${decimals}` || "0");
  return exactly(sign, digits, 10n ** BigInt(decimals.length), unit, word !== "");
}

/** Whether a text is written as a fraction of an inch, however it will be read; `0.40/0.45` is not. */
export function isFraction(text: string): boolean {
  const under = FRACTION.exec(plainSign(text.trim()))?.[4];
  return under !== undefined && DIVISIONS.includes(Number(under));
}

function parseFraction(
  [, sign = "", whole = "", over = "", under = "", word = ""]: RegExpExecArray,
  fieldUnit: LengthUnit,
): ParsedLength {
  const fail = (problem: string, remedy: string): ParsedLength => ({ ok: false, problem, remedy });
  const unit = word === "" ? fieldUnit : UNIT_WORDS.get(word.toLowerCase());
  if (unit === undefined) return fail(`“${word}” is not a unit known here`, "use mm, µm, in or thou");
  if (unit !== "in")
    return fail(
      "only inches are written as fractions",
      `write ${whole ? `${whole} ` : ""}${over}/${under} in, or the figure with its point`,
    );
  if (!DIVISIONS.includes(Number(under)))
    return fail(`no rule is divided into ${under.slice(0, 12)}`, "write the figure with its point");
  const parts = BigInt(under);
  return exactly(sign, BigInt(whole || "0") * parts + BigInt(over), parts, unit, word !== "");
}

/** So many parts of so many, if the length is whole nanometres. */
function exactly(
  sign: string,
  over: bigint,
  under: bigint,
  unit: LengthUnit,
  unitTyped: boolean,
): ParsedLength {
  const scaled = over * BigInt(NM_PER[unit]);
  if (scaled % under !== 0n)
    return {
      ok: false,
      problem: "more decimals than any gauge reads",
      remedy: `round it to ${unit === "mm" ? "0.0001 mm" : "0.00001 in"}`,
    };
  const magnitude = scaled / under;
  if (magnitude > BigInt(LONGEST))
    return { ok: false, problem: "that is over ten metres", remedy: "check the unit and the decimal point" };
  return { ok: true, length: nm(Number(sign === "-" ? -magnitude : magnitude)), unit, unitTyped };
}

const EXAMPLE: Readonly<Record<LengthUnit, string>> = { mm: "1.09", in: ".043", thou: "43", µm: "1090" };

/**
 * A length written in a document, such as `"1.80 mm"` or `"+0.03 mm"`: the unit must stand there.
 *
 * @throws RangeError with the text and the remedy when it is not one.
 */
export function lengthOf(text: string): Nm {
  const parsed = parseLength(text, "mm");
  if (!parsed.ok) throw new RangeError(`"${text}": ${parsed.problem}; ${parsed.remedy}`);
  if (!parsed.unitTyped) throw new RangeError(`"${text}" has no unit; write "${text.trim()} mm"`);
  return parsed.length;
}

/** A length as shown: the figure, its unit, and whether the figure is the length itself or rounded. */
export interface ShownLength {
  figure: string;
  unit: LengthUnit;
  exact: boolean;
}

/** How many decimals are always shown and how many at most, by unit. */
const DECIMALS: Readonly<Record<LengthUnit, { least: number; most: number }>> = {
  mm: { least: 2, most: 4 },
  in: { least: 3, most: 5 },
  thou: { least: 0, most: 2 },
  µm: { least: 0, most: 1 },
};

/**
 * Shows a length in a unit. A length that the unit can write within its decimals is written exactly, so what was typed in
 * a unit and is shown in it has the same digits; any other is rounded (halves away from zero) to `round` decimals.
 *
 * @param round decimals of a rounded figure; by default 3 for mm, 4 for in, 1 for thou, 0 for µm.
 */
export function showLength(length: Nm, unit: LengthUnit, round = ROUND[unit]): ShownLength {
  const { least, most } = DECIMALS[unit];
  const per = NM_PER[unit];
  for (let decimals = least; decimals <= most; decimals++) {
    if ((Math.abs(length) * 10 ** decimals) % per === 0) {
      return { figure: figure(length, per, decimals), unit, exact: true };
    }
  }
  return { figure: figure(length, per, Math.max(round, least)), unit, exact: false };
}

const ROUND: Readonly<Record<LengthUnit, number>> = { mm: 3, in: 4, thou: 1, µm: 0 };

/** Integer arithmetic throughout: toFixed would round the binary fraction, not the length. */
function figure(length: number, per: number, decimals: number): string {
  const scaled = BigInt(Math.abs(length)) * 10n ** BigInt(decimals);
  const unit = BigInt(per);
  const rounded = (scaled * 2n + unit) / (unit * 2n);
  const digits = rounded.toString().padStart(decimals + 1, "0");
  const sign = length < 0 && rounded !== 0n ? "−" : "";
  return decimals === 0 ? sign + digits : `${sign}${digits.slice(0, -decimals)}.${digits.slice(-decimals)}`;
}

/** `1.09 mm`, `0.043 in`; a rounded figure is marked `≈`. */
export function lengthText(length: Nm, unit: LengthUnit, round?: number): string {
  const shown = showLength(length, unit, round);
  return `${shown.exact ? "" : "≈"}${shown.figure} ${unit}`;
}

/** A length written exactly, in a unit where it can be, else in the other, else in micrometres: what is typed or kept never changes by where it is put. */
export function exactLength(length: Nm, unit: LengthUnit): ShownLength {
  const shown = ([unit, "in", "mm"] as const).map((one) => showLength(length, one)).find((one) => one.exact);
  // Three decimals of a micrometre are whole nanometres.
  return shown ?? { figure: figure(length, NM_PER.µm, 3), unit: "µm", exact: true };
}

/** A rounded figure without the mark, for derived values (means, uncertainties) that are never exact anyway. */
export function roundedText(length: Nm, unit: LengthUnit, round = ROUND[unit]): string {
  return `${figure(length, NM_PER[unit], Math.max(round, DECIMALS[unit].least))} ${unit}`;
}

/** A figure with its expanded uncertainty, the unit once: `1.230 ± 0.020 mm`. */
export const plusMinusText = (mean: Nm, expanded: Nm, unit: LengthUnit): string =>
  pairText(mean, "±", expanded, unit);

/**
 * Both limits, the unit once: `1.05 to 1.40 mm`. Limits are stated, not computed, so they are written exactly with as few decimals as
 * both need; where the unit cannot write them, they are rounded like any figure.
 */
export function rangeText(min: Nm, max: Nm, unit: LengthUnit): string {
  const { least, most } = DECIMALS[unit];
  for (let decimals = least; decimals <= most; decimals++) {
    if ([min, max].some((limit) => (Math.abs(limit) * 10 ** decimals) % NM_PER[unit] !== 0)) continue;
    return `${figure(min, NM_PER[unit], decimals)} to ${figure(max, NM_PER[unit], decimals)} ${unit}`;
  }
  return pairText(min, "to", max, unit);
}

const pairText = (a: Nm, between: string, b: Nm, unit: LengthUnit): string =>
  `${figure(a, NM_PER[unit], ROUND[unit])} ${between} ${figure(b, NM_PER[unit], ROUND[unit])} ${unit}`;

/** A difference with its sign: `+0.03 mm`, `−0.06 mm`. */
export function signedText(length: Nm, unit: LengthUnit): string {
  return `${length > 0 ? "+" : ""}${roundedText(length, unit)}`;
}
