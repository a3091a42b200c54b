import { orKept } from "~/offline/kept";
import { Download, Printer } from "lucide-react";
import { Form, Link } from "react-router";
import { v7 as newId } from "uuid";
import { useInside } from "~/door/inside";
import { Mark, markOf } from "~/look/mark";
import { unanswered, type Unanswered } from "~core/inspect";
import { readyToLeave } from "~core/stage";
import { ruleOf, worksheets } from "~core/measure";
import type { Route } from "./+types/sheet";
import { closeJob } from "./close";
import { useJobView } from "./job";
import { configurationText, endedElsewhere, intakeLines, sheetLine } from "./sheet-lines";

/** The id of the closing, so that closing twice closes once. */
export const loader = () => ({ closing: newId() });

export const clientLoader = ({ params, serverLoader }: Route.ClientLoaderArgs) =>
  orKept(`job/${params.number}/sheet`, serverLoader, () => ({ closing: newId() }));

/** Only when every pack in scope is proven or signed, every weak point answered and every failure has its cause. */
export const action = ({ context, request, params }: Route.ActionArgs) =>
  closeJob(context, request, Number(params.number), ({ job, applied, house }, staff) => {
    if (!readyToLeave(worksheets(job, applied, house)))
      return "A pack in scope has neither an as-built verdict inside nor a lead’s signature.";
    const open = unanswered(job, applied);
    const names = (kind: Unanswered["kind"]): string =>
      open
        .filter((one) => one.kind === kind)
        .map(({ name }) => name)
        .join("; ");
    if (names("cause")) return `No cause yet: ${names("cause")}. It is asked on the page Cause.`;
    if (names("weak point"))
      return `Known weak points to be answered, on the page Cause: ${names("weak point")}.`;
    if (names("not found") && staff.role !== "lead" && staff.role !== "owner")
      return `The cause was not found: ${names("not found")}. A lead closes it, under their own name.`;
    return "";
  });

/** What the unit leaves with, on one sheet. */
export default function BuildSheet({ loaderData: { closing }, actionData }: Route.ComponentProps) {
  const { job, book, applied, sheets, unit, number, depths, opened } = useJobView();
  const { house } = useInside();
  const inScope = sheets.filter(({ applied }) => applied.inScope);
  const ready = readyToLeave(sheets);
  const booking = job.booking?.body;
  const waiting = inScope.filter(({ stage }) => stage.at !== "done" && stage.at !== "signed");
  return (
    <div className="mt-3">
      <div className="no-print mb-3 flex items-center gap-3">
        <p className="grow text-lg" role="status">
          {job.closed ? (
            <b>
              {endedElsewhere(job)
                ? `Ended by ${job.closed.by}: not this unit.`
                : `Closed by ${job.closed.by}.`}
            </b>
          ) : ready ? (
            <b>Every pack is proven or signed.</b>
          ) : (
            <>
              Not ready:{" "}
              {waiting.map(({ applied }, i) => (
                <span key={applied.chain.id}>
                  {i > 0 && ", "}
                  <Link className="link" to={`/jobs/${number}/pack/${applied.chain.id}`}>
                    {applied.pack.element.toUpperCase()}
                  </Link>
                </span>
              ))}
            </>
          )}
          {actionData?.problem && (
            <span role="alert" className="text-error ml-3 font-semibold">
              {actionData.problem}
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
        {!job.closed && (
          <Form method="post">
            <input type="hidden" name="id" value={closing} />
            <button className="btn btn-primary btn-lg touch" disabled={!ready}>
              Close the job
            </button>
          </Form>
        )}
      </div>
      <article className="plate p-6 print:border-0 print:p-0">
        <header className="mb-4 flex items-baseline justify-between">
          <h1 className="text-2xl font-bold">
            {endedElsewhere(job) ? "Record of looking" : "Build sheet"} · job {number}
          </h1>
          <p>{house.shopName}</p>
        </header>
        <dl className="mb-4 grid grid-cols-[auto_1fr_auto_1fr] gap-x-4 gap-y-1">
          <Item name="Vehicle" value={booking?.vehicle} />
          <Item
            name="Unit"
            value={`${book.unit.maker} ${book.unit.name}, ${configurationText(book.traits, job.configuration)}`}
          />
          <Item name="Odometer" value={booking?.odometer || "not read"} />
          <Item name="Scope" value={depths.join(" + ")} />
          <Item name="Opened" value={opened.slice(0, 10)} />
          <Item name="House rule" value={ruleOf(job, house)} />
        </dl>
        <dl className="mb-4 grid grid-cols-[auto_1fr] gap-x-4 gap-y-0.5">
          {intakeLines(job, applied, ruleOf(job, house), unit).map(([name, value]) => (
            <Item key={name} name={name} value={value} />
          ))}
        </dl>
        {!endedElsewhere(job) && (
          <table className="w-full">
            <thead>
              <tr className="stamp border-base-content border-b-2 text-left">
                {["Pack", "Spec", "As found", "Ring", "As built", "Verdict", "Who and when (UTC)"].map(
                  (word) => (
                    <th key={word} className="py-1 pr-3 font-semibold">
                      {word}
                    </th>
                  ),
                )}
              </tr>
            </thead>
            <tbody>
              {inScope.map((sheet) => {
                const line = sheetLine(sheet, unit);
                const mark = sheet.waiver
                  ? "signed"
                  : sheet.built.readings.length > 0
                    ? markOf(sheet.built.assessment.verdict)
                    : "none";
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
        )}
        <p className="mt-4 text-sm">
          ± is the expanded uncertainty (95 %). Limits are of book {book.unit.id}, revision{" "}
          {book.unit.revision}, {book.unit.source}: made-up figures, not a maker’s specification. The maker’s
          service information comes first.
        </p>
      </article>
    </div>
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
