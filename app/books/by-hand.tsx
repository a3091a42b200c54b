import { useState, type ClipboardEvent } from "react";
import { data, Form, Link, redirect } from "react-router";
import { Field } from "~/look/field";
import { whenIn } from "~/door/when";
import { checkedBeside } from "~/server/beside";
import { services } from "~/server/context";
import { typedIn } from "~/server/form";
import { mustBe } from "~/server/session";
import { addBook } from "~store/books";
import { readHouse } from "~store/house";
import type { Route } from "./+types/by-hand";
import { COLUMNS, MOST, readByHand } from "./read-by-hand";
import { BareFigures, Family, FiguresFrom } from "./unit-head";

export const meta: Route.MetaFunction = () => [{ title: "A unit by hand · Yard Key" }];

export const loader = ({ context }: Route.LoaderArgs) => {
  mustBe(context, "lead", "owner");
  return null;
};

/** Keeps the unit as a book, and opens a job on it. */
export const action = async ({ context, request }: Route.ActionArgs) => {
  mustBe(context, "lead", "owner");
  const { pool } = context.get(services);
  const typed = await typedIn(request);
  const { timeZone } = await readHouse(pool);
  const read = readByHand(typed, whenIn(timeZone).day(new Date().toISOString()));
  if (!read.ok) return data({ problems: read.problems, typed }, { status: 400 });
  const added = await addBook(pool, read.document, { check: checkedBeside, first: true });
  if (!added.ok) {
    const [first] = added.problems;
    const problems: Record<string, string> = {
      name: first ? `${first.message}: ${first.remedy}` : "It is no book.",
    };
    return data({ problems, typed }, { status: 400 });
  }
  return redirect(`/jobs/new?unit=${added.unit}`);
};

const ROWS = 6;
const HEADS = {
  name: "Pack",
  frictions: "Frictions",
  steels: "Steels",
  min: "Clearance from",
  max: "to",
  rings: "Ring sizes",
};
const WIDE: Readonly<Record<string, string>> = {
  name: "w-40",
  rings: "w-full",
  frictions: "w-20",
  steels: "w-20",
};

/** A unit the shop has no book of, written down in one go: as much as the bench knows, and nothing more. */
export default function ByHand({ actionData }: Route.ComponentProps) {
  const [rows, setRows] = useState(ROWS);
  const problems: Typed = actionData?.problems ?? {};
  const typed: Typed = actionData?.typed ?? {};
  const shown = Math.max(
    rows,
    ...Object.keys(typed).flatMap((key) => (typed[key] ? [Number(/-(\d+)$/.exec(key)?.[1] ?? -1) + 1] : [])),
  );
  return (
    <main className="mx-auto max-w-[1320px] p-4">
      <h1 className="mb-1 text-3xl font-bold">A unit by hand</h1>
      <p className="quiet mb-3 text-lg">
        What you know is enough: its name and its packs. Everything else can be added later, by whoever learns
        it.{" "}
        <Link to="/books/from-table" className="link">
          Or from a table
        </Link>
      </p>
      <Form method="post" noValidate className="plate p-5">
        <div className="grid grid-cols-4 gap-3">
          <Field label="Unit" name="name" defaultValue={typed.name} problem={problems.name} autoFocus />
          <Field label="Maker" name="maker" defaultValue={typed.maker} />
          <FiguresFrom typed={typed} />
          <BareFigures typed={typed} />
          <Field
            label="A ring is off its mark by at most"
            name="within"
            defaultValue={typed.within}
            problem={problems.within}
            placeholder="0.02"
          />
          <div className="col-span-2">
            <Family typed={typed} problem={problems.family} />
          </div>
        </div>
        <table className="mt-2 w-full" onPaste={pasted}>
          <thead>
            <tr className="text-left">
              {COLUMNS.map((column) => (
                <th key={column} className="stamp quiet pr-2">
                  {HEADS[column]}
                </th>
              ))}
              <th className="stamp quiet pr-2">Kind</th>
              <th className="stamp quiet">Read</th>
            </tr>
          </thead>
          <tbody>
            {Array.from({ length: shown }, (_, i) => (
              <tr key={i} className="align-top">
                {COLUMNS.map((column) => (
                  <td key={column} className="pr-2 pb-1">
                    <Cell
                      name={`${column}-${i}`}
                      label={`${HEADS[column]}, row ${i + 1}`}
                      wide={WIDE[column]}
                      typed={typed}
                      problems={problems}
                    />
                  </td>
                ))}
                <Pick
                  name={`kind-${i}`}
                  label={`Kind, row ${i + 1}`}
                  options={["clutch", "brake"]}
                  typed={typed}
                />
                <Pick
                  name={`soak-${i}`}
                  label={`Read, row ${i + 1}`}
                  options={["soaked", "dry"]}
                  typed={typed}
                />
              </tr>
            ))}
          </tbody>
        </table>
        <div className="mt-3 flex flex-wrap items-center gap-3">
          <button className="btn btn-primary btn-lg touch">Keep it, and open a job on it</button>
          {shown < MOST && (
            <button type="button" className="btn touch" onClick={() => setRows(shown + 3)}>
              More rows
            </button>
          )}
          <span className="quiet">
            Ring sizes with spaces between them. Rows can be pasted from a spreadsheet.
          </span>
        </div>
      </Form>
    </main>
  );
}

type Typed = Readonly<Record<string, string | undefined>>;

function Pick({
  name,
  label,
  options,
  typed,
}: {
  name: string;
  label: string;
  options: string[];
  typed: Typed;
}) {
  return (
    <td className="pr-2 pb-1">
      <select
        name={name}
        aria-label={label}
        defaultValue={typed[name] ?? options[0]}
        className="select touch w-28"
      >
        {options.map((one) => (
          <option key={one}>{one}</option>
        ))}
      </select>
    </td>
  );
}

function Cell({
  name,
  label,
  wide = "w-28",
  typed,
  problems,
}: {
  name: string;
  label: string;
  wide?: string | undefined;
  typed: Typed;
  problems: Typed;
}) {
  const problem = problems[name];
  return (
    <>
      <input
        name={name}
        aria-label={label}
        defaultValue={typed[name]}
        autoComplete="off"
        aria-invalid={problem ? true : undefined}
        className={`input touch text-lg ${wide} ${problem ? "input-error" : ""}`}
      />
      {problem && (
        <p role="alert" className="text-error text-sm font-semibold">
          {problem}
        </p>
      )}
    </>
  );
}

/** Rows of a spreadsheet fill the cells from the one they are pasted into, to the right and down. */
function pasted(event: ClipboardEvent<HTMLTableElement>): void {
  const text = event.clipboardData.getData("text");
  const { target, currentTarget } = event;
  if (!(target instanceof HTMLInputElement) || !/[\t\n]/.test(text.trim())) return;
  event.preventDefault();
  const [column = "", row = "0"] = /^(\w+)-(\d+)$/.exec(target.name)?.slice(1) ?? [];
  const from = COLUMNS.findIndex((one) => one === column);
  text
    .trim()
    .split(/\r?\n/)
    .forEach((line, down) =>
      line.split("\t").forEach((value, right) => {
        const name = `${COLUMNS[from + right] ?? ""}-${Number(row) + down}`;
        const field = currentTarget.querySelector<HTMLInputElement>(`[name="${name}"]`);
        if (field) field.value = value.trim();
      }),
    );
}
