import { Link } from "react-router";
import { Mark } from "~/look/mark";
import { selectiveWord } from "~core/book";
import { nextReading, outsides, titleOf, type Together, type WayOut, type Worksheet } from "~core/measure";
import { roundedText, type LengthUnit } from "~core/quantity";
import type { JointPlan } from "~core/select";
import { seatName } from "./seat-name";

/** End plays and others that must stand in an order, and whether they do then. */
export function Orders({ asked, plan, unit }: { asked: Together; plan: JointPlan; unit: LengthUnit }) {
  const { relations = [] } = asked.question;
  if (relations.length === 0) return null;
  const of = (id: string) => ({
    name: asked.sheets.get(id)?.sheet.applied.chain.name ?? id,
    mean: plan.chains.find(({ chain }) => chain === id)?.mean ?? null,
  });
  return (
    <ul className="border-base-300 mt-1 flex flex-wrap gap-x-6 border-t pt-2 pb-1" aria-label="Order">
      {relations.map(({ below, above }, i) => {
        const [low, high] = [of(below), of(above)];
        const holds = !plan.broken.includes(i);
        return (
          <li
            key={`${below} ${above}`}
            className="flex items-center gap-2"
            data-order={holds ? "holds" : "broken"}
          >
            <Mark name={holds ? "inside" : "loose"} size={20} />
            <span>
              {low.name} {low.mean !== null && roundedText(low.mean, unit)} ≤ {high.name}{" "}
              {high.mean !== null && roundedText(high.mean, unit)}
              {!holds && <b className="text-error"> not met</b>}
            </span>
          </li>
        );
      })}
    </ul>
  );
}

/** The one measurement that would make the choice surer by most. */
export function MeasureNext({ asked, plan, number }: { asked: Together; plan: JointPlan; number: number }) {
  const next = nextReading(asked, plan);
  if (!next) return null;
  const sheet = asked.sheets.get(next.chain)?.sheet;
  const seat = next.seat === null ? undefined : asked.seats.get(next.seat);
  if (!sheet) return null;
  const what = selectiveWord(seat?.link);
  const words =
    next.what === "read again"
      ? `read ${titleOf(sheet)} once more`
      : `put a micrometer on the ${what} that ${next.what === "piece out" ? "comes out of" : "goes into"} ${seat ? seatName(seat) : titleOf(sheet)}`;
  return (
    <p className="border-base-300 border-t pt-2 pb-1" data-measure={next.what}>
      Surer by most: <b>{words}</b>{" "}
      <Link
        className="underline underline-offset-4"
        to={`/jobs/${number}/choose/${next.chain}?show=${next.what === "read again" ? "trial" : "choose"}`}
      >
        there
      </Link>
    </p>
  );
}

const AGAINST: Readonly<Record<WayOut["against"], string>> = {
  series: "its series has no such size",
  nobody: "neither the shelf nor a supplier has it",
  taken: "it is needed or put aside elsewhere",
  order: "with one that would do the order is wrong",
};

/** What nothing here brings inside: which limit, and what would. */
export function WaysOut({
  asked,
  plan,
  unit,
  of,
}: {
  asked: Together;
  plan: JointPlan;
  unit: LengthUnit;
  /** Of this figure alone; of all where it is left out. */
  of?: Worksheet;
}) {
  const all = outsides(asked, plan).filter(
    ({ sheet }) => !of || sheet.applied.chain.id === of.applied.chain.id,
  );
  if (all.length === 0) return null;
  return (
    <ul className="border-error my-2 border-l-4 pl-4" aria-label="What cannot be met">
      {all.map(({ sheet, mean, side, ways }) => (
        <li key={sheet.applied.chain.id} data-outside={sheet.applied.chain.id}>
          <b>
            {titleOf(sheet)} stays too {side}, {roundedText(mean, unit)}
          </b>
          {ways.map(({ seat, from, to, against, marks }) => (
            <span key={seat.link.id} className="block">
              {seatName(seat)} would have to be {roundedText(from, unit)} to {roundedText(to, unit)}
              {marks.length > 0 && ` (${marks.join(", ")})`}: {AGAINST[against]}.
            </span>
          ))}
          <span className="quiet block">
            Read it once more, or have another part: plates that are thicker or thinner, a new race.
          </span>
        </li>
      ))}
    </ul>
  );
}
