import Papa from "papaparse";
import type { Route } from "./+types/measure-csv";
import { sheetOf } from "./sheet-of";

/** Where a spreadsheet takes a semicolon or a tab for the end of a cell, what follows begins a cell: no formula may. */
const harmless = (text: string): string => text.replace(/([;\t\r\n|])(?=\s*[=+@-])/g, "$1'");
const mapped = (row: Record<string, string>): Record<string, string> =>
  Object.fromEntries(Object.entries(row).map(([name, text]) => [name, harmless(text)]));

/** The spec sheet as a table any spreadsheet opens. */
export const loader = async ({ context, params, request }: Route.LoaderArgs): Promise<Response> => {
  const { record, lines } = await sheetOf(context, params.number, request);
  const text = Papa.unparse(
    lines.map(({ id, name, kind, station, spec, found, built, earlier }) =>
      mapped({
        id,
        name,
        kind,
        station,
        spec,
        "earlier visit": earlier?.text ?? "",
        "moved since": earlier?.moved ?? "",
        "as found": found.text,
        "as found is": found.standing,
        "as found by": found.by,
        "as built": built.text,
        "as built is": built.standing,
        "as built by": built.by,
      }),
    ),
    // A name that begins with = or @ must not be run by whoever opens it.
    { escapeFormulae: true },
  );
  return new Response(`\uFEFF${text}\r\n`, {
    headers: {
      "Content-Type": "text/csv; charset=utf-8",
      "Content-Disposition": `attachment; filename="spec-sheet-${record.number}.csv"`,
    },
  });
};
