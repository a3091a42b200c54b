import { useState } from "react";
import { Link } from "react-router";
import { useWhen } from "~/door/when";
import { dayText } from "~/parts/day";
import { supplierWords } from "~/parts/supplier-words";
import { services } from "~/server/context";
import { moneyText } from "~core/quantity";
import { cardsMadeBy, makeCard } from "~/jobs/card";
import { readHouse } from "~store/house";
import { listJobs } from "~store/jobs";
import {
  cameLast,
  comingIn,
  gotFor,
  supplierRecords,
  type Came,
  type ComingLine,
  type SupplierRecord,
} from "~store/orders";
import { toCount, type ToCount } from "~store/restock";
import { stuckOrders } from "~store/suppliers";
import type { Route } from "./+types/coming";

export const meta: Route.MetaFunction = () => [{ title: "Orders · Yard Key" }];
const MOST = 300;

export const loader = async ({ context }: Route.LoaderArgs) => {
  const { pool } = context.get(services);
  const house = await readHouse(pool);
  const [lines, came, records, stuck, counts, { rows }] = await Promise.all([
    comingIn(pool, MOST),
    cameLast(pool),
    supplierRecords(pool),
    stuckOrders(pool),
    toCount(pool),
    listJobs(pool, { which: "open" }, cardsMadeBy(house), makeCard(house)),
  ]);
  const got = await gotFor(
    pool,
    rows.map(({ number }) => number),
  );
  const toOrder = rows.flatMap(({ number, vehicle, unit, wants }) => {
    const short = wants.filter(([part, pieces]) => pieces > (got.get(number)?.get(part) ?? 0)).length;
    return short > 0 ? [{ number, vehicle, unit, short, of: wants.length }] : [];
  });
  return { lines, more: lines.length === MOST, toOrder, came, records, stuck, counts };
};

/** What is on its way, order by order, the latest first: where a parts person begins the day. */
export default function Orders({
  loaderData: { lines, more, toOrder, came, records, stuck, counts },
}: Route.ComponentProps) {
  const [find, setFind] = useState("");
  const text = find.trim().toLowerCase();
  const shown = lines.filter(
    ({ part, name, supplier, order, job }) =>
      text === "" ||
      [part, name, supplier, `${order}`, `${job ?? ""}`].some((one) => one.toLowerCase().includes(text)),
  );
  const orders = [...new Set(shown.map(({ order }) => order))];
  const late = lines.filter(({ isLate }) => isLate).length;
  return (
    <main className="mx-auto max-w-[1320px] p-4">
      <div className="mb-3 flex items-center gap-4">
        <h1 className="text-3xl font-bold">Orders</h1>
        <p role="status" className="text-lg">
          {lines.length === 0
            ? "Nothing is on its way."
            : `${lines.length} ${lines.length === 1 ? "line" : "lines"} on the way`}
          {late > 0 && <b className="text-error">, {late} late</b>}
        </p>
        <span className="grow" />
        {lines.length > 0 && (
          <label className="flex items-center gap-2">
            <span className="stamp">Find or scan</span>
            <input
              className="input touch w-64"
              value={find}
              onChange={(event) => setFind(event.target.value)}
              placeholder="part, order, job, supplier"
              autoComplete="off"
            />
          </label>
        )}
      </div>
      {lines.length === 0 && toOrder.length === 0 && (
        <p className="plate p-8 text-xl">
          What a job needs is ordered from its list; what is on its way stands here, the latest first, and is
          booked in here when it comes.
        </p>
      )}
      <Stuck orders={stuck} />
      {text === "" && <ToOrder jobs={toOrder} />}
      <ul className="grid grid-cols-2 items-start gap-3">
        {orders.map((order) => (
          <OrderPlate key={order} order={order} lines={shown.filter((one) => one.order === order)} />
        ))}
      </ul>
      {text === "" && <Counts counts={counts} />}
      {text === "" && <CameLast came={came} />}
      {text === "" && <Suppliers records={records} />}
      {more && <p className="quiet mt-3">The first {MOST} lines; find one to see others.</p>}
    </main>
  );
}

/** Orders their supplier does not answer to: they are tried again by themselves, and somebody may want to ring up. */
function Stuck({ orders }: { orders: Route.ComponentProps["loaderData"]["stuck"] }) {
  const when = useWhen();
  if (orders.length === 0) return null;
  return (
    <ul className="mb-4 grid gap-2" aria-label="Not there yet">
      {orders.map(({ number, supplier, word }) => (
        <li key={number} data-stuck={number}>
          <Link
            to={`/orders/${number}`}
            className="plate border-warning touch flex items-center gap-4 border-l-4 px-4 py-1"
          >
            <b className="text-lg">{number}</b>
            <span className="grow leading-tight">
              <b className="block">{supplier} does not have it yet</b>
              <span className="quiet block text-sm">
                {word.note}, since {when.short(word.at)}; it is tried again by itself
              </span>
            </span>
          </Link>
        </li>
      ))}
    </ul>
  );
}

/** The newest open jobs that still want something, each one touch from its list. */
function ToOrder({ jobs }: { jobs: Route.ComponentProps["loaderData"]["toOrder"] }) {
  if (jobs.length === 0) return null;
  return (
    <section className="mb-4" aria-label="To order">
      <h2 className="stamp mb-1">To order</h2>
      <ul className="grid grid-cols-3 gap-2">
        {jobs.map(({ number, vehicle, unit, short, of }) => (
          <li key={number} data-to-order={number}>
            <Link
              to={`/jobs/${number}/parts`}
              className="plate flex items-center gap-3 px-3 py-2 leading-tight"
            >
              <b className="text-xl">{number}</b>
              <span className="min-w-0 grow">
                <span className="block truncate font-semibold">{vehicle || unit}</span>
                <span className="quiet block truncate text-sm">{vehicle ? unit : ""}</span>
              </span>
              <span className="text-right whitespace-nowrap">
                <b className="text-lg">{short}</b>
                <span className="quiet block text-sm">of {of} to get</span>
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What moved most since it was counted: each opens ready for its count. */
function Counts({ counts }: { counts: readonly ToCount[] }) {
  if (counts.length === 0) return null;
  return (
    <section className="mt-4" aria-label="To count">
      <h2 className="stamp mb-1">To count</h2>
      <ul className="grid grid-cols-3 gap-2">
        {counts.map(({ part, name, bin, pieces, moves }) => (
          <li key={part} data-count={part}>
            <Link
              to={`/shelf/part/${encodeURIComponent(part)}`}
              className="plate flex items-center gap-3 px-3 py-2 leading-tight"
            >
              <b className="text-xl">{bin}</b>
              <span className="min-w-0 grow">
                <span className="block truncate font-semibold">{name}</span>
                <span className="quiet block truncate text-sm">{part}</span>
              </span>
              <span className="text-right whitespace-nowrap">
                <b className="text-lg">{pieces}</b>
                <span className="quiet block text-sm">{moves} moves since</span>
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What came last, and what went back. */
function CameLast({ came }: { came: readonly Came[] }) {
  const when = useWhen();
  if (came.length === 0) return null;
  return (
    <section className="mt-4" aria-label="Came last">
      <h2 className="stamp mb-1">Came last</h2>
      <ul className="plate grid grid-cols-2 gap-x-6 px-4 py-1">
        {came.map(({ event, what, name, part, pieces, note, order, job, by, at }) => (
          <li
            key={event}
            className="border-base-300 flex items-baseline gap-3 border-b py-1 leading-tight"
            data-came={part}
          >
            <span className="min-w-0 grow">
              {pieces > 1 && <b>{pieces} × </b>}
              {name} <span className="quiet text-sm">{part}</span>
              {what !== "arrived" && (
                <b className="text-error block text-sm">
                  {what === "wrong" ? "wrong, sent back" : "does not come"}: {note}
                </b>
              )}
            </span>
            <span className="quiet text-right text-sm whitespace-nowrap">
              <Link to={`/orders/${order}`} className="underline underline-offset-4">
                {order}
              </Link>
              {job !== null && ` for ${job}`}
              <span className="block">
                {when.short(at)} {by}
              </span>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** How each supplier was so far: what came by the day that was said, and what went back. */
function Suppliers({ records }: { records: readonly SupplierRecord[] }) {
  const told = records.map((one) => ({ supplier: one.supplier, words: supplierWords(one) }));
  if (told.every(({ words }) => words === "")) return null;
  return (
    <section className="mt-4" aria-label="Suppliers so far">
      <h2 className="stamp mb-1">Suppliers so far</h2>
      <ul className="grid grid-cols-3 gap-2">
        {told
          .filter(({ words }) => words !== "")
          .map(({ supplier, words }) => (
            <li key={supplier} className="plate px-3 py-2 leading-tight" data-supplier={supplier}>
              <b className="block">{supplier}</b>
              <span className="quiet">{words}</span>
            </li>
          ))}
      </ul>
    </section>
  );
}

function OrderPlate({ order, lines }: { order: number; lines: readonly ComingLine[] }) {
  const [first] = lines;
  const jobs = [...new Set(lines.flatMap(({ job }) => job ?? []))];
  const late = lines.some(({ isLate }) => isLate);
  return (
    <li className={`plate px-4 py-2 ${late ? "border-error border-l-4" : ""}`} data-order={order}>
      <div className="flex items-center gap-3">
        <h2 className="min-w-0 grow leading-tight">
          <b className="text-xl">{order}</b> <span className="text-lg">{first?.supplier}</span>
          <span className="quiet block text-sm">
            {jobs.length === 0
              ? "for the shelf"
              : `for ${jobs.length === 1 ? "job" : "jobs"} ${jobs.join(", ")}`}
            {" · "}
            {moneyText(
              lines.reduce(
                (sum, { cents, pieces, ordered }) => sum + Math.round((cents * pieces) / ordered),
                0,
              ),
            )}
          </span>
        </h2>
        <Link to={`/orders/${order}`} className="btn btn-primary touch">
          Goods in
        </Link>
      </div>
      <ul>
        {lines.map(({ line, name, part, pieces, due, isLate }) => (
          <li key={line} className="border-base-300 flex items-baseline gap-2 border-t py-1 leading-tight">
            <span className="min-w-0 grow">
              {pieces > 1 && <b>{pieces} × </b>}
              {name} <span className="quiet text-sm">{part}</span>
            </span>
            <span className={`text-sm whitespace-nowrap ${isLate ? "text-error font-bold" : ""}`}>
              {due === null ? "no day said" : `${isLate ? "late, " : ""}${dayText(due)}`}
            </span>
          </li>
        ))}
      </ul>
    </li>
  );
}
