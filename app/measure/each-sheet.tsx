import { CornerDownLeft } from "lucide-react";
import { useRef, useState, type KeyboardEvent } from "react";
import { useJobView } from "~/view/view";
import { useSay } from "~/say/use-say";
import type { Phase } from "~core/fact";
import type { SpecLine, SpecLineItem } from "~core/measure";
import { entryOf, fieldWaits } from "./entry";
import { Stands } from "./stands";

/** The worksheet of a figure that is taken of several things, or worked out from two readings: each judged by itself as it is entered. */
export function EachSheet({ row, phase, onDone }: { row: SpecLine; phase: Phase; onDone: () => void }) {
  const { applied, job, unit } = useJobView();
  const say = useSay();
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({});
  const [problems, setProblems] = useState<Readonly<Record<string, string>>>({});
  const body = useRef<HTMLTableSectionElement>(null);
  const lines =
    row.items.length > 0 ? row.items : [{ item: { name: "" }, found: row.found, built: row.built }];
  const entries = lines.map(({ item }) => entryOf(row, item.name || undefined, phase, unit, applied));
  const key = (line: number, field: number): string => `${line} ${field}`;
  const valuesOf = (line: number): string[] =>
    (entries[line]?.fields ?? []).map((_, field) => (typed[key(line, field)] ?? "").trim());
  const keep = (line: number, values: readonly string[]): boolean => {
    const read = entries[line]?.read(values);
    if (!read) return false;
    setProblems({ ...problems, [line]: read.ok ? "" : read.problem });
    if (!read.ok) return false;
    for (const one of read.bodies) say(one);
    setTyped(Object.fromEntries(Object.entries(typed).filter(([place]) => !place.startsWith(`${line} `))));
    return true;
  };
  const onKey = (line: number, field: number) => (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key !== "Enter") return;
    event.preventDefault();
    const values = valuesOf(line);
    // Blades in one go, 0.40/0.45, are a whole line, as is the last of its fields.
    const whole = field === values.length - 1 || event.currentTarget.value.includes("/");
    if (whole && values.some(Boolean) && !keep(line, values)) return event.currentTarget.select();
    const all = [...(body.current?.querySelectorAll("input") ?? [])];
    const after = all.slice(all.indexOf(event.currentTarget) + 1);
    (whole ? after.find((one) => one.dataset.line !== `${line}`) : after[0])?.focus();
  };
  const common = entries[0]?.answers ?? [];
  const open = lines.flatMap((line, i) => (line[phase].standing === "not yet" ? [i] : []));
  const [best] = common;
  const fields = entries[0]?.fields ?? [];
  return (
    <section className="plate mb-3 p-4" aria-label={`${row.name}, each by itself`} data-each={row.id}>
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h2 className="text-2xl font-bold">{row.name}</h2>
        <span className="quiet text-lg">
          {row.spec}
          {row.how && `; ${row.how}`}
        </span>
        <span className="grow" />
        {best && open.length > 1 && !job.closed && (
          <button
            type="button"
            className="btn btn-secondary touch"
            onClick={() => {
              for (const line of open) keep(line, [best]);
            }}
          >
            All of them: {best}
          </button>
        )}
        <button type="button" className="btn touch" onClick={onDone}>
          Back to the sheet
        </button>
      </div>
      <table className="mt-2 w-full text-lg">
        <thead>
          <tr className="stamp quiet text-left">
            <th scope="col">Of</th>
            <th scope="col">Stands</th>
            {common.length > 0 ? (
              <th scope="col">Is</th>
            ) : (
              fields.map((name) => (
                <th key={name} scope="col">
                  {name || "Figure"}
                </th>
              ))
            )}
          </tr>
        </thead>
        <tbody ref={body}>
          {lines.map((line, i) => {
            const entry = entries[i];
            return (
              <Line
                key={line.item.name}
                {...{ row, line, phase, entry, index: i }}
                columns={fields.length}
                problem={problems[i] ?? ""}
                typed={(field) => typed[key(i, field)] ?? ""}
                type={(field, text) => setTyped({ ...typed, [key(i, field)]: text })}
                onKey={(field) => onKey(i, field)}
                keep={(values) => void keep(i, values)}
              />
            );
          })}
        </tbody>
      </table>
      <p className="quiet mt-2 text-sm">
        {common.length > 0
          ? "Each by itself; the worst decides."
          : "Enter keeps a line and goes on to the next. Each is judged by itself; the worst decides."}
      </p>
    </section>
  );
}

/** One of the things, with what it stands at and the fields or answers it is given by. */
function Line({
  row,
  line,
  phase,
  entry,
  index,
  columns,
  problem,
  typed,
  type,
  onKey,
  keep,
}: {
  row: SpecLine;
  line: SpecLineItem;
  phase: Phase;
  entry: ReturnType<typeof entryOf> | undefined;
  index: number;
  /** How many fields the table has in all. */
  columns: number;
  problem: string;
  typed: (field: number) => string;
  type: (field: number, text: string) => void;
  onKey: (field: number) => (event: KeyboardEvent<HTMLInputElement>) => void;
  keep: (values: readonly string[]) => void;
}) {
  const { applied, job } = useJobView();
  const values = (entry?.fields ?? []).map((_, field) => typed(field).trim());
  const worked = entry?.worked(values);
  return (
    <tr data-item={line.item.name} className="border-base-300 border-t align-top">
      <th scope="row" className="py-1 pr-3 text-left">
        {line.item.name || row.name}
      </th>
      <td className="py-1 pr-3">
        <Stands figure={line[phase]} wanted={1} />
      </td>
      {entry && entry.answers.length > 0 && (
        <td className="py-1" colSpan={Math.max(1, columns)}>
          <div className="flex flex-wrap gap-2">
            {entry.answers.map((answer) => (
              <button
                key={answer}
                type="button"
                disabled={job.closed !== null}
                aria-pressed={line[phase].text === answer}
                aria-label={`${line.item.name || row.name}: ${answer}`}
                className={`btn touch ${line[phase].text === answer ? "btn-secondary" : ""}`}
                onClick={() => keep([answer])}
              >
                {answer}
              </button>
            ))}
          </div>
        </td>
      )}
      {entry?.fields.map((name, field) => (
        <td key={name} className="w-44 p-1">
          <input
            aria-label={[line.item.name || row.name, name].filter(Boolean).join(", ")}
            aria-invalid={problem ? true : undefined}
            aria-describedby={problem ? `each-problem-${index}` : undefined}
            {...fieldWaits(row, line.item, entry.fields.length > 1 ? field : undefined, applied)}
            data-line={index}
            inputMode="decimal"
            autoComplete="off"
            disabled={job.closed !== null}
            className={`input touch w-full text-lg ${problem ? "input-error" : ""}`}
            value={typed(field)}
            onChange={(event) => type(field, event.target.value)}
            onKeyDown={onKey(field)}
          />
          {problem && field === 0 && (
            <p id={`each-problem-${index}`} role="alert" className="text-error text-sm font-semibold">
              {problem}
            </p>
          )}
          {worked && field === entry.fields.length - 1 && (
            <p role="status" className="text-sm font-semibold" data-worked={worked}>
              is {worked}
            </p>
          )}
        </td>
      ))}
      {columns > 0 && (
        <td className="w-14 p-1">
          {entry && entry.fields.length > 0 && (
            <button
              type="button"
              className="btn touch px-3"
              aria-label={`Keep ${line.item.name || row.name}`}
              disabled={job.closed !== null}
              onClick={() => {
                if (values.some(Boolean)) keep(values);
              }}
            >
              <CornerDownLeft size={20} aria-hidden="true" />
            </button>
          )}
        </td>
      )}
    </tr>
  );
}
