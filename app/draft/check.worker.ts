import { type Problem } from "~core/book";
import { readBook } from "~core/check";

export interface Checked {
  turn: number;
  problems: Problem[];
  warnings: Problem[];
}

/** The whole check of a book, beside the thread that types. */
self.onmessage = ({ data: { turn, document } }: MessageEvent<{ turn: number; document: unknown }>): void => {
  const read = readBook(document);
  const checked: Checked = { turn, problems: read.ok ? [] : read.problems, warnings: read.warnings };
  self.postMessage(checked);
};
