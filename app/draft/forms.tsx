import { Plus, Trash2 } from "lucide-react";
import { useId, useState } from "react";
import type { Problem } from "~core/book";
import { at, changed, pathText, type Path } from "./edit";

export interface Editing {
  document: unknown;
  problems: readonly Problem[];
  change: (document: unknown) => void;
}

/** What kinds of entry have a form, and how one that is new begins. */
export const FORMS = {
  chains: { words: "Chains and specs", fresh: null },
  packs: { words: "Packs", fresh: null },
  series: {
    words: "Series",
    fresh: {
      id: "new-series",
      name: "new series",
      kind: "shim",
      tolerance: "0.01 mm",
      sizes: [{ mark: "1", size: "1.00 mm", part: "NEW-1" }],
    },
  },
  fasteners: {
    words: "Fasteners",
    fresh: {
      id: "new-bolts",
      name: "New bolts",
      count: 1,
      size: "M6",
      length: "20 mm",
      places: [{ at: [50, 50] }],
      torque: "9 N·m",
      pattern: "any order",
      thread: "dry",
    },
  },
  weakPoints: {
    words: "Weak points",
    fresh: {
      id: "new-weak-point",
      name: "New weak point",
      complaint: "what the customer notices",
      answers: ["what is done"],
    },
  },
} as const;
export type FormName = keyof typeof FORMS;

type Entry = Record<string, unknown>;
const entriesOf = (document: unknown, section: FormName): Entry[] =>
  (at(document, [section]) as Entry[] | undefined) ?? [];

/** A list of entries of one kind, and the form of the one that is picked. */
export function SectionForm({ section, ...editing }: Editing & { section: FormName }) {
  const entries = entriesOf(editing.document, section);
  const [picked, pick] = useState(0);
  const { fresh } = FORMS[section];
  const nameOf = (entry: Entry): string =>
    section === "packs"
      ? `${String(entry.element).toUpperCase()} ${String(entry.name)}`
      : String(entry.name ?? entry.id);
  const path: Path = [section, Math.min(picked, entries.length - 1)];
  const troubled = (i: number): boolean =>
    editing.problems.some((p) => p.path.startsWith(`${section}[${i}]`));
  return (
    <div className="grid grid-cols-[minmax(0,3fr)_minmax(0,8fr)] items-start gap-3">
      <ul className="plate max-h-[70vh] overflow-y-auto p-2">
        {entries.map((entry, i) => (
          <li key={i}>
            <button
              type="button"
              aria-pressed={i === path[1]}
              className={`touch w-full px-2 text-left ${i === path[1] ? "bg-base-200 border-primary border-l-4" : ""}`}
              onClick={() => pick(i)}
            >
              {nameOf(entry)}
              {troubled(i) && <b className="text-error"> !</b>}
            </button>
          </li>
        ))}
        {fresh && (
          <li>
            <button
              type="button"
              className="btn touch mt-2 w-full"
              onClick={() => {
                editing.change(changed(editing.document, [section], [...entries, fresh]));
                pick(entries.length);
              }}
            >
              <Plus size={20} aria-hidden="true" /> Add
            </button>
          </li>
        )}
      </ul>
      {entries.length > 0 && (
        <section
          className="plate p-5"
          key={pathText(path)}
          aria-label={nameOf(entries[Number(path[1])] ?? {})}
        >
          <Fields section={section} path={path} {...editing} />
          {fresh && (
            <button
              type="button"
              className="btn touch mt-3"
              onClick={() => {
                editing.change(changed(editing.document, path, undefined));
                pick(0);
              }}
            >
              <Trash2 size={20} aria-hidden="true" /> Take it out
            </button>
          )}
        </section>
      )}
    </div>
  );
}

function Fields({ section, path, ...editing }: Editing & { section: FormName; path: Path }) {
  const text = (label: string, ...keys: (string | number)[]) => (
    <Text key={label} label={label} path={[...path, ...keys]} {...editing} />
  );
  switch (section) {
    case "chains": {
      const spec = at(editing.document, [...path, "spec"]);
      const specs: Path[] = Array.isArray(spec) ? spec.map((_, i) => ["spec", i]) : [["spec"]];
      return (
        <>
          {text("Name", "name")}
          {specs.map((one) => {
            const when = at(editing.document, [...path, ...one, "when"]);
            return (
              <div key={pathText(one)}>
                {when !== undefined && <p className="stamp quiet">when {JSON.stringify(when)}</p>}
                <div className="grid grid-cols-4 gap-3">
                  {text("Min", ...one, "min")}
                  {text("Max", ...one, "max")}
                  {text("Target", ...one, "target")}
                  {text("Last checked", ...one, "checked")}
                </div>
              </div>
            );
          })}
          <div className="grid grid-cols-4 gap-3">
            {text("Soaking", "soaking", "amount")}
            {text("± soaking", "soaking", "within")}
            {text("Bedding-in", "bedding", "amount")}
            {text("± bedding-in", "bedding", "within")}
          </div>
          {text("How it is read", "read", "how")}
        </>
      );
    }
    case "packs":
      return (
        <>
          {text("Name", "name")}
          <Rows
            label="From the piston outwards"
            path={[...path, "stack"]}
            columns={["role", "part", "thickness", "count", "lies"]}
            {...editing}
          />
        </>
      );
    case "series":
      return (
        <>
          <div className="grid grid-cols-3 gap-3">
            {text("Id", "id")}
            {text("Name", "name")}
            {text("Tolerance", "tolerance")}
          </div>
          <Rows
            label="Sizes, thin to thick"
            path={[...path, "sizes"]}
            columns={["mark", "size", "part"]}
            {...editing}
          />
        </>
      );
    case "fasteners":
      return (
        <>
          <div className="grid grid-cols-2 gap-3">
            {text("Id", "id")}
            {text("Name", "name")}
          </div>
          <div className="grid grid-cols-3 gap-3">
            <Text label="Count" path={[...path, "count"]} number {...editing} />
            {text("Size", "size")}
            {text("Length", "length")}
            {text("Torque", "torque")}
            {text("Then turned by", "angle")}
            {text("Pattern", "pattern")}
            {text("Thread", "thread")}
            {text("Carries", "carries")}
          </div>
          {text("Note", "note")}
          <Rows label="Places" path={[...path, "places"]} columns={["at", "length"]} {...editing} />
        </>
      );
    case "weakPoints":
      return (
        <>
          <div className="grid grid-cols-2 gap-3">
            {text("Id", "id")}
            {text("Name", "name")}
          </div>
          {text("Complaint", "complaint")}
          {text("Station", "station")}
          <Text label="Answers allowed, with / between" path={[...path, "answers"]} words {...editing} />
        </>
      );
  }
}

/** One value of the document in a field, with what the check says of it. An empty field takes the key out. */
function Text({
  label,
  path,
  document,
  problems,
  change,
  number = false,
  words = false,
  bare = false,
}: Editing & {
  label: string;
  path: Path;
  /** A whole number, as the document writes it. */
  number?: boolean;
  /** A list of texts, with ` / ` between. */
  words?: boolean;
  /** In a table, whose head is the label. */
  bare?: boolean;
}) {
  const id = useId();
  const value = at(document, path);
  const place = pathText(path);
  const problem = problems.find((one) => one.path === place || (words && one.path.startsWith(`${place}[`)));
  const [typed, type] = useState<string | null>(null);
  const shown = typed ?? written(value);
  const keep = (text: string): void => {
    type(text);
    change(changed(document, path, read(text, value, { number, words })));
  };
  return (
    <div className={bare ? "" : "mb-3"}>
      <label htmlFor={id} className={bare ? "sr-only" : "stamp mb-1 block"}>
        {label}
      </label>
      <input
        id={id}
        className={`input touch w-full ${problem ? "input-error" : ""}`}
        value={shown}
        autoComplete="off"
        aria-invalid={problem ? true : undefined}
        aria-describedby={problem ? `${id}-problem` : undefined}
        onChange={(event) => keep(event.target.value)}
        onBlur={() => type(null)}
      />
      {problem && (
        <p id={`${id}-problem`} role="alert" className="text-error mt-1 text-sm font-semibold">
          {problem.message}; {problem.remedy}
        </p>
      )}
    </div>
  );
}

function written(value: unknown): string {
  if (value === undefined) return "";
  if (Array.isArray(value))
    return value.map(String).join(value.every((v) => typeof v === "number") ? ", " : " / ");
  return typeof value === "string" ? value : JSON.stringify(value);
}

function read(
  text: string,
  before: unknown,
  { number, words }: { number: boolean; words: boolean },
): unknown {
  if (text.trim() === "") return undefined;
  if (number || typeof before === "number") return /^\d+$/.test(text.trim()) ? Number(text) : text;
  if (words) return text.split(" / ");
  if (Array.isArray(before) && before.every((v) => typeof v === "number"))
    return text.split(",").map((part) => (/^\s*\d+\s*$/.test(part) ? Number(part) : part));
  return text;
}

/** Columns that hold a figure of one or two digits. */
const NARROW: ReadonlySet<string> = new Set(["count"]);

/** A list of small entries as a table that is typed into. */
function Rows({
  label,
  path,
  columns,
  ...editing
}: Editing & { label: string; path: Path; columns: readonly string[] }) {
  const rows = (at(editing.document, path) as Entry[] | undefined) ?? [];
  const add = (): void =>
    editing.change(changed(editing.document, path, [...rows, structuredClone(rows.at(-1) ?? {})]));
  return (
    <table className="w-full">
      <caption className="stamp text-left">{label}</caption>
      <thead>
        <tr>
          {columns.map((column) => (
            <th key={column} scope="col" className="quiet text-left font-normal">
              {column}
            </th>
          ))}
          <th scope="col">
            <span className="sr-only">Take out</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row, i) => (
          <tr key={`${rows.length} ${i}`}>
            {columns.map((column, c) => (
              <td key={column} className={`pr-1 pb-1 align-top ${NARROW.has(column) ? "w-20" : ""}`}>
                <Text
                  bare
                  label={`${column} of row ${i + 1}`}
                  path={[...path, i, column]}
                  number={column === "count"}
                  {...editing}
                />
                {c === 0 && row.when !== undefined && (
                  <span className="quiet text-sm">
                    only{" "}
                    {Object.values(row.when as Record<string, string | string[]>)
                      .flat()
                      .join(" or ")}
                  </span>
                )}
              </td>
            ))}
            <td className="align-top">
              <button
                type="button"
                className="btn btn-ghost touch"
                aria-label={`Take out row ${i + 1}`}
                onClick={() => editing.change(changed(editing.document, [...path, i], undefined))}
              >
                <Trash2 size={20} aria-hidden="true" />
              </button>
            </td>
          </tr>
        ))}
      </tbody>
      <tfoot>
        <tr>
          <td colSpan={columns.length + 1}>
            <button type="button" className="btn touch" onClick={add}>
              <Plus size={20} aria-hidden="true" /> Row
            </button>
          </td>
        </tr>
      </tfoot>
    </table>
  );
}
