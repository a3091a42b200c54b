import { bookFoot } from "~/look/source";
import { unitWords } from "~/sheet/sheet-lines";
import { handOver, printed } from "~/server/beside";
import { fold } from "~core/fact";
import type { PhaseFigure } from "~core/measure";
import type { Route } from "./+types/measure-pdf";
import { sheetOf } from "./sheet-of";
import { standsAs } from "./stands-as";

const COLUMNS = [
  { words: "Figure", part: 0.28 },
  { words: "At", part: 0.11 },
  { words: "Spec", part: 0.21 },
  { words: "As found", part: 0.15 },
  { words: "", part: 0.08 },
  { words: "As built", part: 0.11 },
  { words: "", part: 0.06 },
];

/** The spec sheet on paper, for the unit's folder. */
export const loader = async ({ context, params, request }: Route.LoaderArgs): Promise<Response> => {
  const { record, house, lines } = await sheetOf(context, params.number, request);
  const { book } = record;
  const job = fold(record.facts);
  const quiet = (figure: PhaseFigure): string => (figure.standing === "not yet" ? "" : standsAs(figure));
  const pdf = await printed({
    what: "sheet",
    sheet: {
      title: `Spec sheet · job ${record.number}`,
      shop: house.shopName,
      facts: [
        ["Vehicle", job.booking?.body.vehicle ?? ""],
        ["Unit", unitWords(book, job.configuration)],
      ],
      told: [],
      columns: COLUMNS,
      lines: lines.map(({ name, station, spec, found, built }) => [
        ...[name, station, spec, found.text, quiet(found), built.text, quiet(built)],
      ]),
      foot: `± is the expanded uncertainty (95 %). Limits are of ${bookFoot(book)}`,
    },
  });
  return handOver(pdf, `spec-sheet-${record.number}`);
};
