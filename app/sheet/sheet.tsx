import { bookFoot } from "~/look/source";
import { KEPT } from "~/offline/keys";
import { useMemo } from "react";
import { useWhen } from "~/door/when";
import { loadOrKept } from "~/offline/kept";
import { Download, Printer } from "lucide-react";
import { v7 as newId } from "uuid";
import { useInside } from "~/door/inside";
import { Mark, markOf, type MarkName } from "~/look/mark";
import { becomes, LEADS } from "~core/fact";
import { hinders, openOf } from "~core/stage";
import { houseOf, leavesWith, ruleOf, type Worksheet } from "~core/measure";
import type { Route } from "./+types/sheet";
import { services } from "~/server/context";
import { typedIn } from "~/server/form";
import { signOff } from "~/server/sign-off";
import { listStaff } from "~store/staff";
import { callOff, closeJob } from "./close";
import { CloseButton, SignedFor, StillOpen } from "./closing";
import { LeadSigns } from "~/say/lead-signs";
import { useJobView } from "~/view/view";
import {
  unitWords,
  endedUnbuilt,
  isUnbuilt,
  endedWords,
  intakeLines,
  sheetLine,
  sheetTitle,
} from "./sheet-lines";

/** Ids of what this page may send, so that the same form sent twice is carried out once. */
export const loader = async ({ context }: Route.LoaderArgs) => {
  const people = await listStaff(context.get(services).pool);
  const leads = people.filter(({ role }) => LEADS.includes(role));
  return { closing: newId(), signing: newId(), leads: leads.map(({ id, name }) => ({ id, name })) };
};

export const clientLoader = ({ params, serverLoader }: Route.ClientLoaderArgs) =>
  loadOrKept(KEPT.page(params.number, "sheet"), serverLoader, () => ({
    closing: newId(),
    signing: newId(),
    leads: [],
  }));

export const action = async ({ context, request, params }: Route.ActionArgs) => {
  const { intent } = await typedIn(request);
  if (intent === "sign")
    // A lead answers for everything that is still open, as it is.
    return signOff(context, request, params.number, ({ job, applied, house }) =>
      hinders(job, applied, house).map(({ key }) => key),
    );
  if (intent === "call-off") return callOff(context, request, Number(params.number));
  return closeJob(context, request, Number(params.number), ({ job, applied, house }) => {
    const open = hinders(job, applied, houseOf(job, house));
    return open.length === 0
      ? ""
      : `${open.length} answers are still to come, beginning with ${open[0]?.name}.`;
  });
};

/** What the unit leaves with, on one sheet. */
export default function BuildSheet({
  loaderData: { closing, signing, leads },
  actionData,
}: Route.ComponentProps) {
  const { job, book, applied, unit, number, depths, opened } = useJobView();
  const { house } = useInside();
  const when = useWhen();
  const all = useMemo(
    () => (endedUnbuilt(job) ? [] : openOf(job, applied, houseOf(job, house))),
    [job, applied, house],
  );
  const open = job.closed ? [] : all.filter(({ signed }) => signed === null);
  const problem = actionData && "problem" in actionData ? actionData.problem : "";
  const answer = actionData && "intent" in actionData ? actionData : undefined;
  const booking = job.booking?.body;
  return (
    <div>
      <Top open={open.length} closing={closing} problem={problem} />
      {open.length > 0 && (
        <>
          <StillOpen open={open} />
          <div className="no-print mb-3 grid grid-cols-2 items-start gap-3">
            <LeadSigns
              intent="sign"
              summary="It must leave with these open: a lead signs"
              leads={leads}
              id={signing}
              actionData={answer}
            />
            <LeadSigns
              intent="call-off"
              summary="It is called off, unfinished: a lead signs"
              means="What is put aside for it is free again, and what is on order is cancelled where it still can be."
              leads={leads}
              id={closing}
              actionData={answer}
            />
          </div>
        </>
      )}
      <article className="plate p-6 print:border-0 print:p-0">
        <header className="mb-4 flex items-baseline justify-between">
          <h1 className="text-2xl font-bold">
            {sheetTitle(job)} · job {number}
          </h1>
          <p>{house.shopName}</p>
        </header>
        <dl className="mb-4 grid grid-cols-[auto_1fr_auto_1fr] gap-x-4 gap-y-1">
          <Item name="Vehicle" value={booking?.vehicle} />
          <Item name="Unit" value={unitWords(book, becomes(book, job))} />
          <Item name="Odometer" value={booking?.odometer || "not read"} />
          <Item name="Scope" value={depths.join(" + ")} />
          <Item name="Opened" value={when.day(opened)} />
          <Item name="House rule" value={ruleOf(job, house)} />
        </dl>
        <dl className="mb-4 grid grid-cols-[auto_1fr] gap-x-4 gap-y-0.5">
          {intakeLines(job, applied, ruleOf(job, house), unit).map(([name, value]) => (
            <Item key={name} name={name} value={value} />
          ))}
        </dl>
        {!isUnbuilt(job) && <Packs />}
        <SignedFor signed={all.filter(({ signed }) => signed !== null)} />
        <p className="mt-4 text-sm">± is the expanded uncertainty (95 %). Limits are of {bookFoot(book)}</p>
      </article>
    </div>
  );
}

/** Whether it may leave, and the sheet as paper, PDF and data. */
function Top({ open, closing, problem }: { open: number; closing: string; problem: string }) {
  const { job, number, unit } = useJobView();
  return (
    <div className="no-print mb-2 flex min-h-[50px] items-center gap-2">
      <p className="grow text-lg" role="status">
        {job.closed ? (
          <b>{endedWords(job)}</b>
        ) : open === 0 ? (
          <b>Everything in scope is answered.</b>
        ) : (
          <>Not ready to leave.</>
        )}
        {problem && (
          <span role="alert" className="text-error ml-3 font-semibold">
            {problem}
          </span>
        )}
      </p>
      <button type="button" className="btn touch" onClick={() => window.print()}>
        <Printer size={20} aria-hidden="true" /> Print
      </button>
      <a
        className="btn touch"
        href={`/jobs/${number}/sheet.pdf?unit=${unit}`}
        download={`build-sheet-${number}.pdf`}
      >
        <Download size={20} aria-hidden="true" /> PDF
      </a>
      <a className="btn touch" href={`/jobs/${number}/export.json`} download={`job-${number}.json`}>
        <Download size={20} aria-hidden="true" /> JSON
      </a>
      {!job.closed && <CloseButton id={closing} open={open} />}
    </div>
  );
}

/** What a figure leaves with, as a mark; none where that counts for nothing yet. */
function markOfLeft(sheet: Worksheet): MarkName {
  const { readings, assessment } = leavesWith(sheet);
  const counts = readings.length > 0 && sheet.conditions.missing.length === 0;
  return counts ? markOf(assessment.verdict) : "none";
}

/** Every figure in scope that a piece is chosen for, from what was found to what it leaves with. */
function Packs() {
  const { sheets, unit } = useJobView();
  const when = useWhen();
  const inScope = sheets.filter(({ applied }) => applied.inScope);
  return (
    <table className="w-full">
      <thead>
        <tr className="stamp border-base-content border-b-2 text-left">
          {["Figure", "Spec", "As found", "Chosen", "As built", "Verdict", "Who and when"].map((word) => (
            <th key={word} className="py-1 pr-3 font-semibold">
              {word}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {inScope.map((sheet) => {
          const line = sheetLine(sheet, unit, when);
          const mark = sheet.waiver ? "signed" : markOfLeft(sheet);
          return (
            <tr
              key={sheet.applied.chain.id}
              className="border-base-300 border-b align-top"
              data-pack={sheet.applied.chain.id}
            >
              <th scope="row" className="py-2 pr-3 text-left leading-tight">
                <span className="text-xl">{line.pack}</span>
                <span className="quiet block text-sm font-normal">{line.name}</span>
              </th>
              <td className="py-2 pr-3">{line.spec}</td>
              <td className="py-2 pr-3 whitespace-nowrap">{line.found}</td>
              <td className="py-2 pr-3">{line.chosen}</td>
              <td className="py-2 pr-3 font-bold whitespace-nowrap">{line.built}</td>
              <td className="py-2 pr-3">
                <span className="flex items-center gap-2 font-bold">
                  <Mark name={mark} /> {line.verdict}
                </span>
              </td>
              <td className="py-2 text-sm">{line.who}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

function Item({ name, value }: { name: string; value: string | undefined }) {
  return (
    <>
      <dt className="quiet">{name}</dt>
      <dd className="font-semibold">{value ?? ""}</dd>
    </>
  );
}
