import { useWhen } from "~/door/when";
import { FileUp } from "lucide-react";
import { data, Form, Link, redirect } from "react-router";
import { useInside } from "~/door/inside";
import { checkedBeside } from "~/server/beside";
import { services } from "~/server/context";
import { mustBe } from "~/server/session";
import { FAMILIES, type Problem } from "~core/book";
import { addBook, listBooks } from "~store/books";
import { openDrafts } from "~store/drafts";
import { LEADS } from "~core/fact";
import type { Route } from "./+types/list";

export const meta: Route.MetaFunction = () => [{ title: "Books · Yard Key" }];

export const loader = async ({ context }: Route.LoaderArgs) => {
  const { pool } = context.get(services);
  const [books, drafts] = await Promise.all([listBooks(pool), openDrafts(pool)]);
  return { books, drafts };
};

/** A book with its pictures. */
const MOST_BYTES = 60_000_000;

/** Takes a book in. What is wrong with it is told all at once, each with its place and what to do; then nothing is kept. */
export const action = async ({ context, request }: Route.ActionArgs) => {
  mustBe(context, "lead", "owner");
  const file = (await request.formData()).get("file");
  const refuse = (message: string, remedy: string) =>
    data({ problems: [{ path: "", message, remedy }] as Problem[], name: "" }, { status: 400 });
  if (!(file instanceof File) || file.size === 0)
    return refuse("no file was chosen", "choose a book, a .json file");
  if (file.size > MOST_BYTES) return refuse("the file is over 60 MB", "that is no book; choose another file");
  let document: unknown;
  try {
    document = JSON.parse(await file.text());
  } catch (error) {
    return refuse(
      `the file is not JSON${error instanceof Error ? `: ${error.message.slice(0, 120)}` : ""}`,
      "look for a missing comma or quote at that place",
    );
  }
  const { pool } = context.get(services);
  const added = await addBook(pool, document, { check: checkedBeside });
  if (!added.ok) return data({ problems: added.problems, name: file.name }, { status: 400 });
  return redirect(`/books/${added.unit}`);
};

const FAMILY_WORDS: Readonly<Record<(typeof FAMILIES)[number], string>> = {
  automatic: "Automatics",
  cvt: "Variable (CVT)",
  "dual-clutch": "Dual-clutch",
};

export default function Books({ loaderData: { books, drafts }, actionData }: Route.ComponentProps) {
  const { day } = useWhen();
  const { staff } = useInside();
  const may = LEADS.includes(staff.role);
  return (
    <main className="mx-auto max-w-[1320px] p-4">
      <h1 className="mb-1 text-3xl font-bold">Books</h1>
      <p className="quiet mb-4 text-lg">
        Everything the shop knows about a unit. Open one to read it, or to change it.
      </p>
      <div className="grid grid-cols-[minmax(0,3fr)_minmax(0,2fr)] gap-4">
        <div className="grid content-start gap-4">
          {FAMILIES.map((family) => {
            const these = books.filter((book) => book.family === family);
            return (
              these.length > 0 && (
                <section key={family}>
                  <h2 className="stamp quiet mb-1">{FAMILY_WORDS[family]}</h2>
                  <ul className="grid gap-2">
                    {these.map((book) => (
                      <li key={book.id}>
                        <Link
                          to={`/books/${book.unit}`}
                          className="plate hover:border-primary touch flex items-baseline gap-3 px-5 py-3"
                        >
                          <b className="text-2xl">{book.name}</b>
                          <span className="text-lg">{book.maker}</span>
                          <span className="grow" />
                          <span className="quiet">revision {book.revision}</span>
                        </Link>
                      </li>
                    ))}
                  </ul>
                </section>
              )
            );
          })}
          {books.length === 0 && (
            <p className="plate p-6 text-xl">
              No book is kept here yet. Write one down by hand – a name and its packs are enough – or import
              one, a .json file.
            </p>
          )}
        </div>
        <div className="grid content-start gap-4">
          {drafts.length > 0 && (
            <section className="plate p-5">
              <h2 className="mb-2 text-xl font-bold">Drafts</h2>
              <ul className="grid gap-2">
                {drafts.map((draft) => (
                  <li key={draft.id}>
                    <Link
                      to={`/drafts/${draft.id}`}
                      className="touch flex items-center gap-3 underline underline-offset-4"
                    >
                      {draft.unit}, save {draft.version} by {draft.savedBy}, {day(draft.savedAt)}
                    </Link>
                  </li>
                ))}
              </ul>
            </section>
          )}
          {may && (
            <Link to="/books/by-hand" className="btn btn-primary btn-lg touch justify-start text-xl">
              A unit by hand, in three minutes
            </Link>
          )}
          {may && (
            <Link to="/books/from-table" className="btn btn-lg touch justify-start text-xl">
              From a table: pasted, or a file
            </Link>
          )}
          <section className="plate p-5">
            <h2 className="mb-2 text-xl font-bold">Import a book</h2>
            {may ? (
              <Form method="post" encType="multipart/form-data">
                <label htmlFor="file" className="stamp mb-1 block">
                  File
                </label>
                <input
                  id="file"
                  type="file"
                  name="file"
                  accept=".json,application/json"
                  className="file-input touch mb-3 w-full"
                  aria-describedby="file-problems"
                />
                <button className="btn btn-primary touch">
                  <FileUp size={20} aria-hidden="true" /> Import
                </button>
              </Form>
            ) : (
              <p className="quiet">A lead or the owner imports books.</p>
            )}
            {actionData && (
              <Problems id="file-problems" problems={actionData.problems} name={actionData.name} />
            )}
          </section>
        </div>
      </div>
    </main>
  );
}

/** Every problem of a book, each with its place and what to do. */
export function Problems({
  problems,
  name,
  id,
}: {
  problems: readonly Problem[];
  name: string;
  id?: string;
}) {
  return (
    <div id={id} role="alert" className="mt-4">
      <p className="text-error mb-2 font-semibold">
        {name && `${name}: `}
        {problems.length === 1 ? "one problem" : `${problems.length} problems`}. Nothing was kept.
      </p>
      <ol className="grid max-h-[60vh] gap-2 overflow-y-auto">
        {problems.map(({ path, message, remedy }) => (
          <li key={`${path} ${message}`} className="border-error border-l-3 pl-3 leading-snug">
            {path && <code className="block text-sm break-all">{path}</code>}
            <span className="block">{message}</span>
            <span className="quiet block">{remedy}</span>
          </li>
        ))}
      </ol>
    </div>
  );
}
