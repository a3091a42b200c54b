import { Download } from "lucide-react";
import { useMemo } from "react";
import { data, useSearchParams } from "react-router";
import { v7 as newId } from "uuid";
import { useInside } from "~/door/inside";
import { KEPT } from "~/offline/keys";
import { loadOrKept } from "~/offline/kept";
import { skipTabChanges } from "~/look/revalidate";
import { services } from "~/server/context";
import { jobRecord } from "~/server/job-context";
import { useJobView } from "~/view/view";
import { stockOfUnit } from "~/choose/chain-page";
import { useUnitAsked } from "~/choose/use-unit-asked";
import { useShelfAnew } from "~/choose/use-shelf-anew";
import { AWAY, unlessAway } from "~/look/unless-away";
import { readForm, typedIn } from "~/server/form";
import { mustBe } from "~/server/session";
import type { Applied, Book } from "~core/book";
import type { Job } from "~core/fact";
import { held, SOME_DAY, type Cover } from "~core/kit";
import { standing, type Need } from "~core/needs";
import { field, uuid, whole, words, written } from "~core/shape";
import { inSnapshot } from "~store/database";
import { backToShelf, order, supplyOf, type NewOrder } from "~store/orders";
import { depositsOf, pricesOf } from "~store/prices";
import type { Route } from "./+types/parts";
import { CoverPanel } from "./cover";
import { NeedsHead, NeedsList } from "./list";
import { BoxOver } from "./box";
import { namesOf, needsNow, numbersOf } from "./needs";
import { OpenYet, WhileOpenList } from "./more";
import { QuoteGiven } from "./quote-given";
import { ComesFrom } from "./source";
import { supplyFrom } from "./supply";
import { takenFrom } from "./taken";
import { coverQuestion, kitsOf, onShelf } from "./ways-of";

export const meta: Route.MetaFunction = ({ params }) => [{ title: `Parts ${params.number} · Yard Key` }];

export const loader = async ({ context, params }: Route.LoaderArgs) => {
  const { pool } = context.get(services);
  const record = await jobRecord(context, params.number);
  const numbers = numbersOf(record.book);
  const there = await inSnapshot(pool, async (db) => ({
    stock: await stockOfUnit(db, record),
    onHand: await onShelf(db, record),
    prices: await pricesOf(db, numbers),
    deposits: await depositsOf(db, numbers),
    supply: await supplyOf(db, record.id),
  }));
  // Ids of what this page may send: the same form sent twice is carried out once.
  return { ...there, ids: { order: newId(), back: newId() } };
};

const ordered = {
  id: field(uuid),
  cents: field(whole(0, 1_000_000_000)),
  days: field(whole(0, 100_000)),
  takes: field(written(takenFrom, "")),
};
const back = { id: field(uuid), part: field(words(1, 80)), pieces: field(whole(1, 1000)) };

/** Orders what is shown, one order to each supplier, and takes what is on the shelf; or puts what is over back there. */
export const action = async ({ context, request, params }: Route.ActionArgs) => {
  const { pool, tellSupplier } = context.get(services);
  const staff = mustBe(context, "parts", "lead", "owner");
  const record = await jobRecord(context, params.number);
  const typed = await typedIn(request);
  if (typed.intent === "back") {
    const form = readForm(back, typed);
    if ("problems" in form) return data({ problem: "Look again." }, { status: 400 });
    const done = await backToShelf(pool, { ...form.values, job: record.id, by: staff.name });
    return done
      ? data({ problem: "" })
      : data({ problem: "So many are not in the box any more." }, { status: 409 });
  }
  const form = readForm(ordered, typed);
  if ("problems" in form)
    return data({ problem: "Nothing was shown to be ordered. Look again." }, { status: 400 });
  if (record.facts.some(({ body }) => body.kind === "closed"))
    return data({ problem: "The job is closed." }, { status: 409 });
  const { id, cents, days, takes } = form.values;
  const { question, seats } = await coverQuestion(context, params.number);
  const way = held(question, takes);
  if (way?.cents !== cents || way.days !== days) return data({ problem: CHANGED }, { status: 409 });
  const gone = await order(
    pool,
    { id, job: record.id, by: staff.name, ...linesOf(way, record.book, seats) },
    tellSupplier,
  );
  return gone === null
    ? data({ problem: "" })
    : data({ problem: `${gone} is not on the shelf any more. Look again.` }, { status: 409 });
};

/** The line that is looked at: where a later part is in place of it now, that one’s. */
function shownLine(
  lines: readonly Need[],
  asked: string | null,
  job: Job,
  { scoped }: Applied,
): Need | undefined {
  const its = lines.find(({ id, kind }) => kind === "part" && id === asked);
  const said = job.sources.get(asked?.replace(/^part /, "") ?? "")?.body;
  const later = scoped.parts.find(({ number }) => said?.from === "later" && number === said.number);
  return its ?? lines.find(({ kind, of }) => kind === "part" && of === later?.id);
}

const CHANGED = "The list, a price or the shelf has changed meanwhile: this is what there is now.";

/** A way to cover a list as what is ordered and what is fetched. */
function linesOf(
  { takes }: Cover,
  book: Book,
  seats: ReadonlyMap<string, readonly string[]>,
): Pick<NewOrder, "lines" | "shelf"> {
  const [names, kits] = [namesOf(book), kitsOf(book)];
  const name = (of: string): string => names.get(of) ?? of;
  return {
    lines: takes.flatMap(({ number, supplier, pieces, cents, days }): NewOrder["lines"] =>
      supplier === null
        ? []
        : [
            {
              supplier,
              part: number,
              name: name(number),
              pieces,
              cents,
              days: days >= SOME_DAY ? null : days,
              ...(kits.has(number) ? { contents: kits.get(number) ?? [] } : {}),
              ...(seats.has(number) ? { seats: seats.get(number) ?? [] } : {}),
            },
          ],
    ),
    shelf: takes.flatMap(({ number, supplier, pieces }) =>
      supplier === null ? [{ part: number, name: name(number), pieces }] : [],
    ),
  };
}

export const clientLoader = ({ params, serverLoader }: Route.ClientLoaderArgs) =>
  loadOrKept(KEPT.page(params.number, "parts"), serverLoader, () => NOTHING);

const NOTHING = {
  stock: [],
  onHand: [],
  prices: [],
  deposits: [],
  supply: { box: [], coming: [] },
  ids: { order: "", back: "" },
};

export const shouldRevalidate = skipTabChanges;

/** What could not be sent is said, and the page stays. */
export const clientAction = ({ serverAction }: Route.ClientActionArgs) =>
  unlessAway(serverAction, () => ({ problem: AWAY }));

/** What the unit needs, line by line with who asked for it and which step waits; and how it is best covered. */
export default function PartsPage({ loaderData }: Route.ComponentProps) {
  const { job, applied, number } = useJobView();
  const { house, staff } = useInside();
  const { stock, onHand, prices, deposits, supply, ids } = useShelfAnew(`/jobs/${number}/parts`, loaderData);
  const { whole: asked } = useUnitAsked(stock);
  const needs = useMemo(() => needsNow(job, applied, house, asked), [job, applied, house, asked]);
  const stands = useMemo(() => standing(needs.lines, supplyFrom(supply, onHand)), [needs, supply, onHand]);
  const cents = useMemo(() => new Map(prices), [prices]);
  const paid = useMemo(() => new Map(deposits), [deposits]);
  const [search] = useSearchParams();
  const shown = shownLine(needs.lines, search.get("line"), job, applied);
  const wanted = needs.lines
    .flatMap(({ id, number: of }) => {
      const one = stands.get(id);
      return of !== null && one && one.short + one.shelf > 0 ? [`${of} ${one.short + one.shelf}`] : [];
    })
    .join(",");
  return (
    <div>
      <div className="mb-1 flex min-h-[50px] items-center gap-3">
        <div className="grow">
          <NeedsHead lines={needs.lines} stands={stands} prices={cents} />
        </div>
        <QuoteGiven lines={needs.lines} prices={cents} />
        <a className="btn touch" href={`/jobs/${number}/quote.pdf`} download>
          <Download size={20} aria-hidden="true" /> Quote
        </a>
      </div>
      <div className="grid grid-cols-[minmax(0,5fr)_minmax(0,3fr)] items-start gap-3 max-[1100px]:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
        <div className="grid grid-cols-1 gap-3">
          <NeedsList lines={needs.lines} stands={stands} deposits={paid} shown={shown?.id ?? null} />
          <OpenYet states={needs.open} number={number} />
        </div>
        <div className="grid grid-cols-1 gap-3">
          {shown && <ComesFrom key={shown.id} line={shown} deposit={paid.get(shown.number ?? "")} />}
          <CoverPanel wanted={wanted} number={number} closed={job.closed !== null} orderId={ids.order} />
          {staff.role !== "builder" && <BoxOver box={supply.box} lines={needs.lines} id={ids.back} />}
          <WhileOpenList list={needs.whileOpen} prices={cents} hourCents={house.hourCents} />
        </div>
      </div>
    </div>
  );
}
