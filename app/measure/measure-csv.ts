import Papa from "papaparse";
import type { Route } from "./+types/measure-csv";
import { harmless } from "~/print/harmless";
import { sheetOf } from "./sheet-of";
import { standsAs } from "./stands-as";

/** The spec sheet as a table any spreadsheet opens. */
export const loader = async ({ context, params, request }: Route.LoaderArgs): Promise<Response> => {
  const { record, lines } = await sheetOf(context, params.number, request);
  const text = Papa.unparse(
    lines.map(({ id, name, kind, station, spec, found, built, earlier }) =>
      harmless({
        id,
        name,
        kind,
        station,
        spec,
        "earlier visit": earlier?.text ?? "",
        "moved since": earlier?.moved ?? "",
        "as found": found.text,
        "as found is": standsAs(found),
        "as found by": found.by,
        "as built": built.text,
        "as built is": standsAs(built),
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
