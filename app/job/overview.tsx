import { useWhen } from "~/look/when";
import { ArrowRight } from "lucide-react";
import { Link } from "react-router";
import { readyToLeave, stageWords, stepsDone } from "~core/stage";
import { Correct } from "./correct";
import { useJobView } from "./job";

/** The job's first page: what it is, and the one thing to do next. */
export default function Overview() {
  const { day } = useWhen();
  const { job, book, applied, sheets, number, opened } = useJobView();
  const next = sheets.find(({ stage }) => !["quiet", "done", "signed"].includes(stage.at));
  const ready = readyToLeave(sheets);
  const booking = job.booking?.body;
  const steps = stepsDone(job, applied);
  const apart = !job.closed && steps.next !== null && (steps.done > 0 || job.chains.size === 0);
  // Before a wrench is put to it: what it does, and what that points at.
  const untold = !job.closed && job.chains.size === 0 && job.answers.length === 0;
  return (
    <div className="mt-3 grid grid-cols-[minmax(0,3fr)_minmax(0,2fr)] gap-3">
      <section className="plate p-5">
        <h2 className="stamp quiet mb-1">The customer’s words</h2>
        <p className="mb-4 text-xl">“{booking?.words}”</p>
        <dl className="grid grid-cols-[auto_1fr] gap-x-6 gap-y-1 text-lg">
          <Item name="Customer" value={booking?.customer || "not given"} />
          <Item name="Odometer" value={booking?.odometer || "not read"} />
          <Item name="Opened" value={day(opened)} />
          <Item name="At the bench" value={job.holder?.body.name ?? "nobody yet"} />
          {book.traits.map((trait) => {
            const value = job.configuration[trait.id];
            const known = value === undefined ? undefined : trait.values[value];
            return (
              <Item
                key={trait.id}
                name={trait.name}
                value={known ? `${known.name} (${known.tell})` : "not seen yet"}
              />
            );
          })}
        </dl>
        <NoLonger />
        <Correct />
      </section>
      <section className="plate flex flex-col p-5">
        <h2 className="stamp quiet mb-1">Next</h2>
        {untold && (
          <Link to={`/jobs/${number}/symptoms`} className="btn btn-primary btn-lg touch mb-4">
            Tell the symptoms <ArrowRight aria-hidden="true" />
          </Link>
        )}
        {!job.closed && steps.next && (
          <>
            {apart && (
              <p className="mb-2 text-2xl leading-tight font-bold" data-next-step={steps.next.id}>
                {steps.next.name}
              </p>
            )}
            <Link
              to={`/jobs/${number}/teardown`}
              className={`btn btn-lg touch mb-4 ${apart && !untold ? "btn-primary" : ""}`}
            >
              Tear down: {steps.done} of {steps.of} steps <ArrowRight aria-hidden="true" />
            </Link>
          </>
        )}
        {next && (
          <>
            <p className="mb-4 text-2xl font-bold">
              {next.applied.pack.element.toUpperCase()}: {stageWords(next.stage)}
            </p>
            <Link
              to={`/jobs/${number}/pack/${next.applied.chain.id}`}
              className={`btn btn-lg touch ${untold || apart ? "" : "btn-primary"}`}
            >
              Go to {next.applied.pack.element.toUpperCase()} <ArrowRight aria-hidden="true" />
            </Link>
          </>
        )}
        {ready && (
          <>
            <p className="mb-4 text-2xl font-bold">
              {job.closed ? "Closed. Its record is the build sheet." : "Every pack is proven or signed."}
            </p>
            <Link to={`/jobs/${number}/sheet`} className="btn btn-primary btn-lg touch">
              Build sheet <ArrowRight aria-hidden="true" />
            </Link>
          </>
        )}
        <p className="quiet mt-auto pt-6 text-sm">
          {book.unit.maker} {book.unit.name}, book revision {book.unit.revision}: {book.unit.source}. The
          maker’s service information comes first. Snap rings sit under spring load: compressor, eye
          protection, thumb over the ring.
        </p>
      </section>
    </div>
  );
}

/** Facts that are kept and do not count now: recorded under another version or depth. */
function NoLonger() {
  const { job, sheets, book } = useJobView();
  const counts = new Set(
    sheets.filter(({ applied }) => applied.inScope).map(({ applied }) => applied.chain.id),
  );
  const left = [...job.chains].filter(([id, { readings }]) => readings.length > 0 && !counts.has(id));
  if (left.length === 0) return null;
  return (
    <p className="border-accent mt-4 border-l-4 pl-3" data-no-longer>
      Kept, but not for this version or depth:{" "}
      {left
        .map(([id, { readings }]) => {
          const name = book.chains.find((chain) => chain.id === id)?.name ?? id;
          return `${name} (${readings.length} reading${readings.length > 1 ? "s" : ""})`;
        })
        .join(", ")}
      .
    </p>
  );
}

function Item({ name, value }: { name: string; value: string }) {
  return (
    <>
      <dt className="quiet">{name}</dt>
      <dd className="font-semibold">{value}</dd>
    </>
  );
}
