/**
 * Exact fractions over BigInt: conversion factors and gear trains are solved without rounding. Always in lowest terms with a
 * positive denominator, so that two equal fractions have equal fields.
 */
export interface Rational {
  readonly n: bigint;
  readonly d: bigint;
}

function gcd(a: bigint, b: bigint): bigint {
  let [x, y] = [a < 0n ? -a : a, b < 0n ? -b : b];
  while (y) [x, y] = [y, x % y];
  return x;
}

/** @returns n/d in lowest terms. @throws RangeError when d is zero. */
export function rational(n: bigint | number, d: bigint | number = 1n): Rational {
  const [top, bottom] = [BigInt(n), BigInt(d)];
  if (bottom === 0n) throw new RangeError(`${top}/0 is no number`);
  const shared = gcd(top, bottom) || 1n;
  const sign = bottom < 0n ? -1n : 1n;
  return { n: (sign * top) / shared, d: (sign * bottom) / shared };
}

/** 0, exactly. */
export const ZERO = rational(0);
/** 1, exactly. */
export const ONE = rational(1);

/** `a + b`, exactly. */
export const add = (a: Rational, b: Rational): Rational => rational(a.n * b.d + b.n * a.d, a.d * b.d);
/** `−a`. */
export const negate = (a: Rational): Rational => ({ n: -a.n, d: a.d });
/** `a − b`, exactly. */
export const subtract = (a: Rational, b: Rational): Rational => add(a, negate(b));
/** `a · b`, exactly. */
export const multiply = (a: Rational, b: Rational): Rational => rational(a.n * b.n, a.d * b.d);
/** @throws RangeError when b is zero. */
export const divide = (a: Rational, b: Rational): Rational => rational(a.n * b.d, a.d * b.n);
/** Whether it is exactly nothing. */
export const isZero = (a: Rational): boolean => a.n === 0n;
/** −1, 0 or 1. */
export const sign = (a: Rational): -1 | 0 | 1 => (a.n < 0n ? -1 : a.n > 0n ? 1 : 0);
/** Negative, zero or positive as a is below, equal to or above b. */
export const compare = (a: Rational, b: Rational): number => sign(subtract(a, b));

/** The nearest double: for drawing and showing, never for deciding. */
export const toNumber = (a: Rational): number => Number(a.n) / Number(a.d);

const DECIMAL = /^([+\-−]?)(\d*)(?:[.,](\d*))?$/u;

/** A decimal as people write it (`31`, `.043`, `1,09`, `−0.5`), exactly; null when it is not one. */
export function parseDecimal(text: string): Rational | null {
  const match = DECIMAL.exec(text.trim());
  if (!match) return null;
  const [, minus = "", whole = "", fraction = ""] = match;
  if (whole === "" && fraction === "") return null;
  const digits = BigInt(`${whole}${fraction}`);
  return rational(minus === "-" || minus === "−" ? -digits : digits, 10n ** BigInt(fraction.length));
}

/** A fraction as a decimal of so many places, halves away from zero, and whether it is the fraction itself. */
export function toDecimal(a: Rational, places: number): { figure: string; exact: boolean } {
  const scaled = (a.n < 0n ? -a.n : a.n) * 10n ** BigInt(places);
  const rounded = (scaled * 2n + a.d) / (a.d * 2n);
  const digits = rounded.toString().padStart(places + 1, "0");
  const minus = a.n < 0n && rounded !== 0n ? "−" : "";
  const figure = places === 0 ? digits : `${digits.slice(0, -places)}.${digits.slice(-places)}`;
  return { figure: minus + figure, exact: scaled % a.d === 0n };
}
