import { bookFoot } from "~/look/source";
import { whenIn } from "~/door/when";
import { handOver, printed } from "~/server/beside";
import { jobContext } from "~/server/job-context";
import { customerSheet } from "~core/handover";
import { houseOf } from "~core/measure";
import { numbersOf, pricedNow } from "~/parts/needs";
import { services } from "~/server/context";
import { pricesOf } from "~store/prices";
import type { Route } from "./+types/customer-pdf";

const COLUMNS = [
  { words: "It left with", part: 0.5 },
  { words: "Is", part: 0.25 },
  { words: "May be", part: 0.25 },
];

/** The plain sheet for the customer, on paper. */
export const loader = async ({ context, params, request }: Route.LoaderArgs): Promise<Response> => {
  const { record, job, applied, house } = await jobContext(context, params.number);
  const { book } = record;
  const { pool } = context.get(services);
  const asked = new URL(request.url).searchParams.get("unit");
  const unit = asked === "mm" || asked === "in" ? asked : book.unit.lengthUnit;
  const { parts, figures } = customerSheet(
    job,
    applied,
    houseOf(job, house),
    unit,
    pricedNow(job, applied, house, [...(await pricesOf(pool, numbersOf(book)))]),
  );
  const { day } = whenIn(house.timeZone);
  const pdf = await printed({
    what: "sheet",
    sheet: {
      title: `For the customer · job ${record.number}`,
      shop: house.shopName,
      facts: [
        ["Vehicle", job.booking?.body.vehicle ?? ""],
        ["State", job.closed ? `left on ${day(job.closed.at)}` : "open: not final"],
      ],
      told: parts.flatMap(({ title, lines }) =>
        lines.map((line, i): [string, string] => [i === 0 ? title : "", line]),
      ),
      columns: COLUMNS,
      lines: figures.map(({ name, spec, is }) => [name, is, spec]),
      foot: `Limits are of ${bookFoot(book)}`,
    },
  });
  return handOver(pdf, `for-the-customer-${record.number}`);
};
