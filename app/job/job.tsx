import { useEffect, useMemo, useState } from "react";
import {
  Link,
  Outlet,
  useLocation,
  useNavigate,
  useOutletContext,
  useParams,
  useRouteLoaderData,
} from "react-router";
import { useInside } from "~/door/inside";
import { Axis, type AxisPack } from "~/look/axis";
import { keepLook, type Look } from "~/look/look-cookie";
import { markOf } from "~/look/mark";
import { whenItMatters } from "~/look/revalidate";
import { useFacts } from "~/outbox/use-outbox";
import { ground } from "~/server/context";
import { resolve, type Applied, type Book } from "~core/book";
import { fold, stageWords, worksheets, type Job, type Worksheet } from "~core/job";
import type { LengthUnit } from "~core/quantity";
import { jobByNumber } from "~store/jobs";
import type { Route } from "./+types/job";

export const loader = async ({ context, params }: Route.LoaderArgs) => {
  const record = await jobByNumber(context.get(ground).pool, Number(params.number));
  if (!record) throw new Response("There is no job of this number.", { status: 404 });
  const { id, number, opened, book, facts } = record;
  return { id, number, opened, book, facts };
};

export const shouldRevalidate = whenItMatters;

export const meta: Route.MetaFunction = ({ params }) => [{ title: `Job ${params.number} · Yard Key` }];

/** A job as the pages within it see it: the server's facts and those still waiting here, folded and resolved. */
export interface JobView {
  number: number;
  opened: string;
  book: Book;
  job: Job;
  depth: string;
  applied: Applied;
  sheets: Worksheet[];
  unit: LengthUnit;
}
export const useJobView = (): JobView => useOutletContext<JobView>();

export default function JobPage({ loaderData: { number, opened, book, facts: told } }: Route.ComponentProps) {
  const { house } = useInside();
  const { chain } = useParams();
  const facts = useFacts(number, told);
  const [unit, changeUnit] = useUnit(book.unit.lengthUnit);
  const view = useMemo((): JobView => {
    const job = fold(facts);
    const depth = job.depth ?? book.depths[0] ?? "";
    const applied = resolve(book, job.configuration, depth);
    return { number, opened, book, job, depth, applied, sheets: worksheets(job, applied, house), unit };
  }, [facts, book, house, number, opened, unit]);
  const packs = view.sheets.map((sheet) => axisPack(sheet, number, chain));
  useJobKeys(number, inAxisOrder(packs, book), changeUnit);
  const overview = useLocation().pathname.replace(/\/$/, "") === `/jobs/${number}`;
  return (
    <main className="mx-auto max-w-[1320px] p-3">
      <div className="mb-2 flex items-center gap-4">
        <Link to={`/jobs/${number}`} className="touch flex items-center gap-3">
          <span className="text-2xl font-bold">{number}</span>
          <span className="text-lg font-semibold">{view.job.booking?.body.vehicle}</span>
        </Link>
        <span className="quiet">
          {book.unit.maker} {book.unit.name}, {view.depth}
          {view.job.closed && <b> · closed</b>}
        </span>
        <span className="grow" />
        <button type="button" className="btn touch no-print" onClick={changeUnit}>
          {unit} <kbd className="key">u</kbd>
        </button>
        <Link to={`/jobs/${number}/sheet`} className="btn touch no-print">
          Build sheet <kbd className="key">b</kbd>
        </Link>
      </div>
      <Axis stations={book.stations} packs={packs} tall={overview} />
      <Outlet context={view} />
    </main>
  );
}

/** How a pack shows on the axis: a mark, and what it waits for. */
function axisPack(sheet: Worksheet, number: number, current: string | undefined): AxisPack {
  const { applied, stage, found, trial, built, choice } = sheet;
  // Only an as-built verdict is drawn as one: what a trial says is not yet what the unit leaves with.
  const begun = found.readings.length + trial.readings.length > 0;
  const verdict =
    choice && built.readings.length > 0 ? markOf(built.assessment.verdict) : begun ? "begun" : "none";
  const mark = stage.at === "quiet" || stage.at === "signed" ? stage.at : verdict;
  return {
    id: applied.chain.id,
    station: applied.pack.station,
    name: applied.pack.element.toUpperCase(),
    aka: applied.pack.name,
    mark,
    words: stageWords(stage),
    quiet: stage.at === "quiet",
    current: current === applied.chain.id,
    to: `/jobs/${number}/pack/${applied.chain.id}`,
  };
}

const inAxisOrder = (packs: readonly AxisPack[], book: Book): AxisPack[] => {
  const at = (pack: AxisPack): number => book.stations.find(({ id }) => id === pack.station)?.from ?? 0;
  return [...packs].sort((a, b) => at(a) - at(b));
};

function useUnit(ofBook: LengthUnit): [LengthUnit, () => void] {
  const look = useRouteLoaderData<Look>("root");
  const [unit, setUnit] = useState<LengthUnit>(look?.unit ?? ofBook);
  return [
    unit,
    () => {
      const other = unit === "mm" ? "in" : "mm";
      keepLook("unit", other);
      setUnit(other);
    },
  ];
}

/** Whether a key belongs to a field that is being filled. */
export const inField = (event: KeyboardEvent): boolean =>
  event.target instanceof HTMLElement &&
  event.target.closest("input:not([type=radio]), textarea, select, dialog") !== null;

function useJobKeys(number: number, packs: readonly AxisPack[], changeUnit: () => void): void {
  const navigate = useNavigate();
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.altKey || event.metaKey) return;
      if (event.key === "Escape" && event.target instanceof HTMLInputElement) return event.target.blur();
      if (inField(event)) return;
      const current = packs.findIndex((pack) => pack.current);
      const go = (to: string | undefined): void => void (to && navigate(to));
      if (event.key === "x") go(`/jobs/${number}`);
      else if (event.key === "b") go(`/jobs/${number}/sheet`);
      else if (event.key === "u") changeUnit();
      else if (event.key === "[") go(packs[current < 0 ? packs.length - 1 : Math.max(0, current - 1)]?.to);
      else if (event.key === "]") go(packs[current < 0 ? 0 : Math.min(packs.length - 1, current + 1)]?.to);
    };
    document.addEventListener("keydown", onKey);
    return () => document.removeEventListener("keydown", onKey);
  });
}
