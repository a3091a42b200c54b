import { figuresFrom } from "~/look/source";
import { createColumnHelper, tableFeatures, useTable } from "@tanstack/react-table";
import { Download } from "lucide-react";
import { useMemo, useRef, useState } from "react";
import { useSearchParams } from "react-router";
import { GaugeBar } from "~/gauge/soon";
import { useJobAsked, useJobView, type JobView } from "~/view/view";
import { workedOut } from "~/view/worked-out";
import { useSay } from "~/say/use-say";
import { useAnchor } from "~/look/use-scripted";
import { gravestFirst, specLines, type SpecLine, type Standing } from "~core/measure";
import { type Phase } from "~core/fact";
import { BESIDE } from "~/frame/pages";
import type { Route } from "./+types/measure";
import { EarlierVisit } from "./earlier-visit";
import { EachSheet } from "./each-sheet";
import { FitSheet } from "./fit-sheet";
import { MeasureRow, useActs, useSteady } from "./measure-row";
import { INSTEAD, leaves, readRow } from "./read-row";

export const meta: Route.MetaFunction = ({ params }) => [{ title: `Measure ${params.number} · Yard Key` }];

const linesIn = workedOut(({ job, applied, house, unit }) => specLines(job, applied, house, unit));

/** A line as it stands in another view of its job. */
const lineOf = (view: JobView, line: SpecLine): SpecLine =>
  linesIn(view).find(({ id }) => id === line.id) ?? line;

const features = tableFeatures({});
const helper = createColumnHelper<typeof features, SpecLine>();
const columns = helper.columns([
  helper.accessor("name", { header: "Figure" }),
  helper.accessor("station", { header: "At" }),
  helper.accessor("spec", { header: "Spec" }),
  helper.display({ id: "other", header: "The other" }),
  helper.display({ id: "earlier", header: "Earlier visit" }),
  helper.display({ id: "standing", header: "Stands" }),
  helper.display({ id: "entry", header: "Type" }),
]);

/** The whole unit as one table, typed straight down: figure, Enter, next. */
export default function Measure() {
  const view = useJobView();
  const { job, applied, unit, number } = view;
  const say = useSay();
  const asked = useJobAsked();
  const [search, setSearch] = useSearchParams();
  const phase: Phase = search.get("phase") === "built" ? "built" : "found";
  const station = search.get("at") ?? "";
  const first = search.get("first") === "open";
  const anchor = useAnchor();
  const [looked, setLooked] = useState("");
  const [problems, setProblems] = useState<Readonly<Record<string, string>>>({});
  const body = useRef<HTMLTableSectionElement>(null);
  const all = useSteady(linesIn(view));
  const data = useMemo(() => {
    const here = station ? all.filter((row) => row.station === station) : all;
    return first ? gravestFirst(here, phase) : here;
  }, [all, station, first, phase]);
  const shown = job.earlier ? columns : columns.filter(({ id }) => id !== "earlier");
  const table = useTable({ features, columns: shown, data });
  const stations = [...new Set(all.map((row) => row.station))].filter(Boolean);
  const set = (name: string, value: string): void =>
    setSearch(
      (before) => {
        if (value) before.set(name, value);
        else before.delete(name);
        return before;
      },
      { replace: true, preventScrollReset: true },
    );
  const focus = (from: HTMLInputElement, by: number): void => {
    const fields = [...(body.current?.querySelectorAll("input") ?? [])];
    const next = fields[fields.indexOf(from) + by];
    next?.focus();
    next?.scrollIntoView({ block: "center" });
  };
  const enter = (drawn: SpecLine, field: HTMLInputElement): void => {
    if (field.value.trim() !== "") {
      // Which of several things is next hangs on what was said a moment ago, drawn or not.
      const row = drawn.items.length > 0 ? lineOf(asked(), drawn) : drawn;
      const read = readRow(row, field.value, phase, unit, applied.present);
      setProblems({ ...problems, [row.id]: read.ok ? "" : read.problem });
      if (!read.ok) return field.select();
      for (const one of read.bodies) say(one);
      field.value = "";
      // A figure taken of several things is typed one after the other in its one field.
      if (!leaves(row, phase, read.bodies)) return field.focus();
    }
    focus(field, 1);
  };
  const acts = useActs({
    enter,
    focus,
    look: (id) => setLooked(looked === id ? "" : id),
    work: (id) => {
      set("work", id);
      window.scrollTo({ top: 0 });
    },
  });
  const work = all.find(({ id }) => id === search.get("work"));
  return (
    <>
      <Totals all={all} phase={phase} />
      <Filters phase={phase} first={first} station={station} stations={stations} set={set} />
      {work && <WorkSheet key={work.id} row={work} phase={phase} onDone={() => set("work", "")} />}
      <div className="plate overflow-x-auto">
        <table className="w-full">
          <thead className="bg-base-200">
            <tr className="stamp text-left">
              {table.getHeaderGroups()[0]?.headers.map(({ id, column }) => (
                <th
                  key={id}
                  scope="col"
                  className={`px-3 py-2 ${id === "station" ? "max-[1100px]:hidden" : ""}`}
                >
                  {headOf(id, String(column.columnDef.header), phase)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody ref={body}>
            {table.getRowModel().rows.map(({ original: row }) => (
              <MeasureRow
                key={row.id}
                row={row}
                phase={phase}
                problem={problems[row.id] ?? ""}
                anchored={anchor === `row-${row.id}`}
                looked={looked === row.id}
                number={number}
                applied={applied}
                closed={job.closed !== null}
                earlier={job.earlier !== null}
                acts={acts}
              />
            ))}
          </tbody>
        </table>
      </div>
      <div className="mt-2 flex items-center gap-4">
        <EarlierVisit />
        <Instead />
      </div>
      <p className="quiet mt-2 text-sm">
        Several readings in one go, apart by a blank: 0.42 0.43 0.42. {figuresFrom(applied.book)}; the maker’s
        service information comes first.
      </p>
    </>
  );
}

const WorkSheet = (props: { row: SpecLine; phase: Phase; onDone: () => void }) =>
  props.row.kind === "bushing clearance" ? <FitSheet {...props} /> : <EachSheet {...props} />;

/** How many figures are taken, what is wrong among them, and the sheet as a file. */
function Totals({ all, phase }: { all: readonly SpecLine[]; phase: Phase }) {
  const { number, unit } = useJobView();
  const taken = all.filter((row) => row[phase].standing !== "not yet").length;
  const count = (standing: Standing): number => all.filter((row) => row[phase].standing === standing).length;
  return (
    <div className={`mb-1 flex min-h-[50px] flex-wrap items-center gap-x-4 gap-y-1 ${BESIDE.free}`}>
      <b className="text-2xl" data-taken={taken}>
        {taken} of {all.length} figures
      </b>
      {count("outside") > 0 && <b className="text-error text-lg">{count("outside")} outside</b>}
      {count("too close") > 0 && (
        <b className="text-warning text-lg">
          {count("too close")} too close<span className="max-[1100px]:sr-only"> to call</span>
        </b>
      )}
      <span className="grow" />
      <a className="btn touch" href={`/jobs/${number}/measure.csv?unit=${unit}`} download>
        <Download size={20} aria-hidden="true" /> <span className="max-[1100px]:sr-only">CSV</span>
      </a>
      <a className="btn touch" href={`/jobs/${number}/measure.pdf?unit=${unit}`} download>
        <Download size={20} aria-hidden="true" /> <span className="max-[1100px]:sr-only">PDF</span>
      </a>
    </div>
  );
}

/** Which phase, in which order, and where. */
function Filters({
  phase,
  first,
  station,
  stations,
  set,
}: {
  phase: Phase;
  first: boolean;
  station: string;
  stations: readonly string[];
  set: (name: string, value: string) => void;
}) {
  return (
    <div className="mb-2 flex flex-wrap items-center gap-2">
      {(["found", "built"] as const).map((one) => (
        <button
          key={one}
          type="button"
          aria-pressed={one === phase}
          className={`btn touch ${one === phase ? "btn-secondary" : ""}`}
          onClick={() => set("phase", one === "built" ? one : "")}
        >
          {one === "found" ? "As found" : "As built"}
        </button>
      ))}
      <button
        type="button"
        aria-pressed={first}
        className={`btn touch ${first ? "btn-secondary" : ""}`}
        onClick={() => set("first", first ? "" : "open")}
      >
        Gravest first
      </button>
      <label className="flex items-center gap-2">
        <span className="stamp">At</span>
        <select className="select touch" value={station} onChange={(event) => set("at", event.target.value)}>
          <option value="">the whole unit</option>
          {stations.map((one) => (
            <option key={one} value={one}>
              {one}
            </option>
          ))}
        </select>
      </label>
      <GaugeBar />
    </div>
  );
}

/** The head of a column; two of them say which phase they are of. */
function headOf(id: string, words: string, phase: Phase): string {
  if (id === "other") return phase === "found" ? "As built" : "As found";
  if (id === "standing") return phase === "found" ? "As found" : "As built";
  return words;
}

/** The letters that say why there is no figure. */
const Instead = () => (
  <details className="relative">
    <summary className="touch quiet flex cursor-pointer items-center underline underline-offset-4">
      No figure can be taken?
    </summary>
    <dl className="plate absolute bottom-full left-0 z-20 grid w-80 grid-cols-[auto_1fr] gap-x-3 gap-y-1 p-4">
      {Object.entries(INSTEAD).map(([key, words]) => (
        <div key={key} className="contents">
          <dt>
            <kbd className="key">{key}</kbd>
          </dt>
          <dd>{words}</dd>
        </div>
      ))}
    </dl>
  </details>
);
