import { type Problem } from "~core/book";
import { readBook } from "~core/check";
import { ratioText, solveRanges } from "~core/gears";

export interface Checked {
  turn: number;
  problems: Problem[];
  warnings: Problem[];
  /** What the tooth counts make of each range, in words; empty while the document is no book. */
  solved: Record<string, string>;
}

function solvedOf(document: unknown): Record<string, string> {
  const read = readBook(document, "kept");
  if (!read.ok || read.book.gearSets.length === 0) return {};
  return Object.fromEntries(
    solveRanges(read.book).map(({ range, behaviour, fault }) => [
      range.id,
      fault ??
        (behaviour.ratio
          ? `With these counts it is ${ratioText(behaviour.ratio)}; listed ${range.ratio}.`
          : "Nothing can be solved of it yet."),
    ]),
  );
}

/** The whole check of a book, beside the thread that types. */
self.onmessage = ({ data: { turn, document } }: MessageEvent<{ turn: number; document: unknown }>): void => {
  const read = readBook(document);
  const checked: Checked = {
    turn,
    problems: read.ok ? [] : read.problems,
    warnings: read.warnings,
    solved: solvedOf(document),
  };
  self.postMessage(checked);
};
