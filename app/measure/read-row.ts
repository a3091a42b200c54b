import { readIntake, type Fields } from "~/say/form";
import { readTyped, type TypedReading } from "~/reading/typed";
import type { Book } from "~core/book";
import { ANSWERS, CLOCKING, DEPTH, type SpecLine, type SpecLineItem } from "~core/measure";
import { type Cannot, type FactBody, type Phase } from "~core/fact";
import { isFraction, parseLength, type LengthUnit } from "~core/quantity";
import { READINGS_NEEDED } from "~core/reading";

/** Keys for a figure that cannot be taken: recorded as what it is. */
export const INSTEAD: Readonly<Record<string, Cannot>> = {
  f: "felt-only-in-order",
  x: "felt-only-not-in-order",
  s: "seen-only",
  n: "thinnest-blade-does-not-enter",
  d: "passes-with-drag",
  w: "gauge-not-here-yet",
  c: "cannot-be-reached",
};

export type ReadRow = { ok: true; bodies: FactBody[] } | { ok: false; problem: string };

/**
 * What was typed into one row of the spec sheet. Several readings stand in one go, apart by a blank; a letter says why there is none.
 *
 * @param unit what a length without a unit is in.
 */
export function readRow(row: SpecLine, typed: string, phase: Phase, unit: LengthUnit, book: Book): ReadRow {
  const text = typed.trim();
  const instead = Object.entries(INSTEAD).find(([key]) => key === text.toLowerCase())?.[1];
  const open = openItems(row, phase);
  if (instead !== undefined) {
    const of = row.subject === "measurement" ? "measurement" : "chain";
    const fields = { kind: "figure", of, id: row.id, cannot: instead, phase };
    if (row.items.length === 0) return all([readIntake(fields, book, "")]);
    return all(
      (open.length > 0 ? open : row.items).map(({ item }) =>
        readIntake(itemFields(fields, item.name), book, ""),
      ),
    );
  }
  const tokens = apart(text);
  if (tokens.length === 0)
    return { ok: false, problem: text === "" ? "Type the reading." : `“${text}” is no figure.` };
  // The depth of a pressed-in part is read several times before the way it is turned is told.
  const [next] = open;
  if (next?.item.name === DEPTH)
    return all(tokens.map((each) => readItem(row, DEPTH, each, phase, unit, book)));
  const items = open.length > 0 ? open : row.items;
  if (row.items.length > 0 && tokens.length > items.length)
    return {
      ok: false,
      problem: `${tokens.length} figures for ${items.length}: ${items.map(({ item }) => item.name).join(", ")}.`,
    };
  if (row.subject === "measurement" && row.items.length === 0)
    return all([readIntake({ kind: "figure", of: "measurement", id: row.id, text, phase }, book, "")]);
  return all(
    tokens.map((one, i) => {
      const item = items[i]?.item.name;
      return row.sheet && item === undefined
        ? readTyped(one, unit, row.sheet, phase, false)
        : withFit(readItem(row, item, one, phase, unit, book), row, phase);
    }),
  );
}

/** What is read as built is read with what is in now. */
const withFit = (read: ReturnType<typeof readIntake>, { sheet }: SpecLine, phase: Phase): typeof read =>
  read.ok && read.body.kind === "reading" && sheet && phase === "built"
    ? { ...read, body: { ...read.body, fit: sheet.fit } }
    : read;

/** Those of a row’s things that nothing is said of yet, or not enough. */
export const openItems = (row: SpecLine, phase: Phase): SpecLineItem[] =>
  row.items.filter((each) => {
    const { standing } = each[phase];
    return standing === "not yet" || (each.item.name === DEPTH && standing === "too few");
  });

/** Whether nothing of a row is open any more once these facts are said. */
export function leaves(row: SpecLine, phase: Phase, bodies: readonly FactBody[]): boolean {
  const told = new Set(bodies.map((body) => ("item" in body ? body.item : undefined) ?? DEPTH));
  return openItems(row, phase).every(
    (each) =>
      told.has(each.item.name) &&
      (each.item.name !== DEPTH || each[phase].readings.length + bodies.length >= READINGS_NEEDED.single),
  );
}

/** One figure of one of a row’s things, or of the row itself. An answer may be given by its number. */
export function readItem(
  row: SpecLine,
  item: string | undefined,
  text: string,
  phase: Phase,
  unit: LengthUnit,
  book: Book,
): ReturnType<typeof readIntake> {
  const answers = item === CLOCKING ? answersOf(CLOCKING) : answersOf(row.kind);
  if (answers.length > 0) {
    const answer = answers[Number(text) - 1] ?? (answers.includes(text) ? text : undefined);
    if (answer === undefined)
      return { ok: false, problems: { text: answers.map((one, i) => `${i + 1} ${one}`).join(", ") } };
    return readIntake(
      itemFields({ kind: "figure", of: row.subject, id: row.id, text: answer, phase }, item),
      book,
      "",
    );
  }
  const fields: Fields =
    row.subject === "measurement"
      ? { kind: "figure", of: "measurement", id: row.id, text, phase }
      : { kind: "reading", chain: row.id, value: text, unit, phase };
  return readIntake(itemFields(fields, item), book, "");
}

/** What can be answered of a kind of figure that nothing is measured of, the good answer first. */
export const answersOf = (kind: string): string[] => Object.keys(ANSWERS[kind] ?? {});

/** The depth of a pressed-in part is the chain’s own figure; only the way it is turned is told apart. */
const itemFields = (fields: Fields, item: string | undefined): Fields =>
  item === undefined || item === DEPTH ? fields : { ...fields, item };

/** Readings apart by blanks; a unit after its figure stays with it, and what is one figure with a blank in it stays whole. */
const apart = (text: string): string[] =>
  parseLength(text, "mm").ok || isFraction(text) ? [text] : text.split(/\s+(?=[-+.\d])/).filter(Boolean);

const firstOf = (problems: Readonly<Record<string, string>>): string => Object.values(problems)[0] ?? "";
/** What a single one makes. */
export const one = (read: ReturnType<typeof readIntake>): ReadRow => all([read]);

/** All of them, or what is wrong with the first that is. */
function all(read: readonly (ReturnType<typeof readIntake> | TypedReading)[]): ReadRow {
  const bodies: FactBody[] = [];
  for (const one of read) {
    if (!one.ok) return { ok: false, problem: "problem" in one ? one.problem : firstOf(one.problems) };
    bodies.push(one.body);
  }
  return { ok: true, bodies };
}
