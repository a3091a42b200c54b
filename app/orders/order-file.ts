import { handOver, printed } from "~/server/beside";
import { services } from "~/server/context";
import { tableFile } from "~/table/table-file";
import { moneyText } from "~core/quantity";
import { readHouse } from "~store/house";
import { purchase } from "~store/orders";
import type { Route } from "./+types/order-file";

/** An order for a supplier without a computer of ours: as a table, or on paper. */
export const loader = async ({ context, params }: Route.LoaderArgs): Promise<Response> => {
  const { pool } = context.get(services);
  const [, number = "", as = ""] = /^(\d+)\.(csv|pdf)$/.exec(params.file) ?? [];
  const of = number === "" ? null : await purchase(pool, Number(number));
  if (!of) throw new Response("There is no order of this number.", { status: 404 });
  const { lines, supplier, by, at } = of;
  if (as === "csv") {
    return tableFile(
      lines.map(({ part, name, ordered, cents, due, job }) => ({
        order: number,
        part,
        name,
        pieces: `${ordered}`,
        price: moneyText(cents),
        due: due ?? "",
        job: `${job ?? ""}`,
      })),
      `order-${number}`,
    );
  }
  const { shopName } = await readHouse(pool);
  const pdf = await printed({
    what: "sheet",
    sheet: {
      title: `Order ${number}`,
      shop: shopName,
      facts: [
        ["To", supplier],
        ["Date", at.slice(0, 10)],
        ["From", by],
      ],
      told: [],
      columns: [
        { words: "Part", part: 0.2 },
        { words: "Name", part: 0.42 },
        { words: "Pieces", part: 0.12, figures: true },
        { words: "Price", part: 0.13, figures: true },
        { words: "Due", part: 0.13 },
      ],
      lines: lines.map(({ part, name, ordered, cents, due }) => [
        part,
        name,
        `${ordered}`,
        moneyText(cents),
        due ?? "",
      ]),
      foot: `${lines.length} lines, ${moneyText(lines.reduce((sum, { cents }) => sum + cents, 0))}. Part numbers and prices are made up.`,
    },
  });
  return handOver(pdf, `order-${number}`);
};
