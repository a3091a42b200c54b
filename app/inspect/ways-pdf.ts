import { configurationText } from "~/job/sheet-lines";
import { draw, handOver } from "~/print/paper";
import { ground } from "~/server/context";
import { candidateCauses, failed, metalEverywhere, type Option } from "~core/inspect";
import { appliedTo, fold, ruleOf } from "~core/job";
import { moneyText } from "~core/quantity";
import { readHouse } from "~store/house";
import { jobByNumber } from "~store/jobs";
import { pricesOf } from "~store/prices";
import type { Route } from "./+types/ways-pdf";
import { pricedParts, WAY_NAMES, worthOf } from "./worth-of";

const COLUMNS = [
  { words: "Way", part: 0.2 },
  { words: "What it is", part: 0.36 },
  { words: "Parts or unit", part: 0.13 },
  { words: "Work", part: 0.09 },
  { words: "Together", part: 0.12 },
  { words: "Comeback", part: 0.1 },
];
const WHAT = {
  rebuild: "this unit, with what is worn or never used twice new",
  reconditioned: "another unit of this version, rebuilt elsewhere",
  used: "another unit of this version as it left a vehicle; its past is not known",
} as const;

/** The ways on as the customer sees them: what was found, what each way costs, and what the lead advises. */
export const loader = async ({ context, params }: Route.LoaderArgs): Promise<Response> => {
  const { pool } = context.get(ground);
  const [record, house] = await Promise.all([jobByNumber(pool, Number(params.number)), readHouse(pool)]);
  if (!record) throw new Response("There is no job of this number.", { status: 404 });
  const { book } = record;
  const job = fold(record.facts);
  const applied = appliedTo(book, job, record.houseValues);
  const { options, needs } = worthOf(job, applied, house, await pricesOf(pool, pricedParts(book)));
  const failures = failed(job, applied);
  const found = failures.map((one) => {
    const seen = [...new Set(one.findings.map(({ body }) => body.wear))].join(", ");
    if (!one.cause) return `${one.name}: ${seen}`;
    const { cause, standing } = one.cause.body;
    const named = candidateCauses(job, applied, ruleOf(job, house), one).find(({ id }) => id === cause)?.name;
    return `${one.name}: ${seen}, cause ${standing}${cause ? ` (${named ?? cause})` : ""}`;
  });
  const known = new Set(failures.flatMap(({ findings }) => findings.map(({ id }) => id)));
  const beyond = job.work.findings
    .filter(({ id, body }) => body.sure && body.severity === "beyond use" && !known.has(id))
    .map(({ body }) => {
      const part = applied.unit.parts.find(({ id }) => id === body.part);
      return `${part?.name ?? body.part}: ${body.wear}`;
    });
  const metal = metalEverywhere(job);
  const chosen = job.work.wayOn;
  const pdf = await draw({
    title: `Ways on · job ${record.number}`,
    shop: house.shopName,
    facts: [
      ["Vehicle", job.booking?.body.vehicle ?? ""],
      ["Unit", `${book.unit.maker} ${book.unit.name}, ${configurationText(book.traits, job.configuration)}`],
    ],
    told: [
      ["You told us", job.booking?.body.words ?? ""],
      ["We found", [...found, ...beyond].join("; ") || "nothing that failed so far"],
      ...(metal
        ? [["Metal", `${metal}: converter, cooler and filters go with any way`] as [string, string]]
        : []),
      ["To be new", `${needs.length} kinds of parts for a rebuild`],
      [
        "We advise",
        chosen ? `${WAY_NAMES[chosen.body.way]}: ${chosen.body.reason} (${chosen.by})` : "not decided yet",
      ],
    ],
    columns: COLUMNS,
    lines: options.map(line),
    foot:
      "Together is parts or unit and work; taking the unit out and putting it back is the same in every way and not in it. " +
      `Comeback is our estimate of the chance that it must be seen again. Made-up figures of book ${book.unit.id}; the maker’s service information comes first.`,
  });
  return handOver(pdf, `ways-on-${record.number}`);
};

const line = ({ way, price, hours, labour, risk, from }: Option): string[] =>
  from === null
    ? [WAY_NAMES[way], WHAT[way], "not priced yet", `${hours} h`, "", ""]
    : [
        ...[WAY_NAMES[way], WHAT[way], moneyText(price), `${hours} h`],
        ...[moneyText(price + labour), `${(risk * 100).toFixed(0)} %`],
      ];
