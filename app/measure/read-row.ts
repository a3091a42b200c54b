import { readIntake } from "~/intake/intake-form";
import { readTyped } from "~/job/typed";
import type { Book } from "~core/book";
import type { Cannot, FactBody, Phase, Row } from "~core/job";
import type { LengthUnit } from "~core/quantity";

/** Keys for a figure that cannot be taken: recorded as what it is. */
export const INSTEAD: Readonly<Record<string, Cannot>> = {
  f: "felt only, in order",
  x: "felt only, not in order",
  s: "seen only",
  n: "thinnest blade does not enter",
  d: "passes with drag",
  w: "gauge not here yet",
  c: "cannot be reached",
};

export type ReadRow = { ok: true; bodies: FactBody[] } | { ok: false; problem: string };

/**
 * What was typed into one row of the spec sheet. Several readings stand in one go, apart by a blank; a letter says why there is none.
 *
 * @param unit what a length without a unit is in.
 */
export function readRow(row: Row, typed: string, phase: Phase, unit: LengthUnit, book: Book): ReadRow {
  const text = typed.trim();
  const instead = INSTEAD[text.toLowerCase()];
  if (instead !== undefined) {
    if (row.of === "pack") return { ok: false, problem: "A pack is judged by readings: type the clearance." };
    return said(readIntake({ kind: "figure", of: row.of, id: row.id, cannot: instead, phase }, book, ""));
  }
  if (row.of === "measurement")
    return said(readIntake({ kind: "figure", of: "measurement", id: row.id, text, phase }, book, ""));
  const bodies: FactBody[] = [];
  for (const one of apart(text)) {
    const read = row.sheet
      ? readTyped(one, unit, row.sheet, phase, false)
      : readIntake({ kind: "reading", chain: row.id, value: one, unit, phase }, book, "");
    if (!read.ok) return { ok: false, problem: "problem" in read ? read.problem : firstOf(read.problems) };
    bodies.push(read.body);
  }
  return bodies.length > 0 ? { ok: true, bodies } : { ok: false, problem: "Type the reading." };
}

/** Readings apart by blanks; a unit after its figure stays with it. */
const apart = (text: string): string[] => text.split(/\s+(?=[-+.\d])/).filter(Boolean);

const firstOf = (problems: Readonly<Record<string, string>>): string => Object.values(problems)[0] ?? "";
const said = (read: ReturnType<typeof readIntake>): ReadRow =>
  read.ok ? { ok: true, bodies: [read.body] } : { ok: false, problem: firstOf(read.problems) };
