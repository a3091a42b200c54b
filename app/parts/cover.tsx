import { lazy, Suspense, useEffect, useMemo, useState } from "react";
import { useScripted } from "~/look/use-scripted";
import { useFetcher } from "react-router";
import { useInside } from "~/door/inside";
import { useJobView } from "~/view/view";
import type { Covered } from "./cover-of";
import { supplierWords } from "./supplier-words";
import { SOME_DAY, type Cover, type Take } from "~core/kit";
import { moneyText } from "~core/quantity";
import { namesOf } from "./needs";
import { takenText } from "./taken";

const TradeChart = lazy(() => import("./trade-chart"));

const days = (n: number): string =>
  n >= SOME_DAY ? "some day" : n === 0 ? "today" : n === 1 ? "tomorrow" : `${n} days`;

/** How the list is covered: the cheapest way, the soonest, and what lies between; exact. */
export function CoverPanel({
  wanted,
  number,
  closed,
  orderId,
}: {
  /** What has still to be got, in one word: asked again only when that changes. */
  wanted: string;
  number: number;
  closed: boolean;
  /** Of the order that would be made here. */
  orderId: string;
}) {
  const { book } = useJobView();
  const { staff } = useInside();
  const { load, data: ways, state } = useFetcher<Covered>();
  const [isTried, setTried] = useState(false);
  useEffect(() => {
    if (!closed && wanted !== "") void load(`/jobs/${number}/cover.json`).then(() => setTried(true));
  }, [load, number, wanted, closed]);
  const names = useMemo(() => namesOf(book), [book]);
  const [at, setAt] = useState(0);
  if (closed || wanted === "") return null;
  const front = ways?.front ?? [];
  const shown = front[Math.min(at, front.length - 1)];
  return (
    <section className="plate px-4 py-2" aria-label="How to cover it" aria-busy={state !== "idle"}>
      <h2 className="text-lg font-bold">How to cover it</h2>
      {!shown && wanted !== "" && (
        <p className="quiet">{isTried && state === "idle" ? "The server is away." : "Working it out …"}</p>
      )}
      {shown && ways && (
        <>
          <WaysToChoose front={front} at={front.indexOf(shown)} choose={setAt} />
          {!shown.proven && <p className="quiet text-sm">Not proved the cheapest: the search was stopped.</p>}
          {shown.takes.length > 0 &&
            (staff.role === "builder" ? (
              <p className="quiet text-sm">Whoever keeps the parts, or a lead, orders it here.</p>
            ) : (
              <OrderThis cover={shown} orderId={orderId} />
            ))}
          <Shown cover={shown} names={names} records={ways.records} />
          {ways.plain.missing.length === 0 && ways.plain.cents > shown.cents && (
            <p className="quiet mt-1 text-sm">
              One kit and the rest loose would be {moneyText(ways.plain.cents)}, {days(ways.plain.days)}.
            </p>
          )}
        </>
      )}
    </section>
  );
}

/** Orders what is shown and fetches what lies on the shelf, in one go. */
function OrderThis({ cover, orderId }: { cover: Cover; orderId: string }) {
  const { Form: Sent, data: answer, state } = useFetcher<{ problem: string }>();
  const { takes, cents, days: by } = cover;
  const bought = takes.some(({ supplier }) => supplier !== null);
  const shelved = takes.some(({ supplier }) => supplier === null);
  const words = bought ? (shelved ? "Order, and take from the shelf" : "Order this") : "Take from the shelf";
  return (
    <Sent method="post">
      <input type="hidden" name="intent" value="order" />
      <input type="hidden" name="id" value={orderId} />
      <input type="hidden" name="cents" value={cents} />
      <input type="hidden" name="days" value={by} />
      <input type="hidden" name="takes" value={takenText(cover)} />
      <button className="btn btn-primary touch w-full text-lg" disabled={state !== "idle"}>
        {words}
      </button>
      {answer?.problem && state === "idle" && (
        <p role="alert" className="text-error font-semibold">
          {answer.problem}
        </p>
      )}
    </Sent>
  );
}

/** The cheapest, the soonest, and one of those between. */
function WaysToChoose({
  front,
  at,
  choose,
}: {
  front: readonly Cover[];
  at: number;
  choose: (at: number) => void;
}) {
  const between = front.slice(1, -1);
  const ends = front.length > 1 ? [0, front.length - 1] : [0];
  const drawn = useScripted();
  return (
    <div className="my-1 grid grid-cols-1 gap-1">
      {drawn && front.length > 2 && (
        <Suspense fallback={<div className="h-33" />}>
          <TradeChart points={front} at={at} choose={choose} />
        </Suspense>
      )}
      <div className="flex gap-1" role="group" aria-label="Ways">
        {ends.map((i) => {
          const way = front[i];
          return way ? (
            <button
              key={i}
              type="button"
              aria-pressed={i === at}
              className={`btn touch h-auto min-w-0 flex-1 flex-col gap-0 px-1 py-1 leading-tight ${i === at ? "btn-secondary" : "btn-ghost"}`}
              onClick={() => choose(i)}
              data-way={i}
            >
              <span className="text-sm">
                {front.length === 1 ? "The one way" : i === 0 ? "Cheapest" : "Soonest"}
              </span>
              <span className="whitespace-nowrap">
                <b className="text-lg">{moneyText(way.cents)}</b> · {days(way.days)}
              </span>
            </button>
          ) : null;
        })}
      </div>
      {between.length > 0 && (
        <label className="flex items-center gap-2">
          <span className="stamp">Between</span>
          <select
            className={`select touch min-w-0 grow ${at > 0 && at < front.length - 1 ? "border-primary border-2" : ""}`}
            value={at > 0 && at < front.length - 1 ? at : ""}
            onChange={(event) => choose(Number(event.target.value))}
          >
            <option value="" disabled>
              {between.length} more
            </option>
            {between.map((way, i) => (
              <option key={way.cents} value={i + 1}>
                {moneyText(way.cents)} · {days(way.days)}
              </option>
            ))}
          </select>
        </label>
      )}
    </div>
  );
}

function Shown({
  cover: { takes, missing, left },
  names,
  records,
}: {
  cover: Cover;
  names: ReadonlyMap<string, string>;
  records: Covered["records"];
}) {
  const suppliers = [...new Set(takes.map(({ supplier }) => supplier))].sort((a, b) =>
    a === null ? -1 : b === null ? 1 : a.localeCompare(b),
  );
  const name = (of: string): string => names.get(of) ?? of;
  return (
    <>
      {missing.length > 0 && (
        <p className="text-error font-semibold" role="alert">
          Nobody has{" "}
          {missing
            .map(({ number: of, count }) => `${count > 1 ? `${count} × ` : ""}${name(of)} (${of})`)
            .join(", ")}
          . Type a price for it, or find it elsewhere.
        </p>
      )}
      {suppliers.map((supplier) => {
        const own = takes.filter((take) => take.supplier === supplier);
        return (
          <div key={supplier ?? "shelf"} data-supplier={supplier ?? "shelf"}>
            <h3 className="stamp mt-2 flex justify-between">
              <span>
                {supplier ?? "From the shelf"}
                <span className="quiet ml-2 font-normal normal-case">
                  {supplierWords(records.find((one) => one.supplier === supplier))}
                </span>
              </span>
              {supplier && <span>{moneyText(own.reduce((sum, { cents }) => sum + cents, 0))}</span>}
            </h3>
            <ul>
              {own.map((take) => (
                <TakeLine key={take.number} take={take} name={name(take.number)} />
              ))}
            </ul>
          </div>
        );
      })}
      {left.length > 0 && (
        <p className="mt-2 text-sm leading-tight" data-left={left.length}>
          <b>Left over, to the shelf:</b>{" "}
          {left.map(({ number: of, count }) => `${count > 1 ? `${count} × ` : ""}${name(of)}`).join(", ")}
        </p>
      )}
    </>
  );
}

const TakeLine = ({
  take: { number, packs, pieces, cents, days: by, isKit, supplier },
  name,
}: {
  take: Take;
  name: string;
}) => (
  <li className="border-base-300 flex items-baseline gap-2 border-t py-1 leading-tight" data-take={number}>
    <span className="min-w-0 grow">
      {pieces > 1 && <b>{pieces} × </b>}
      <span className={isKit ? "font-bold" : ""}>{name}</span>
      <span className="quiet block text-sm">
        {number}
        {packs !== pieces && `, ${packs} ${packs === 1 ? "pack" : "packs"} of ${pieces / packs}`}
      </span>
    </span>
    {supplier !== null && (
      <>
        <span className="quiet text-sm whitespace-nowrap">{days(by)}</span>
        <b className="whitespace-nowrap">{moneyText(cents)}</b>
      </>
    )}
  </li>
);
