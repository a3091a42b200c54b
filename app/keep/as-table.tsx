import { Download } from "lucide-react";
import { Form } from "react-router";
import { Field } from "~/look/field";
import { TakeInTable } from "~/table/take-in";

/** The shelf out as a table, and a counted one in. */
export function AsTable({
  id,
  typed,
  problems,
  changed,
}: {
  id: string;
  typed: Record<string, string>;
  problems: Record<string, string>;
  changed: number | null;
}) {
  return (
    <Form
      method="post"
      encType="multipart/form-data"
      className="plate px-4 py-3"
      aria-label="Count from a table"
    >
      <div className="flex items-center gap-3">
        <h2 className="grow text-lg font-bold">As a table</h2>
        <a className="btn touch" href="/shelf/table.csv" download>
          <Download size={20} aria-hidden="true" /> CSV
        </a>
      </div>
      <input type="hidden" name="id" value={id} />
      <TakeInTable
        label="Counted"
        typed={typed.list}
        problem={problems.list}
        placeholder={"part,pieces\nMD-2145,3"}
        help="Count it, and take it in again: columns part and pieces. All of it counts, or nothing."
        rows={3}
      />
      <div className="mt-2">
        <Field
          label="Why"
          name="reason"
          defaultValue={typed.reason}
          problem={problems.reason}
          autoComplete="off"
        />
      </div>
      <button className="btn btn-primary touch mt-2 w-full">Take the counts in</button>
      {changed !== null && (
        <p role="status" className="mt-2 font-semibold" data-changed={changed}>
          {changed === 0 ? "All of it stood already." : `${changed} counts were set right.`}
        </p>
      )}
    </Form>
  );
}
