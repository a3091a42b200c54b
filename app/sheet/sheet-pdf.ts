import { bookFoot } from "~/look/source";
import { openOf } from "~core/stage";
import { signedWords } from "./closing";
import { whenIn } from "~/door/when";
import { handOver, printed } from "~/server/beside";
import { jobContext } from "~/server/job-context";
import { becomes, depthsOf } from "~core/fact";
import { chosenSheets, houseOf, ruleOf } from "~core/measure";
import type { Route } from "./+types/sheet-pdf";
import {
  unitWords,
  endedUnbuilt,
  isUnbuilt,
  endedWords,
  intakeLines,
  sheetLine,
  sheetTitle,
  type SheetLine,
} from "./sheet-lines";

const COLUMNS: { words: string; of: keyof SheetLine; part: number }[] = [
  { words: "Figure", of: "pack", part: 0.12 },
  { words: "Spec", of: "spec", part: 0.16 },
  { words: "As found", of: "found", part: 0.15 },
  { words: "Chosen", of: "chosen", part: 0.17 },
  { words: "As built", of: "built", part: 0.15 },
  { words: "Verdict", of: "verdict", part: 0.11 },
  { words: "Who, when", of: "who", part: 0.14 },
];

/** The build sheet as one A4 page that also fits Letter. */
export const loader = async ({ context, params, request }: Route.LoaderArgs): Promise<Response> => {
  const { record, job, applied, house } = await jobContext(context, params.number);
  const { book } = record;
  const when = whenIn(house.timeZone);
  const asked = new URL(request.url).searchParams.get("unit");
  const unit = asked === "mm" || asked === "in" ? asked : book.unit.lengthUnit;
  const depths = depthsOf(book, job);
  const unbuilt = endedUnbuilt(job);
  const lines = chosenSheets(job, applied, houseOf(job, house))
    .filter(() => !isUnbuilt(job))
    .filter(({ applied }) => applied.inScope)
    .map((sheet) => sheetLine(sheet, unit, when));
  const booking = job.booking?.body;
  const left = unbuilt ? [] : openOf(job, applied, houseOf(job, house)).filter((one) => one.signed !== null);
  const signed = [...new Set(left.map((one) => one.signed))].map((by): [string, string] => [
    "Left as they are",
    `signed by ${by?.body.signedBy}, “${by?.body.reason}”: ${signedWords(left.filter((one) => one.signed === by))}`,
  ]);
  const pdf = await printed({
    what: "sheet",
    sheet: {
      title: `${sheetTitle(job)} · job ${record.number}`,
      shop: house.shopName,
      facts: [
        ["Vehicle", booking?.vehicle ?? ""],
        ["Unit", unitWords(book, becomes(book, job))],
        ["Odometer", booking?.odometer || "not read"],
        ["Scope", depths.join(" + ")],
        ["Opened", when.day(record.opened)],
        ["State", job.closed ? `${endedWords(job)} ${when.day(job.closed.at)}` : "open: not final"],
      ],
      told: [...intakeLines(job, applied, ruleOf(job, house), unit), ...signed],
      columns: COLUMNS,
      lines: lines.map((line) => COLUMNS.map(({ of }) => line[of])),
      foot: `± is the expanded uncertainty (95 %), house rule ${ruleOf(job, house)}. Limits are of ${bookFoot(book)}`,
    },
  });
  return handOver(pdf, `build-sheet-${record.number}`);
};
