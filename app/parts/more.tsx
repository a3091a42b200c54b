import { Link } from "react-router";
import type { PartState } from "~core/inspect";
import type { WhileOpen } from "~core/needs";
import { moneyText } from "~core/quantity";

const FEW = 8;

/** What may still come to the list: nobody has looked at it, or it is to be measured. */
export function OpenYet({ states, number }: { states: readonly PartState[]; number: number }) {
  if (states.length === 0) return null;
  const more = states.length - FEW;
  return (
    <section className="plate px-4 py-2" aria-label="Not known yet">
      <h2 className="text-lg font-bold">
        {states.length} {states.length === 1 ? "part" : "parts"} not known yet
      </h2>
      <p className="quiet text-sm">
        Nobody has looked at them, or they are to be measured: each may still be wanted.
      </p>
      <ul className="mt-1 flex flex-wrap gap-2">
        {states.slice(0, FEW).map(({ part: { id, name } }) => (
          <li key={id}>
            <Link to={`/jobs/${number}/inspect?part=${id}`} className="btn touch">
              {name}
            </Link>
          </li>
        ))}
        {more > 0 && (
          <li>
            <Link to={`/jobs/${number}/inspect`} className="btn btn-ghost touch">
              and {more} more
            </Link>
          </li>
        )}
      </ul>
    </section>
  );
}

const MOST = 6;

/** Cheap now, dear once the unit is shut again: what it costs today beside the work to come to it later. */
export function WhileOpenList({
  list,
  prices,
  hourCents,
}: {
  list: readonly WhileOpen[];
  prices: ReadonlyMap<string, number>;
  hourCents: number;
}) {
  const priced = list.flatMap((one) => {
    const each = prices.get(one.part.number);
    return each === undefined
      ? []
      : [{ ...one, now: each * one.count, later: Math.round((one.minutes / 60) * hourCents) }];
  });
  // What saves most for what it costs stands first.
  const best = priced
    .filter(({ now, later }) => later > 4 * now)
    .sort((a, b) => a.now / a.later - b.now / b.later)
    .slice(0, MOST);
  if (best.length === 0) return null;
  return (
    <section className="plate px-4 py-2" aria-label="While it is open">
      <h2 className="text-lg font-bold">While it is open</h2>
      <p className="quiet text-sm">In order today as far as is known; the way back to them costs so much.</p>
      <ul>
        {best.map(({ part, count, now, later, minutes }) => (
          <li
            key={part.id}
            className="border-base-300 flex items-baseline gap-3 border-t py-1"
            data-while-open={part.id}
          >
            <span className="min-w-0 grow leading-tight">
              {count > 1 && `${count} × `}
              {part.name}
            </span>
            <b className="whitespace-nowrap">{moneyText(now)}</b>
            <span className="quiet text-sm whitespace-nowrap">
              later {moneyText(later)}, {(minutes / 60).toFixed(1)} h
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
