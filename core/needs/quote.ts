import { moneyText } from "../quantity";
import type { Need } from "./needs";

/** One line of a quote; null where nobody knows its price. */
export interface QuoteLine {
  /** The same as long as the thing is: two lines may be called the same. */
  id: string;
  what: string;
  cents: number | null;
}

/** What the parts of a job come to, at the prices of single parts. */
export interface Quote {
  lines: QuoteLine[];
  /** In whole cents, without what has no price. */
  parts: number;
  unpriced: number;
}

/**
 * What a list of needs costs.
 *
 * @param prices in whole cents, by number.
 */
export function quoteOf(
  needs: readonly Pick<Need, "id" | "name" | "number" | "count">[],
  prices: ReadonlyMap<string, number>,
): Quote {
  const lines = needs.map(({ id, name, number, count }): QuoteLine => {
    const each = number === null ? undefined : prices.get(number);
    return { id, what: name, cents: each === undefined ? null : each * count };
  });
  return {
    lines,
    parts: lines.reduce((sum, { cents }) => sum + (cents ?? 0), 0),
    unpriced: lines.filter(({ cents }) => cents === null).length,
  };
}

/** A quote as the customer was given it. */
export interface Given {
  parts: number;
  labour: number;
  lines: readonly { id: string; what: string; cents?: number | undefined }[];
}

/** What became of a quote, in words: what it said, what the parts come to now, and line by line what makes the difference. */
export function quoteChanges(given: Given, now: Quote): string[] {
  const then = new Map(given.lines.map((line) => [line.id, line]));
  const is = new Set(now.lines.map(({ id }) => id));
  const money = (cents: number | null | undefined): string =>
    cents === null || cents === undefined ? "no price" : moneyText(cents);
  const changes = [
    ...now.lines.flatMap(({ id, what, cents }) => {
      const was = then.get(id);
      if (!was) return [`added: ${what}, ${money(cents)}`];
      return (was.cents ?? null) === cents ? [] : [`${what}: ${money(was.cents)}, now ${money(cents)}`];
    }),
    ...given.lines.flatMap(({ id, what }) => (is.has(id) ? [] : [`not wanted after all: ${what}`])),
  ];
  return [
    `Quoted: parts ${moneyText(given.parts)}, work ${moneyText(given.labour)}, together ${moneyText(given.parts + given.labour)}`,
    changes.length === 0
      ? "Nothing has changed since"
      : `Parts come to ${moneyText(now.parts)} now, work as quoted: together ${moneyText(now.parts + given.labour)}`,
    ...changes,
  ];
}
