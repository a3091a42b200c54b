import { useWhen } from "~/door/when";
import { data, Form, Link } from "react-router";
import { useInside } from "~/door/inside";
import { Field } from "~/look/field";
import { services } from "~/server/context";
import { readForm, typedIn } from "~/server/form";
import { field, maybeWords, words, written } from "~core/shape";
import { mustBe } from "~/server/session";
import { tableGiven } from "~/table/pasted";
import { TakeInTable } from "~/table/take-in";
import { moneyOf, moneyText } from "~core/quantity";
import { addPrices, listPrices } from "~store/prices";
import type { Route } from "./+types/prices";
import { readPriceList } from "./read-list";

export const meta: Route.MetaFunction = () => [{ title: "Prices · Yard Key" }];
const PAGE = 40;
const MOST_BYTES = 4_000_000;

export const loader = async ({ context, request }: Route.LoaderArgs) => {
  const search = new URL(request.url).searchParams;
  const [begins, after] = [(search.get("begins") ?? "").trim(), search.get("after") ?? ""];
  const rows = await listPrices(context.get(services).pool, { begins, after, limit: PAGE });
  return { rows, begins, more: rows.length === PAGE };
};

const supplier = field(words(1, 60), "Say whose prices these are.");
const listed = { supplier, list: field(maybeWords(MOST_BYTES), "Over 4 MB; take it in as several.") };
const one = {
  supplier,
  part: field(words(1, 80)),
  price: field(written(moneyOf, "12.50"), "Write the price as 12.50."),
};

/** Takes in a whole list, pasted or as a file, or one price typed where it was missing. */
export const action = async ({ context, request }: Route.ActionArgs) => {
  const staff = mustBe(context, "parts", "lead", "owner");
  const { pool } = context.get(services);
  const typed = await typedIn(request);
  if (typed.intent === "one") {
    const form = readForm(one, typed);
    if ("problems" in form) return data({ ...form, added: null }, { status: 400 });
    const { part, price, supplier: whose } = form.values;
    const added = await addPrices(pool, [{ part, cents: price, days: null }], {
      supplier: whose,
      by: staff.name,
    });
    return data({ problems: {}, typed: {}, added });
  }
  const form = readForm(listed, typed);
  if ("problems" in form) return data({ ...form, added: null }, { status: 400 });
  const text = await tableGiven(request, form.values.list);
  const read = readPriceList(text);
  if (!read.ok) {
    const problems: Record<string, string> = { list: read.problems.join("\n") };
    return data(
      { problems, typed: { supplier: form.values.supplier, list: text }, added: null },
      { status: 400 },
    );
  }
  const added = await addPrices(pool, read.prices, { supplier: form.values.supplier, by: staff.name });
  return data({ problems: {}, typed: {}, added });
};

/** What parts and whole units cost: suppliers' lists, taken in as they come. */
export default function Prices({ loaderData: { rows, begins, more }, actionData }: Route.ComponentProps) {
  const { staff } = useInside();
  const problems: Record<string, string> = actionData?.problems ?? {};
  const typed: Record<string, string> = actionData?.typed ?? {};
  const added = actionData?.added ?? null;
  return (
    <main className="mx-auto grid max-w-[1320px] grid-cols-[minmax(0,3fr)_minmax(0,2fr)] items-start gap-4 p-4">
      <section>
        <div className="mb-3 flex flex-wrap items-center gap-3">
          <h1 className="text-3xl font-bold">Prices</h1>
          <Link to="/shelf" className="btn touch">
            Shelf
          </Link>
          <span className="grow" />
          <Form role="search" className="flex gap-2">
            <input
              name="begins"
              defaultValue={begins}
              aria-label="Part numbers that begin with"
              placeholder="part number begins with"
              className="input touch w-60"
              autoComplete="off"
            />
            <button className="btn touch">Show</button>
          </Form>
        </div>
        {rows.length === 0 ? (
          <p className="plate p-6 text-xl">
            {begins
              ? `No price of a part that begins with ${begins}.`
              : "No prices yet: take in a supplier’s list."}
          </p>
        ) : (
          <Listed rows={rows} />
        )}
        {more && (
          <Link
            to={`?begins=${encodeURIComponent(begins)}&after=${encodeURIComponent(rows.at(-1)?.part ?? "")}`}
            className="btn touch mt-3"
          >
            More
          </Link>
        )}
      </section>
      {staff.role === "builder" ? (
        <p className="plate p-4 text-lg">Prices are taken in by whoever buys parts, or a lead.</p>
      ) : (
        <TakeIn typed={typed} problems={problems} added={added} />
      )}
    </main>
  );
}

type Rows = Route.ComponentProps["loaderData"]["rows"];

function Listed({ rows }: { rows: Rows }) {
  const { day } = useWhen();
  return (
    <div className="plate overflow-x-auto">
      <table className="w-full">
        <thead className="bg-base-200">
          <tr className="stamp text-left">
            <th scope="col" className="px-3 py-2">
              Part
            </th>
            <th scope="col" className="px-3 py-2 text-right">
              Price
            </th>
            <th scope="col" className="px-3 py-2">
              Days
            </th>
            <th scope="col" className="px-3 py-2">
              Whose
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ part, cents, days, deposit, supplier: whose, at }) => (
            <tr key={part} className="border-base-300 border-t text-lg" data-price={part}>
              <th scope="row" className="px-3 py-1.5 text-left font-semibold">
                {part}
              </th>
              <td className="figure px-3 py-1.5 text-right">
                {moneyText(cents)}
                {typeof deposit === "number" && (
                  <span className="quiet block text-sm">and {moneyText(deposit)} on the old one</span>
                )}
              </td>
              <td className="px-3 py-1.5">{days ?? "–"}</td>
              <td className="quiet px-3 py-1.5 text-base">
                {whose}, {day(at)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** A supplier’s list, pasted or as a file; what is wrong with it stands at it, by line. */
function TakeIn({
  typed,
  problems,
  added,
}: {
  typed: Record<string, string>;
  problems: Record<string, string>;
  /** How many prices were new or other; null while nothing was taken in. */
  added: number | null;
}) {
  return (
    <Form method="post" encType="multipart/form-data" className="plate p-4" aria-label="Take in a price list">
      <h2 className="mb-2 text-2xl font-bold">Take in a list</h2>
      <Field
        label="Whose"
        name="supplier"
        autoComplete="off"
        defaultValue={typed.supplier}
        problem={problems.supplier}
      />
      <TakeInTable
        label="The list"
        typed={typed.list}
        problem={problems.list}
        placeholder={"part,price,days\nMD-1392,214.00,4"}
        help="Columns part, price and days, as CSV; deposit, where the old part is worth one. Whole units stand as unit/reconditioned and unit/used. Nothing is taken of a list with a fault; what is the same as before is not said twice."
      />
      <button className="btn btn-primary btn-lg touch mt-3 w-full">Take it in</button>
      {added !== null && (
        <p role="status" className="mt-2 text-lg font-semibold" data-added={added}>
          {added === 0 ? "All of it stood already." : `${added} prices are new or other than before.`}
        </p>
      )}
    </Form>
  );
}
