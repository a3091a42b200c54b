import { Link, useFetcher } from "react-router";
import { DifferenceList } from "~/book/revisions";
import { Field } from "~/look/field";
import type { Problem } from "~core/book";
import type { Answer } from "./answer";

/** Everything to mend, beside what is typed. */
export function Trouble({
  problems,
  warnings,
}: {
  problems: readonly Problem[];
  warnings: readonly Problem[];
}) {
  return (
    <aside className="plate max-h-[75vh] overflow-y-auto p-4" aria-label="Problems">
      <h2 className="mb-2 text-lg font-bold">
        {problems.length > 0
          ? `${problems.length} to mend before it can be published`
          : warnings.length > 0
            ? "Nothing to mend; to look at"
            : "Nothing to mend"}
      </h2>
      <ul className="grid gap-2 text-sm">
        {[...problems, ...warnings].slice(0, 40).map(({ path, message, remedy, warning }) => (
          <li
            key={`${path} ${message}`}
            className={`border-l-3 pl-2 ${warning ? "border-accent" : "border-error"}`}
          >
            <code className="block break-all">{path}</code>
            {warning && "To look at: "}
            {message}
            <span className="quiet block">{remedy}</span>
          </li>
        ))}
      </ul>
    </aside>
  );
}

/** What changed, and letting it out. */
export function Publish({
  begunBy,
  seen,
  may,
  ready,
  lines,
}: {
  /** Who began it. */
  begunBy: string;
  seen: number;
  may: boolean;
  ready: boolean;
  lines: string[] | null;
}) {
  const publish = useFetcher<Answer>();
  const refused = publish.data?.kind === "refused" ? publish.data : null;
  return (
    <div className="grid grid-cols-[minmax(0,3fr)_minmax(0,2fr)] items-start gap-3">
      <section className="plate p-5">
        <h2 className="mb-2 text-xl font-bold">
          {lines ? "Against the revision it began from" : "A new book"}
        </h2>
        {lines ? (
          <DifferenceList lines={lines} />
        ) : (
          <p>It was begun as a copy; every line of it is new here.</p>
        )}
      </section>
      <section className="plate p-5">
        <h2 className="mb-2 text-xl font-bold">Publish</h2>
        {may ? (
          <publish.Form method="post">
            <input type="hidden" name="seen" value={seen} />
            <Field label="What this revision is for" name="note" problem={refused?.problem} />
            <button className="btn btn-primary touch" name="intent" value="publish" disabled={!ready}>
              Publish the next revision
            </button>
            {!ready && <p className="quiet mt-2">Save it without problems first.</p>}
            <button className="btn btn-ghost touch mt-6 block" name="intent" value="away">
              Put this draft away
            </button>
          </publish.Form>
        ) : (
          <p>A lead publishes.</p>
        )}
        <p className="quiet mt-4">
          Open jobs keep their revision and are told. {begunBy} began this draft.{" "}
          <Link to="/books" className="underline underline-offset-4">
            Books
          </Link>
        </p>
      </section>
    </div>
  );
}
