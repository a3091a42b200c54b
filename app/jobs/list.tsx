import { minutesWords } from "~/look/minutes";
import { KEPT } from "~/offline/keys";
import { useWhen } from "~/door/when";
import { loadOrKept } from "~/offline/kept";
import { useKept } from "~/offline/use-kept";
import { Plus } from "lucide-react";
import { Link } from "react-router";
import { useInside } from "~/door/inside";
import { services } from "~/server/context";
import { readHouse } from "~store/house";
import { listJobs, type CardRow, type JobFilter } from "~store/jobs";
import { dayText } from "~/parts/day";
import type { Route } from "./+types/list";
import { LEADS } from "~core/fact";
import { cardsMadeBy, makeCard } from "./card";

export const meta: Route.MetaFunction = () => [{ title: "Jobs · Yard Key" }];

export const loader = async ({ context, request }: Route.LoaderArgs) => {
  const { pool } = context.get(services);
  const search = new URL(request.url).searchParams;
  const before = Number(search.get("before"));
  const filter: JobFilter = {
    which: search.get("which") === "closed" ? "closed" : "open",
    holder: search.get("holder") ?? undefined,
    before: Number.isInteger(before) && before > 0 ? before : undefined,
  };
  const house = await readHouse(pool);
  const { rows, more } = await listJobs(pool, filter, cardsMadeBy(house), makeCard(house));
  // What each wants is the parts person’s, and long.
  return { rows: rows.map((row) => ({ ...row, wants: [] })), more, filter };
};

export const clientLoader = ({ request, serverLoader }: Route.ClientLoaderArgs) =>
  loadOrKept(KEPT.list(new URL(request.url).search), serverLoader);

export default function Jobs({ loaderData: { rows, more, filter } }: Route.ComponentProps) {
  const { staff } = useInside();
  const { day } = useWhen();
  useKept(KEPT.list(), { rows, more, filter });
  const last = rows.at(-1);
  const onward = new URLSearchParams({
    which: filter.which,
    ...(filter.holder ? { holder: filter.holder } : {}),
    before: `${last?.number}`,
  });
  return (
    <main className="mx-auto max-w-[1320px] p-4">
      <div className="mb-4 flex items-center gap-3">
        <h1 className="text-3xl font-bold">Jobs</h1>
        <nav aria-label="Which jobs" className="ml-4 flex gap-2">
          <Tab to="/" words="Open" current={filter.which === "open" && !filter.holder} />
          <Tab
            to={`/?holder=${encodeURIComponent(staff.name)}`}
            words="Mine"
            current={Boolean(filter.holder)}
          />
          <Tab to="/?which=closed" words="Closed" current={filter.which === "closed"} />
        </nav>
        <span className="grow" />
        {LEADS.includes(staff.role) && (
          <Link to="/jobs/import" className="btn touch">
            Import
          </Link>
        )}
        <Link to="/jobs/new" className="btn btn-primary btn-lg touch">
          <Plus size={24} aria-hidden="true" /> Open a job
        </Link>
      </div>
      {rows.length === 0 ? (
        <p className="plate p-8 text-xl">
          {filter.which === "closed"
            ? "No job has been closed yet."
            : "Nothing on the benches. Open a job for the next unit that comes in."}
        </p>
      ) : (
        <ul className="grid gap-2">
          {rows.map((row) => (
            <li key={row.number}>
              <Link
                to={`/jobs/${row.number}`}
                className="plate hover:border-primary grid grid-cols-[5rem_minmax(0,1.3fr)_minmax(0,1fr)_minmax(0,1.4fr)_9rem] items-center gap-4 px-4 py-2.5"
              >
                <span className="text-2xl font-bold">{row.number}</span>
                <span className="min-w-0">
                  <span className="block truncate text-lg font-semibold">{row.vehicle}</span>
                  <span className="quiet block text-sm">opened {day(row.opened)}</span>
                </span>
                <span className="min-w-0">
                  <span className="block truncate font-semibold">{row.unit}</span>
                  <span className="quiet block text-sm" data-left={row.minutesLeft}>
                    {row.depth}
                    {row.open && row.minutesLeft > 0 && ` · ${minutesWords(row.minutesLeft)} of steps left`}
                  </span>
                </span>
                <span className="min-w-0">
                  <span className="stamp quiet block">{row.open ? "waits for" : "closed"}</span>
                  <span className="block truncate text-lg">
                    {row.open ? row.waitsFor : `${row.done} of ${row.packs} packs recorded`}
                  </span>
                  {row.open && row.coming && <Coming coming={row.coming} />}
                </span>
                <span className="text-right">
                  <span className="block font-semibold">{row.holder ?? "nobody yet"}</span>
                  {row.open && <Progress done={row.done} packs={row.packs} />}
                </span>
              </Link>
            </li>
          ))}
        </ul>
      )}
      {more && (
        <Link to={`/?${onward}`} className="btn touch mt-4">
          Older jobs
        </Link>
      )}
    </main>
  );
}

/** Parts on their way to a job. */
const Coming = ({ coming: { lines, due, isLate } }: { coming: NonNullable<CardRow["coming"]> }) => (
  <span className={`block text-sm ${isLate ? "text-error font-bold" : ""}`} data-coming={lines}>
    {lines} {lines === 1 ? "part" : "parts"} on the way
    {due !== null && `, ${isLate ? "late, was due" : "the last"} ${dayText(due)}`}
  </span>
);

const Tab = ({ to, words, current }: { to: string; words: string; current: boolean }) => (
  <Link
    to={to}
    aria-current={current ? "page" : undefined}
    className={`btn touch ${current ? "btn-secondary" : "btn-ghost"}`}
  >
    {words}
  </Link>
);

/** One block a pack, filled when it is proven or signed. */
function Progress({ done, packs }: { done: number; packs: number }) {
  return (
    <svg
      viewBox="0 0 90 14"
      width="90"
      height="14"
      className="ml-auto"
      role="img"
      aria-label={`${done} of ${packs} packs done`}
    >
      {Array.from({ length: packs }, (_, i) => (
        <rect
          key={i}
          className={`${i < done ? "fill-good stroke-good" : "stroke-ink fill-none"}`}
          strokeWidth="1.5"
          x={90 - (packs - i) * 17}
          y="1"
          width="13"
          height="12"
        />
      ))}
    </svg>
  );
}
