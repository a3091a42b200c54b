import { capital, isFromShelf, selectiveWord, type AppliedChain } from "~core/book";
import { evaluate } from "~core/chain";
import type { MeasuredLink } from "~core/fact";
import { plausible } from "~core/pack";
import { lengthText, nm, type LengthUnit } from "~core/quantity";
import { question, type Summed, parseReading } from "~core/reading";
import { isPackChain, type Worksheet } from "~core/measure";
import { MICROMETER_U, thickness } from "~core/select";

/** Depth gauges read to a hundredth here: half-width 10 µm, rectangular. */
const DEPTH_U = 10_000 / Math.sqrt(3);

/** Links measured together: a depth, the plates of one kind, the ring. */
export interface LinkGroup {
  id: string;
  words: string;
  count: number;
  sign: 1 | -1;
  /** Standard uncertainty of one of them, nm. */
  u: number;
}

/** What has to be measured for a figure by the numbers, in the order it lies: of a pack its depth, its plates and what closes it. */
export function linkGroups(applied: AppliedChain): LinkGroup[] {
  const { chain, seats } = applied;
  if (!isPackChain(applied))
    return chain.links
      .filter(([, kind]) => kind === "measured" || kind === "machined")
      .map(([sign, , name], i) => ({
        id: `link-${i}`,
        words: capital(name),
        count: 1,
        u: DEPTH_U,
        sign: sign === "+" ? (1 as const) : (-1 as const),
      }));
  const { stack } = applied;
  const plates = stack
    .filter(({ role, seat }) => role !== "piston" && seat === undefined)
    .map(({ role, count = 1 }, i): LinkGroup => {
      const words = count > 1 ? `${role}s, all ${count}` : role;
      return { id: `plate-${i}`, words, count, sign: -1, u: MICROMETER_U };
    });
  const ring = seats.filter(isFromShelf).map(({ id, kind, name, sign }, i): LinkGroup => ({
    id: i === 0 ? "ring" : id,
    count: 1,
    sign,
    u: MICROMETER_U,
    words: seats.length > 1 ? capital(name) : capital(kind),
  }));
  const depth = "Depth, piston seated to loaded groove face";
  return [{ id: "depth", words: depth, count: 1, sign: 1, u: DEPTH_U }, ...plates, ...ring];
}

/** Several values of one group: spaces or semicolons stand between them, a comma is a decimal mark. */
export const valuesOf = (typed: string | undefined): string[] =>
  (typed ?? "")
    .trim()
    .split(/[\s;]+(?=[\d.,])/)
    .filter((value) => value !== "");

export type ReadLinks =
  | { ok: true; reading: Summed; links: MeasuredLink[] }
  | { ok: false; problems: Record<string, string> };

/**
 * Reads what was typed for each group and works the chain out. Every link must be there: one taken from the book would pretend.
 */
export function readLinks(
  sheet: Pick<Worksheet, "applied" | "seats">,
  typed: Readonly<Record<string, string>>,
  unit: LengthUnit,
): ReadLinks {
  const { applied } = sheet;
  const problems: Record<string, string> = {};
  const links: MeasuredLink[] = [];
  for (const { id, words, count, sign, u } of linkGroups(applied)) {
    const values = valuesOf(typed[id]);
    if (values.length !== count) {
      problems[id] = count === 1 ? "measure it" : `${count} values with spaces between, got ${values.length}`;
      continue;
    }
    for (const value of values) {
      const parsed = parseReading(value, unit);
      if (parsed.ok) links.push({ name: words, sign, value: parsed.length, uncertainty: nm(Math.ceil(u)) });
      else problems[id] = `${parsed.problem}; ${parsed.remedy}`;
    }
  }
  if (!isPackChain(applied))
    for (const { link, fitted } of sheet.seats) {
      const is = fitted && thickness(fitted, link.tolerance);
      if (is)
        links.push({
          name: link.name,
          sign: link.sign,
          value: is.value,
          uncertainty: nm(Math.ceil(is.uncertainty)),
        });
      else problems[linkGroups(applied)[0]?.id ?? ""] = `say first which ${selectiveWord(link)} is in`;
    }
  if (Object.keys(problems).length > 0) return { ok: false, problems };
  const reading = evaluate(links);
  if (question(reading.value, unit, plausible(applied))) {
    return {
      ok: false,
      problems: {
        [linkGroups(applied)[0]?.id ?? "depth"]:
          `these make ${lengthText(reading.value, unit)}, which cannot be; one of them is off`,
      },
    };
  }
  return { ok: true, reading, links };
}
