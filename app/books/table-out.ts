import { services } from "~/server/context";
import { tableFile } from "~/table/table-file";
import { TABLES, writeOut, type Column, type TableName } from "~core/table";
import { bookById, revisionsOf } from "~store/books";
import type { Route } from "./+types/table-out";

/** One of a book’s tables as a file for any spreadsheet, which can be taken in again. */
export const loader = async ({ context, params }: Route.LoaderArgs): Promise<Response> => {
  const { pool } = context.get(services);
  const newest = (await revisionsOf(pool, params.unit))[0];
  const table = params.table.replace(/\.csv$/, "");
  if (!newest || !Object.hasOwn(TABLES, table))
    throw new Response("There is no such table here.", { status: 404 });
  const name = table as TableName;
  const rows = writeOut((await bookById(pool, newest.id)).document, name);
  const columns: readonly Column[] = TABLES[name];
  const words = (key: string): string =>
    columns.find((one) => one.key === key)?.words ?? key.replace(/^element:/, "");
  const others = [...new Set(rows.flatMap((row) => Object.keys(row)))].filter(
    (key) => !columns.some((one) => one.key === key),
  );
  return tableFile(
    rows.map((row) => Object.fromEntries(Object.entries(row).map(([key, cell]) => [words(key), cell]))),
    `${params.unit}-${name}`,
    [...columns.map((one) => one.words), ...others.map(words)],
  );
};
