import Papa from "papaparse";
import { unguarded } from "./table-file";
import { readFields, type Form, type Values } from "~core/shape";

/** A table that was read, line by line; or what is wrong with it, by line. Nothing is taken of one that has a fault. */
export type ReadTable<T> = { ok: true; rows: T[] } | { ok: false; problems: string[] };

const MOST_LINES = 20_000;
const SHOWN = 8;

/**
 * A table with a heading, as a spreadsheet wrote it: commas, semicolons or tabs between its columns; columns it does not know are passed over.
 *
 * @param line the columns; lines are named after their `part`.
 * @param must columns that have to be there.
 * @param example how the first line should read.
 */
export function readTable<F extends Form>(
  text: string,
  line: F,
  { must, example }: { must: readonly string[]; example: string },
): ReadTable<Values<F>> {
  const { data, meta } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ""), {
    header: true,
    skipEmptyLines: "greedy",
    transformHeader: (name) => name.trim().toLowerCase(),
    transform: (value) => unguarded(value.trim()),
  });
  const columns = meta.fields ?? [];
  const missing = must.filter((name) => !columns.includes(name));
  if (missing.length > 0)
    return {
      ok: false,
      problems: [`The first line has no column “${missing.join("” and no “")}”; it should read: ${example}`],
    };
  if (data.length === 0) return { ok: false, problems: ["There is no line below the first."] };
  if (data.length > MOST_LINES)
    return { ok: false, problems: [`Over ${MOST_LINES} lines; take it in as several lists.`] };
  const problems: string[] = [];
  const rows: Values<F>[] = [];
  data.forEach((typed, i) => {
    const read = readFields(line, typed);
    if (read.ok) {
      rows.push(read.values);
      return;
    }
    const [column = "", says] = Object.entries(read.problems)[0] ?? [];
    const of = column === "part" ? "" : `, ${typed.part}: “${typed[column] ?? ""}”`;
    // The first line names the columns.
    problems.push(`Line ${i + 2}${of}${of ? " " : ": "}${says}`);
  });
  if (problems.length === 0) return { ok: true, rows };
  const more = problems.length - SHOWN;
  return {
    ok: false,
    problems: [...problems.slice(0, SHOWN), ...(more > 0 ? [`and ${more} more like these.`] : [])],
  };
}
