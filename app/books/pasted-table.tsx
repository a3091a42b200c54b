import { TABLES, type RowProblem } from "~core/table";
import type { Pasted } from "./read-pasted";

/** A pasted table with what each column was taken for, to be corrected, and what is wrong at its row. */
export function PastedTable({
  pasted: { table, headings, columns, cells },
  faults,
}: {
  pasted: Pasted;
  faults: readonly RowProblem[];
}) {
  const wrong = new Set(faults.map(({ row }) => row));
  // What is wrong is looked at first.
  const order = cells.map((_, i) => i).sort((a, b) => Number(wrong.has(b)) - Number(wrong.has(a)) || a - b);
  return (
    <section aria-label="What it was taken for" className="mt-5">
      <h2 className="text-xl font-bold">
        {cells.length} {cells.length === 1 ? "row" : "rows"} of {table}
        {wrong.size > 0 && (
          <span className="text-error">
            {" "}
            · {wrong.size === 1 ? "one has a fault" : `${wrong.size} have a fault`}
          </span>
        )}
      </h2>
      <div className="overflow-x-auto">
        <table className="w-full">
          <thead>
            <tr>
              <th className="stamp quiet w-10 text-left">Row</th>
              {headings.map((heading, i) => (
                <th key={i} className="min-w-28 pr-2 text-left align-bottom">
                  <span className="quiet block text-sm font-normal">{heading || "no heading"}</span>
                  <select
                    name={`column-${i}`}
                    aria-label={`What ${heading || `column ${i + 1}`} is`}
                    defaultValue={columns[i] ?? ""}
                    key={`${table} ${columns[i] ?? ""}`}
                    className="select touch w-full"
                  >
                    <option value="">passed over</option>
                    {TABLES[table].map(({ key, words }) => (
                      <option key={key} value={key}>
                        {words}
                      </option>
                    ))}
                    {table === "chart" && heading !== "" && (
                      <option value={`element:${heading}`}>element {heading}</option>
                    )}
                  </select>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {order.map((i) => (
              <Row
                key={i}
                row={cells[i] ?? []}
                at={i}
                columns={columns}
                faults={faults.filter((one) => one.row === i)}
              />
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

function Row({
  row,
  at,
  columns,
  faults,
}: {
  row: readonly string[];
  at: number;
  columns: readonly (string | null)[];
  faults: readonly RowProblem[];
}) {
  const own = new Set(columns);
  const loose = faults.filter(({ column }) => !own.has(column));
  return (
    <tr
      className={`border-base-300 border-t align-top ${faults.length > 0 ? "bg-base-200" : ""}`}
      data-row={at + 1}
      data-faults={faults.length}
    >
      <td className="quiet py-1">
        {at + 1}
        {loose.map(({ message }) => (
          <span key={message} role="alert" className="text-error block text-sm font-semibold">
            {message}
          </span>
        ))}
      </td>
      {columns.map((key, i) => (
        <td key={i} className={`py-1 pr-2 ${key === null ? "quiet" : ""}`}>
          {row[i]}
          {faults
            .filter(({ column }) => key !== null && column === key)
            .map(({ message }) => (
              <span key={message} role="alert" className="text-error block text-sm font-semibold">
                {message}
              </span>
            ))}
        </td>
      ))}
    </tr>
  );
}
