import { useState } from "react";
import { Form } from "react-router";
import type { Together } from "~core/measure";
import { lengthText } from "~core/quantity";
import type { Reserved } from "~store/shelf";
import { useJobView } from "~/view/view";
import { seatName } from "./seat-name";

/** What was put aside for this job, by bin in the order one walks: scanned off as it is fetched. */
export function PullList({ reserved, asked }: { reserved: readonly Reserved[]; asked: Together }) {
  const { unit } = useJobView();
  const [fetched, setFetched] = useState<ReadonlySet<string>>(new Set());
  const [typed, setTyped] = useState("");
  const [problem, setProblem] = useState("");
  if (reserved.length === 0) return null;
  const scan = (text: string): void => {
    const code = text.trim().toUpperCase();
    const found = reserved.find(({ part, seat }) => part.toUpperCase() === code && !fetched.has(seat));
    setProblem(found ? "" : `${text.trim()} is not on this list, or has been fetched.`);
    if (!found) return;
    setFetched(new Set([...fetched, found.seat]));
    setTyped("");
  };
  return (
    <section className="plate mt-3 px-4 py-2" aria-label="Pull list">
      <div className="flex items-center gap-4 pb-1">
        <h2 className="grow text-lg font-bold">
          To fetch{" "}
          <span className="quiet text-base font-normal">
            {fetched.size} of {reserved.length}
          </span>
        </h2>
        {problem && (
          <p role="alert" id="pull-problem" className="text-error font-semibold">
            {problem}
          </p>
        )}
        <form
          onSubmit={(event) => {
            event.preventDefault();
            if (typed.trim() !== "") scan(typed);
          }}
        >
          <label className="flex items-center gap-2">
            <span className="stamp">Scan or type the part</span>
            <input
              className={`input touch w-44 ${problem ? "input-error" : ""}`}
              value={typed}
              onChange={(event) => setTyped(event.target.value)}
              autoComplete="off"
              aria-describedby={problem ? "pull-problem" : undefined}
            />
          </label>
        </form>
      </div>
      <ul>
        {reserved.map(({ seat, part, piece, measured, name, bin, by }) => {
          const open = asked.seats.get(seat);
          const has = fetched.has(seat);
          return (
            <li
              key={seat}
              className={`border-base-300 flex items-center gap-4 border-t py-1 ${has ? "quiet" : ""}`}
              data-pull={seat}
              data-fetched={has}
            >
              <b className="w-20 text-xl">{bin}</b>
              <span className="grow leading-tight">
                <b>{name}</b>
                {piece && measured !== null && ` measured ${lengthText(measured, unit)}`}
                <span className="quiet block text-sm">
                  {part}, for {open ? seatName(open) : seat}, put aside by {by}
                </span>
              </span>
              {has ? (
                <b>fetched</b>
              ) : (
                <>
                  <button type="button" className="btn touch" onClick={() => scan(part)}>
                    Fetched
                  </button>
                  <Form method="post" preventScrollReset>
                    <input type="hidden" name="intent" value="give up" />
                    <input type="hidden" name="seat" value={seat} />
                    <input type="hidden" name="plan" value="" />
                    <button className="btn btn-ghost touch" aria-label={`Give up ${part}`}>
                      Give up
                    </button>
                  </Form>
                </>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
