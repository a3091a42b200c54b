import { unitName } from "~core/book";
import { PencilLine } from "lucide-react";
import { data, Form, Link, redirect, useNavigation } from "react-router";
import { v7 as newId } from "uuid";
import { useState } from "react";
import { bookingFields } from "~/say/form";
import { ToolsNeeded } from "~/book/tools-needed";
import { Choice, Choices, Field } from "~/look/field";
import { services, signedIn } from "~/server/context";
import { readForm, typedIn } from "~/server/form";
import { BETWEEN, field, uuid, words, type Fields } from "~core/shape";
import type { Fact } from "~core/fact";
import { bookById, listBooks } from "~store/books";
import type { Pool } from "~store/database";
import { toolsOwned } from "~store/house-values";
import { JobThere, openJob } from "~store/jobs";
import type { Route } from "./+types/new";

export const meta: Route.MetaFunction = () => [{ title: "Open a job · Yard Key" }];

export const loader = async ({ context, request }: Route.LoaderArgs) => {
  const { pool } = context.get(services);
  const entries = await listBooks(pool);
  const books = [];
  // One after another: a process that starts has to read them all, and has others to answer meanwhile.
  for (const entry of entries) {
    const { unit, traits, depths, tools = [] } = (await bookById(pool, entry.id)).book;
    books.push({
      ...entry,
      source: unit.source,
      traits,
      depths,
      tools: tools.map(({ id, name, depth }) => ({ id, name, depth })),
    });
  }
  // Made here, so that the form sent twice opens one job.
  const owned = [
    ...(await toolsOwned(
      pool,
      entries.map(({ unit }) => unit),
    )),
  ];
  const asked = new URL(request.url).searchParams.get("unit");
  return { books, asked, owned, id: newId() };
};

const opening = {
  id: field(uuid),
  book: field(uuid, "Choose the unit."),
  ...bookingFields,
  depth: field(words(1, 400), "Choose how deep the work goes."),
};

export const action = async ({ context, request }: Route.ActionArgs) => {
  const { pool } = context.get(services);
  const { staff } = context.get(signedIn);
  const typed = await typedIn(request);
  const form = readForm(opening, typed);
  // What the book asks is checked together with the rest, so that everything wrong is told at once.
  const unit = await unitProblems(pool, typed);
  const problems = { ...("problems" in form ? form.problems : {}), ...unit.problems };
  if ("problems" in form || !unit.ok || Object.keys(problems).length > 0)
    return data({ problems, typed }, { status: 400 });
  const { id, book: bookId, vehicle, customer, words, odometer } = form.values;
  const { traits, depths } = unit;

  const at = new Date().toISOString();
  const fact = (body: Fact["body"]): Fact => ({ id: newId(), at, by: staff.name, body });
  const opened = openJob(pool, {
    id,
    bookId,
    author: staff,
    facts: [
      fact({ kind: "booking", vehicle, customer, words, odometer }),
      fact({ kind: "configuration", traits }),
      fact({ kind: "scope", depths }),
      fact({ kind: "holder", name: staff.name, staff: staff.id }),
    ],
  });
  try {
    return redirect(`/jobs/${await opened}`);
  } catch (error) {
    if (!(error instanceof JobThere)) throw error;
    return data(
      {
        problems: {
          vehicle: `This form has opened job ${error.number} already. Load the page again to open another.`,
        },
        typed,
      },
      { status: 409 },
    );
  }
};

/** The configuration as seen and the depth of work, held against the book chosen. */
async function unitProblems(
  pool: Pool,
  typed: Fields,
): Promise<{
  ok: boolean;
  problems: Record<string, string>;
  traits: Record<string, string>;
  depths: string[];
}> {
  const problems: Record<string, string> = {};
  const traits: Record<string, string> = {};
  const entry = (await listBooks(pool)).find(({ id }) => id === typed.book);
  if (!entry) return { ok: false, problems: { book: "Choose the unit." }, traits, depths: [] };
  const { book } = await bookById(pool, entry.id);
  const depths = (typed.depth ?? "").split(BETWEEN).filter((depth) => book.depths.includes(depth));
  if (depths.length === 0) problems.depth = "Choose how deep the work goes.";
  for (const trait of book.traits) {
    const value = typed[`trait-${trait.id}`] ?? "";
    if (Object.hasOwn(trait.values, value)) traits[trait.id] = value;
    else if (value !== "unseen") problems[`trait-${trait.id}`] = "Look, and choose what you see.";
  }
  return { ok: true, problems, traits, depths };
}

export default function NewJobPage({
  loaderData: { books, asked, owned, id },
  actionData,
}: Route.ComponentProps) {
  const typed: Record<string, string> = actionData?.typed ?? {};
  const problems: Record<string, string> = actionData?.problems ?? {};
  // Nothing is chosen for the builder: a job opened on the wrong unit is found out late.
  const only = books.length === 1 ? books[0] : books.find(({ unit }) => unit === asked);
  const [bookId, setBookId] = useState(typed.book ?? only?.id ?? "");
  const book = books.find((entry) => entry.id === bookId);
  const [depths, setDepths] = useState<readonly string[]>((typed.depth ?? "").split(BETWEEN));
  // Where there is one way only it is the one.
  const chosen = book?.depths.length === 1 ? book.depths : depths;
  const busy = useNavigation().state !== "idle";
  if (books.length === 0)
    return (
      <main className="mx-auto max-w-3xl p-8">
        <h1 className="mb-3 text-3xl font-bold">Open a job</h1>
        <p className="mb-6 text-xl">
          No unit is known here yet. Write down what the bench knows of the one that stands there: its name,
          its packs and their clearances, three minutes. The rest can come later.
        </p>
        <Link to="/books/by-hand" className="btn btn-primary btn-lg touch text-xl">
          <PencilLine size={24} aria-hidden="true" /> Write the unit down
        </Link>
        <Link to="/books" className="btn btn-lg touch ml-3">
          Import a book
        </Link>
      </main>
    );
  return (
    <main className="mx-auto max-w-[1320px] p-4">
      <h1 className="mb-4 text-3xl font-bold">Open a job</h1>
      <Form method="post" className="grid grid-cols-2 gap-6">
        <input type="hidden" name="id" value={typed.id ?? id} />
        <section className="plate p-5">
          <h2 className="mb-3 text-xl font-bold">Vehicle</h2>
          <Field
            label="Vehicle"
            name="vehicle"
            autoFocus
            defaultValue={typed.vehicle}
            problem={problems.vehicle}
          />
          <Field label="Customer" name="customer" defaultValue={typed.customer} problem={problems.customer} />
          <Field
            label="Odometer"
            name="odometer"
            defaultValue={typed.odometer}
            problem={problems.odometer}
            hint="148 200 km"
          />
          <label className="stamp mb-1 block" htmlFor="words">
            The customer’s words
          </label>
          <textarea
            id="words"
            name="words"
            rows={4}
            defaultValue={typed.words}
            className={`textarea w-full text-lg ${problems.words ? "textarea-error" : ""}`}
            aria-invalid={problems.words ? true : undefined}
            aria-describedby="words-problem"
          />
          {problems.words && (
            <p id="words-problem" role="alert" className="text-error mt-1 font-semibold">
              {problems.words}
            </p>
          )}
        </section>
        <section className="plate p-5">
          <h2 className="mb-3 text-xl font-bold">Unit</h2>
          <Choice
            label="Which unit"
            name="book"
            searched
            value={bookId}
            onChange={setBookId}
            problem={problems.book}
            options={books.map((entry) => ({ value: entry.id, words: unitName(entry) }))}
          />
          {!book && (
            <p className="quiet mb-4">
              Choose the unit; then its version and the depth of the work are asked. Not there?{" "}
              <Link to="/books/by-hand" className="underline underline-offset-4">
                Write it down by hand
              </Link>
              .
            </p>
          )}
          {book?.traits.map((trait) => (
            <Choice
              key={`${book.id} ${trait.id}`}
              label={trait.name}
              name={`trait-${trait.id}`}
              value={typed[`trait-${trait.id}`]}
              problem={problems[`trait-${trait.id}`]}
              options={[
                ...Object.entries(trait.values).map(([value, { name, tell }]) => ({
                  value,
                  words: (
                    <>
                      <b className="block">{name}</b>
                      <span className="text-sm">{tell}</span>
                    </>
                  ),
                })),
                { value: "unseen", words: "Cannot be seen yet" },
              ]}
            />
          ))}
          {book && (
            <Choices
              key={book.id}
              label="How deep the work goes, one or several"
              name="depth"
              values={chosen}
              onChange={setDepths}
              problem={problems.depth}
              options={book.depths.map((value) => ({ value, words: value }))}
            />
          )}
          {book && chosen.length > 0 && (
            <ToolsNeeded unit={book.unit} tools={book.tools} depths={chosen} owned={owned} />
          )}
          {book && (
            <p className="quiet mb-4 text-sm">
              {book.name}: {book.source}; its figures are no maker’s specification.
            </p>
          )}
          <button className="btn btn-primary btn-lg touch w-full" disabled={busy}>
            Open the job
          </button>
        </section>
      </Form>
    </main>
  );
}
