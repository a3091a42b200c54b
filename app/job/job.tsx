import { KEPT } from "~/offline/keys";
import { BookOpen, Images, Tag } from "lucide-react";
import { memo, useDeferredValue, useEffect, useMemo, type ComponentProps } from "react";
import { Link, Outlet, useLocation, useNavigate, useParams } from "react-router";
import { bringBook } from "~/revision/bring";
import { bookAt as bookOf, revisionPath, type RevisionRef } from "~/revision/kept-books";
import { Find } from "~/book/find";
import { Disagreements } from "./disagreements";
import { versionSearch } from "~/book/version-search";
import { loadOrKept, withSaid } from "~/offline/kept";
import { factsOfPage, jobOfPage, jobPage } from "~/view/job-page";
import { Bar, TOOL } from "~/frame/bar";
import { BESIDE, NextThing, Pages } from "~/frame/pages";
import { Rail } from "~/frame/rail";
import { SlimAxis, type OtherFigure } from "~/frame/slim-axis";
import { pagesOf, stageOf } from "~/frame/stages";
import { stationWays } from "~/frame/stations";
import { TakePhoto } from "~/photos/take";
import { OWN_FRAME, useInside } from "~/door/inside";
import { RailTimers } from "~/build/rail-timers";
import { Axis, type AxisPack } from "~/look/axis";
import { markOf } from "~/look/mark";
import { useKeys } from "~/look/use-keys";
import { useUnit } from "~/look/use-unit";
import { nowSeen } from "~/live/seen";
import { useLive } from "~/live/use-live";
import { skipTabChanges } from "~/look/revalidate";
import { useFacts } from "~/outbox/use-outbox";
import { type Applied, type Book, type UnitSystem, unitName } from "~core/book";
import { jobWithBook, depthsOf } from "~core/fact";
import { stageWords, standingOf, type Standing } from "~core/stage";
import {
  chosenSheets,
  houseOf,
  isPackSheet,
  leavesWith,
  type PackSheet,
  type Worksheet,
} from "~core/measure";
import { jobRecord } from "~/server/job-context";
import { bookAt, bookPage, type JobView } from "~/view/view";
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
  withBook(await withSaid(await loadOrKept(KEPT.job(params.number), serverLoader)));

export const handle = OWN_FRAME;

export const shouldRevalidate = skipTabChanges;

export const meta: Route.MetaFunction = ({ params }) => [{ title: `Job ${params.number} · Yard Key` }];

export default function JobPage({
  loaderData: { id, number, opened, book: ref, facts: factsText, seq, houseValues, newer },
}: Route.ComponentProps) {
  const { house, staff } = useInside();
  const { chain } = useParams();
  const book = bookOf(ref);
  const told = factsOfPage(factsText);
  const since = useLive(id, number, seq);
  const facts = useFacts(number, told, since);
  const seen = (since.at(-1) ?? told.at(-1))?.id;
  useEffect(() => nowSeen(number, id, seen), [number, id, seen]);
  const [unit, changeUnit] = useUnit(book.unit.lengthUnit);
  const view = useMemo((): JobView => {
    const { job, applied } = jobWithBook(book, jobOfPage(facts), houseValues);
    const depths = depthsOf(book, job);
    let sheets: Worksheet[] | undefined;
    let standing: Standing | undefined;
    return {
      number,
      opened,
      book,
      job,
      depths,
      applied,
      unit,
      // Worked out when a page asks: those before the unit is opened show no pack.
      get sheets() {
        return (sheets ??= chosenSheets(job, applied, house));
      },
      get standing() {
        return (standing ??= standingOf(job, applied, houseOf(job, house)));
      },
    };
  }, [facts, book, house, houseValues, number, opened, unit]);
  const place = useLocation()
    .pathname.replace(/\/$/, "")
    .slice(`/jobs/${number}`.length + 1);
  // The frame is not what a reading waits for: it is drawn once the page stands.
  const framed = useDeferredValue(view);
  const packs = useMemo(
    () =>
      inAxisOrder(
        framed.sheets.filter(isPackSheet).map((sheet) => axisPack(sheet, number, chain)),
        book,
      ),
    [framed, number, chain, book],
  );
  const others = useMemo(
    () =>
      framed.sheets.filter((sheet) => !isPackSheet(sheet)).map((sheet) => otherFigure(sheet, number, chain)),
    [framed, number, chain],
  );
  useJobKeys(number, packs, changeUnit);
  return (
    <>
      {/* What draws this page in the browser waits for its book: app/entry.client.tsx. */}
      <link
        rel="preload"
        as="fetch"
        crossOrigin="anonymous"
        href={revisionPath(ref)}
        data-book={ref.id}
        data-digest={ref.digest}
      />
      <JobBar
        staff={staff}
        footKey={house.footKey}
        number={number}
        book={book}
        vehicle={view.job.booking?.body.vehicle ?? ""}
        scope={view.depths.join(" + ")}
        closed={view.job.closed !== null}
        applied={view.applied}
        search={versionSearch(book, view.job.configuration, view.depths).toString()}
        unit={unit}
        place={place}
        changeUnit={changeUnit}
      />
      <div className="flex">
        <StageRail view={framed} place={place} packs={packs} />
        <main className="relative mx-auto max-w-[1320px] min-w-0 grow px-3 pt-1 pb-3">
          {place !== "" && <StageHead view={framed} place={place} packs={packs} others={others} />}
          {newer && !view.job.closed && <NewerRevision view={view} newer={newer} />}
          <Disagreements job={view.job} book={book} number={number} />
          {place === "" && <UnitMap view={framed} packs={packs} />}
          <Outlet context={view} />
        </main>
      </div>
    </>
  );
}

/** The unit as the job's map: every station with what is open there. */
function UnitMap({ view: { number, applied, standing, job }, packs }: Omit<Framed, "place">) {
  const ways = useMemo(
    () => (job.closed ? undefined : stationWays(number, applied, standing)),
    [number, applied, standing, job],
  );
  const { stations } = applied.present;
  // Nothing is written down along its shaft yet.
  return stations.length > 0 ? <Axis stations={stations} packs={packs} ways={ways} tall /> : null;
}

interface BarProps {
  staff: ComponentProps<typeof Bar>["staff"];
  footKey: string;
  number: number;
  book: Book;
  vehicle: string;
  /** How deep the work goes, in words. */
  scope: string;
  closed: boolean;
  applied: Applied;
  unit: UnitSystem;
  place: string;
  changeUnit: () => void;
  /** Which version the book's pages are asked for. */
  search: string;
}

/** The bar of a job; a reading changes nothing of it. */
const JobBar = memo(function JobBar({ staff, footKey, ...job }: BarProps) {
  return <Bar staff={staff} footKey={footKey} job={<WhichJob {...job} />} tools={<Tools {...job} />} />;
});

type OfJob = Omit<BarProps, "staff" | "footKey">;

function WhichJob({ number, book, vehicle, scope, closed }: OfJob) {
  return (
    <Link to={`/jobs/${number}`} className="touch flex min-w-0 items-center gap-3 pr-2">
      <span className="text-2xl font-bold">{number}</span>
      <span className="min-w-0 leading-tight">
        <span className="block truncate font-semibold">{vehicle}</span>
        <span className="block truncate text-sm opacity-80">
          {unitName(book.unit)}, {scope}
          {closed && <b> · closed</b>}
        </span>
      </span>
    </Link>
  );
}

/** What is at hand at every stage. */
function Tools({ number, book, closed, search, applied, unit, place, changeUnit }: OfJob) {
  const at = (page: string): string => bookPage(book, search, page);
  const photos = place !== "photos" && place !== "teardown";
  return (
    <>
      {photos && <TakePhoto of={place || "job"} view={{ number, closed }} small />}
      <Find className={TOOL} applied={applied} unit={unit} to={(page, id) => `${at(page)}#${id}`} />
      <Link to={at("")} className={TOOL} aria-label="Book">
        <BookOpen size={20} aria-hidden="true" />
      </Link>
      <Link to={`/jobs/${number}/photos`} className={TOOL} aria-label="Photos">
        <Images size={20} aria-hidden="true" />
      </Link>
      <Link to={`/jobs/${number}/labels`} className={TOOL} aria-label="Labels">
        <Tag size={20} aria-hidden="true" />
      </Link>
      <button type="button" className={TOOL} onClick={changeUnit}>
        {unit} <kbd className="key max-[1240px]:hidden">u</kbd>
      </button>
    </>
  );
}

interface Framed {
  view: JobView;
  place: string;
  packs: readonly AxisPack[];
}

const StageRail = memo(function StageRail({ view, place, packs }: Framed) {
  const { standing, number } = view;
  const due = standing.next?.what === "pack" ? standing.next.subject : undefined;
  const first = packs.find(({ id }) => id === due) ?? packs.find(({ quiet }) => !quiet) ?? packs[0];
  return (
    <Rail
      number={number}
      stages={standing.stages}
      here={stageOf(place)}
      next={standing.next?.stage ?? null}
      firstPack={first?.id}
    >
      <RailTimers job={view.job} applied={view.applied} number={number} />
    </Rail>
  );
});

/** The pages of the stage one is in, and what is next on the job. */
const StageHead = memo(function StageHead({
  view,
  place,
  packs,
  others,
}: Framed & { others: readonly OtherFigure[] }) {
  const { standing, number } = view;
  const stage = stageOf(place);
  const pages = pagesOf(stage);
  const next = standing.next && <NextThing number={number} next={standing.next} />;
  // A stage that is one page begins with that page's own head, which leaves room for what is next.
  if (pages.length === 1 && stage !== "choose")
    return <div className={`no-print absolute top-1 right-3 ${BESIDE.wide}`}>{next}</div>;
  return (
    <div className="no-print mb-1 flex min-h-[48px] items-center gap-4">
      {stage === "choose" && <SlimAxis packs={packs} others={others} />}
      <Pages
        number={number}
        pages={pages}
        {...(stage === "choose" ? { label: "The packs in one view" } : {})}
      />
      <span className="grow" />
      {next}
    </div>
  );
});

function NewerRevision({ view, newer }: { view: JobView; newer: { revision: number } }) {
  const { revision } = view.book.unit;
  return (
    <p role="status" className="plate border-accent no-print mb-2 flex items-center gap-4 border-2 px-4 py-1">
      <span className="grow">
        Revision {newer.revision} of this book is out. This job stays on revision {revision}.
      </span>
      <Link
        to={`${bookAt(view, "revisions")}&from=${revision}&to=${newer.revision}`}
        className="touch flex items-center font-semibold underline underline-offset-4"
      >
        What changed for it
      </Link>
    </p>
  );
}

/** How a pack shows on the axis: a mark, and what it waits for. */
function axisPack(sheet: PackSheet, number: number, current: string | undefined): AxisPack {
  const { applied, stage, found, trial, built, choice, conditions } = sheet;
  // Only an as-built verdict is drawn as one: what a trial says is not yet what the unit leaves with.
  const begun = found.readings.length + trial.readings.length > 0;
  const counts = choice && built.readings.length > 0 && conditions.missing.length === 0;
  const verdict = counts ? markOf(built.assessment.verdict) : begun ? "begun" : "none";
  const mark =
    stage.at === "quiet" || stage.at === "signed" ? stage.at : stage.at === "astray" ? "begun" : verdict;
  return {
    id: applied.chain.id,
    station: applied.pack.station,
    name: applied.pack.element.toUpperCase(),
    aka: applied.pack.name,
    mark,
    words: stageWords(stage),
    quiet: stage.at === "quiet",
    current: current === applied.chain.id,
    to: `/jobs/${number}/choose/${applied.chain.id}`,
  };
}

/** A figure that is no pack’s as the head of the stage shows it. */
function otherFigure(sheet: Worksheet, number: number, current: string | undefined): OtherFigure {
  const { applied, stage, conditions } = sheet;
  const { readings, assessment } = leavesWith(sheet);
  const read =
    readings.length === 0 ? "none" : conditions.missing.length > 0 ? "begun" : markOf(assessment.verdict);
  const mark =
    stage.at === "quiet" || stage.at === "signed"
      ? stage.at
      : stage.at === "done"
        ? stage.unlimited
          ? "not stated"
          : "inside"
        : stage.at === "astray" || (stage.at === "trial" && stage.begun)
          ? "begun"
          : read;
  return {
    id: applied.chain.id,
    name: applied.chain.name,
    mark,
    words: stageWords(stage),
    quiet: stage.at === "quiet",
    current: current === applied.chain.id,
    to: `/jobs/${number}/choose/${applied.chain.id}`,
  };
}

const inAxisOrder = (packs: readonly AxisPack[], book: Book): AxisPack[] => {
  const at = (pack: AxisPack): number => book.stations.find(({ id }) => id === pack.station)?.from ?? 0;
  return [...packs].sort((a, b) => at(a) - at(b));
};

function useJobKeys(number: number, packs: readonly AxisPack[], changeUnit: () => void): void {
  const navigate = useNavigate();
  const current = packs.findIndex((pack) => pack.current);
  const go = (to: string | undefined): void => void (to && navigate(to));
  useKeys({ u: changeUnit });
  useKeys(
    {
      x: () => go(`/jobs/${number}`),
      b: () => go(`/jobs/${number}/sheet`),
      "[": () => go(packs[current < 0 ? packs.length - 1 : Math.max(0, current - 1)]?.to),
      "]": () => go(packs[current < 0 ? 0 : Math.min(packs.length - 1, current + 1)]?.to),
    },
    { printed: false },
  );
  useEffect(() => {
    const leave = ({ key, target }: KeyboardEvent): void => {
      if (key === "Escape" && target instanceof HTMLInputElement) target.blur();
    };
    document.addEventListener("keydown", leave);
    return () => document.removeEventListener("keydown", leave);
  }, []);
}
