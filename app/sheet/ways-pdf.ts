import { whenIn } from "~/door/when";
import { wearKind } from "~core/book";
import { unitWords } from "~/sheet/sheet-lines";
import { handOver, printed } from "~/server/beside";
import { services } from "~/server/context";
import { jobContext } from "~/server/job-context";
import { candidateCauses, failed, metalEverywhere, type Option } from "~core/inspect";
import { CAUSE_STANDINGS } from "~core/fact";
import { ruleOf } from "~core/measure";
import { moneyText } from "~core/quantity";
import { pricesOf } from "~store/prices";
import type { Route } from "./+types/ways-pdf";
import { percent, pricedParts, toldOf, WAY_NAMES, worthOf } from "~/inspect/worth-of";

const COLUMNS = [
  { words: "Way", part: 0.19 },
  { words: "What it is", part: 0.32 },
  { words: "Parts or unit", part: 0.13, figures: true },
  { words: "Work", part: 0.11, figures: true },
  { words: "Together", part: 0.12, figures: true },
  { words: "Comeback", part: 0.13, figures: true },
];
const WHAT = {
  rebuild: "this unit, with what is worn or never used twice new",
  reconditioned: "another unit of this version, rebuilt elsewhere",
  used: "another unit of this version as it left a vehicle; its past is not known",
} as const;

/** The ways on as the customer sees them: what was found, what each way costs, and what the lead advises. */
export const loader = async ({ context, params }: Route.LoaderArgs): Promise<Response> => {
  const { pool } = context.get(services);
  const { record, job, applied, house } = await jobContext(context, params.number);
  const { book } = record;
  const { options, needs, breakEven } = worthOf(job, applied, house, await pricesOf(pool, pricedParts(book)));
  const failures = failed(job, applied);
  const found = failures.map((one) => {
    const seen = [...new Set(one.findings.map(({ body }) => wearKind(applied.present, body.wear).name))].join(
      ", ",
    );
    if (!one.cause) return `${one.name}: ${seen}`;
    const { cause, standing } = one.cause.body;
    const named = candidateCauses(job, applied, ruleOf(job, house), one).find(({ id }) => id === cause)?.name;
    return `${one.name}: ${seen}, cause ${CAUSE_STANDINGS.words[standing]}${cause ? ` (${named ?? cause})` : ""}`;
  });
  const known = new Set(failures.flatMap(({ findings }) => findings.map(({ id }) => id)));
  const beyond = job.findings
    .filter(({ id, body }) => body.sure && body.severity === "beyond-use" && !known.has(id))
    .map(({ body }) => {
      const part = applied.present.parts.find(({ id }) => id === body.part);
      return `${part?.name ?? body.part}: ${wearKind(applied.present, body.wear).name}`;
    });
  const metal = metalEverywhere(job);
  const chosen = job.wayOn;
  const pdf = await printed({
    what: "sheet",
    sheet: {
      title: `What can be done · job ${record.number}`,
      shop: house.shopName,
      facts: [
        ["Vehicle", job.booking?.body.vehicle ?? ""],
        ["Unit", unitWords(book, job.configuration)],
        ["Date", whenIn(house.timeZone).day(new Date().toISOString())],
        ["Odometer", job.booking?.body.odometer || "not read"],
      ],
      told: [
        ["You told us", job.booking?.body.words ?? ""],
        ["We found", [...found, ...beyond].join("\n") || "nothing that failed so far"],
        ...(metal
          ? [
              ["Metal", `${metal}; the converter, the cooler and the filters go with any way`] as [
                string,
                string,
              ],
            ]
          : []),
        ["To be new", `${needs.length} kinds of parts for a rebuild`],
        ...(breakEven === null
          ? []
          : [
              [
                "Break-even",
                `the rebuild stays the cheapest way while its chance of a comeback is below ${percent(breakEven)}`,
              ] as [string, string],
            ]),
        [
          "We advise",
          chosen ? `${WAY_NAMES[chosen.body.way]}: ${chosen.body.reason} (${chosen.by})` : "not decided yet",
        ],
      ],
      columns: COLUMNS,
      lines: options.map(line),
      foot:
        "Together is parts or unit and work; taking the unit out and putting it back is the same in every way and not in it. " +
        "Comeback is our estimate of the chance that it must be seen again. " +
        `Prices and hours are of this day; those of ${book.unit.name} are ${book.unit.source}. The maker’s service information comes first.`,
      sign: ["The way we go", "Date", "Signature"],
    },
  });
  return handOver(pdf, `ways-on-${record.number}`);
};

const work = (hours: number): string => (hours === 0 ? "none" : `${hours} h`);

const line = ({ way, price, hours, labour, risk, from, fact }: Option): string[] =>
  from === null
    ? [WAY_NAMES[way], WHAT[way], "not priced", work(hours), "", ""]
    : [
        ...[WAY_NAMES[way], [WHAT[way], ...toldOf(fact)].join(", ")],
        ...[moneyText(price), work(hours)],
        ...[moneyText(price + labour), percent(risk)],
      ];
