import { services } from "~/server/context";
import { tableFile } from "~/table/table-file";
import { moneyText } from "~core/quantity";
import { shelfTable } from "~store/restock";
import type { Route } from "./+types/table";

/** The shelf as a table: counted on paper or in a spreadsheet, it is taken in again as it is. */
export const loader = async ({ context }: Route.LoaderArgs): Promise<Response> => {
  const lines = await shelfTable(context.get(services).pool);
  return tableFile(
    lines.map(({ part, name, bin, pieces, cents }) => ({
      part,
      name,
      bin,
      pieces: `${pieces}`,
      price: cents === null ? "" : moneyText(cents),
    })),
    "shelf",
    ["part", "name", "bin", "pieces", "price"],
  );
};
