import { ArrowRight } from "lucide-react";
import { useMemo, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { useInside } from "~/door/inside";
import { Rule } from "~/look/rule";
import { Stack } from "~/look/stack";
import { Working } from "~/look/working";
import { ruleOf, worksheetCandidates, type ReadingSet, type Stage, type Worksheet } from "~core/measure";
import { stageWords } from "~core/stage";
import { plates } from "~core/pack";
import type { LengthUnit } from "~core/quantity";
import { capital, selectiveWord } from "~core/book";
import { type SelectiveCandidate, type Stock } from "~core/select";
import { Bench } from "~core/steps";
import type { FormAnswer } from "~/view/form-answer";
import { FoundRing } from "./found-ring";
import { useKeys } from "~/look/use-keys";
import { useJobView } from "~/view/view";
import { NotAsPredicted } from "./not-as-predicted";
import { HowItLies } from "./how-it-lies";
import { Outcome } from "./outcome";
import { pieceText } from "./piece-text";
import { Readings } from "~/reading/readings";
import { Ring } from "./ring";
import { ringIn } from "~/reading/ring-in";
import { TakeReading } from "~/reading/take-reading";
import { VerdictPanel } from "./verdict-panel";
import { Waiver } from "./waiver";

type Tab = "found" | "trial" | "ring" | "built";
/** Their keys are letters: a digit is the beginning of a reading. */
const TABS: { tab: Tab; words: string; key: string }[] = [
  { tab: "found", words: "As found", key: "a" },
  { tab: "trial", words: "Trial", key: "i" },
  { tab: "ring", words: "Ring", key: "r" },
  { tab: "built", words: "As built", key: "l" },
];

/** Where a stage is worked on. */
function tabOf(stage: Stage): Tab {
  switch (stage.at) {
    case "trial":
      return "trial";
    case "choose":
      return "ring";
    case "read":
    case "astray":
    case "done":
    case "signed":
      return "built";
    default:
      return "found";
  }
}

export interface Loaded {
  stock: Stock[];
  leads: { id: string; name: string }[];
  ids: { choice: string; reading: string; waiver: string };
}

/** One pack at the bench: its tabs, and in each what is read, chosen or proven there. */
export function Pack({
  sheet,
  stock,
  leads,
  ids,
  actionData,
}: Loaded & Pick<TabProps, "sheet" | "actionData">) {
  const { unit, job } = useJobView();
  const { house } = useInside();
  const [search, setSearch] = useSearchParams();
  useKeys(
    Object.fromEntries(TABS.map(({ tab: show, key }) => [key, () => setSearch({ show }, { replace: true })])),
  );
  // Where the work is when the page opens; a stage that ends while one reads does not pull the page away.
  const [landing] = useState(() => tabOf(sheet.stage));
  const tab = TABS.find(({ tab: one }) => one === search.get("show"))?.tab ?? landing;
  const due = tabOf(sheet.stage);
  const candidates = worksheetCandidates(sheet, stock, house.rule);
  const closed = job.closed !== null;
  const what = selectiveWord(sheet.applied.series);
  return (
    <div>
      <div className="mb-1 flex items-center gap-4">
        <h1 className="text-2xl font-bold whitespace-nowrap">
          {sheet.applied.pack.element.toUpperCase()}{" "}
          <span className="quiet text-lg font-normal">{sheet.applied.pack.name}</span>
        </h1>
        <nav aria-label="Stages of this pack" className="flex gap-1">
          {TABS.map(({ tab: one, words, key }) => (
            <Link
              key={one}
              to={`?show=${one}`}
              replace
              aria-current={one === tab ? "step" : undefined}
              className={`btn touch ${one === tab ? "btn-secondary" : "btn-ghost"}`}
            >
              {one === "ring" ? capital(what) : words} <kbd className="key">{key}</kbd>
            </Link>
          ))}
        </nav>
        <span className="grow" />
        {!closed && tab !== "found" && <Dirty sheet={sheet} />}
        {due !== tab && sheet.stage.at !== "quiet" && !closed && (
          <Link to={`?show=${due}`} replace className="btn touch border-primary text-primary">
            Next: {stageWords(sheet.stage)} <ArrowRight size={20} aria-hidden="true" />
          </Link>
        )}
      </div>
      {tab === "ring" ? (
        <RingTab
          sheet={sheet}
          candidates={candidates}
          unit={unit}
          closed={closed}
          ids={ids}
          actionData={actionData}
          leads={leads}
        />
      ) : (
        <ReadTab
          key={`${tab} ${sheet.fit}`}
          tab={tab}
          sheet={sheet}
          unit={unit}
          closed={closed}
          ids={ids}
          actionData={actionData}
          leads={leads}
          candidates={candidates}
        />
      )}
    </div>
  );
}

interface TabProps {
  sheet: Worksheet;
  unit: LengthUnit;
  closed: boolean;
  candidates: SelectiveCandidate[];
  ids: { choice: string; reading: string; waiver: string };
  leads: { id: string; name: string }[];
  actionData: FormAnswer | undefined;
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
  const { house } = useInside();
  const { job } = useJobView();
  const set: ReadingSet = sheet[tab];
  const { applied } = sheet;
  // Before a change of ring the one now fitted was not in.
  const sameRing = tab === "built" || !sheet.choice || sheet.choice.body.kept;
  const ring = sameRing ? ringIn(sheet) : null;
  const mayRead =
    !closed &&
    (tab === "found" ||
      (tab === "built" ? sheet.choice !== null : sheet.choice === null || sheet.choice.body.kept));
  return (
    <div className="grid grid-cols-[minmax(0,29fr)_minmax(0,20fr)] gap-3">
      <section className="plate px-4 py-3" aria-label="Verdict">
        {tab === "built" && sheet.stage.at === "astray" && !closed && (
          <NotAsPredicted sheet={sheet} unit={unit} />
        )}
        <VerdictPanel
          set={set}
          unit={unit}
          rule={ruleOf(job, house)}
          stage={sheet.stage}
          tab={tab}
          choice={sheet.choice}
          house={applied.house !== null}
        />
        <Rule spec={applied.spec} target={sheet.target} assessment={set.assessment} unit={unit} />
        <Readings readings={set.readings} marks={set.assessment.marks} unit={unit} closed={closed} />
        {tab === "built" && sheet.choice && <Outcome sheet={sheet} unit={unit} />}
        <Working applied={applied} assessment={set.assessment} rule={ruleOf(job, house)} unit={unit} />
      </section>
      <div className="grid content-start gap-3">
        {mayRead ? (
          <TakeReading
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
              : tab === "built"
                ? "Choose its size first: what is read before the choice is the trial."
                : "It was chosen from these readings. New ones are taken as built."}
          </p>
        )}
        <section className="plate px-3 pt-3" aria-label="Stack">
          <Stack
            plates={plates(applied.stack)}
            gap={set.assessment.estimate?.mean ?? null}
            ring={ring}
            unit={unit}
            caption={applied.pack.element.toUpperCase()}
            selective={selectiveWord(applied.series)}
          />
          <HowItLies applied={applied} found={tab === "found"} />
        </section>
        {tab === "found" && sheet.fit === 0 && !closed && <FoundRing sheet={sheet} unit={unit} />}
        {tab === "built" && sheet.stage.at !== "done" && !closed && (
          <Waiver leads={leads} id={ids.waiver} actionData={actionData} signed={sheet.waiver} />
        )}
      </div>
    </div>
  );
}

function RingTab({ sheet, candidates, unit, closed, ids, actionData }: TabProps) {
  const [search] = useSearchParams();
  // The page that chooses all packs together leads here with the piece it proposes.
  const [picked, setPicked] = useState(search.get("piece"));
  const chosen = candidates.find(({ key }) => key === picked) ?? candidates[0] ?? null;
  if (!sheet.fitted) {
    return (
      <div className="grid grid-cols-2 gap-3">
        <p className="plate p-5 text-lg">
          Which {selectiveWord(sheet.applied.series)} is in? Without it no swap can be predicted. Read its
          mark, or put a micrometer on it.
        </p>
        <FoundRing sheet={sheet} unit={unit} />
      </div>
    );
  }
  if (!chosen) {
    return (
      <p className="plate p-5 text-lg">
        {sheet.choice && sheet.built.readings.length === 0
          ? `The ${selectiveWord(sheet.applied.series)} is chosen: ${sheet.fitted ? pieceText(sheet.fitted, unit) : ""}. Read as built with it in; then another can be chosen from those readings.`
          : sheet.applied.series
            ? "Take trial readings with the new frictions and steels in until they tell enough: a prediction from fewer would pretend."
            : "The book names no selective series for this pack."}
      </p>
    );
  }
  return (
    <Ring
      sheet={sheet}
      candidates={candidates}
      chosen={chosen}
      onPick={setPicked}
      unit={unit}
      closed={closed}
      id={ids.choice}
      actionData={actionData}
      plates={plates(sheet.applied.stack)}
    />
  );
}

/** What is still dirty of the pack that is being put together. */
function Dirty({ sheet }: { sheet: Worksheet }) {
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
      <b>{dirty.length} still dirty</b>
      <span className="truncate text-sm">{dirty.map(({ part }) => part.name).join(", ")}</span>
    </Link>
  );
}
