import { useState } from "react";
import { data, Form, Link, redirect } from "react-router";
import { v7 as newId } from "uuid";
import { whenIn } from "~/door/when";
import { Field, Select } from "~/look/field";
import { checkedBeside } from "~/server/beside";
import { services } from "~/server/context";
import { typedIn } from "~/server/form";
import { mustBe } from "~/server/session";
import { tableGiven } from "~/table/pasted";
import { bookByHand, FAMILIES, ORIGINS } from "~core/book";
import { TABLES, type RowProblem, type TableName, type TakenIn } from "~core/table";
import { addBook, bookById, revisionsOf } from "~store/books";
import { beginDraft } from "~store/drafts";
import { readHouse } from "~store/house";
import type { Route } from "./+types/from-table";
import { PastedTable } from "./pasted-table";
import { nameWrong, UNITS, type UnitTyped } from "./read-by-hand";
import { readPasted, withPasted, type Pasted } from "./read-pasted";
import { BareFigures, Family, FiguresFrom } from "./unit-head";

export const meta: Route.MetaFunction = () => [{ title: "A unit from a table · Yard Key" }];

export const loader = async ({ context, request }: Route.LoaderArgs) => {
  mustBe(context, "lead", "owner");
  const unit = new URL(request.url).searchParams.get("unit");
  const newest = unit ? (await revisionsOf(context.get(services).pool, unit))[0] : undefined;
  if (unit && !newest) throw new Response("There is no such book here.", { status: 404 });
  return { unit, id: newId() };
};

type Typed = Readonly<Record<string, string>>;
interface Answer {
  typed: Typed;
  problems: Record<string, string>;
  text: string;
  /** Whether it came as a file: then it stands in the field from now on. */
  isFile: boolean;
  pasted: Pasted | null;
  rows: RowProblem[];
}

/** Shows what a table was taken for; keeps it once that is wanted: as a book with its first job, or in a draft of the book there is. */
export const action = async ({ context, request }: Route.ActionArgs) => {
  const by = mustBe(context, "lead", "owner");
  const { pool } = context.get(services);
  const typed: Typed = await typedIn(request.clone());
  const text = await tableGiven(request, typed.text ?? "");
  const { timeZone } = await readHouse(pool);
  const pasted = readPasted(text, {
    table: Object.hasOwn(TABLES, typed.table ?? "") ? (typed.table as TableName) : undefined,
    columns: Array.from({ length: 60 }, (_, i) => typed[`column-${i}`]),
  });
  const unit = Object.hasOwn(UNITS, typed.unit ?? "") ? (typed.unit as UnitTyped) : "mm";
  const from = ORIGINS.find((one) => one === typed.from);
  const as = {
    unit,
    checked: whenIn(timeZone).day(new Date().toISOString()),
    ...(from ? { from } : { source: "taken in from a table" }),
  };
  const known = typed.of ? (await revisionsOf(pool, typed.of))[0] : undefined;
  const problems: Record<string, string> = known ? {} : namedWrong(typed);
  if (pasted.problem) problems.text = pasted.problem;
  const document: unknown = known
    ? (await bookById(pool, known.id)).document
    : bookByHand({
        name: typed.name ?? "",
        family: FAMILIES.find((one) => one === typed.family) ?? "automatic",
        lengthUnit: unit === "mm" ? "mm" : "in",
        source: "taken in from a table",
        checked: as.checked,
        packs: [],
      });
  const taken = pasted.problem ? null : withPasted(document, pasted, as);
  const answer = (rows: RowProblem[], more: Record<string, string> = {}, status = 400) =>
    data<Answer>(
      { typed, problems: { ...problems, ...more }, text, isFile: text !== typed.text, pasted, rows },
      { status },
    );
  const rows = taken?.problems ?? [];
  const isWanted = typed.intent === "keep" && (rows.length === 0 || typed.without === "yes");
  if (!taken || !isWanted || Object.keys(problems).length > 0)
    return answer(rows, {}, typed.intent === "keep" ? 400 : 200);
  if (known) {
    const id = typed.id ?? newId();
    await beginDraft(pool, {
      id,
      unit: typed.of ?? "",
      basedOn: known.id,
      document: taken.document,
      by: by.name,
    });
    return redirect(`/drafts/${id}`);
  }
  const added = await addBook(pool, taken.document, { check: checkedBeside, first: true });
  if (added.ok) return redirect(`/jobs/new?unit=${added.unit}`);
  const told = added.problems.map(({ path, message, remedy }) => ({
    row: rowAt(taken, path),
    words: `${message}; ${remedy}`,
  }));
  const [other] = told.filter(({ row }) => row === null);
  return answer(
    told.flatMap(({ row, words }) => (row === null ? [] : [{ row, column: "", message: words }])),
    other ? { text: other.words } : {},
  );
};

function namedWrong({ name = "", family }: Typed): Record<string, string> {
  const problems: Record<string, string> = {};
  const unnamed = nameWrong(name);
  if (unnamed) problems.name = unnamed;
  if (!FAMILIES.some((one) => one === family)) problems.family = "Choose its family.";
  return problems;
}

/** The row that a place of the document is from. */
const rowAt = ({ rowOf }: TakenIn, path: string): number | null =>
  rowOf.get(/^\w+\[\d+\]/.exec(path)?.[0] ?? "") ?? null;

/** Figures, bolts, rings, parts or an apply chart, pasted from a spreadsheet. */
export default function FromTable({ loaderData: { unit, id }, actionData }: Route.ComponentProps) {
  const typed: Typed = actionData?.typed ?? {};
  const problems = actionData?.problems ?? {};
  const pasted = actionData?.pasted ?? null;
  const faults = actionData?.rows ?? [];
  // What is typed while an answer comes stays: only a file is put into the field.
  const [settled, setSettled] = useState(actionData);
  const [round, setRound] = useState(0);
  if (actionData !== settled) {
    setSettled(actionData);
    if (actionData?.isFile) setRound(round + 1);
  }
  const isRead = pasted !== null && pasted.problem === "";
  return (
    <main className="mx-auto max-w-[1320px] p-4">
      <h1 className="mb-1 text-3xl font-bold">{unit ? `A table for ${unit}` : "A unit from a table"}</h1>
      <p className="quiet mb-3 text-lg">
        Figures, bolts, ring sizes, parts or an apply chart, as a spreadsheet has them: headings in the first
        row. What is not known stays empty.{" "}
        {!unit && (
          <Link to="/books/by-hand" className="link">
            Or type it in
          </Link>
        )}
      </p>
      <Form method="post" encType="multipart/form-data" noValidate className="plate p-5">
        <input type="hidden" name="id" value={id} />
        <input type="hidden" name="of" value={unit ?? ""} />
        <div className="grid grid-cols-4 gap-3">
          {!unit && (
            <Field label="Unit" name="name" defaultValue={typed.name} problem={problems.name} autoFocus />
          )}
          <FiguresFrom typed={typed} />
          <BareFigures typed={typed} />
          <Select
            key={pasted?.table}
            label="The table is of"
            name="table"
            value={isRead ? pasted.table : typed.table}
            options={[
              { value: "", words: "told by its headings" },
              ...Object.keys(TABLES).map((value) => ({ value, words: value })),
            ]}
          />
        </div>
        {!unit && <Family typed={typed} problem={problems.family} />}
        <label htmlFor="text" className="stamp mb-1 block">
          The table
        </label>
        <textarea
          id="text"
          name="text"
          key={round}
          rows={isRead ? 4 : 10}
          defaultValue={actionData?.text}
          placeholder={"name\telement\tmin\tmax\nK1 clearance\tK1\t0.80\t1.20"}
          className={`textarea w-full font-mono ${problems.text ? "textarea-error" : ""}`}
          aria-invalid={problems.text ? true : undefined}
          aria-describedby={problems.text ? "text-problem" : undefined}
        />
        {problems.text && (
          <p id="text-problem" role="alert" className="text-error mt-1 font-semibold">
            {problems.text}
          </p>
        )}
        <label className="mt-2 flex items-center gap-3">
          <span className="quiet">or a file</span>
          <input
            type="file"
            // Once read it stands in the field, and is mended there.
            key={round}
            name="file"
            accept=".csv,.tsv,.txt,text/csv"
            className="file-input touch"
          />
        </label>
        <div className="mt-3 flex flex-wrap items-center gap-3">
          <button className={`btn touch ${isRead ? "" : "btn-primary btn-lg"}`} name="intent" value="look">
            {isRead ? "Look again" : "Look at it"}
          </button>
          {isRead && faults.length > 0 && (
            <label className="flex items-center gap-2">
              <input type="checkbox" name="without" value="yes" className="checkbox" /> leave{" "}
              {faults.length === 1 ? "the row" : "the rows"} with a fault out
            </label>
          )}
          {isRead && (
            <button className="btn btn-primary btn-lg touch" name="intent" value="keep">
              {unit ? "Into a draft" : "Keep it, and open a job on it"}
            </button>
          )}
        </div>
        {pasted && pasted.cells.length > 0 && <PastedTable pasted={pasted} faults={faults} />}
      </Form>
    </main>
  );
}
