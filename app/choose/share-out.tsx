import { limitWords } from "~core/book";
import { data, Link, useFetcher, useSearchParams } from "react-router";
import { Mark } from "~/look/mark";
import { afterSent } from "~/look/revalidate";
import { services, signedIn } from "~/server/context";
import { chosenBeside } from "~/server/beside";
import { readForm, typedIn } from "~/server/form";
import { across, shares, type JobShare } from "~core/measure";
import { lengthText, nm, roundedText, type LengthUnit } from "~core/quantity";
import { field, maybeWords, words } from "~core/shape";
import { readHouse } from "~store/house";
import { reserve } from "~store/shelf";
import type { Route } from "./+types/share-out";
import { AWAY, unlessAway } from "~/look/unless-away";
import { percent, sourceText } from "./candidate-words";
import { pieceText } from "./piece-text";
import { proofText } from "./proof-words";
import { picksIn, QUICKER, wantedBy } from "./put-aside";
import { useShelfAnew } from "./use-shelf-anew";
import { asking, jobsAsked, jobTold, takersOf, type SeatTold } from "./share-told";

export const meta: Route.MetaFunction = () => [{ title: "Share out · Yard Key" }];

const withoutIn = (search: URLSearchParams): Set<number> => new Set(search.getAll("without").map(Number));

export const loader = async ({ context, request }: Route.LoaderArgs) => {
  const { pool } = context.get(services);
  const house = await readHouse(pool);
  const without = withoutIn(new URL(request.url).searchParams);
  const all = await asking(pool, house, without);
  const jobs = jobsAsked(all);
  const question = across(jobs, house.chooseFirst);
  const plan = await chosenBeside(question);
  const told = shares(jobs, plan);
  const takers = takersOf(told);
  return {
    jobs: all.map((one, i) => jobTold(one, told[i] as JobShare, house.rule, takers)),
    without: [...without],
    values: plan.values,
    proof: proofText(plan, question.terms),
  };
};

export const shouldRevalidate = afterSent;

/** What could not be sent is said, and the page stays. */
export const clientAction = ({ serverAction }: Route.ClientActionArgs) =>
  unlessAway(serverAction, () => ({ problem: AWAY }));

const accepted = {
  /** One job; empty for all of them. */
  job: field(maybeWords(12)),
  /** What is proposed, `number seat=key` with a line each. */
  plan: field(words(0, 60_000)),
  without: field(maybeWords(400)),
};

/** Puts aside what is proposed, for one job or for all: all of it or nothing. */
export const action = async ({ context, request }: Route.ActionArgs) => {
  const { pool } = context.get(services);
  const { staff } = context.get(signedIn);
  const form = readForm(accepted, await typedIn(request));
  if ("problems" in form) return data({ problem: "Nothing was proposed. Look again." }, { status: 400 });
  const { job, plan, without } = form.values;
  const all = await asking(pool, await readHouse(pool), new Set(without.split(" ").map(Number)));
  const lines = plan.split("\n").map((line) => {
    const at = line.indexOf(" ");
    return { number: line.slice(0, Math.max(0, at)), line: line.slice(at + 1) };
  });
  const wanted = lines
    .filter(({ number }) => number !== "" && (job === "" || job === number))
    .map(({ number, line }) => {
      const one = all.find(({ record }) => String(record.number) === number);
      return one ? wantedBy(one.asked, one.record.id, picksIn(line)) : null;
    });
  const isOffered = wanted.every((some) => some !== null);
  const gone =
    !isOffered ||
    (await reserve(
      pool,
      staff.name,
      wanted.flatMap((some) => some ?? []),
    )) !== null;
  return gone ? data({ problem: QUICKER }, { status: 409 }) : data({ problem: "" });
};

type JobTold = Awaited<ReturnType<typeof loader>>["jobs"][number];

/** What all open jobs take from one shelf when they are looked at together: who gets the last of what. */
export default function ShareOut({ loaderData }: Route.ComponentProps) {
  const [search] = useSearchParams();
  const { jobs, without, values, proof } = useShelfAnew(`/shelf/share?${search.toString()}`, loaderData);
  const differs = jobs.flatMap(({ seats }) => seats).filter(({ alone }) => alone !== undefined).length;
  const sentences = [
    `${jobs.length} ${jobs.length === 1 ? "job" : "jobs"}`,
    values.outside > 0 ? `${values.outside} outside` : "all inside",
    differs === 0
      ? "nobody is in another’s way"
      : `${differs} ${differs === 1 ? "seat gets" : "seats get"} another piece for a neighbour’s sake`,
  ];
  const lines = jobs.flatMap(({ number, text }) =>
    text === "" ? [] : text.split("\n").map((line) => `${number} ${line}`),
  );
  const mayAccept = jobs.some(({ seats }) => seats.some(isToPutAside));
  return (
    <main className="mx-auto max-w-[1320px] p-4">
      <div className="mb-2 flex items-center gap-4">
        <h1 className="text-3xl font-bold">Share out</h1>
        <p className="flex items-center gap-3 text-lg font-semibold" role="status">
          {jobs.length > 0 && <Mark name={values.outside === 0 ? "inside" : "loose"} size={26} />}
          <span>{sentences.join(" · ")}</span>
        </p>
        <span className="grow" />
        {mayAccept && jobs.length > 1 && (
          <Accept words="Put all aside" job="" plan={lines} without={without} isPrimary />
        )}
      </div>
      <p className="quiet mb-3">
        What the open jobs take from the shelf when they are chosen for together. {proof}
      </p>
      {jobs.length === 0 && (
        <p className="plate p-8 text-xl">
          No open job has anything to choose just now. A job stands here when its trial readings are enough.
        </p>
      )}
      <div className="flex flex-col gap-3">
        {jobs.map((job) => (
          <JobPlate key={job.number} job={job} search={search} without={without} lines={lines} />
        ))}
      </div>
      {without.length > 0 && (
        <p className="mt-4 flex items-center gap-3">
          Left out: {without.join(", ")}
          <Link to="/shelf/share" className="btn touch">
            Look at all again
          </Link>
        </p>
      )}
    </main>
  );
}

const isToPutAside = ({ put, source, isHeld }: SeatTold): boolean =>
  put?.part !== undefined && source?.kind !== "order" && !isHeld;

function JobPlate({
  job: { number, vehicle, unitName, unit, seats },
  search,
  without,
  lines,
}: {
  job: JobTold;
  search: URLSearchParams;
  without: readonly number[];
  lines: readonly string[];
}) {
  const less = new URLSearchParams(search);
  less.append("without", String(number));
  const mine = lines.filter((line) => line.startsWith(`${number} `));
  return (
    <section className="plate px-4 py-2" aria-label={`Job ${number}`} data-job={number}>
      <div className="flex items-center gap-4">
        <h2 className="text-xl font-bold">
          <Link to={`/jobs/${number}/choose`} className="underline underline-offset-4">
            {number}
          </Link>
        </h2>
        <span className="min-w-0 grow truncate">
          {vehicle && `${vehicle} · `}
          <span className="quiet">{unitName}</span>
        </span>
        <Link to={`?${less.toString()}`} className="btn btn-ghost touch" replace>
          Leave out
        </Link>
        {seats.some(isToPutAside) && (
          <Accept words={`Put aside for ${number}`} job={String(number)} plan={mine} without={without} />
        )}
      </div>
      <table className="w-full table-fixed">
        <colgroup>
          <col className="w-[15%]" />
          <col className="w-[18%]" />
          <col className="w-[19%]" />
          <col className="w-[21%]" />
          <col className="w-[7%]" />
          <col />
        </colgroup>
        <tbody>
          {seats.map((seat) => (
            <SeatRow key={seat.seat} told={seat} unit={unit} number={number} />
          ))}
        </tbody>
      </table>
    </section>
  );
}

function SeatRow({ told, unit, number }: { told: SeatTold; unit: LengthUnit; number: number }) {
  const { seat, name, chain, fitted, put, kept, source, isHeld, alone, figures } = told;
  const to = `/jobs/${number}/choose/${chain}?show=choose&seat=${encodeURIComponent(seat)}`;
  return (
    <tr className="border-base-300 border-t align-middle" data-seat={seat}>
      <td className="py-2 pr-3">
        <Link to={to} className="text-lg font-bold underline underline-offset-4">
          {name}
        </Link>
      </td>
      <td className="quiet pr-3 leading-tight">{pieceText(fitted, unit)} in now</td>
      <td className="pr-3 leading-tight">
        <b className="text-lg whitespace-nowrap">
          {kept
            ? "keep it"
            : put
              ? lengthText(put.measured ?? put.size ?? nm(0), unit)
              : "nothing that can be had"}
        </b>
        {put && (
          <span className="quiet block text-sm">
            {put.mark ?? ""} · {isHeld ? "put aside" : source ? sourceText(source) : ""}
          </span>
        )}
      </td>
      <td className="text-right leading-tight whitespace-nowrap">
        {figures.map(({ title, now, then, mark, limits }) => (
          <span key={title} className="block">
            {figures.length > 1 && <span className="quiet mr-2 text-sm">{title}</span>}
            <span className="quiet mr-2">{roundedText(now, unit)} →</span>
            <span className="inline-flex items-center gap-1">
              <Mark name={mark} size={22} /> <b className="text-lg">{roundedText(then, unit)}</b>
            </span>
            <span className="quiet block text-sm">{limitWords(limits, unit)}</span>
          </span>
        ))}
      </td>
      <td className="pl-4 text-right whitespace-nowrap">
        {figures.map(({ title, chance }) => (
          <span key={title} className="block">
            {chance === null ? "" : percent(chance)}
          </span>
        ))}
      </td>
      <td className="pl-4 text-sm leading-tight">
        {alone !== undefined && (
          <span className="border-accent block border-l-4 pl-2" data-alone={alone.words}>
            By itself it would take <b>{alone.words}</b>
            {alone.goesTo === undefined ? "" : `, which goes to ${alone.goesTo}`}.
          </span>
        )}
      </td>
    </tr>
  );
}

function Accept({
  words: text,
  job,
  plan,
  without,
  isPrimary = false,
}: {
  words: string;
  job: string;
  plan: readonly string[];
  without: readonly number[];
  isPrimary?: boolean;
}) {
  const { Form: Sent, data: answer, state } = useFetcher<{ problem: string }>();
  return (
    <Sent method="post" className="flex items-center gap-3">
      {answer?.problem && state === "idle" && (
        <p role="alert" className="text-error font-semibold">
          {answer.problem}
        </p>
      )}
      <input type="hidden" name="job" value={job} />
      <input type="hidden" name="plan" value={plan.join("\n")} />
      <input type="hidden" name="without" value={without.join(" ")} />
      <button className={`btn touch ${isPrimary ? "btn-primary text-lg" : ""}`} disabled={state !== "idle"}>
        {text}
      </button>
    </Sent>
  );
}
