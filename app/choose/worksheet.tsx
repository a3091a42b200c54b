import { NextTime } from "~/next-time/soon";
import { HereBefore } from "~/look/here-before";
import { ArrowRight } from "lucide-react";
import { lazy, memo, useMemo, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { useInside } from "~/door/inside";
import { useLater } from "~/look/later";
import { Rule } from "~/look/rule";
import { Working } from "~/look/working";
import {
  houseOf,
  isPackSheet,
  ruleOf,
  specIn,
  titleOf,
  worksheet,
  type PackSheet,
  type ReadingSet,
  type Worksheet,
} from "~core/measure";
import { stageWords } from "~core/stage";
import { capital, isDecided, seatWord, selectiveWord, type AppliedChain, type Book } from "~core/book";
import type { LengthUnit } from "~core/quantity";
import type { DecisionRule } from "~core/reading";
import { Bench } from "~core/steps";
import type { FormAnswer } from "~/view/form-answer";
import { useKeys } from "~/look/use-keys";
import { useJobNow, useJobView } from "~/view/view";
import { Readings } from "~/reading/readings";
import { TakeReading } from "~/reading/take-reading";
import { ChainDrawing } from "./chain-drawing";
import { Conditions } from "./conditions";
import { EarlierReadings } from "./earlier-readings";
import { FoundPieces } from "./found-piece";
import { HowItLies } from "./how-it-lies";
import { NoFigure } from "./no-figure";
import { NotAsPredicted } from "./not-as-predicted";
import { OpensAgain } from "./soon";
import { PackDrawing } from "./pack-drawing";
import { seatAt, type Loaded, type TabProps } from "./tab";
import { OrderWith } from "./order-with";
import { Outcome } from "./outcome";
import { SinceFound } from "./since-found";
import { In, TakenOut } from "./taken-out";
import { TrialPiece } from "./trial-piece";
import { VerdictPanel } from "./verdict-panel";
import { Waiver } from "./waiver";

type Tab = "found" | "trial" | "choose" | "built";
/** Their keys are letters: a digit is the beginning of a reading. */
const TABS: { tab: Tab; words: string; key: string }[] = [
  { tab: "found", words: "As found", key: "a" },
  { tab: "trial", words: "Trial", key: "i" },
  { tab: "choose", words: "Choose", key: "r" },
  { tab: "built", words: "As built", key: "l" },
];

/** Where a stage is worked on. */
function tabOf({ stage, choice, trial }: Worksheet): Tab {
  switch (stage.at) {
    case "trial":
      return "trial";
    case "choose":
      return "choose";
    case "done":
      // Inside without anything being chosen: there is nothing built to show.
      return choice ? "built" : trial.readings.length > 0 ? "trial" : "found";
    case "out":
      return choice ? "built" : "trial";
    case "read":
    case "astray":
    case "signed":
      return "built";
    default:
      return "found";
  }
}

/** Choosing solves the whole unit: its search comes once the page stands, or with the page that opens there. */
const loadChoosing = () => import("./choose-tab");
const ChooseTab = lazy(async () => ({ default: (await loadChoosing()).ChooseTab }));

/** One figure at the bench: its tabs, and in each what is read, chosen or proven there. */
export function ChainSheet({
  sheet,
  stock,
  aside,
  leads,
  ids,
  actionData,
}: Loaded & { sheet: Worksheet; actionData: FormAnswer | undefined }) {
  const { unit, job } = useJobView();
  const [search, setSearch] = useSearchParams();
  useKeys(
    Object.fromEntries(TABS.map(({ tab: show, key }) => [key, () => setSearch({ show }, { replace: true })])),
  );
  // Where the work is when the page opens; a stage that ends while one reads does not pull the page away.
  const [landing] = useState(() => tabOf(sheet));
  const tab = TABS.find(({ tab: one }) => one === search.get("show"))?.tab ?? landing;
  // Which of its seats is chosen for: one that was led to, until another is touched.
  const [asked, setAsked] = useState(search.get("seat"));
  useLater(loadChoosing);
  const due = tabOf(sheet);
  const closed = job.closed !== null;
  const props: TabProps = { sheet, unit, closed, ids, actionData, leads };
  return (
    <div>
      <div className="mb-1 flex items-center gap-x-4 gap-y-1">
        <h1
          className={`font-bold ${isPackSheet(sheet) ? "text-2xl whitespace-nowrap" : "min-w-0 text-xl leading-tight"}`}
        >
          {titleOf(sheet)}{" "}
          {isPackSheet(sheet) && (
            <span className="quiet text-lg font-normal whitespace-nowrap">
              {sheet.applied.pack.name}
              {sheet.applied.asFound && ", made stronger"}
            </span>
          )}
        </h1>
        <Tabs tab={tab} choose={chooseWord(sheet)} />
        {tab === "choose" && <Places sheet={sheet} asked={asked} onAsk={setAsked} />}
        <span className="grow" />
        {!closed && tab !== "found" && isPackSheet(sheet) && <Dirty sheet={sheet} />}
        {due !== tab && !RESTS.has(sheet.stage.at) && !closed && (
          <Link
            to={`?show=${due}`}
            replace
            className="btn touch border-primary text-primary whitespace-nowrap"
          >
            Next: {stageWords(sheet.stage)} <ArrowRight size={20} aria-hidden="true" />
          </Link>
        )}
      </div>
      {tab === "choose" ? (
        <ChooseTab {...props} stock={stock} aside={aside} place={asked} />
      ) : (
        <ReadTab key={`${tab} ${sheet.fit}`} tab={tab} {...props} />
      )}
    </div>
  );
}

const Tabs = memo(function Tabs({ tab, choose }: { tab: string; choose: string }) {
  return (
    <nav aria-label="Stages of this figure" className="flex gap-1">
      {TABS.map(({ tab: one, words, key }) => (
        <Link
          key={one}
          to={`?show=${one}`}
          replace
          aria-current={one === tab ? "step" : undefined}
          className={`btn touch whitespace-nowrap ${one === tab ? "btn-secondary" : "btn-ghost"}`}
        >
          {one === "choose" ? choose : words} <kbd className="key">{key}</kbd>
        </Link>
      ))}
    </nav>
  );
});

/** Where nothing is next. */
const RESTS: ReadonlySet<Worksheet["stage"]["at"]> = new Set(["quiet", "done", "signed"]);

function chooseWord({ seats }: Worksheet): string {
  const [one, ...more] = seats.filter(({ link }) => isDecided(link));
  return one && more.length === 0 ? capital(selectiveWord(one.link)) : "Pieces";
}

function ReadTab({
  tab,
  sheet,
  unit,
  closed,
  ids,
  actionData,
  leads,
}: TabProps & { tab: "found" | "trial" | "built" }) {
  const { job, applied: whole } = useJobView();
  const rule = ruleOf(job, useInside().house);
  const set: ReadingSet = sheet[tab];
  const { applied } = sheet;
  const mayRead =
    !closed &&
    (tab === "found" || sheet.stage.at !== "out") &&
    (tab === "found" || (tab === "built" ? sheet.choice !== null : sheet.choice === null || sheet.kept));
  return (
    <div className="grid grid-cols-[minmax(0,29fr)_minmax(0,20fr)] gap-3">
      <section className="plate px-4 py-3" aria-label="Verdict">
        {tab === "built" && sheet.stage.at === "astray" && !closed && (
          <NotAsPredicted sheet={sheet} unit={unit} />
        )}
        <VerdictNow sheet={sheet} unit={unit} tab={tab} />
        <Rule
          spec={specIn(applied, tab === "found" ? "found" : "built")}
          target={sheet.target}
          assessment={set.assessment}
          unit={unit}
        />
        <OrderWith sheet={sheet} mean={set.assessment.estimate?.mean ?? null} unit={unit} />
        <Readings readings={set.readings} marks={set.assessment.marks} unit={unit} closed={closed} />
        <Beneath sheet={sheet} tab={tab} unit={unit} rule={rule} source={whole.present.unit} />
      </section>
      <div className="grid content-start gap-3">
        {!closed &&
          tab === "trial" &&
          !sheet.choice &&
          sheet.seats.map((seat) => (
            <TrialPiece key={seat.link.id} seat={seat} id={ids.choice} unit={unit} actionData={actionData} />
          ))}
        {!closed && tab === (sheet.choice ? "built" : "trial") && <TakenOut sheet={sheet} unit={unit} />}
        {!closed && tab !== "found" && <Conditions key={sheet.fit} sheet={sheet} />}
        {mayRead ? (
          <Taking
            sheet={sheet}
            phase={tab === "found" ? "found" : "built"}
            set={set}
            unit={unit}
            readingId={ids.reading}
            actionData={actionData}
          />
        ) : (
          <p className="plate p-4 text-lg">
            {closed
              ? "The job is closed; its readings stand."
              : sheet.stage.at === "out"
                ? "Nothing is read while its piece is out."
                : tab === "built"
                  ? "Choose its size first: what is read before the choice is the trial."
                  : "It was chosen from these readings. New ones are taken as built."}
          </p>
        )}
        {mayRead && set.readings.length === 0 && (
          <NoFigure sheet={sheet} phase={tab === "found" ? "found" : "built"} said={set.said} />
        )}
        {tab === "found" && !isPackSheet(sheet) && !closed && <FoundPieces sheet={sheet} unit={unit} />}
        {!closed && tab === (sheet.choice ? "built" : "trial") && <OpensAgain sheet={sheet} />}
        {!closed && tab === (sheet.choice ? "built" : "trial") && <In sheet={sheet} set={set} unit={unit} />}
        <Drawn sheet={sheet} tab={tab} unit={unit} />
        {tab === "found" && isPackSheet(sheet) && !closed && <FoundPieces sheet={sheet} unit={unit} />}
        {tab === "built" && sheet.stage.at !== "done" && !closed && (
          <Waiver leads={leads} id={ids.waiver} actionData={actionData} signed={sheet.waiver} />
        )}
      </div>
    </div>
  );
}

/** The verdict on what was read a moment ago: it does not wait for all that is drawn again with it. */
const VerdictNow = memo(function VerdictNow({ sheet, unit, tab }: Beside) {
  const { job, applied, house } = useJobNow();
  const isThis = ({ chain }: AppliedChain): boolean => chain.id === sheet.applied.chain.id;
  // This one alone: the others are looked at when all is drawn.
  const figure = applied.packs.find(isThis) ?? applied.chains.find(isThis);
  const read = figure && worksheet(job, figure, houseOf(job, house));
  const now = read?.fit === sheet.fit ? read : sheet;
  return <VerdictPanel sheet={now} set={now[tab]} unit={unit} rule={ruleOf(job, house)} tab={tab} />;
});

const Taking = memo(TakeReading);

interface Beside {
  sheet: Worksheet;
  tab: "found" | "trial" | "built";
  unit: LengthUnit;
}

/** What else there is to say of a figure than its verdict. */
const Beneath = memo(function Beneath({
  sheet,
  tab,
  unit,
  rule,
  source,
}: Beside & { rule: DecisionRule; source: Book["unit"] }) {
  const set: ReadingSet = sheet[tab];
  const { applied } = sheet;
  return (
    <>
      {tab !== "found" && <EarlierReadings sheet={sheet} set={set} unit={unit} />}
      {tab === "built" && sheet.choice && <Outcome sheet={sheet} unit={unit} />}
      {tab === (sheet.choice ? "built" : "trial") && <SinceFound sheet={sheet} unit={unit} />}
      <HereBefore of={source.id} unit={unit} chain={applied} />
      <Working applied={applied} assessment={set.assessment} rule={rule} unit={unit} source={source.source} />
      <NextTime key={applied.chain.id} of={applied.chain.id} />
    </>
  );
});

/** Where it lies, drawn with what is in and what is left free. */
const Drawn = memo(function Drawn({ sheet, tab, unit }: Beside) {
  const { estimate } = sheet[tab].assessment;
  // Before a change of a piece the one now fitted was not in.
  const sameIn = tab === "built" || !sheet.choice || sheet.kept;
  return (
    <section className="plate px-3 pt-3" aria-label={isPackSheet(sheet) ? "Stack" : "Drawing"}>
      {isPackSheet(sheet) ? (
        <>
          <PackDrawing sheet={sheet} gap={estimate?.mean ?? null} sameIn={sameIn} unit={unit} />
          <HowItLies applied={sheet.applied} found={tab === "found"} />
        </>
      ) : (
        <ChainDrawing sheet={sheet} result={estimate?.mean ?? null} unit={unit} />
      )}
    </section>
  );
});

/** The seats of a figure that has several: which of them is chosen for. */
function Places({
  sheet,
  asked,
  onAsk,
}: {
  sheet: Worksheet;
  asked: string | null;
  onAsk: (seat: string) => void;
}) {
  if (sheet.seats.length < 2) return null;
  const here = seatAt(sheet, asked);
  return (
    <nav aria-label="Places of this figure" className="flex flex-wrap gap-1">
      {sheet.seats.map(({ link, fitted, choice }) => (
        <button
          key={link.id}
          type="button"
          aria-pressed={link.id === here?.link.id}
          className={`btn touch border-base-300 ${link.id === here?.link.id ? "border-primary border-2" : ""}`}
          disabled={!fitted}
          onClick={() => onAsk(link.id)}
        >
          {capital(seatWord(link))} {choice ? "✓" : fitted ? "" : "?"}
        </button>
      ))}
    </nav>
  );
}

/** What is still dirty of the pack that is being put together. */
function Dirty({ sheet }: { sheet: PackSheet }) {
  const { job, applied, number } = useJobView();
  const dirty = useMemo(
    () => new Bench(job, applied).dirtyOfPack(sheet.applied.pack),
    [job, applied, sheet.applied.pack],
  );
  if (dirty.length === 0) return null;
  return (
    <Link
      to={`/jobs/${number}/bench`}
      className="border-warning touch flex min-w-0 flex-col justify-center border-l-4 pl-3 leading-tight"
      data-dirty={dirty.length}
    >
      <b className="whitespace-nowrap">{dirty.length} still dirty</b>
      <span className="truncate text-sm max-[1100px]:sr-only">
        {dirty.map(({ part }) => part.name).join(", ")}
      </span>
    </Link>
  );
}
