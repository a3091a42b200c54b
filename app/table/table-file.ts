import Papa from "papaparse";

/** Where a spreadsheet takes a semicolon or a tab for the end of a cell, what follows begins a cell: no formula may. */
const guarded = (words: string): string => words.replace(/([;\t\r\n|])(?=\s*[=+@-])/g, "$1'");

/** What a cell said before it was guarded: a table that went out comes in again as it was. */
export const unguarded = (cell: string): string =>
  cell.replace(/^'(?=[=+@\t\r-])/, "").replace(/([;\t\r\n|])'(?=\s*[=+@-])/g, "$1");

/**
 * Rows as a table for any spreadsheet, none of whose cells is run by whoever opens it.
 *
 * @param rows their keys are the columns.
 * @param columns where there may be no row.
 */
export const tableText = (rows: readonly Readonly<Record<string, string>>[], columns?: string[]): string =>
  Papa.unparse(
    rows.map((row) => Object.fromEntries(Object.entries(row).map(([name, words]) => [name, guarded(words)]))),
    { escapeFormulae: true, ...(columns ? { columns } : {}) },
  );

/** The answer that hands rows over as a file of this name. */
export const tableFile = (
  rows: readonly Readonly<Record<string, string>>[],
  name: string,
  columns?: string[],
): Response =>
  new Response(`\uFEFF${tableText(rows, columns)}\r\n`, {
    headers: {
      "Content-Type": "text/csv; charset=utf-8",
      "Content-Disposition": `attachment; filename="${name}.csv"`,
    },
  });
