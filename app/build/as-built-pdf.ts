import { capital } from "~core/book";
import { bookFoot } from "~/look/source";
import { whenIn } from "~/door/when";
import { unitWords } from "~/sheet/sheet-lines";
import { handOver, printed } from "~/server/beside";
import type { Route } from "./+types/as-built-pdf";
import { recordOfJob } from "./record-page";

const COLUMNS = [
  { words: "Step", part: 0.2 },
  { words: "What", part: 0.28 },
  { words: "Said", part: 0.26 },
  { words: "By", part: 0.12 },
  { words: "When", part: 0.14 },
];

/** The as-built record on paper, for the unit's folder. */
export const loader = async ({ context, params }: Route.LoaderArgs): Promise<Response> => {
  const { record, house, job, built } = await recordOfJob(context, params.number);
  const { book } = record;
  const { moment } = whenIn(house.timeZone);
  const pdf = await printed({
    what: "sheet",
    sheet: {
      title: `As-built record · job ${record.number}`,
      shop: house.shopName,
      facts: [
        ["Vehicle", job.booking?.body.vehicle ?? ""],
        ["Unit", unitWords(book, job.configuration)],
      ],
      told: [],
      columns: COLUMNS,
      lines: built.steps.flatMap(({ name, lines }) =>
        lines.map(({ kind, what, said, against, by, at }, i) => [
          i === 0 ? name : "",
          kind === "done" || kind === "skipped" || kind === "undone"
            ? kind
            : [what, against].filter(Boolean).join(" · "),
          said,
          by,
          moment(at),
        ]),
      ),
      foot: capital(bookFoot(book)),
    },
  });
  return handOver(pdf, `as-built-${record.number}`);
};
