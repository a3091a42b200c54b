import Joi from "joi";
import { ArrowRight } from "lucide-react";
import { useEffect, useState } from "react";
import { data, isRouteErrorResponse, Link, redirect, useSearchParams } from "react-router";
import { v7 as newId } from "uuid";
import { useInside } from "~/door/inside";
import { whenItMatters } from "~/look/revalidate";
import { Rule } from "~/look/rule";
import { Stack } from "~/look/stack";
import { Working } from "~/look/working";
import { ground, visitor } from "~/server/context";
import { readForm } from "~/server/form";
import type { ReadingSet, Stage, Worksheet } from "~core/job";
import { stageWords, worksheetCandidates } from "~core/job";
import { plates } from "~core/pack";
import { parseLength, type LengthUnit, type Nm } from "~core/quantity";
import type { Candidate } from "~core/select";
import { addFacts } from "~store/facts";
import { readHouse } from "~store/house";
import { jobByNumber, type JobRecord } from "~store/jobs";
import { stockOf } from "~store/shelf";
import { listStaff, proveSecret } from "~store/staff";
import type { Route } from "./+types/pack";
import { decide, partsOf, worksheetOf } from "./choose";
import { FoundRing } from "./found-ring";
import { inField, useJobView } from "./job";
import { Outcome } from "./outcome";
import { pieceText } from "./piece-text";
import { Readings } from "./readings";
import { Ring } from "./ring";
import { ringIn } from "./ring-in";
import { TakeReading } from "./take-reading";
import { readTyped } from "./typed";
import { VerdictPanel } from "./verdict-panel";
import { Waiver } from "./waiver";

export const loader = async ({ context, params }: Route.LoaderArgs) => {
  const { pool } = context.get(ground);
  const [record, house, staff] = await Promise.all([
    jobByNumber(pool, Number(params.number)),
    readHouse(pool),
    listStaff(pool),
  ]);
  const sheet = record && worksheetOf(record, params.chain, house);
  if (!sheet) throw new Response("This job has no such pack.", { status: 404 });
  return {
    stock: await stockOf(pool, partsOf(sheet)),
    leads: staff.filter(({ role }) => role === "lead" || role === "owner"),
    // Ids of what this page may send: the same form sent twice is carried out once.
    ids: { choice: newId(), reading: newId(), waiver: newId() },
  };
};

export const shouldRevalidate = whenItMatters;

const text = (message: string) => Joi.string().trim().min(2).max(500).required().messages({ "*": message });
const id = Joi.string().uuid().required();

const chooseForm = Joi.object<{
  id: string;
  key: string;
  fit: number;
  reason: string;
  removed: string;
  going: string;
  scrap: string;
  unit: LengthUnit;
}>({
  id,
  key: Joi.string().max(80).required().messages({ "*": "Pick a ring." }),
  fit: Joi.number().integer().min(0).required(),
  reason: Joi.string().trim().allow("").max(500).default(""),
  removed: Joi.string().allow("").max(40).default(""),
  going: Joi.string().allow("").max(40).default(""),
  scrap: Joi.string().allow("").default(""),
  unit: Joi.valid("mm", "in").required(),
});
const waiveForm = Joi.object<{ id: string; reason: string; lead: string; pin: string }>({
  id,
  reason: text("Say why it may leave without an as-built verdict."),
  lead: Joi.string().uuid().required().messages({ "*": "Choose the lead who signs." }),
  pin: Joi.string().max(200).required().messages({ "*": "The lead’s PIN is the signature." }),
});
const readForm1 = Joi.object<{
  id: string;
  phase: "found" | "built";
  value: string;
  sure: string;
  unit: LengthUnit;
}>({
  id,
  phase: Joi.valid("found", "built").required(),
  value: Joi.string().max(40).required().messages({ "*": "Type the reading." }),
  sure: Joi.string().allow("").default(""),
  unit: Joi.valid("mm", "in").required(),
});

export const action = async ({ context, request, params }: Route.ActionArgs) => {
  const { pool } = context.get(ground);
  const record = await jobByNumber(pool, Number(params.number));
  if (!record) throw new Response("There is no job of this number.", { status: 404 });
  const intent = (await request.clone().formData()).get("intent");
  if (intent === "choose") return choose(context, request, record, params.chain);
  if (intent === "waive") return waive(context, request, record, params.chain);
  if (intent === "read") return readWithoutScript(context, request, record, params.chain);
  throw new Response("Nothing was asked for.", { status: 400 });
};

/** What could not be sent keeps what was typed: the page stays and says that the server is away. */
export const clientAction = async ({ request, serverAction }: Route.ClientActionArgs) => {
  const form = await request.clone().formData();
  try {
    return await serverAction();
  } catch (error) {
    if (error instanceof Response || isRouteErrorResponse(error)) throw error;
    const typed = Object.fromEntries(
      [...form].filter((entry): entry is [string, string] => typeof entry[1] === "string"),
    );
    const away = "The shop’s server is away; nothing was changed. Try again in a moment.";
    return { intent: typed.intent ?? "", problems: { key: away, reason: away }, typed };
  }
};

type Context = Route.ActionArgs["context"];

async function choose(context: Context, request: Request, record: JobRecord, chain: string) {
  const form = await readForm(request, chooseForm);
  if ("problems" in form) return data({ intent: "choose", ...form }, { status: 400 });
  const { pool } = context.get(ground);
  const { unit, removed, going, scrap, ...decision } = form.values;
  const typed: Record<string, string> = { ...form.values, fit: `${decision.fit}` };
  const refuse = (problems: Record<string, string>, status = 400) =>
    data({ intent: "choose", problems, typed }, { status });
  const measured: { removed?: Nm; going?: Nm } = {};
  for (const [name, value] of Object.entries({ removed, going })) {
    if (value === "") continue;
    const parsed = parseLength(value, unit);
    if (!parsed.ok) return refuse({ [name]: `${parsed.problem}; ${parsed.remedy}` });
    if (parsed.length < 200_000 || parsed.length > 20_000_000)
      return refuse({ [name]: "no ring is that thick; check the unit" });
    measured[name as "removed" | "going"] = parsed.length;
  }
  if (decision.key !== "fitted" && measured.removed === undefined && scrap === "") {
    return refuse({ removed: "Measure the ring that came out, or tick that it is scrapped." });
  }
  const house = await readHouse(pool);
  const result = await decide(
    pool,
    record,
    chain,
    house,
    { ...decision, ...measured },
    context.get(visitor).staff,
  );
  return result.ok
    ? redirect(`/jobs/${record.number}/pack/${chain}?show=built`)
    : refuse({ [result.field ?? "key"]: result.problem }, result.field ? 400 : 409);
}

async function waive(context: Context, request: Request, record: JobRecord, chain: string) {
  const form = await readForm(request, waiveForm);
  if ("problems" in form) return data({ intent: "waive", ...form }, { status: 400 });
  const { pool, log } = context.get(ground);
  const { id: factId, reason, lead, pin } = form.values;
  const refuse = (problems: Record<string, string>, status = 400) =>
    data({ intent: "waive", problems, typed: { reason, lead } }, { status });
  const proof = await proveSecret(pool, lead, pin);
  if (!proof.ok) {
    log.warn({ lead, why: proof.why }, "signature refused");
    return refuse({
      pin: proof.why === "wait" ? "Too many tries. Wait five minutes." : "That is not this lead’s PIN.",
    });
  }
  if (proof.staff.role !== "lead" && proof.staff.role !== "owner")
    return refuse({ lead: "Only a lead may sign." }, 403);
  const body = { kind: "waiver", chain, reason, signedBy: proof.staff.name } as const;
  const added = await addFacts(
    pool,
    record.id,
    [{ id: factId, at: new Date().toISOString(), by: proof.staff.name, body }],
    proof.staff,
  );
  return added.ok ? data({ intent: "waive", done: true }) : refuse({ reason: "The job is closed." }, 409);
}

/** A typed reading from a page whose script has not loaded: the same checks as at the bench. */
async function readWithoutScript(context: Context, request: Request, record: JobRecord, chain: string) {
  const form = await readForm(request, readForm1);
  if ("problems" in form) return data({ intent: "read", ...form }, { status: 400 });
  const { pool } = context.get(ground);
  const { id: factId, phase, value, sure, unit } = form.values;
  const sheet = worksheetOf(record, chain, await readHouse(pool));
  if (!sheet) throw new Response("This job has no such pack.", { status: 404 });
  const read = readTyped(value, unit, sheet, phase, sure !== "");
  if (!read.ok)
    return data({ intent: "read", problems: { value: read.problem }, typed: { value } }, { status: 400 });
  const { staff } = context.get(visitor);
  await addFacts(
    pool,
    record.id,
    [{ id: factId, at: new Date().toISOString(), by: staff.name, body: read.body }],
    staff,
  );
  return data({ intent: "read", done: true });
}

type Tab = "found" | "trial" | "ring" | "built";
const TABS: { tab: Tab; words: string }[] = [
  { tab: "found", words: "As found" },
  { tab: "trial", words: "Trial" },
  { tab: "ring", words: "Ring" },
  { tab: "built", words: "As built" },
];

/** Where a stage is worked on. */
function tabOf(stage: Stage): Tab {
  switch (stage.at) {
    case "trial":
      return "trial";
    case "choose":
      return "ring";
    case "read":
    case "done":
    case "signed":
      return "built";
    default:
      return "found";
  }
}

export default function PackPage({ loaderData, actionData, params }: Route.ComponentProps) {
  const { sheets } = useJobView();
  const sheet = sheets.find(({ applied }) => applied.chain.id === params.chain);
  if (!sheet)
    return <p className="plate mt-3 p-6 text-xl">This pack does not belong to this unit’s configuration.</p>;
  return <Pack key={params.chain} {...{ sheet, actionData }} {...loaderData} />;
}

type Loaded = Route.ComponentProps["loaderData"];

function Pack({ sheet, stock, leads, ids, actionData }: Loaded & Pick<TabProps, "sheet" | "actionData">) {
  const { unit, job } = useJobView();
  const { house } = useInside();
  const [search, setSearch] = useSearchParams();
  useTabKeys((tab) => setSearch({ show: tab }, { replace: true }));
  // Where the work is when the page opens; a stage that ends while one reads does not pull the page away.
  const [landing] = useState(() => tabOf(sheet.stage));
  const tab = TABS.find(({ tab: one }) => one === search.get("show"))?.tab ?? landing;
  const due = tabOf(sheet.stage);
  const candidates = worksheetCandidates(sheet, stock, house.rule);
  const closed = job.closed !== null;
  return (
    <div className="mt-2">
      <div className="mb-2 flex items-center gap-4">
        <h1 className="text-2xl font-bold whitespace-nowrap">
          {sheet.applied.pack.element.toUpperCase()}{" "}
          <span className="quiet text-lg font-normal">{sheet.applied.pack.name}</span>
        </h1>
        <nav aria-label="Stages of this pack" className="flex gap-1">
          {TABS.map(({ tab: one, words }, i) => (
            <Link
              key={one}
              to={`?show=${one}`}
              replace
              aria-current={one === tab ? "step" : undefined}
              className={`btn touch ${one === tab ? "btn-secondary" : "btn-ghost"}`}
            >
              {words} <kbd className="key">{i + 1}</kbd>
            </Link>
          ))}
        </nav>
        <span className="grow" />
        {due !== tab && sheet.stage.at !== "quiet" && !closed && (
          <Link to={`?show=${due}`} replace className="btn touch border-primary text-primary">
            Next: {stageWords(sheet.stage)} <ArrowRight size={20} aria-hidden="true" />
          </Link>
        )}
      </div>
      {tab === "ring" ? (
        <RingTab {...{ sheet, candidates, unit, closed, ids, actionData, leads }} />
      ) : (
        <ReadTab
          key={`${tab} ${sheet.fit}`}
          {...{ tab, sheet, unit, closed, ids, actionData, leads, candidates }}
        />
      )}
    </div>
  );
}

interface TabProps {
  sheet: Worksheet;
  unit: LengthUnit;
  closed: boolean;
  candidates: Candidate[];
  ids: { choice: string; reading: string; waiver: string };
  leads: { id: string; name: string }[];
  actionData: Route.ComponentProps["actionData"];
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
        <VerdictPanel
          set={set}
          unit={unit}
          rule={house.rule}
          stage={sheet.stage}
          tab={tab}
          choice={sheet.choice}
        />
        <Rule spec={applied.spec} target={sheet.target} assessment={set.assessment} unit={unit} />
        <Readings set={set} unit={unit} closed={closed} />
        {tab === "built" && sheet.choice && <Outcome sheet={sheet} unit={unit} />}
        <Working applied={applied} assessment={set.assessment} rule={house.rule} unit={unit} />
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
                ? "Choose a ring first: what is read before the choice is the trial."
                : "The ring was chosen from these readings. New ones are taken as built."}
          </p>
        )}
        <section className="plate px-3 pt-3" aria-label="Stack">
          <Stack
            plates={plates(applied.stack)}
            gap={set.assessment.estimate?.mean ?? null}
            ring={ring}
            unit={unit}
            caption={applied.pack.element.toUpperCase()}
          />
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
  const [picked, setPicked] = useState<string | null>(null);
  const chosen = candidates.find(({ key }) => key === picked) ?? candidates[0] ?? null;
  if (!sheet.fitted) {
    return (
      <div className="grid grid-cols-2 gap-3">
        <p className="plate p-5 text-lg">
          Which ring is in? Without it no swap can be predicted. Read its mark, or put a micrometer on it.
        </p>
        <FoundRing sheet={sheet} unit={unit} />
      </div>
    );
  }
  if (!chosen) {
    return (
      <p className="plate p-5 text-lg">
        {sheet.choice && sheet.built.readings.length === 0
          ? `The ring is chosen: ${sheet.fitted ? pieceText(sheet.fitted, unit) : ""}. Read as built with it in; then another can be chosen from those readings.`
          : sheet.applied.series
            ? "Take at least two trial readings with the new frictions and steels in: one reading has no scatter to predict from."
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

function useTabKeys(show: (tab: Tab) => void): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const tab = TABS[Number(event.key) - 1]?.tab;
      if (tab && !inField(event) && !event.ctrlKey && !event.altKey && !event.metaKey) show(tab);
    };
    document.addEventListener("keydown", onKey);
    return () => document.removeEventListener("keydown", onKey);
  });
}
