import { data, Link } from "react-router";
import { v5 as namedId, v7 as newId } from "uuid";
import { useInside } from "~/door/inside";
import { cardsMadeBy, makeCard } from "~/jobs/card";
import { restockedBeside } from "~/server/beside";
import { services } from "~/server/context";
import { readForm, typedIn } from "~/server/form";
import { mustBe } from "~/server/session";
import { tableGiven } from "~/table/pasted";
import { readTable } from "~/table/read-table";
import { moneyText } from "~core/quantity";
import type { Chance, PartDemand } from "~core/restock";
import { field, maybeWords, uuid, whole, words } from "~core/shape";
import { readHouse } from "~store/house";
import { listJobs } from "~store/jobs";
import { gotFor } from "~store/orders";
import { countTable, keptParts, shelfValue, takenByJobs, unitsOf } from "~store/restock";
import type { Route } from "./+types/keep";
import { AsTable } from "./as-table";
import { Value } from "./value";

export const meta: Route.MetaFunction = () => [{ title: "What to keep · Yard Key" }];

const AHEAD = [5, 10, 20] as const;
const LEVELS = [80, 90, 95] as const;
const SHOWN = 14;
const MOST_BYTES = 4_000_000;

export const loader = async ({ context, request }: Route.LoaderArgs) => {
  const { pool } = context.get(services);
  const search = new URL(request.url).searchParams;
  const jobs = AHEAD.find((one) => `${one}` === search.get("jobs")) ?? 10;
  const level = LEVELS.find((one) => `${one}` === search.get("level")) ?? 90;
  const house = await readHouse(pool);
  const [past, kept, value, { rows }] = await Promise.all([
    takenByJobs(pool),
    keptParts(pool),
    shelfValue(pool),
    listJobs(pool, { which: "open" }, cardsMadeBy(house), makeCard(house)),
  ]);
  const numbers = rows.map(({ number }) => number);
  const [got, units] = await Promise.all([gotFor(pool, numbers), unitsOf(pool, numbers)]);
  // The one that waits longest is built first; what it has already it does not take.
  const known = [...rows].reverse().map(({ number, wants }) => {
    const has = got.get(number);
    const left = wants.flatMap(([part, pieces]): [string, number][] => {
      const more = pieces - (has?.get(part) ?? 0);
      return more > 0 ? [[part, more]] : [];
    });
    const { unit = "", chosen = false } = units.get(number) ?? {};
    return { unit, wants: new Map(left), chosen };
  });
  const answer = await restockedBeside({
    past,
    known,
    jobs,
    level: level / 100,
    shelf: new Map(kept.map(({ part, free }) => [part, free])),
    cents: new Map(kept.flatMap(({ part, cents }) => (cents === null ? [] : [[part, cents]]))),
  });
  const names = new Map(kept.map(({ part, name, cents }) => [part, { name, cents: cents ?? 0 }]));
  const parts = answer.parts.filter(({ short, buy }, i) => buy > 0 || (short > 0 && i < SHOWN));
  return {
    jobs,
    level,
    records: past.length,
    here: Math.min(known.length, jobs),
    answer: Object.assign(answer, { parts }),
    names: parts.map(({ part }): [string, { name: string; cents: number }] => [
      part,
      names.get(part) ?? { name: part, cents: 0 },
    ]),
    value,
    id: newId(),
  };
};

const counted = {
  id: field(uuid),
  list: field(maybeWords(MOST_BYTES), "Over 4 MB; take it in as several."),
  reason: field(words(2, 200), "Say why: the count of the year, another bin."),
};
const LINE = {
  part: field(words(1, 80), "no part number of at most 80 letters."),
  pieces: field(whole(0, 100_000), "is no number of pieces; write 4."),
};

/** Takes a counted table in: all of it or nothing. */
export const action = async ({ context, request }: Route.ActionArgs) => {
  const staff = mustBe(context, "parts", "lead", "owner");
  const form = readForm(counted, await typedIn(request));
  if ("problems" in form) return data({ ...form, changed: null }, { status: 400 });
  const { id, list, reason } = form.values;
  const text = await tableGiven(request, list);
  const refuse = (problems: readonly string[]) => {
    const told: Record<string, string> = { list: problems.join("\n") };
    return data({ problems: told, typed: { list: text, reason }, changed: null }, { status: 400 });
  };
  const read = readTable(text, LINE, { must: ["part", "pieces"], example: "part,pieces" });
  if (!read.ok) return refuse(read.problems);
  const twice = read.rows.find(({ part }, i) => read.rows.findIndex((one) => one.part === part) !== i);
  if (twice) return refuse([`${twice.part} stands there twice: which is it?`]);
  const lines = read.rows.map(({ part, pieces }) => ({ part, pieces, id: namedId(part, id) }));
  const done = await countTable(context.get(services).pool, lines, { reason, by: staff.name });
  if ("unknown" in done)
    return refuse(done.unknown.slice(0, 8).map((part) => `The shelf keeps no ${part}: nothing was counted.`));
  return data({ problems: {}, typed: {}, changed: done.changed });
};

/** What to keep on the shelf, of this shop’s own records. */
export default function Keep({ loaderData, actionData }: Route.ComponentProps) {
  const { jobs, level, records, here, answer, names, value, id } = loaderData;
  const { staff } = useInside();
  const nameOf = new Map(names);
  const pastJobs = `${records} past ${records === 1 ? "job" : "jobs"}`;
  const from =
    here === 0
      ? `as ${pastJobs} went`
      : `${here} ${here === 1 ? "is" : "are"} here; what is not chosen yet as ${pastJobs} went`;
  return (
    <main className="mx-auto max-w-[1320px] p-4">
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <h1 className="text-3xl font-bold">What to keep</h1>
        <Asked
          name="jobs"
          label="The next"
          options={AHEAD}
          value={jobs}
          other={`level=${level}`}
          words={(n) => `${n} jobs`}
        />
        <Asked
          name="level"
          label="Ready"
          options={LEVELS}
          value={level}
          other={`jobs=${jobs}`}
          words={(n) => `${n} %`}
        />
        <span className="grow" />
        <Link to="/shelf" className="btn touch">
          Shelf
        </Link>
      </div>
      {records === 0 && here === 0 ? (
        <p className="plate p-8 text-xl">
          Nothing is known yet of what jobs take: once a few are closed, what to keep stands here.
        </p>
      ) : (
        <section className="plate mb-4 grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)_minmax(0,1.2fr)] gap-6 px-5 py-3">
          <Told
            title={`The next ${jobs} all finish from the shelf`}
            chance={answer.now}
            words={from}
            data="now"
          />
          <Told
            title="With what is bought below"
            chance={answer.then}
            words={`${level} % wanted`}
            data="then"
          />
          <p className="leading-tight" data-restock={answer.cents}>
            <span className="stamp block">The cheapest restock</span>
            <span className="figure block text-4xl">{moneyText(answer.cents)}</span>
            <span className="quiet text-sm">
              {answer.proven
                ? "none is cheaper for the futures drawn"
                : "the best found; not proved the cheapest"}
            </span>
          </p>
        </section>
      )}
      <div className="grid grid-cols-[minmax(0,3fr)_minmax(0,2fr)] items-start gap-4">
        <Parts parts={answer.parts} nameOf={nameOf} jobs={jobs} />
        <div className="grid gap-4">
          <Value value={value} />
          {staff.role !== "builder" && (
            <AsTable
              id={id}
              typed={actionData?.typed ?? {}}
              problems={actionData?.problems ?? {}}
              changed={actionData?.changed ?? null}
            />
          )}
        </div>
      </div>
    </main>
  );
}

/** One of a few numbers that is asked for in the address. */
function Asked({
  name,
  label,
  options,
  value,
  other,
  words: wordsOf,
}: {
  name: string;
  label: string;
  options: readonly number[];
  value: number;
  other: string;
  words: (n: number) => string;
}) {
  return (
    <nav aria-label={label} className="flex items-center gap-1">
      <span className="stamp mr-1">{label}</span>
      {options.map((one) => (
        <Link
          key={one}
          to={`?${name}=${one}&${other}`}
          replace
          aria-current={one === value ? "true" : undefined}
          className={`btn touch ${one === value ? "btn-secondary" : "btn-ghost"}`}
        >
          {wordsOf(one)}
        </Link>
      ))}
    </nav>
  );
}

const share = (chance: number): string => `${Math.round(100 * chance)} %`;

function Told({
  title,
  chance: { chance, low, high },
  words: said,
  data: of,
}: {
  title: string;
  chance: Chance;
  words: string;
  data: string;
}) {
  return (
    <p className="leading-tight" data-chance={of}>
      <span className="stamp block">{title}</span>
      <span className="figure block text-4xl">{share(chance)}</span>
      <span className="quiet text-sm">
        {high - low >= 0.01 && `${share(low)} to ${share(high)} by these records; `}
        {said}
      </span>
    </p>
  );
}

/** Parts that run out first, and what is bought of each. */
function Parts({
  parts,
  nameOf,
  jobs,
}: {
  parts: readonly PartDemand[];
  nameOf: ReadonlyMap<string, { name: string; cents: number }>;
  jobs: number;
}) {
  if (parts.length === 0) return <p className="plate p-6 text-xl">Nothing the shelf keeps runs out.</p>;
  return (
    <table className="plate w-full" aria-label="What runs out">
      <thead>
        <tr className="stamp text-left">
          <th scope="col" className="px-4 py-2">
            Part
          </th>
          <th scope="col" className="px-2 py-2 text-right">
            Here
          </th>
          <th scope="col" className="px-2 py-2 text-right">
            {jobs} jobs want
          </th>
          <th scope="col" className="px-2 py-2 text-right">
            Runs out
          </th>
          <th scope="col" className="px-4 py-2 text-right">
            Buy
          </th>
        </tr>
      </thead>
      <tbody>
        {parts.map(({ part, onHand, mean, most, short, buy }) => {
          const of = nameOf.get(part);
          return (
            <tr key={part} className="border-base-300 border-t" data-keep={part} data-buy={buy}>
              <th scope="row" className="px-4 py-1 text-left leading-tight">
                <Link
                  to={`/shelf/part/${encodeURIComponent(part)}`}
                  className="font-semibold underline underline-offset-4"
                >
                  {of?.name ?? part}
                </Link>
                <span className="quiet block text-sm font-normal">{part}</span>
              </th>
              <td className="figure px-2 text-right text-lg">{onHand}</td>
              <td className="figure px-2 text-right">
                {mean.toFixed(1)}
                <span className="quiet block text-sm">up to {most}</span>
              </td>
              <td className="figure px-2 text-right">{share(short)}</td>
              <td className="figure px-4 text-right leading-tight">
                {buy > 0 ? (
                  <>
                    <b className="text-xl">{buy}</b>
                    <span className="quiet block text-sm">{moneyText(buy * (of?.cents ?? 0))}</span>
                  </>
                ) : (
                  "–"
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
