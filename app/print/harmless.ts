/** Where a spreadsheet takes a semicolon or a tab for the end of a cell, what follows begins a cell: no formula may. */
const text = (words: string): string => words.replace(/([;\t\r\n|])(?=\s*[=+@-])/g, "$1'");

/** A row of a table for any spreadsheet, none of whose cells is run by whoever opens it. */
export const harmless = (row: Readonly<Record<string, string>>): Record<string, string> =>
  Object.fromEntries(Object.entries(row).map(([name, words]) => [name, text(words)]));
