import type { Route } from "./+types/measure-csv";
import { tableFile } from "~/table/table-file";
import { sheetOf } from "./sheet-of";
import { standsAs } from "./stands-as";

/** The spec sheet as a table any spreadsheet opens. */
export const loader = async ({ context, params, request }: Route.LoaderArgs): Promise<Response> => {
  const { record, lines } = await sheetOf(context, params.number, request);
  return tableFile(
    lines.map(({ id, name, kind, station, spec, found, built, earlier }) => ({
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
    })),
    `spec-sheet-${record.number}`,
  );
};
