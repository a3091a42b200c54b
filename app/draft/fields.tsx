import { Plus, Trash2 } from "lucide-react";
import { useId, useState } from "react";
import type { Problem } from "~core/book";
import { at, changed, pathText, type Path } from "./edit";

/** A document that is being changed, and what the check says of it. */
export interface Editing {
  document: unknown;
  problems: readonly Problem[];
  /** The document as it is to be; or what becomes of it as it is by then, for what comes only after somebody was asked. */
  change: (document: unknown) => void;
  /** What the tooth counts make of each range, in words. */
  solved?: Readonly<Record<string, string>> | undefined;
}

/** An entry of a list. */
export type Entry = Record<string, unknown>;

/** One value of the document in a field, with what the check says of it. An empty field takes the key out. */
export function Text({
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
  /** A whole number, as the document writes it; or one with decimals. */
  number?: boolean | "decimal";
  /** A list of texts, with ` / ` between. */
  words?: boolean;
  /** In a table, whose head is the label. */
  bare?: boolean;
}) {
  const id = useId();
  const value = at(document, path);
  const place = pathText(path);
  const problem = problems.find((one) => one.path === place || (words && one.path.startsWith(`${place}[`)));
  const [typed, setTyped] = useState<string | null>(null);
  const shown = typed ?? written(value);
  const keep = (text: string): void => {
    setTyped(text);
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
        onBlur={() => setTyped(null)}
      />
      {problem && (
        <p id={`${id}-problem`} role="alert" className="text-error mt-1 text-sm font-semibold">
          {problem.message}; {problem.remedy}
        </p>
      )}
    </div>
  );
}

/** One of a few values, or none. */
export function Pick({
  label,
  path,
  options,
  document,
  change,
}: Editing & { label: string; path: Path; options: readonly { value: string; words: string }[] }) {
  const id = useId();
  return (
    <div className="mb-3">
      <label htmlFor={id} className="stamp mb-1 block">
        {label}
      </label>
      <select
        id={id}
        className="select touch w-full"
        value={written(at(document, path))}
        onChange={({ currentTarget: { value } }) =>
          change(changed(document, path, value === "" ? undefined : value))
        }
      >
        <Options options={options} />
      </select>
    </div>
  );
}

/** What can be picked, and that nothing is. */
export const Options = ({ options }: { options: readonly { value: string; words: string }[] }) => (
  <>
    <option value="">not said</option>
    {options.map(({ value, words }) => (
      <option key={value} value={value}>
        {words}
      </option>
    ))}
  </>
);

function written(value: unknown): string {
  if (value === undefined) return "";
  if (Array.isArray(value))
    return value.map(String).join(value.every((v) => typeof v === "number") ? ", " : " / ");
  return typeof value === "string" ? value : JSON.stringify(value);
}

function read(
  text: string,
  before: unknown,
  { number, words }: { number: boolean | "decimal"; words: boolean },
): unknown {
  if (text.trim() === "") return undefined;
  if (number === "decimal") return /^-?\d+(\.\d+)?$/.test(text.trim()) ? Number(text) : text;
  if (number || typeof before === "number") return /^\d+$/.test(text.trim()) ? Number(text) : text;
  if (words) return text.split(" / ");
  if (Array.isArray(before) && before.every((v) => typeof v === "number"))
    return text.split(",").map((part) => (/^\s*\d+\s*$/.test(part) ? Number(part) : part));
  return text;
}

/** Columns that hold a figure of one or two digits. */
const NARROW: ReadonlySet<string> = new Set(["count"]);

/** A list of small entries as a table that is typed into. */
export function Rows({
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
