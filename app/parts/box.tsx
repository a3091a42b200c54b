import { useFetcher } from "react-router";
import { overIn, type Need } from "~core/needs";
import type { JobSupply } from "~store/orders";

/** What lies in the job’s box and nothing on its list wants: one touch puts it on the shelf. */
export function BoxOver({ box, lines, id }: { box: JobSupply["box"]; lines: readonly Need[]; id: string }) {
  const { Form: Sent, data: answer, state } = useFetcher<{ problem: string }>();
  const names = new Map(box.map(({ part, name }) => [part, name]));
  const over = overIn(new Map(box.map(({ part, count }) => [part, count])), lines);
  if (over.length === 0) return null;
  return (
    <section className="plate px-4 py-2" aria-label="Over in the box">
      <h2 className="text-lg font-bold">Over in the job’s box</h2>
      {answer?.problem && state === "idle" && (
        <p role="alert" className="text-error font-semibold">
          {answer.problem}
        </p>
      )}
      <ul>
        {over.map(({ number, count }) => (
          <li
            key={number}
            className="border-base-300 flex items-center gap-3 border-t py-1"
            data-over={number}
          >
            <span className="min-w-0 grow leading-tight">
              {count > 1 && `${count} × `}
              {names.get(number) ?? number}
              <span className="quiet block text-sm">{number}</span>
            </span>
            <Sent method="post">
              <input type="hidden" name="intent" value="back" />
              <input type="hidden" name="id" value={id} />
              <input type="hidden" name="part" value={number} />
              <input type="hidden" name="pieces" value={count} />
              <button
                className="btn touch"
                disabled={state !== "idle"}
                aria-label={`${names.get(number) ?? number} to the shelf`}
              >
                To the shelf
              </button>
            </Sent>
          </li>
        ))}
      </ul>
    </section>
  );
}
