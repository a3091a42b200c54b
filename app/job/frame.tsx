import { memo, useMemo } from "react";
import { useNavigate, useParams } from "react-router";
import { RailTimers } from "~/build/rail-timers";
import { BESIDE, NextThing, Pages } from "~/frame/pages";
import { Rail } from "~/frame/rail";
import { SlimAxis, type OtherFigure } from "~/frame/slim-axis";
import { pagesOf, stageOf } from "~/frame/stages";
import { stationWays } from "~/frame/stations";
import { Axis, type AxisPack } from "~/look/axis";
import { markOf } from "~/look/mark";
import { useKeys } from "~/look/use-keys";
import { standingIn } from "~/view/standing";
import type { JobView } from "~/view/view";
import { workedOut } from "~/view/worked-out";
import type { Book } from "~core/book";
import { isPackSheet, leavesWith, type PackSheet, type Worksheet } from "~core/measure";
import { stageWords } from "~core/stage";

interface Framed {
  view: JobView;
  /** The page of the job one is on. */
  place: string;
}

const packsIn = workedOut(({ sheets, number, book }) =>
  inAxisOrder(
    sheets.filter(isPackSheet).map((sheet) => axisPack(sheet, number)),
    book,
  ),
);

/** The packs of a job in the order of their stations, the one whose page it is among them. */
function usePacks(view: JobView): readonly AxisPack[] {
  const { chain } = useParams();
  const packs = packsIn(view);
  return useMemo(
    () => (chain ? packs.map((pack) => ({ ...pack, current: pack.id === chain })) : packs),
    [packs, chain],
  );
}

/** The stages of the job, each with how it stands; what stands in fluid counts down below them. */
export const StageRail = memo(function StageRail({ view, place }: Framed) {
  const { number } = view;
  const standing = standingIn(view);
  const packs = usePacks(view);
  usePackKeys(packs);
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
      <RailTimers view={view} />
    </Rail>
  );
});

/** The pages of the stage one is in, and what is next on the job. */
export const StageHead = memo(function StageHead({ view, place }: Framed) {
  const { number } = view;
  const standing = standingIn(view);
  const stage = stageOf(place);
  const pages = pagesOf(stage);
  const next = standing.next && <NextThing number={number} next={standing.next} />;
  // A stage that is one page begins with that page's own head, which leaves room for what is next.
  if (pages.length === 1 && stage !== "choose")
    return <div className={`no-print absolute top-1 right-3 ${BESIDE.wide}`}>{next}</div>;
  return (
    <div className="no-print mb-1 flex min-h-[48px] items-center gap-4">
      {stage === "choose" && <Along view={view} />}
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

/** Every figure that something is chosen for, along the shaft. */
function Along({ view }: Pick<Framed, "view">) {
  const { sheets, number } = view;
  const { chain } = useParams();
  const packs = usePacks(view);
  const others = useMemo(
    () => sheets.filter((sheet) => !isPackSheet(sheet)).map((sheet) => otherFigure(sheet, number, chain)),
    [sheets, number, chain],
  );
  return <SlimAxis packs={packs} others={others} />;
}

/** To the pack before and the one after. */
function usePackKeys(packs: readonly AxisPack[]): void {
  const navigate = useNavigate();
  const current = packs.findIndex((pack) => pack.current);
  const go = (to: string | undefined): void => void (to && navigate(to));
  useKeys(
    {
      "[": () => go(packs[current < 0 ? packs.length - 1 : Math.max(0, current - 1)]?.to),
      "]": () => go(packs[current < 0 ? 0 : Math.min(packs.length - 1, current + 1)]?.to),
    },
    { printed: false },
  );
}

const waysIn = workedOut((view) => stationWays(view.number, view.applied, standingIn(view)));

/** The unit as the job's map: every station with what is open there. */
export const UnitMap = memo(function UnitMap({ view }: Pick<Framed, "view">) {
  const { applied, job } = view;
  const packs = usePacks(view);
  const ways = job.closed ? undefined : waysIn(view);
  const { stations } = applied.present;
  // Nothing is written down along its shaft yet.
  return stations.length > 0 ? <Axis stations={stations} packs={packs} ways={ways} tall /> : null;
});

/** The way to a figure’s worksheet, and how it stands there. */
const wayTo = ({ applied: { chain }, stage }: Worksheet, number: number, current: string | undefined) => ({
  id: chain.id,
  words: stageWords(stage),
  quiet: stage.at === "quiet",
  current: current === chain.id,
  to: `/jobs/${number}/choose/${chain.id}`,
});

/** How a pack shows on the axis: a mark, and what it waits for. */
function axisPack(sheet: PackSheet, number: number): AxisPack {
  const { applied, stage, found, trial, built, choice, conditions } = sheet;
  // Only an as-built verdict is drawn as one: what a trial says is not yet what the unit leaves with.
  const begun = found.readings.length + trial.readings.length > 0;
  const counts = choice && built.readings.length > 0 && conditions.missing.length === 0;
  const verdict = counts ? markOf(built.assessment.verdict) : begun ? "begun" : "none";
  const mark =
    stage.at === "quiet" || stage.at === "signed" ? stage.at : stage.at === "astray" ? "begun" : verdict;
  return {
    ...wayTo(sheet, number, undefined),
    station: applied.pack.station,
    name: applied.pack.element.toUpperCase(),
    aka: applied.pack.name,
    mark,
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
  return { ...wayTo(sheet, number, current), name: applied.chain.name, mark };
}

const inAxisOrder = (packs: readonly AxisPack[], book: Book): AxisPack[] => {
  const at = (pack: AxisPack): number => book.stations.find(({ id }) => id === pack.station)?.from ?? 0;
  return [...packs].sort((a, b) => at(a) - at(b));
};
