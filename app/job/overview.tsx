import { NextTime } from "~/next-time/soon";
import { isSprung, unitName } from "~core/book";
import { becomes } from "~core/fact";
import { useWhen } from "~/door/when";
import { ArrowRight } from "lucide-react";
import { Link } from "react-router";
import { placeOf, STAGE_WORDS } from "~/frame/stages";
import { Correct } from "./correct";
import { Able } from "~/look/able";
import { standingIn } from "~/view/standing";
import { useJobView } from "~/view/view";

/** The job's first page: what it is, and the one thing to do next. */
export default function Overview() {
  const { day } = useWhen();
  const { job, book, opened } = useJobView();
  const booking = job.booking?.body;
  const after = becomes(book, job);
  return (
    <div className="mt-3 grid grid-cols-[minmax(0,3fr)_minmax(0,2fr)] gap-3">
      <div className="col-span-2 empty:hidden">
        <Able book={book} />
      </div>
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
            const then = after[trait.id];
            const known = value === undefined ? undefined : trait.values[value];
            return (
              <Item
                key={trait.id}
                name={trait.name}
                value={[
                  known ? `${known.name} (${known.tell})` : "not seen yet",
                  ...(then !== value && then !== undefined
                    ? [`${trait.values[then]?.name ?? then} goes in`]
                    : []),
                ].join("; ")}
              />
            );
          })}
        </dl>
        <NoLonger />
        <NextTime />
        <Correct />
      </section>
      <NextUp />
    </div>
  );
}

/** The one thing to do next, large, and how much of every stage is left. */
function NextUp() {
  const view = useJobView();
  const { book, number } = view;
  const { next, stages } = standingIn(view);
  return (
    <section className="plate flex flex-col p-5" aria-label="Next">
      <h2 className="stamp quiet mb-1">Next</h2>
      {next ? (
        <>
          <p className="text-2xl leading-tight font-bold" data-next={next.what} data-next-of={next.subject}>
            {next.name}
          </p>
          <p className="mb-4 text-lg">{next.words}</p>
          <Link to={`/jobs/${number}/${placeOf(next)}`} className="btn btn-primary btn-lg touch">
            {next.what === "pack" ? `Go to ${next.name}` : "Go on"} <ArrowRight aria-hidden="true" />
          </Link>
        </>
      ) : (
        <>
          <p className="mb-4 text-2xl font-bold">Closed. Its record is the build sheet.</p>
          <Link to={`/jobs/${number}/sheet`} className="btn btn-primary btn-lg touch">
            Build sheet <ArrowRight aria-hidden="true" />
          </Link>
        </>
      )}
      {next && (
        <dl className="mt-5 grid grid-cols-[auto_1fr] gap-x-6 gap-y-0.5" aria-label="Open by stage">
          {stages
            .filter(({ open }) => open > 0)
            .map(({ id, open }) => (
              <Item key={id} name={STAGE_WORDS[id]} value={`${open} to answer`} />
            ))}
        </dl>
      )}
      <p className="quiet mt-auto pt-6 text-sm">
        {unitName(book.unit)}, book revision {book.unit.revision}: {book.unit.source}. The maker’s service
        information comes first. {book.series.some(isSprung) && RINGS_CAUTION}
      </p>
    </section>
  );
}

/** Facts that are kept and do not count now: recorded under another version or depth. */
function NoLonger() {
  const { job, applied, book } = useJobView();
  const counts = new Set(applied.chains.filter(({ inScope }) => inScope).map(({ chain }) => chain.id));
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

const RINGS_CAUTION = "Snap rings sit under spring load: compressor, eye protection, thumb over the ring.";
