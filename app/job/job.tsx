import { KEPT } from "~/offline/keys";
import { useEffect, useMemo } from "react";
import { Link, Outlet, useLocation, useNavigate, useOutletContext, useParams } from "react-router";
import { bringBook } from "~/revision/bring";
import { bookAt as bookOf, revisionPath, type RevisionRef } from "~/revision/kept-books";
import { Find } from "~/book/find";
import { Disagreements } from "./disagreements";
import { versionSearch } from "~/book/version-search";
import { orKept, withSaid } from "~/offline/kept";
import { factsOfPage, jobOfPage, jobPage } from "./job-page";
import { JobTabs } from "~/intake/tabs";
import { TakePhoto } from "~/photos/take";
import { useInside } from "~/door/inside";
import { Axis, type AxisPack } from "~/look/axis";
import { markOf } from "~/look/mark";
import { forPage } from "~/look/use-keys";
import { useUnit } from "~/look/use-unit";
import { useLive } from "~/live/use-live";
import { whenItMatters } from "~/look/revalidate";
import { useFacts } from "~/outbox/use-outbox";
import { type Applied, type Book, type System } from "~core/book";
import { appliedTo, depthsOf, type Job } from "~core/fact";
import { stageWords } from "~core/stage";
import { worksheets, type Worksheet } from "~core/measure";
import { jobRecord } from "~/server/job-context";
import type { Route } from "./+types/job";

export const loader = async ({ context, params }: Route.LoaderArgs) => {
  const record = await jobRecord(context, params.number);
  return jobPage(record);
};

const withBook = async <T extends { book: RevisionRef }>(page: T): Promise<T> => {
  await bringBook(page.book);
  return page;
};

export const clientLoader = async ({ params, serverLoader }: Route.ClientLoaderArgs) =>
  withBook(await withSaid(await orKept(KEPT.job(params.number), serverLoader)));

export const shouldRevalidate = whenItMatters;

export const meta: Route.MetaFunction = ({ params }) => [{ title: `Job ${params.number} · Yard Key` }];

/** A job as the pages within it see it: the server's facts and those still waiting here, folded and resolved. */
export interface JobView {
  number: number;
  opened: string;
  book: Book;
  job: Job;
  depths: readonly string[];
  applied: Applied;
  sheets: Worksheet[];
  unit: System;
  /** The last fact the shop had when this page was last told: what is said here stands behind it. */
  seen: string | undefined;
}
export const useJobView = (): JobView => useOutletContext<JobView>();

export default function JobPage({
  loaderData: { number, opened, book: ref, facts: factsText, seq, houseValues, newer },
}: Route.ComponentProps) {
  const { house } = useInside();
  const { chain } = useParams();
  const book = bookOf(ref);
  const told = factsOfPage(factsText);
  const since = useLive(number, seq);
  const facts = useFacts(number, told, since);
  const seen = (since.at(-1) ?? told.at(-1))?.id;
  const [unit, changeUnit] = useUnit(book.unit.lengthUnit);
  const view = useMemo((): JobView => {
    const job = jobOfPage(facts);
    const depths = depthsOf(book, job);
    const applied = appliedTo(book, job, houseValues);
    let sheets: Worksheet[] | undefined;
    return {
      number,
      opened,
      book,
      job,
      depths,
      applied,
      unit,
      seen,
      // Worked out when a page asks: those before the unit is opened show no pack.
      get sheets() {
        return (sheets ??= worksheets(job, applied, house));
      },
    };
  }, [facts, book, house, houseValues, number, opened, unit, seen]);
  const place = useLocation()
    .pathname.replace(/\/$/, "")
    .slice(`/jobs/${number}`.length + 1);
  const overview = place === "";
  const onAxis = overview || /^(pack|sheet)/.test(place);
  const packs = onAxis ? view.sheets.map((sheet) => axisPack(sheet, number, chain)) : [];
  useJobKeys(number, inAxisOrder(packs, book), changeUnit);
  return (
    <main className="mx-auto max-w-[1320px] p-3">
      {/* What draws this page in the browser waits for its book: app/entry.client.tsx. */}
      <link
        rel="preload"
        as="fetch"
        crossOrigin="use-credentials"
        href={revisionPath(ref)}
        data-book={ref.id}
        data-digest={ref.digest}
      />
      <div className="mb-2 flex items-center gap-4 max-[1100px]:gap-2">
        <Link to={`/jobs/${number}`} className="touch flex items-center gap-3">
          <span className="text-2xl font-bold">{number}</span>
          <span className="text-lg font-semibold">{view.job.booking?.body.vehicle}</span>
        </Link>
        <span className="quiet">
          {book.unit.maker} {book.unit.name}, {view.depths.join(" + ")}
          {view.job.closed && <b> · closed</b>}
        </span>
        <span className="grow" />
        {place !== "photos" && place !== "teardown" && <TakePhoto of={place || "job"} view={view} small />}
        <Find applied={view.applied} unit={unit} to={(page, id) => `${bookAt(view, page)}#${id}`} />
        <Link to={bookAt(view, "")} className="btn touch no-print">
          Book
        </Link>
        <button type="button" className="btn touch no-print" onClick={changeUnit}>
          {unit} <kbd className="key max-[1100px]:hidden">u</kbd>
        </button>
        <Link to={`/jobs/${number}/sheet`} className="btn touch no-print">
          Build sheet <kbd className="key max-[1100px]:hidden">b</kbd>
        </Link>
      </div>
      {newer && !view.job.closed && (
        <p
          role="status"
          className="plate border-accent no-print mb-2 flex items-center gap-4 border-2 px-4 py-1"
        >
          <span className="grow">
            Revision {newer.revision} of this book is out. This job stays on revision {book.unit.revision}.
          </span>
          <Link
            to={`${bookAt(view, "revisions")}&from=${book.unit.revision}&to=${newer.revision}`}
            className="touch flex items-center font-semibold underline underline-offset-4"
          >
            What changed for it
          </Link>
        </p>
      )}
      <Disagreements job={view.job} book={book} number={number} seen={seen} />
      <JobTabs number={number} />
      {onAxis && <Axis stations={view.applied.unit.stations} packs={packs} tall={overview} />}
      <Outlet context={view} />
    </main>
  );
}

/** The book's page for this very unit: its revision, its version, its depth. */
export function bookAt({ book, job, depths }: JobView, page: string): string {
  const search = versionSearch(book, job.configuration, depths);
  return `/books/${book.unit.id}${page && `/${page}`}?${search}`;
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

function useJobKeys(number: number, packs: readonly AxisPack[], changeUnit: () => void): void {
  const navigate = useNavigate();
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.altKey || event.metaKey) return;
      if (event.key === "Escape" && event.target instanceof HTMLInputElement) return event.target.blur();
      if (!forPage(event)) return;
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
