import { data, Form, Link, redirect } from "react-router";
import { checkedBeside } from "~/server/beside";
import { services } from "~/server/context";
import { scaled } from "~/photos/picture";
import { mustBe } from "~/server/session";
import { importJob } from "~store/imports";
import type { Route } from "./+types/import";
import { readJobDocument } from "./job-document";

export const meta: Route.MetaFunction = () => [{ title: "Import a job · Yard Key" }];

const MOST_BYTES = 95_000_000;

export const loader = () => null;

/** Takes a job in as it is: same id, same facts, its book revision with it. A second time changes nothing. A lead answers for it. */
export const action = async ({ context, request }: Route.ActionArgs) => {
  const by = mustBe(context, "lead", "owner");
  const file = (await request.formData()).get("file");
  const refuse = (problems: string[]) => data({ problems }, { status: 400 });
  if (!(file instanceof File) || file.size === 0) return refuse(["Choose the file of an exported job."]);
  if (file.size > MOST_BYTES) return refuse(["The file is over 95 MB; that is no exported job."]);
  const read = readJobDocument(await file.text());
  if (!read.ok) return refuse(read.problems);
  const { id, number, opened, book, facts, pictures: packed = [] } = read.document;
  const scaledAnew = await Promise.all(
    packed.map(async (one) => ({ id: one.id, picture: await scaled(Buffer.from(one.large, "base64")) })),
  );
  const wrong = scaledAnew.find(({ picture }) => !picture.ok);
  if (wrong) return refuse([`The picture ${wrong.id} in it cannot be read; nothing was imported.`]);
  const pictures = scaledAnew.flatMap(({ id: of, picture }) => (picture.ok ? [{ id: of, ...picture }] : []));
  const job = { id, origin: `${number}`, opened, book, facts, pictures };
  const done = await importJob(context.get(services).pool, job, by, checkedBeside);
  if (done.ok) return redirect(`/jobs/${done.number}`);
  switch (done.why) {
    case "book":
      return refuse(
        done.problems.slice(0, 10).map(({ path, message, remedy }) => `book ${path}: ${message}; ${remedy}`),
      );
    case "more":
      return refuse([
        `This job is here already, as ${done.number}, and the file says more of it. Nothing was imported: what is new is said at the job itself.`,
      ]);
    case "elsewhere":
      return refuse(["Some of it belongs to another job here; nothing was imported."]);
  }
};

export default function ImportJob({ actionData }: Route.ComponentProps) {
  return (
    <main className="mx-auto max-w-xl p-6">
      <h1 className="mb-2 text-3xl font-bold">Import a job</h1>
      <p className="mb-4 text-lg">
        A job exported from a Yard Key (yard-key/job@1) comes in whole: its facts, who said them, and the book
        it was built by.
      </p>
      <Form method="post" encType="multipart/form-data" className="plate p-5">
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
        {actionData && (
          <ul id="file-problems" role="alert" className="text-error mb-3 font-semibold">
            {actionData.problems.map((problem) => (
              <li key={problem}>{problem}</li>
            ))}
          </ul>
        )}
        <button className="btn btn-primary btn-lg touch w-full">Import</button>
      </Form>
      <Link to="/" className="btn btn-ghost touch mt-4">
        Back to the jobs
      </Link>
    </main>
  );
}
