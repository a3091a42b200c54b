import { KEPT } from "~/offline/keys";
import { BookOpen, Images, Tag } from "lucide-react";
import { memo, useDeferredValue, useEffect, useMemo, type ComponentProps } from "react";
import { Link, Outlet, useLocation, useNavigate } from "react-router";
import { bringBook } from "~/revision/bring";
import { bookAt as bookOf, revisionPath, type RevisionRef } from "~/revision/kept-books";
import { Find } from "~/book/find";
import { Disagreements } from "./disagreements";
import { versionSearch } from "~/book/version-search";
import { loadOrKept, withSaid } from "~/offline/kept";
import { factsOfPage, jobPage } from "~/view/job-page";
import { viewsOf } from "~/view/views";
import { Bar, TOOL } from "~/frame/bar";
import { TakePhoto } from "~/photos/take";
import { OWN_FRAME, useInside } from "~/door/inside";
import { useKeys } from "~/look/use-keys";
import { useUnit } from "~/look/use-unit";
import { nowSeen } from "~/live/seen";
import { useLive } from "~/live/use-live";
import { soon } from "~/look/soon";
import { skipTabChanges } from "~/look/revalidate";
import { useFacts } from "~/outbox/use-outbox";
import { type Applied, type Book, type UnitSystem, unitName } from "~core/book";
import { jobRecord } from "~/server/job-context";
import { bookAt, bookPage, JobAtContext, JobNowContext, type JobView } from "~/view/view";
import type { Route } from "./+types/job";

export const loader = async ({ context, params }: Route.LoaderArgs) => {
  const record = await jobRecord(context, params.number);
  return jobPage(record);
};

/** What frames the page comes after it: what one reads or enters does not wait for the rail. */
const frame = soon(() => import("./frame"));
const StageRail = frame.part("StageRail");
const StageHead = frame.part("StageHead");
const UnitMap = frame.part("UnitMap");

const withBook = async <T extends { book: RevisionRef }>(page: T): Promise<T> => {
  await bringBook(page.book);
  return page;
};

export const clientLoader = async ({ params, serverLoader }: Route.ClientLoaderArgs) =>
  frame.beside(loadOrKept(KEPT.job(params.number), serverLoader).then(withSaid).then(withBook));

export const handle = OWN_FRAME;

export const shouldRevalidate = skipTabChanges;

export const meta: Route.MetaFunction = ({ params }) => [{ title: `Job ${params.number} · Yard Key` }];

export default function JobPage({
  loaderData: { id, number, opened, book: ref, facts: factsText, seq, houseValues, newer },
}: Route.ComponentProps) {
  const { house, staff } = useInside();
  const book = bookOf(ref);
  const told = factsOfPage(factsText);
  const since = useLive(id, number, seq);
  const from = useMemo(() => ({ job: number, told, since }), [number, told, since]);
  const facts = useFacts(from);
  const seen = (since.at(-1) ?? told.at(-1))?.id;
  useEffect(() => nowSeen(number, id, seen), [number, id, seen]);
  const [unit, changeUnit] = useUnit(book.unit.lengthUnit);
  const viewOf = useMemo(
    () => viewsOf({ ref, number, opened, book, unit, house, houseValues }),
    [ref, number, opened, book, unit, house, houseValues],
  );
  const view = viewOf(facts);
  const now = useMemo(() => ({ from, viewOf }), [from, viewOf]);
  const at = useMemo(() => ({ number, book, unit }), [number, book, unit]);
  const place = useLocation()
    .pathname.replace(/\/$/, "")
    .slice(`/jobs/${number}`.length + 1);
  // The frame is not what a reading waits for: it is drawn once the page stands.
  const framed = useDeferredValue(view);
  useJobKeys(number, changeUnit);
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
        <StageRail view={framed} place={place} />
        <main className="relative mx-auto max-w-[1320px] min-w-0 grow px-3 pt-1 pb-3">
          {place !== "" && <StageHead view={framed} place={place} />}
          {newer && !view.job.closed && <NewerRevision view={view} newer={newer} />}
          <Disagreements job={view.job} book={book} number={number} />
          {place === "" && <UnitMap view={framed} />}
          <JobAtContext value={at}>
            <JobNowContext value={now}>
              <Outlet context={view} />
            </JobNowContext>
          </JobAtContext>
        </main>
      </div>
    </>
  );
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

function useJobKeys(number: number, changeUnit: () => void): void {
  const navigate = useNavigate();
  useKeys({ u: changeUnit });
  useKeys(
    {
      x: () => void navigate(`/jobs/${number}`),
      b: () => void navigate(`/jobs/${number}/sheet`),
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
