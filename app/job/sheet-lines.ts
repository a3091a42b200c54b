import { verdictWords } from "~/look/mark";
import { lastAt, readers, type ReadingSet, type Worksheet } from "~core/job";
import { plusMinusText, rangeText, type LengthUnit } from "~core/quantity";
import { pieceText } from "./piece-text";

/** One pack on the build sheet, in words: the page and the PDF say the same. */
export interface SheetLine {
  pack: string;
  name: string;
  spec: string;
  found: string;
  chosen: string;
  built: string;
  verdict: string;
  /** Who took the as-built readings, or signed, and when. */
  who: string;
}

const figure = ({ assessment: { estimate } }: ReadingSet, unit: LengthUnit): string =>
  estimate ? plusMinusText(estimate.mean, estimate.expanded, unit) : "not read";

const day = (at: string | null): string => (at ? at.slice(0, 16).replace("T", " ") : "");

export function sheetLine(sheet: Worksheet, unit: LengthUnit): SheetLine {
  const { applied, found, built, waiver, fitted, choice } = sheet;
  const { min, max, state } = applied.spec;
  const common = {
    pack: applied.pack.element.toUpperCase(),
    name: applied.pack.name,
    spec: `${rangeText(min, max, unit)}, ${state.soak}${applied.house ? ", house limit" : ""}`,
    found: figure(found, unit),
    chosen: choice && fitted ? `${pieceText(fitted, unit)}${choice.body.kept ? " (kept)" : ""}` : "none",
  };
  if (waiver) {
    return {
      ...common,
      built: figure(built, unit),
      verdict: `Signed: ${waiver.body.reason}`,
      who: `${waiver.body.signedBy}, ${day(waiver.at)}`,
    };
  }
  return {
    ...common,
    built: figure(built, unit),
    verdict: built.readings.length > 0 ? verdictWords(built.assessment.verdict, unit) : "not read",
    who: `${readers(built).join(", ")} ${day(lastAt(built))}`.trim(),
  };
}

/** What was seen of the unit, in the book's words. */
export const configurationText = (
  traits: readonly { id: string; values: Record<string, { name: string }> }[],
  configuration: Readonly<Record<string, string>>,
): string =>
  traits.map(({ id, values }) => values[configuration[id] ?? ""]?.name ?? `${id} not seen`).join(", ");
