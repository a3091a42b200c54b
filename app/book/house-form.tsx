import { useFetcher } from "react-router";
import { Field } from "~/look/field";
import { lengthText, type Nm } from "~core/quantity";
import type { HouseValue } from "~core/book";
import { useBookView } from "./book";

interface Answer {
  problems: Record<string, string>;
  typed: Record<string, string>;
  done?: boolean;
}

/** A shop's own value beside the book's: with a reason, taken back the same way. The book's own is never changed by it. */
export function HouseForm({
  of,
  id,
  house,
  fields,
}: {
  of: HouseValue["of"];
  id: string;
  house: HouseValue | null;
  fields: { name: "min" | "max" | "torque"; label: string; book: string; value?: Nm | string }[];
}) {
  const { book, unit } = useBookView();
  const fetcher = useFetcher<Answer>();
  const { problems = {}, typed = {} } = fetcher.data ?? {};
  return (
    <details className="no-print mt-3" open={Object.keys(problems).length > 0 || undefined}>
      <summary className="touch flex cursor-pointer items-center font-semibold underline underline-offset-4">
        {house ? "Change or take back the house value" : "Put a house value beside it"}
      </summary>
      <fetcher.Form method="post" action={`/books/${book.unit.id}/house-value`} key={house?.at}>
        <input type="hidden" name="of" value={of} />
        <input type="hidden" name="id" value={id} />
        <input type="hidden" name="unit" value={unit} />
        <div className="grid grid-cols-2 gap-3">
          {fields.map(({ name, label, book: own, value }) => (
            <Field
              key={name}
              label={label}
              name={name}
              autoComplete="off"
              defaultValue={typed[name] ?? (typeof value === "number" ? lengthText(value, unit) : value)}
              problem={problems[name]}
              hint={`the book: ${own}`}
            />
          ))}
        </div>
        <Field label="Reason" name="reason" defaultValue={typed.reason} problem={problems.reason} />
        <button className="btn btn-secondary touch" name="intent" value="set">
          Keep as house value
        </button>
        {house && (
          <button className="btn touch ml-2" name="intent" value="take">
            Take it back
          </button>
        )}
        {fetcher.data?.done && (
          <span role="status" className="ml-3 font-semibold">
            Kept.
          </span>
        )}
      </fetcher.Form>
    </details>
  );
}
