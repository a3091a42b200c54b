import { Mic, Undo2 } from "lucide-react";
import { useRef, useState, type FormEvent } from "react";
import { v7 as newId } from "uuid";
import { useInside } from "~/door/inside";
import { Field, Select } from "~/look/field";
import { useSay } from "~/say/use-say";
import { useJobView } from "~/view/view";
import { PART_KINDS } from "~core/book";
import { LEADS, ON_BENCH, type FactOf } from "~core/fact";
import { lengthText, type LengthUnit } from "~core/quantity";
import { GoesTo } from "./goes-to";
import { MakeBook } from "./make-book";
import { readAct } from "./read-act";
import { Tapped } from "./tapped";
import { useDictated } from "./use-dictated";

/**
 * What comes off, said as it is done, where the book has no step for it. Each act is a fact of this job; a book is made of them once they are all
 * there.
 *
 * @param after the step of the book that was done last.
 */
export function Recorder({ after }: { after?: string | undefined }) {
  const { job, applied } = useJobView();
  const { staff } = useInside();
  const isWhole = (applied.scoped.teardown ?? []).length === 0;
  return (
    <div className="grid grid-cols-[minmax(0,5fr)_minmax(0,4fr)] items-start gap-3">
      {job.closed ? <p className="plate p-4">The job is closed.</p> : <ActForm after={after} />}
      <section className="plate p-4" aria-label="What came off">
        <h2 className="mb-2 text-xl font-bold">
          {job.cameOff.length === 0
            ? "Nothing said yet"
            : `${job.cameOff.length} ${isWhole ? "off, in this order" : "off besides the book’s steps"}`}
        </h2>
        <Acts />
        {job.cameOff.length > 0 && LEADS.includes(staff.role) && <MakeBook isWhole={isWhole} />}
        {job.cameOff.length > 0 && !LEADS.includes(staff.role) && (
          <p className="quiet">A lead makes it into {isWhole ? "a book" : "a change of the book"}.</p>
        )}
      </section>
    </div>
  );
}

function ActForm({ after }: { after?: string | undefined }) {
  const { unit } = useJobView();
  const say = useSay();
  const what = useRef<HTMLDivElement>(null);
  const [place, setPlace] = useState<string>(ON_BENCH);
  const [problems, setProblems] = useState<Record<string, string>>({});
  const [photo, setPhoto] = useState<string | undefined>();
  const [at, setAt] = useState<(readonly [number, number])[]>([]);
  const [round, setRound] = useState(0);
  const [spoken, setSpoken] = useState("");
  const dictated = useDictated((words) => {
    setSpoken(words);
  });
  const submit = (event: FormEvent<HTMLFormElement>): void => {
    event.preventDefault();
    const form = event.currentTarget;
    const typed = Object.fromEntries(
      [...new FormData(form)].filter((entry): entry is [string, string] => typeof entry[1] === "string"),
    );
    const read = readAct(
      typed,
      { act: newId(), to: place, at: at.map(([x, y]): [number, number] => [x, y]), after, photo },
      unit,
    );
    setProblems(read.ok ? {} : read.problems);
    if (!read.ok) {
      form.querySelector<HTMLElement>(`[name="${Object.keys(read.problems)[0]}"]`)?.focus();
      return;
    }
    say(read.body);
    setPhoto(undefined);
    setAt([]);
    setSpoken("");
    setRound(round + 1);
    form.reset();
    what.current?.querySelector("input")?.focus();
  };
  const field = (
    label: string,
    name: string,
    more: { inputMode?: "numeric" | "decimal"; placeholder?: string } = {},
  ) => <Field label={label} name={name} autoComplete="off" problem={problems[name]} {...more} />;
  return (
    <form className="plate p-4" aria-label="What comes off" onSubmit={submit} noValidate>
      <div className="flex items-end gap-2" ref={what} key={spoken}>
        <div className="grow">
          <Field
            label="What comes off"
            name="what"
            autoComplete="off"
            autoFocus
            defaultValue={spoken}
            problem={problems.what}
          />
        </div>
        {dictated && (
          <button
            type="button"
            className={`btn touch mb-3 ${dictated.hears ? "btn-secondary" : ""}`}
            aria-pressed={dictated.hears}
            aria-label="Say it"
            onClick={dictated.hear}
          >
            <Mic size={22} aria-hidden="true" />
          </button>
        )}
      </div>
      {dictated?.deaf && (
        <p role="alert" className="text-error mb-2 font-semibold">
          Nothing could be heard: type it.
        </p>
      )}
      {field("Which way it sat", "way", { placeholder: "dish up, notch to the drain" })}
      <GoesTo place={place} onPick={setPlace} />
      <div className="mt-3 grid gap-2" key={round}>
        <More title="Bolts that held it" open={problems.bolts ?? problems.length}>
          {field("How many", "bolts", { inputMode: "numeric" })}
          {field("Thread", "size", { placeholder: "M6" })}
          {field(`Length, ${unit}`, "length", { inputMode: "decimal" })}
        </More>
        <More
          title="It is a pack: its plates"
          open={
            problems.pack ??
            problems.frictions ??
            problems.steels ??
            problems.friction ??
            problems.steel ??
            problems.clearance
          }
        >
          {field("Pack", "pack", { placeholder: "Low" })}
          {field("Frictions", "frictions", { inputMode: "numeric" })}
          {field("Steels", "steels", { inputMode: "numeric" })}
          {field(`A friction, ${unit}`, "friction", { inputMode: "decimal" })}
          {field(`A steel, ${unit}`, "steel", { inputMode: "decimal" })}
          {field(`Clearance as found, ${unit}`, "clearance", { inputMode: "decimal" })}
        </More>
        <More title="Check balls that lay in it" open={problems.balls ?? problems.ball}>
          {field("How many", "balls", { inputMode: "numeric" })}
          {field(`Across, ${unit}`, "ball", { inputMode: "decimal" })}
        </More>
        <More title="What kind, how many" open={problems.count}>
          <Select
            label="Kind"
            name="part"
            options={[
              { value: "", words: "not said" },
              ...PART_KINDS.map((value) => ({ value, words: value })),
            ]}
          />
          {field("How many of it", "count", { inputMode: "numeric" })}
        </More>
        <details className="border-base-300 rounded border px-3">
          <summary className="touch flex cursor-pointer items-center font-semibold">
            Where they sat, on a picture
          </summary>
          <Tapped photo={photo} at={at} onPhoto={setPhoto} onTap={setAt} />
        </details>
      </div>
      <div className="bg-base-100 sticky bottom-0 py-2">
        <button className="btn btn-primary btn-lg touch w-full">Off</button>
      </div>
    </form>
  );
}

/** What is said only of some things: shut until it is asked for, or something in it is wrong. */
function More({
  title,
  open,
  children,
}: {
  title: string;
  open: string | undefined;
  children: React.ReactNode;
}) {
  return (
    <details className="border-base-300 rounded border px-3" open={open !== undefined || undefined}>
      <summary className="touch flex cursor-pointer items-center font-semibold">{title}</summary>
      <div className="grid grid-cols-3 gap-3 pt-1">{children}</div>
    </details>
  );
}

/** Everything that came off, in its order; the last can be taken back. */
function Acts() {
  const { job, unit } = useJobView();
  const say = useSay();
  return (
    <ol>
      {job.cameOff.map(({ body, by }, i) => (
        <li key={body.act} className="border-base-300 flex items-start gap-3 border-t py-2" data-act={i + 1}>
          <b className="figure w-7 shrink-0 text-right text-lg">{i + 1}</b>
          <span className="min-w-0 grow leading-snug">
            <b className="text-lg">
              {body.count > 1 && `${body.count} × `}
              {body.what}
            </b>
            {actWords(body, unit).map((words) => (
              <span key={words} className="block">
                {words}
              </span>
            ))}
            <span className="quiet block text-sm">{by}</span>
          </span>
          {!job.closed && (
            <button
              type="button"
              className="btn btn-ghost touch"
              aria-label={`Take back: ${body.what}`}
              onClick={() => say({ ...body, there: false })}
            >
              <Undo2 size={20} aria-hidden="true" />
            </button>
          )}
        </li>
      ))}
    </ol>
  );
}

function actWords({ way, bolts, plates, balls, at }: FactOf<"came-off">["body"], unit: LengthUnit): string[] {
  const thick = (words: string, length: number | undefined): string =>
    length === undefined ? "" : `${words} ${lengthText(length as Parameters<typeof lengthText>[0], unit)}`;
  return [
    way,
    bolts
      ? [`${bolts.count} bolts`, bolts.size, bolts.length === undefined ? "" : lengthText(bolts.length, unit)]
          .filter(Boolean)
          .join(", ")
      : "",
    plates
      ? [
          `${plates.pack}: ${plates.frictions} frictions, ${plates.steels} steels`,
          thick("a friction", plates.friction),
          thick("a steel", plates.steel),
          thick("clearance as found", plates.clearance),
        ]
          .filter(Boolean)
          .join(", ")
      : "",
    balls
      ? `${balls.count} check balls${balls.size === undefined ? "" : `, ${lengthText(balls.size, unit)}`}`
      : "",
    at.length > 0 ? `${at.length} ${at.length === 1 ? "place" : "places"} on a picture` : "",
  ].filter(Boolean);
}
