import { Link } from "react-router";
import { Field } from "~/look/field";
import { SayForm } from "~/say/say-form";
import { useSay } from "~/say/use-say";
import { useJobView } from "~/view/view";
import type { Part } from "~core/book";
import { OLD_PARTS, wordsOf, type BodyOf } from "~core/fact";
import { broughtWords, comparedBy, inPlaceOf, type Need } from "~core/needs";
import { moneyText } from "~core/quantity";

/** Where what goes in for one line comes from, what that brings, and where the old one goes. */
export function ComesFrom({ line, deposit }: { line: Need; deposit: number | undefined }) {
  const { job, applied } = useJobView();
  const part = applied.scoped.parts.find(({ id }) => id === line.of);
  if (!part) return null;
  // A later part stands for the one it is in place of: what is said of it is said of that one.
  const inPlace = inPlaceOf(job, part);
  const old = applied.book.parts.find(({ id }) => id === inPlace?.body.part) ?? part;
  const closed = job.closed !== null;
  return (
    <section className="plate px-4 py-2" aria-label="Where it comes from">
      <div className="flex items-baseline gap-2">
        <h2 className="grow text-lg font-bold">{line.name}</h2>
        <Link to="?" preventScrollReset replace className="underline underline-offset-4">
          Close
        </Link>
      </div>
      {line.brings && <p className="text-warning font-semibold">{line.brings}</p>}
      {!closed && (
        <>
          {line.source?.from === "machined" ? (
            <Machined part={part} line={line} />
          ) : (
            <>
              <Bought part={old} line={line} inPlace={inPlace !== undefined} />
              {!inPlace && <Donor part={part} line={line} />}
            </>
          )}
          <OldOne part={old} deposit={deposit} />
        </>
      )}
    </section>
  );
}

/** As it is, or a later one the book names; one touch, and the unit follows. */
function Bought({ part, line, inPlace }: { part: Part; line: Need; inPlace: boolean }) {
  const { applied, job } = useJobView();
  const say = useSay();
  const said = job.sources.get(part.id)?.body;
  const take = (more: Pick<BodyOf<"part-source">, "from"> & { number?: string }): void =>
    say(Object.assign({ kind: "part-source" as const, part: part.id, of: "", here: false }, more));
  const isBought = line.source === null && !inPlace;
  return (
    <div role="group" aria-label="Bought" className="my-1 grid gap-1">
      <button
        type="button"
        aria-pressed={isBought}
        className={`btn touch justify-start ${isBought ? "btn-secondary" : ""}`}
        onClick={() => take({ from: "bought" })}
      >
        {inPlace ? `${part.name} again, ${part.number}` : `Bought new, ${part.number}`}
      </button>
      {(part.instead ?? []).map((later) => {
        const { number } = later;
        const isIn = said?.from === "later" && said.number === number;
        const sets = applied.book.parts.find((one) => one.number === number)?.sets;
        return (
          <button
            key={number}
            type="button"
            aria-pressed={isIn}
            data-later={number}
            className={`btn touch h-auto justify-start py-1.5 text-left leading-tight ${isIn ? "btn-secondary" : ""}`}
            onClick={() => take({ from: "later", number })}
          >
            <span>
              <b>{number} instead</b>
              <span className="block text-sm font-normal">
                {broughtWords(later)}
                {sets && `; the unit is ${traitWords(applied.book.traits, sets)} then`}
              </span>
            </span>
          </button>
        );
      })}
    </div>
  );
}

const traitWords = (
  traits: readonly { id: string; values: Record<string, { name: string }> }[],
  sets: Readonly<Record<string, string>>,
): string =>
  Object.entries(sets)
    .map(([trait, value]) => traits.find(({ id }) => id === trait)?.values[value]?.name ?? value)
    .join(", ");

/** A used one out of another unit: which, how far it ran, and what is looked at before it goes in. */
function Donor({ part, line }: { part: Part; line: Need }) {
  const { applied, job } = useJobView();
  const isDonor = line.source?.from === "donor";
  const said = isDonor ? job.sources.get(part.id)?.body : undefined;
  return (
    <details className="border-base-300 border-t" open={isDonor} data-donor={isDonor ? "said" : "open"}>
      <summary className="touch flex cursor-pointer items-center font-semibold underline underline-offset-4">
        {isDonor ? `Out of ${line.source?.of}` : "Out of a donor unit"}
      </summary>
      <SayForm
        kind="part-source"
        fixed={{ part: part.id, from: "donor", here: `${said?.here ?? false}` }}
        className="grid grid-cols-2 items-end gap-x-3"
        keep
      >
        {(problems) => (
          <>
            <Field
              label="Which unit"
              name="of"
              defaultValue={said?.of}
              problem={problems.of}
              autoComplete="off"
            />
            <Field
              label="How far it ran"
              name="distance"
              placeholder="92 000 km"
              defaultValue={said?.distance}
              problem={problems.distance}
              autoComplete="off"
            />
            <button className="btn touch col-span-2">{isDonor ? "Correct" : "Take it from there"}</button>
          </>
        )}
      </SayForm>
      {isDonor && (
        <>
          <p className="mt-1 text-sm">
            <span className="stamp quiet mr-2">Before it goes in</span>
            {comparedBy(applied.book, part.number).slice(1).join("; ") || "looked at as the old one was"}
          </p>
          <Here part={part} line={line} words={["It is here", "Not here yet"]} />
        </>
      )}
    </details>
  );
}

/** The old one goes to be machined: by whom, and whether it is back. */
function Machined({ part, line }: { part: Part; line: Need }) {
  return (
    <>
      <SayForm
        kind="part-source"
        fixed={{ part: part.id, from: "machined", here: `${line.source?.isHere ?? false}` }}
        className="my-1 flex items-end gap-2"
        keep
      >
        {(problems) => (
          <>
            <div className="grow">
              <Field
                label="Machined by"
                name="of"
                defaultValue={line.source?.of}
                problem={problems.of}
                autoComplete="off"
              />
            </div>
            <button className="btn touch mb-3">Keep</button>
          </>
        )}
      </SayForm>
      <Here part={part} line={line} words={["It is back", "Not back yet"]} />
    </>
  );
}

/** One touch: it is ready to go in, or after all it is not. */
function Here({
  part,
  line: { source },
  words: [yes, no],
}: {
  part: Part;
  line: Need;
  words: readonly [string, string];
}) {
  const { job } = useJobView();
  const say = useSay();
  if (!source) return null;
  const known = job.sources.get(part.id)?.body;
  // What was said of another source is not said of this one.
  const said = known?.from === source.from ? known : { of: "" };
  return (
    <button
      type="button"
      className={`btn touch my-1 w-full ${source.isHere ? "" : "btn-primary"}`}
      data-here={source.isHere ? "yes" : "no"}
      onClick={() =>
        say(
          Object.assign({}, said, {
            kind: "part-source" as const,
            part: part.id,
            from: source.from,
            here: !source.isHere,
          }),
        )
      }
    >
      {source.isHere ? no : yes}
    </button>
  );
}

/** Where the old one goes: it may be worth a deposit, or the shelf. */
function OldOne({ part, deposit }: { part: Part; deposit: number | undefined }) {
  const { job } = useJobView();
  const say = useSay();
  const goes = job.oldParts.get(part.id)?.body.goes;
  return (
    <div className="border-base-300 mt-1 border-t pt-1" data-old={goes ?? ""}>
      <p className="leading-tight">
        <span className="stamp quiet mr-2">The old one</span>
        {deposit !== undefined && `${moneyText(deposit)} come back with it`}
      </p>
      <span className="mt-1 flex flex-wrap gap-1" role="group" aria-label="Where the old one goes">
        {wordsOf(OLD_PARTS).map(([one, words]) => (
          <button
            key={one}
            type="button"
            aria-pressed={goes === one}
            className={`btn touch grow px-2 ${goes === one ? "btn-secondary" : ""}`}
            onClick={() => say({ kind: "old-part", part: part.id, goes: one })}
          >
            {words}
          </button>
        ))}
      </span>
    </div>
  );
}
