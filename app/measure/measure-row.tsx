import equal from "fast-deep-equal";
import { CornerDownLeft } from "lucide-react";
import { memo, useEffect, useState } from "react";
import { Link } from "react-router";
import { useJobView } from "~/view/view";
import { Readings } from "~/reading/readings";
import type { Applied } from "~core/book";
import type { Phase } from "~core/fact";
import type { SpecLine } from "~core/measure";
import { fieldWaits, hasSheet } from "./entry";
import { openItems } from "./read-row";
import { Stands } from "./stands";

/** What a row asks of its table. */
export interface Acts {
  enter: (row: SpecLine, field: HTMLInputElement) => void;
  /** Goes on to the field so many further down. */
  focus: (from: HTMLInputElement, by: number) => void;
  look: (id: string) => void;
  work: (id: string) => void;
}

/** The same acts for as long as the table stands, whatever they do at the moment: rows are not drawn again for them. */
export function useActs(now: Acts): Acts {
  const [held] = useState(() => {
    const last = { acts: now };
    const acts: Acts = {
      enter: (...given) => last.acts.enter(...given),
      focus: (...given) => last.acts.focus(...given),
      look: (id) => last.acts.look(id),
      work: (id) => last.acts.work(id),
    };
    return { acts, becomes: (acts: Acts) => void (last.acts = acts) };
  });
  useEffect(() => held.becomes(now));
  return held.acts;
}

let before: readonly SpecLine[] = [];
/** Rows that say what they said are the very same rows: only what a figure changed is drawn again. */
export function useSteady(rows: readonly SpecLine[]): readonly SpecLine[] {
  const had = new Map(before.map((row) => [row.id, row]));
  const steady = rows.map((row) => {
    const same = had.get(row.id);
    return same && equal(same, row) ? same : row;
  });
  return (before =
    steady.length === before.length && steady.every((row, i) => row === before[i]) ? before : steady);
}

interface MeasureRowProps {
  row: SpecLine;
  phase: Phase;
  problem: string;
  /** Whether somebody was sent to this very row. */
  anchored: boolean;
  /** Whether its readings are looked at. */
  looked: boolean;
  number: number;
  applied: Applied;
  closed: boolean;
  /** Whether the unit was here before. */
  earlier: boolean;
  acts: Acts;
}

/** One figure of the spec sheet: what it is, what it may be, how it stands, and the field it is typed into. */
export const MeasureRow = memo(function MeasureRow(props: MeasureRowProps) {
  const { row, phase, anchored, earlier, looked, acts } = props;
  return (
    <tr
      id={`row-${row.id}`}
      data-row={row.id}
      data-standing={row[phase].standing}
      className={`border-base-300 border-t ${anchored ? "outline-primary outline-3" : ""}`}
    >
      <Name {...props} />
      <td className="px-3 py-1 max-[1100px]:hidden">{row.station}</td>
      <td className="max-w-56 px-3 py-1">{row.spec}</td>
      <td className="quiet px-3 py-1 whitespace-nowrap">{row[phase === "found" ? "built" : "found"].text}</td>
      {earlier && (
        <td className="px-3 py-1 whitespace-nowrap" data-earlier>
          {row.earlier?.text}
          {row.earlier?.moved && <span className="quiet block text-sm">{row.earlier.moved} since</span>}
        </td>
      )}
      <td className="px-3 py-1">
        <Stands figure={row[phase]} wanted={row.wanted} />
        {row.subject === "chain" && row[phase].readings.length > 0 && (
          <button
            type="button"
            className="touch underline underline-offset-4"
            aria-expanded={looked}
            aria-label={`Readings of ${row.name}`}
            onClick={() => acts.look(row.id)}
          >
            Readings
          </button>
        )}
        {looked && <RowReadings row={row} phase={phase} />}
      </td>
      <td className="w-52 px-2 py-1">
        <Entry {...props} />
      </td>
    </tr>
  );
});

const Name = ({ row, number, acts }: MeasureRowProps) => (
  <th scope="row" className="px-3 py-1 text-left leading-tight font-semibold">
    {row.sheet ? (
      <Link to={`/jobs/${number}/choose/${row.id}`} className="underline underline-offset-4">
        {row.name}
      </Link>
    ) : (
      row.name
    )}
    <span className="quiet block text-sm font-normal">{row.how}</span>
    {hasSheet(row) && (
      <button type="button" className="touch underline underline-offset-4" onClick={() => acts.work(row.id)}>
        {byWhat(row)}
      </button>
    )}
  </th>
);

/** The field of a row, the button that keeps what is typed, and what is wrong with it. */
function Entry({ row, phase, problem, applied, closed, acts }: MeasureRowProps) {
  const next = openItems(row, phase)[0]?.item;
  return (
    <>
      <div className="flex gap-1">
        <input
          aria-label={`${row.name}, ${phase === "found" ? "as found" : "as built"}`}
          aria-invalid={problem ? true : undefined}
          aria-describedby={problem ? `problem-${row.id}` : undefined}
          inputMode="decimal"
          autoComplete="off"
          {...fieldWaits(row, next, undefined, applied)}
          placeholder={next?.name}
          disabled={closed}
          className={`input touch w-full text-lg ${problem ? "input-error" : ""}`}
          onKeyDown={(event) => {
            if (event.key === "Enter") acts.enter(row, event.currentTarget);
            else if (event.key === "ArrowDown") acts.focus(event.currentTarget, 1);
            else if (event.key === "ArrowUp") acts.focus(event.currentTarget, -1);
            else return;
            event.preventDefault();
          }}
        />
        <button
          type="button"
          className="btn touch px-3"
          aria-label={`Keep ${row.name}`}
          disabled={closed}
          onClick={(event) => {
            const field = event.currentTarget.parentElement?.querySelector("input");
            if (field) acts.enter(row, field);
          }}
        >
          <CornerDownLeft size={20} aria-hidden="true" />
        </button>
      </div>
      {problem && (
        <p id={`problem-${row.id}`} role="alert" className="text-error text-sm font-semibold">
          {problem}
        </p>
      )}
    </>
  );
}

/** What a figure was read from; one that was mistyped can be left out. */
function RowReadings({ row, phase }: { row: SpecLine; phase: Phase }) {
  const { job, unit } = useJobView();
  const figures =
    row.items.length > 0
      ? row.items.map((each) => ({ name: each.item.name, figure: each[phase] }))
      : [{ name: "", figure: row[phase] }];
  return figures
    .filter(({ figure }) => figure.readings.length > 0)
    .map(({ name, figure: { readings, marks } }) => (
      <div key={name} className="my-1">
        {name && <span className="stamp">{name}</span>}
        <Readings readings={readings} marks={marks} unit={unit} closed={job.closed !== null} />
      </div>
    ));
}

/** What its worksheet takes it by. */
function byWhat({ kind, items }: SpecLine): string {
  if (kind === "bushing clearance") return "By its points";
  if (items.length > 0) return "Each by itself";
  return kind === "leak-down" ? "From two pressures" : "From a pull and its radius";
}
