import type { JobRecord } from "~store/jobs";
import { benchBook } from "./bench-book";

/** What every page of a job is made from. */
export const jobPage = ({ id, number, opened, book, facts, seq, houseValues, newer }: JobRecord) => ({
  ...{ id, number, opened, facts, seq, houseValues, newer },
  book: benchBook(book),
});
