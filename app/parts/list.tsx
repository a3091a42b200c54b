import { Check } from "lucide-react";
import { Link } from "react-router";
import { SOURCES } from "~core/fact";
import { heldUpBy, type Need, type Stands } from "~core/needs";
import { amountText } from "./amount";
import { dayText } from "./day";
import { moneyText } from "~core/quantity";

/** How long the list is, how much of it has to be got, and what that costs bought one by one. */
export function NeedsHead({ lines, stands, prices }: NeedsListProps) {
  const wanted = lines.filter(({ isIn }) => !isIn);
  const short = wanted.filter(({ id }) => (stands.get(id)?.short ?? 0) > 0).length;
  const coming = wanted.filter(({ id }) => (stands.get(id)?.coming ?? 0) > 0).length;
  const held = heldUpBy(lines, stands);
  const known = wanted.filter(({ number }) => number !== null && prices.has(number));
  const cents = known.reduce((sum, { number, count }) => sum + (prices.get(number ?? "") ?? 0) * count, 0);
  const unpriced = wanted.length - known.length;
  return (
    <p className="leading-tight" role="status" data-needs={wanted.length}>
      <b className="block text-xl">
        {wanted.length} {wanted.length === 1 ? "line" : "lines"},{" "}
        {short > 0 ? `${short} to get` : coming > 0 ? `${coming} on the way` : "all of it here"}
      </b>
      <span className="quiet">
        {[
          held?.waits
            ? `the build can go on to step ${held.waits.at}, which waits for ${held.name}`
            : "nothing holds the build up",
          short > 0 && cents > 0 ? `${moneyText(cents)} bought one by one` : "",
          unpriced > 0 ? `${unpriced} without a price` : "",
        ]
          .filter(Boolean)
          .join(" · ")}
      </span>
    </p>
  );
}

interface NeedsListProps {
  lines: readonly Need[];
  stands: ReadonlyMap<string, Stands>;
  prices: ReadonlyMap<string, number>;
}

interface ListProps extends Omit<NeedsListProps, "prices"> {
  /** What is paid until old parts come back, by number. */
  deposits: ReadonlyMap<string, number>;
  /** The line that is looked at, by its id. */
  shown: string | null;
}

/** The list itself, in the order in which the build asks for things. */
export function NeedsList({ lines, stands, deposits, shown }: ListProps) {
  return (
    <section className="plate px-4 py-1" aria-label="What it needs">
      <table className="w-full">
        <thead>
          <tr className="stamp text-left">
            <th className="py-1 font-semibold">Part</th>
            <th className="py-1 font-semibold">Asked for by</th>
            <th className="py-1 font-semibold">Waits for it</th>
            <th className="py-1 text-right font-semibold">Here</th>
          </tr>
        </thead>
        <tbody>
          {lines.map((line) => (
            <Line
              key={line.id}
              line={line}
              stands={stands.get(line.id)}
              deposit={deposits.get(line.number ?? "")}
              isShown={line.id === shown}
            />
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Line({
  line,
  stands,
  deposit,
  isShown,
}: {
  line: Need;
  stands: Stands | undefined;
  deposit: number | undefined;
  isShown: boolean;
}) {
  const { id, kind, name, because, waits, brings, isIn } = line;
  const [first, ...more] = because;
  return (
    <tr
      className={`border-base-300 border-t align-top ${isIn ? "quiet" : ""} ${isShown ? "bg-base-200" : ""}`}
      data-need={id}
    >
      <td className="py-1.5 pr-3 leading-tight">
        {kind === "part" ? (
          <Link
            to={isShown ? "?" : `?line=${encodeURIComponent(id)}`}
            preventScrollReset
            replace
            aria-current={isShown ? "true" : undefined}
            className="block text-lg leading-tight font-bold underline decoration-1 underline-offset-4"
          >
            {amountText(line)} {name}
          </Link>
        ) : (
          <b className="block text-lg leading-tight">
            {amountText(line)} {name}
          </b>
        )}
        <span className="quiet block text-sm">
          {fromWords(line)}
          {deposit !== undefined && `, ${moneyText(deposit)} on the old one`}
        </span>
        {brings && <span className="text-warning block text-sm font-semibold">{brings}</span>}
      </td>
      <td className="py-1.5 pr-3 text-sm leading-tight">
        {first}
        {more.map((words) => (
          <span key={words} className="quiet block">
            {words}
          </span>
        ))}
      </td>
      <td className="py-1.5 pr-3 text-sm leading-tight">
        {waits ? `${waits.at} · ${waits.name}` : "the end"}
      </td>
      <td className="py-1.5 text-right text-sm leading-tight whitespace-nowrap">
        {isIn ? <Has words="in" /> : stands && <Where stands={stands} source={line.source} />}
      </td>
    </tr>
  );
}

/** Its number, or where it comes from instead of being bought. */
function fromWords({ number, source }: Need): string {
  if (!source) return number ?? "the book has no number for it";
  return source.of ? `${SOURCES.words[source.from]}: ${source.of}` : SOURCES.words[source.from];
}

const Has = ({ words }: { words: string }) => (
  <span className="flex items-center justify-end gap-1 font-semibold">
    <Check size={16} strokeWidth={3} aria-hidden="true" /> {words}
  </span>
);

/** Where the pieces of a line are: in the box, on the shelf, on their way, or nowhere yet. */
function Where({
  stands: { box, shelf, coming, short, due, isLate },
  source,
}: {
  stands: Stands;
  source: Need["source"];
}) {
  if (source) return source.isHere ? <Has words="here" /> : <b>not here yet</b>;
  const wanted = box + shelf + coming + short;
  const of = (n: number): string => (n === wanted ? "" : `${n} `);
  return (
    <>
      {box > 0 && <Has words={`${of(box)}in the box`} />}
      {shelf > 0 && <span className="block">{of(shelf)}on the shelf</span>}
      {coming > 0 && (
        <span className={`block ${isLate ? "text-error font-semibold" : ""}`}>
          {of(coming)}
          {due === null ? "ordered" : `${isLate ? "late, was due" : "comes"} ${dayText(due)}`}
        </span>
      )}
      {short > 0 && <b className="block">{of(short)}to get</b>}
    </>
  );
}
