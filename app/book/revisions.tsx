import { useWhen } from "~/door/when";
import { Download, Copy, Pencil } from "lucide-react";
import { data, Form, Link, redirect, useSearchParams } from "react-router";
import { v7 as newId } from "uuid";
import { Field } from "~/look/field";
import { services } from "~/server/context";
import { readForm, typedIn } from "~/server/form";
import { field, id as anId, oneOf, suchThat, uuid, words } from "~core/shape";
import { mustBe } from "~/server/session";
import { upcastBook, difference, differenceText, holding, within, limitWords } from "~core/book";
import { TABLES } from "~core/table";
import { bookById, listBooks, revisionsOf } from "~store/books";
import { beginDraft, openDrafts } from "~store/drafts";
import { houseHistory } from "~store/house-values";
import type { Route } from "./+types/revisions";
import { useBookView } from "./book";

export const loader = async ({ context, params, request }: Route.LoaderArgs) => {
  const { pool } = context.get(services);
  const [revisions, drafts, history] = await Promise.all([
    revisionsOf(pool, params.unit),
    openDrafts(pool, params.unit),
    houseHistory(pool, params.unit),
  ]);
  const search = new URL(request.url).searchParams;
  const numbered = (name: string, otherwise: number | undefined): number =>
    Number(search.get(name) ?? otherwise ?? 0);
  const to = revisions.find(({ revision }) => revision === numbered("to", revisions[0]?.revision));
  const from = revisions.find(({ revision }) => revision === numbered("from", revisions[1]?.revision));
  const differences =
    from && to && from.id !== to.id
      ? changes(await bookById(pool, from.id), await bookById(pool, to.id), search)
      : null;
  return { drafts, history, differences, from: from?.revision, to: to?.revision, id: newId() };
};

type Kept = Awaited<ReturnType<typeof bookById>>;

/** What changed, in the trade's words; for one version and depth when the address names one, as a job's does. */
function changes(from: Kept, to: Kept, search: URLSearchParams): string[] {
  const [before, after] = [withoutNumber(upcastBook(from.document)), withoutNumber(upcastBook(to.document))];
  const depths = search.getAll("depth");
  if (depths.length === 0) return difference(before, after).map(differenceText);
  const version = Object.fromEntries(to.book.traits.map(({ id }) => [id, search.get(id) ?? ""]));
  const of = (document: unknown): unknown => within(holding(document, version), depths);
  return difference(of(before), of(after), true).map(differenceText);
}

/** A revision's number is not what its book says. */
const withoutNumber = (document: unknown): unknown => {
  const { unit, ...rest } = document as { unit: Record<string, unknown> };
  return { ...rest, unit: { ...unit, revision: 0 } };
};

const edited = { id: field(uuid), intent: field(oneOf("edit")) };
const A_UNIT = "Write an id: lower-case words with dashes, such as shop-avocet.";
const copied = {
  id: field(uuid),
  intent: field(oneOf("copy")),
  unit: field(
    suchThat(anId, { test: (id) => id.length <= 60, message: "too long", remedy: "at most 60 letters" }),
    A_UNIT,
  ),
  name: field(words(2, 60), "Write the unit’s name."),
};

/** Begins a draft: of the next revision, or of another unit's book with this one as its start. */
export const action = async ({ context, request, params }: Route.ActionArgs) => {
  const by = mustBe(context, "lead", "owner");
  const { pool } = context.get(services);
  const typed = await typedIn(request);
  const newest = (await revisionsOf(pool, params.unit))[0];
  if (!newest) throw new Response("There is no such book here.", { status: 404 });
  const { document } = await bookById(pool, newest.id);
  if (typed.intent === "edit") {
    const form = readForm(edited, typed);
    if ("problems" in form) return data(form, { status: 400 });
    const { id } = form.values;
    await beginDraft(pool, { id, unit: params.unit, basedOn: newest.id, document, by: by.name });
    return redirect(`/drafts/${id}`);
  }
  const form = readForm(copied, typed);
  if ("problems" in form) return data(form, { status: 400 });
  const { id, unit, name } = form.values;
  if ((await listBooks(pool)).some((entry) => entry.unit === unit))
    return data(
      { problems: { unit: "A book of this id is here already." }, typed: { unit, name } },
      { status: 409 },
    );
  const copy = document as { unit: Record<string, unknown> };
  const begun = {
    ...copy,
    unit: { ...copy.unit, id: unit, name, revision: 1, source: `begun as a copy of ${params.unit}` },
  };
  await beginDraft(pool, { id, unit, basedOn: null, document: begun, by: by.name });
  return redirect(`/drafts/${id}`);
};

export default function RevisionsPage({
  loaderData: { drafts, history, differences, from, to, id },
  actionData,
}: Route.ComponentProps) {
  const { book, revisions, revision, may } = useBookView();
  const [search] = useSearchParams();
  const problems: Record<string, string> = actionData?.problems ?? {};
  const typed: Record<string, string> = actionData?.typed ?? {};
  const compare = (n: number): string => {
    const next = new URLSearchParams(search);
    next.set("from", `${n}`);
    next.set("to", `${revisions[0]?.revision ?? n}`);
    return `?${next}`;
  };
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] items-start gap-3">
      <section className="plate p-5">
        <h2 className="mb-2 text-xl font-bold">Revisions</h2>
        <History compare={compare} />
        <div className="mt-4 flex flex-wrap gap-2">
          <a
            href={`/books/${book.unit.id}/export.json?revision=${revision.revision}`}
            download
            className="btn touch"
          >
            <Download size={20} aria-hidden="true" /> Export
          </a>
          {may && (
            <Link to={`/books/from-table?unit=${book.unit.id}`} className="btn touch">
              Take in a table
            </Link>
          )}
          {may && (
            <Form method="post">
              <input type="hidden" name="id" value={id} />
              <button className="btn btn-primary touch" name="intent" value="edit">
                <Pencil size={20} aria-hidden="true" /> Begin a draft
              </button>
            </Form>
          )}
        </div>
        <p className="mt-3 flex flex-wrap items-center gap-x-4" aria-label="As tables">
          <span className="quiet">As tables:</span>
          {Object.keys(TABLES).map((table) => (
            <a
              key={table}
              href={`/books/${book.unit.id}/tables/${table}.csv`}
              download
              className="link touch flex items-center"
            >
              {table}
            </a>
          ))}
        </p>
        {drafts.length > 0 && (
          <ul className="mt-4">
            {drafts.map((draft) => (
              <li key={draft.id}>
                <Link
                  to={`/drafts/${draft.id}`}
                  className="touch flex items-center underline underline-offset-4"
                >
                  Draft by {draft.begunBy}, save {draft.version} by {draft.savedBy}
                </Link>
              </li>
            ))}
          </ul>
        )}
        {may && <AsAStart id={id} typed={typed} problems={problems} />}
      </section>
      <div className="grid gap-3">
        <section className="plate p-5">
          <h2 className="mb-2 text-xl font-bold">
            {differences ? `From revision ${from} to ${to}` : "What changed"}
            {differences && search.has("depth") && (
              <span className="quiet block text-base font-normal">for the version and depth above</span>
            )}
          </h2>
          {differences ? (
            <DifferenceList lines={differences} />
          ) : (
            <p className="quiet">There is one revision so far.</p>
          )}
        </section>
        <HouseValues history={history} />
      </div>
    </div>
  );
}

/** Every revision, who let it out and what for. */
function History({ compare }: { compare: (revision: number) => string }) {
  const { day } = useWhen();
  const { book, revisions, revision } = useBookView();
  return (
    <ul>
      {revisions.map((one) => (
        <li key={one.id} className="border-base-300 flex flex-wrap items-center gap-3 border-t py-1.5">
          <b className="text-xl">{one.revision}</b>
          <span className="grow">
            {day(one.added)}
            {one.by && `, ${one.by}`}
            {one.note && <span className="block">{one.note}</span>}
          </span>
          {one.id === revision.id ? (
            <b>shown</b>
          ) : (
            <Link to={`/books/${book.unit.id}?revision=${one.revision}`} className="btn touch">
              Read
            </Link>
          )}
          {one.id !== revisions[0]?.id && (
            <Link to={compare(one.revision)} preventScrollReset className="btn touch">
              What changed since
            </Link>
          )}
        </li>
      ))}
    </ul>
  );
}

/** Begins another unit’s book with this one. */
function AsAStart({
  id,
  typed,
  problems,
}: {
  id: string;
  typed: Record<string, string>;
  problems: Record<string, string>;
}) {
  return (
    <details className="mt-4" open={Object.keys(problems).length > 0 || undefined}>
      <summary className="touch flex cursor-pointer items-center font-semibold underline underline-offset-4">
        Use it as the start of another unit’s book
      </summary>
      <Form method="post">
        <input type="hidden" name="id" value={id} />
        <Field label="Id of the new unit" name="unit" defaultValue={typed.unit} problem={problems.unit} />
        <Field label="Name of the new unit" name="name" defaultValue={typed.name} problem={problems.name} />
        <button className="btn btn-secondary touch" name="intent" value="copy">
          <Copy size={20} aria-hidden="true" /> Duplicate
        </button>
      </Form>
    </details>
  );
}

/** What the shop holds against the book’s own values, and what it has taken back. */
function HouseValues({ history }: Pick<Route.ComponentProps["loaderData"], "history">) {
  const { day } = useWhen();
  const { book, unit } = useBookView();
  return (
    <section className="plate p-5">
      <h2 className="mb-2 text-xl font-bold">House values</h2>
      <ul>
        {history.map(({ of, id: entry, min, max, torque, reason, by, at, taken }) => {
          const chain = book.chains.find((one) => one.id === entry);
          const name =
            (of === "chain" ? chain : book.fasteners?.find((one) => one.id === entry))?.name ?? entry;
          const spec = chain?.spec[0];
          const words =
            torque ?? (spec ? limitWords({ min: min ?? spec.min, max: max ?? spec.max }, unit) : "");
          return (
            <li key={`${entry} ${at}`} className="border-base-300 border-t py-1.5">
              <b>{name}</b>: {taken ? "taken back" : words}
              <span className="quiet block text-sm">
                {reason}; {by}, {day(at)}
              </span>
            </li>
          );
        })}
      </ul>
      {history.length === 0 && (
        <p className="quiet">
          The shop judges by the book’s limits. A lead puts a value beside one on its page.
        </p>
      )}
    </section>
  );
}

/** Differences in the trade's words; nothing said is said too. */
export function DifferenceList({ lines }: { lines: readonly string[] }) {
  if (lines.length === 0) return <p>Nothing differs.</p>;
  return (
    <ul className="max-h-[70vh] overflow-y-auto">
      {lines.map((line, i) => (
        <li key={i} className="border-base-300 border-t py-1 text-lg first-letter:uppercase">
          {line}
        </li>
      ))}
    </ul>
  );
}
