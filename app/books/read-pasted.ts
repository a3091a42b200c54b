import Papa from "papaparse";
import { unguarded } from "~/table/table-file";
import {
  recognise,
  TABLES,
  takeIn,
  type Recognised,
  type TableName,
  type TableRow,
  type TakenAs,
} from "~core/table";

/** More lines nobody pastes of one unit. */
const MOST_LINES = 2_000;

/** A table as it was pasted: its heading, its cells, and what it was taken for. */
export interface Pasted extends Recognised {
  headings: string[];
  cells: string[][];
  /** What is wrong with the table as a whole; empty where it can be read. */
  problem: string;
}

/**
 * Reads a table as a spreadsheet wrote it: commas, semicolons or tabs between its cells.
 *
 * @param as which table somebody said it is; and by place what its columns are, where that was corrected: empty for one that is passed over.
 */
export function readPasted(
  text: string,
  as: { table?: TableName | undefined; columns?: readonly (string | undefined)[] },
): Pasted {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ""), {
    skipEmptyLines: "greedy",
    transform: (value) => unguarded(value.trim()),
  });
  const [headings = [], ...cells] = data;
  const found = recognise(headings, cells, as.table);
  const own = new Set<string>(TABLES[found.table].map(({ key }) => key));
  const columns = found.columns.map((key, i) => {
    const said = as.columns?.[i];
    return said === undefined || (said !== "" && !own.has(said) && !said.startsWith("element:"))
      ? key
      : said || null;
  });
  const missing = TABLES[found.table].filter((one) => "must" in one && !columns.includes(one.key));
  const twice = columns.find((key, i) => key !== null && columns.indexOf(key) < i);
  const problem =
    cells.length === 0
      ? "Paste the headings and at least one row below them."
      : cells.length > MOST_LINES
        ? `Over ${MOST_LINES} rows: take them in as several tables.`
        : missing.length > 0
          ? `Which column is ${missing.map(({ words }) => `“${words}”`).join(", and which ")}?`
          : twice !== undefined
            ? `Two columns are “${twice}”: one of them is something else.`
            : "";
  return { table: found.table, columns, headings, cells, problem };
}

/** The rows by their columns. */
export const rowsOf = ({ columns, cells }: Pasted): TableRow[] =>
  cells.map((row) =>
    Object.fromEntries(columns.flatMap((key, i) => (key === null ? [] : [[key, row[i] ?? ""] as const]))),
  );

/** What a document becomes with the rows of a pasted table; rows with a fault are left out and told. */
export const withPasted = (document: unknown, pasted: Pasted, as: TakenAs) =>
  takeIn(document, pasted.table, rowsOf(pasted), as);
