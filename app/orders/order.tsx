import { Download } from "lucide-react";
import { useState } from "react";
import { data, Link, useFetcher } from "react-router";
import { v7 as newId } from "uuid";
import { useWhen } from "~/door/when";
import { afterSent } from "~/look/revalidate";
import { AWAY, unlessAway } from "~/look/unless-away";
import { dayText } from "~/parts/day";
import { TakePhoto } from "~/photos/take";
import { services } from "~/server/context";
import { readForm, typedIn } from "~/server/form";
import { mustBe } from "~/server/session";
import { fold } from "~core/fact";
import { comparedBy } from "~core/needs";
import { moneyText } from "~core/quantity";
import { field, maybeWords, oneOf, uuid, whole } from "~core/shape";
import { jobByNumber } from "~store/jobs";
import { arrive, purchase, type Purchase } from "~store/orders";
import type { Route } from "./+types/order";

export const meta: Route.MetaFunction = ({ params }) => [{ title: `Order ${params.order} · Yard Key` }];

export const loader = async ({ context, params }: Route.LoaderArgs) => {
  const { pool } = context.get(services);
  const of = await purchase(pool, Number(params.order));
  if (!of) throw new Response("There is no order of this number.", { status: 404 });
  const jobs = [...new Set(of.lines.flatMap(({ job }) => job ?? []))];
  const records = new Map(
    await Promise.all(jobs.map(async (job) => [job, await jobByNumber(pool, job)] as const)),
  );
  const lines = of.lines.map((line) => {
    const record = line.job === null ? null : records.get(line.job);
    const book = record?.book;
    // Of a kit what lies in it is compared, one by one.
    const inside = line.contents ?? [{ number: line.part, name: line.name, count: 1 }];
    const compared = inside.map(({ number, name, count }) => ({
      name,
      count,
      by: book ? comparedBy(book, number) : [],
    }));
    const subject = pictureOf(of.number, line.part);
    const said = record ? fold(record.facts) : null;
    const pictures = said?.photos.filter(({ fact }) => fact.body.of === subject).map(({ id }) => id) ?? [];
    return { ...line, compared, pictures, closed: Boolean(said?.closed), event: newId() };
  });
  return { ...of, lines };
};

/** What a picture of a wrong piece is said to be of. */
const pictureOf = (order: number, part: string): string => `order ${order} ${part}`.slice(0, 80);

const said = {
  id: field(uuid),
  line: field(uuid),
  what: field(oneOf("arrived", "wrong", "cancelled")),
  pieces: field(whole(1, 1000), "A whole number of pieces, 1 or more."),
  note: field(maybeWords(300)),
};

/** What came of a line: here, wrong and sent back, or not wanted any more. */
export const action = async ({ context, request }: Route.ActionArgs) => {
  const staff = mustBe(context, "parts", "lead", "owner");
  const typed: Record<string, string> = await typedIn(request);
  const form = readForm(said, typed);
  if ("problems" in form) return data(form, { status: 400 });
  const { what, note } = form.values;
  if (what === "wrong" && note === "")
    return data(
      { problems: { note: "Say what is wrong with it: the supplier is told." }, typed },
      { status: 400 },
    );
  const { pool, tellSupplier } = context.get(services);
  const done = await arrive(pool, { ...form.values, by: staff.name }, tellSupplier);
  return done
    ? data({ problems: {}, typed: {} })
    : data({ problems: { pieces: "So many are not to come any more. Look again." }, typed }, { status: 409 });
};

/** What could not be sent is said, and the page stays. */
export const clientAction = ({ serverAction }: Route.ClientActionArgs) =>
  unlessAway(serverAction, () => ({ problem: AWAY, problems: { pieces: AWAY }, typed: {} }));

export const shouldRevalidate = afterSent;

type LineTold = Awaited<ReturnType<typeof loader>>["lines"][number];

/** One order: goods in, line by line, compared with what came out before it counts as usable. */
export default function OrderPage({
  loaderData: { number, supplier, by, at, lines, word },
}: Route.ComponentProps) {
  const when = useWhen();
  const open = lines.filter(({ pieces }) => pieces > 0);
  return (
    <main className="mx-auto max-w-[1320px] p-4">
      <div className="mb-3 flex items-center gap-4">
        <h1 className="text-3xl font-bold whitespace-nowrap">
          Order {number} <span className="text-2xl font-normal">{supplier}</span>
        </h1>
        <p className="leading-tight">
          <b role="status">
            {open.length === 0 ? "All of it is here" : `${open.length} of ${lines.length} to come`}
          </b>
          <span className="quiet block text-sm">
            {by}, {when.moment(at)}
          </span>
        </p>
        <span className="grow" />
        <WordOf word={word} />
        <a className="btn touch" href={`/orders/files/${number}.csv`} download>
          <Download size={20} aria-hidden="true" /> CSV
        </a>
        <a className="btn touch" href={`/orders/files/${number}.pdf`} download>
          <Download size={20} aria-hidden="true" /> PDF
        </a>
        <Link to="/orders" className="btn touch">
          All orders
        </Link>
      </div>
      <ul className="grid gap-2">
        {[...open, ...lines.filter(({ pieces }) => pieces === 0)].map((line) => (
          <OrderLine key={line.line} line={line} order={number} />
        ))}
      </ul>
    </main>
  );
}

function OrderLine({ line, order }: { line: LineTold; order: number }) {
  const { part, name, pieces, sent, ordered, cents, due, isLate, job, compared, events, contents } = line;
  return (
    <li
      className={`plate grid grid-cols-[minmax(0,2fr)_minmax(0,3fr)_minmax(0,3fr)] gap-4 px-4 py-2 ${pieces === 0 ? "quiet" : ""}`}
      data-line={part}
    >
      <div className="leading-tight">
        <b className="block text-lg">
          {ordered > 1 && `${ordered} × `}
          {name}
        </b>
        <span className="quiet block text-sm">
          {part} · {moneyText(cents)}
          {job !== null && (
            <>
              {" · "}
              <Link to={`/jobs/${job}/parts`} className="underline underline-offset-4">
                job {job}
              </Link>
            </>
          )}
        </span>
        <span className={`block text-sm ${isLate && pieces > 0 ? "text-error font-bold" : ""}`}>
          {pieces === 0
            ? "all here"
            : `${pieces} to come${sent > 0 ? `, ${sent} on the road` : ""}${due === null ? "" : `, ${isLate ? "late, was due" : "due"} ${dayText(due)}`}`}
        </span>
      </div>
      <div className="text-sm leading-tight">
        {pieces > 0 && (
          <>
            <b className="stamp">New against old, before it counts</b>
            <ul className={contents ? "max-h-40 overflow-y-auto" : ""}>
              {compared.map((one) => (
                <li key={one.name}>
                  {contents && <b>{`${one.count > 1 ? `${one.count} × ` : ""}${one.name}: `}</b>}
                  {one.by.length === 0 ? "number and count" : one.by.join(", ")}
                </li>
              ))}
            </ul>
          </>
        )}
        <Events events={events} />
        {line.pictures.map((picture) => (
          <a key={picture} href={`/jobs/${job}/photos/${picture}`} className="mt-1 mr-2 inline-block">
            <img
              src={`/jobs/${job}/photos/${picture}?size=small`}
              alt={`${name}, as it came`}
              className="h-20 rounded"
            />
          </a>
        ))}
      </div>
      {pieces > 0 && <GoodsIn line={line} order={order} />}
    </li>
  );
}

/** How far the order is at a supplier with a computer; one on paper is carried there by hand. */
function WordOf({ word }: Pick<Purchase, "word">) {
  const when = useWhen();
  if (!word) return <p className="quiet leading-tight">On paper: give it to them</p>;
  const [mark, title, words] = WORDS[word.what](word.note);
  return (
    <p role="status" data-word={word.what} className={`border-l-4 pl-3 leading-tight ${mark}`}>
      <b className="block">{title}</b>
      <span className="block text-sm">{`${words}${words ? ", " : ""}${word.what === "failing" ? "since " : ""}${when.short(word.at)}`}</span>
    </p>
  );
}

type Words = (note: string) => [mark: string, title: string, words: string];
const WORDS: Readonly<Record<NonNullable<Purchase["word"]>["what"], Words>> = {
  waiting: () => ["border-base-300", "On its way to them", ""],
  failing: (note) => ["border-warning", "Not there yet, tried again by itself", note],
  taken: (note) => ["border-success", "Taken", `their ${note}`],
  refused: (note) => ["border-error", "Turned away", note],
};

const SAID = {
  arrived: "came",
  wrong: "wrong, sent back",
  cancelled: "cancelled",
  "comes after all": "come after all",
} as const;

function Events({ events }: { events: Purchase["lines"][number]["events"] }) {
  const when = useWhen();
  if (events.length === 0) return null;
  return (
    <ul className="mt-1">
      {events.map(({ what, pieces, note, by, at }) => (
        <li key={`${at} ${what}`} data-event={what}>
          <b>
            {pieces} {SAID[what]}
          </b>
          {note && `: ${note}`} <span className="quiet">{`${by}, ${when.moment(at)}`}</span>
        </li>
      ))}
    </ul>
  );
}

function GoodsIn({
  line: { line, part, job, closed, pieces, event, name },
  order,
}: {
  line: LineTold;
  order: number;
}) {
  const { Form: Sent, data: answer, state } = useFetcher<typeof action>();
  const [isWrong, setWrong] = useState(false);
  const problems: Record<string, string> = answer?.problems ?? {};
  const typed: Record<string, string> = answer?.typed ?? {};
  const busy = state !== "idle";
  return (
    // Drawn anew when more is left or less: the number that stands in it is what is to come.
    <Sent method="post" key={pieces} className="grid content-start gap-2">
      <input type="hidden" name="id" value={event} />
      <input type="hidden" name="line" value={line} />
      <div className="flex items-end gap-2">
        <label className="w-24">
          <span className="stamp block">Pieces</span>
          <input
            className={`input touch w-full text-lg ${problems.pieces ? "input-error" : ""}`}
            name="pieces"
            inputMode="numeric"
            autoComplete="off"
            defaultValue={typed.pieces ?? pieces}
            aria-label={`Pieces of ${name}`}
          />
        </label>
        <button name="what" value="arrived" className="btn btn-primary touch grow" disabled={busy}>
          Compared, all right
        </button>
        <button
          type="button"
          className="btn touch"
          aria-expanded={isWrong}
          onClick={() => setWrong(!isWrong)}
        >
          Not right
        </button>
      </div>
      {isWrong && (
        <div className="flex items-end gap-2">
          <label className="grow">
            <span className="stamp block">What is wrong</span>
            <input
              className={`input touch w-full ${problems.note ? "input-error" : ""}`}
              name="note"
              defaultValue={typed.note ?? ""}
              autoComplete="off"
            />
          </label>
          {job !== null && (
            <TakePhoto of={pictureOf(order, part)} view={{ number: job, closed }} words="Photo" />
          )}
          <button name="what" value="wrong" className="btn touch" disabled={busy}>
            Send back
          </button>
          <button name="what" value="cancelled" className="btn btn-ghost touch" disabled={busy}>
            Cancel
          </button>
        </div>
      )}
      {Object.entries(problems).map(([key, words]) => (
        <p key={key} role="alert" className="text-error font-semibold">
          {words}
        </p>
      ))}
    </Sent>
  );
}
