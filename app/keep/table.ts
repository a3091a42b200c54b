import Papa from "papaparse";
import { harmless } from "~/print/harmless";
import { services } from "~/server/context";
import { moneyText } from "~core/quantity";
import { shelfTable } from "~store/restock";
import type { Route } from "./+types/table";

/** The shelf as a table: counted on paper or in a spreadsheet, it is taken in again as it is. */
export const loader = async ({ context }: Route.LoaderArgs): Promise<Response> => {
  const lines = await shelfTable(context.get(services).pool);
  const text = Papa.unparse(
    lines.map(({ part, name, bin, pieces, cents }) =>
      harmless({ part, name, bin, pieces: `${pieces}`, price: cents === null ? "" : moneyText(cents) }),
    ),
    { escapeFormulae: true, columns: ["part", "name", "bin", "pieces", "price"] },
  );
  return new Response(`\uFEFF${text}\r\n`, {
    headers: {
      "Content-Type": "text/csv; charset=utf-8",
      "Content-Disposition": 'attachment; filename="shelf.csv"',
    },
  });
};
