import { figuresFrom } from "~/look/source";
import { unitOf } from "~/choose/decide";
import { stockOfUnit } from "~/choose/chain-page";
import { whenIn } from "~/door/when";
import { labourOf, WAY_NAMES } from "~/inspect/worth-of";
import { handOver, printed } from "~/server/beside";
import { services } from "~/server/context";
import { jobContext } from "~/server/job-context";
import { unitWords, strongerText } from "~/sheet/sheet-lines";
import { becomes } from "~core/fact";
import { metalEverywhere, type PartState } from "~core/inspect";
import { together } from "~core/measure";
import { quoteOf } from "~core/needs";
import { moneyText } from "~core/quantity";
import { pricesOf } from "~store/prices";
import type { Route } from "./+types/quote-pdf";
import { amountText } from "./amount";
import { needsNow, numbersOf } from "./needs";

const COLUMNS = [
  { words: "What", part: 0.4 },
  { words: "Number", part: 0.15 },
  { words: "Why", part: 0.32 },
  { words: "Price", part: 0.13, figures: true },
];
/** So many names are written out of what is not known yet. */
const NAMED = 6;

/** The quote for the customer: parts and work as far as they are known, and all that could still change it. */
export const loader = async ({ context, params }: Route.LoaderArgs): Promise<Response> => {
  const { pool } = context.get(services);
  const { record, job, applied, house } = await jobContext(context, params.number);
  const { book } = record;
  const [stock, known] = await Promise.all([stockOfUnit(pool, record), pricesOf(pool, numbersOf(book))]);
  const { lines, open } = needsNow(job, applied, house, together(unitOf(record, house, stock)));
  const { lines: priced, parts, unpriced } = quoteOf(lines, new Map(known));
  const { hours, cents: labour } = labourOf(job, applied, house);
  const way = job.wayOn ? WAY_NAMES[job.wayOn.body.way] : "Rebuild, as far as is known today";
  const pdf = await printed({
    what: "sheet",
    sheet: {
      title: `Quote · job ${record.number}`,
      shop: house.shopName,
      facts: [
        ["Vehicle", job.booking?.body.vehicle ?? ""],
        ["Unit", unitWords(book, becomes(book, job))],
        ["Date", whenIn(house.timeZone).day(new Date().toISOString())],
        ["Way", way],
      ],
      told: [
        [
          "Parts",
          `${moneyText(parts)}${unpriced > 0 ? `, and ${unpriced} of them without a price yet` : ""}`,
        ],
        [
          "Work",
          `${moneyText(labour)}: ${hours} h still to do by the book, ${moneyText(house.hourCents)} an hour`,
        ],
        ...(job.stronger
          ? [["Made stronger", strongerText(job, applied, book.unit.lengthUnit)] as [string, string]]
          : []),
        ["Together", moneyText(parts + labour)],
        ["Could change", changes(open, unpriced, metalEverywhere(job))],
      ],
      columns: COLUMNS,
      lines: lines.map((line, i) => {
        const cents = priced[i]?.cents ?? null;
        return [
          [amountText(line), line.name].filter(Boolean).join(" "),
          line.number ?? "",
          line.because[0] ?? "",
          cents === null ? "to follow" : moneyText(cents),
        ];
      }),
      foot:
        "Prices are those of single parts on this day; kits may make it less. What is not looked at yet counts as open, not as good. " +
        `${figuresFrom(book)}. The maker’s service information comes first.`,
      sign: ["We agree to this quote", "Date", "Signature"],
    },
  });
  return handOver(pdf, `quote-${record.number}`);
};

/** What could still make it more, in the customer’s words. */
function changes(open: readonly PartState[], unpriced: number, metal: string | null): string {
  const names = open.slice(0, NAMED).map(({ part }) => part.name);
  const more = open.length - names.length;
  const unknown =
    open.length === 0
      ? ""
      : `${open.length} parts are not looked at or measured yet, each may be wanted: ${names.join(", ")}${more > 0 ? ` and ${more} more` : ""}`;
  return (
    [
      unknown,
      unpriced > 0 ? `${unpriced} parts have no price yet` : "",
      metal ? `${metal}: more may be worn than shows` : "",
    ]
      .filter(Boolean)
      .join(".\n") || "Nothing that is known of: every part in scope was looked at and has its price."
  );
}
